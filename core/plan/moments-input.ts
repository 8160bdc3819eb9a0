import { endUse } from '../gypsum/end-use'
import { powderClass } from '../gypsum/powders'
import type { MomentsInput } from '../setting/moments'
import type { Estimate, Metres, Seconds, WaterRatio } from '../units/quantity'
import { BUBBLE_WAYS } from './bubbles'
import { castSection, isHollow } from './batches/coats'
import { settingSurroundings } from './standing'
import type { BagFacts, MouldFacts, Plan } from './types'

/** A cast as a block: as thick as its thickest section, and so wide and long that it holds what its mould takes. */
function widthOf({ volume, section }: Pick<MouldFacts, 'volume' | 'section'>): readonly [Metres, Metres] {
  const side = Math.max(section, Math.sqrt(volume.value / section))
  return [side, side]
}

/**
 * What the setting model needs to know of one kind of mould in this plan.
 * @param stirFrom when stirring begins: the largest batch's, which is sifted longest.
 */
export function momentsInput(
  plan: Plan,
  ratio: Estimate<WaterRatio>,
  mould: Pick<MouldFacts, 'material' | 'wall' | 'section' | 'fragile' | 'volume'>,
  stirFrom: Seconds,
  bag?: BagFacts,
): MomentsInput {
  return {
    powder: powderClass(plan.classId),
    ratio,
    waterTemperature: plan.waterTemperature,
    roomTemperature: plan.roomTemperature,
    stir: plan.stir,
    stirFrom,
    section: castSection(plan, mould),
    across: isHollow(plan) ? undefined : widthOf(mould),
    mould: mould.material,
    wall: mould.wall,
    ground: plan.groundTemperature,
    ...settingSurroundings(plan),
    // The inside of a hollow cast is still, wet air.
    ...isHollow(plan) && { humidity: 1, sun: undefined },
    // A print is always in its ground.
    ...mould.material === 'ground' && { behind: undefined },
    additions: plan.additions,
    bagUncertain: bag?.uncertain ?? true,
    bagRate: bag?.rate && { mean: bag.rate.mean, sd: bag.rate.sd },
    openNotBefore: endUse(plan.endUse).openNotBefore * 60,
    fragile: mould.fragile,
    driving: BUBBLE_WAYS[plan.bubbles ?? 'tap'].driving,
  }
}
