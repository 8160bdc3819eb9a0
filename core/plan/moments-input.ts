import { endUse } from '../gypsum/end-use'
import { powderClass } from '../gypsum/powders'
import type { MomentsInput } from '../setting/moments'
import { vesselDiameter, vesselHeight } from '../mould/gauge/vessel'
import type { Estimate, Metres, Seconds, WaterRatio } from '../units/quantity'
import { BUBBLE_WAYS } from './bubbles'
import { castSection, isHollow } from './batches/coats'
import { settingSurroundings } from './standing'
import type { Batch, MouldFacts, Plan, PlanWorld } from './types'

/** A cast as a block: as thick as its thickest section, and so wide and long that it holds what its mould takes. */
function widthOf({ volume, section }: Pick<MouldFacts, 'volume' | 'section'>): readonly [Metres, Metres] {
  const side = Math.max(section, Math.sqrt(volume.value / section))
  return [side, side]
}

/**
 * Heat that a square metre of a light bucket's wetted wall takes up, J/(m2 K): 2.5 mm of plastic 4 300, 0.8 mm of steel
 * 2 900 (masses by 1 800 and 460 J/(kg K)); thicknesses are engineering guesses. It stands at the room's temperature.
 */
const BUCKET_WALL = 4000

/** Heat that a bucket takes up from a batch, J/K by kilogram of its powder; nothing where none is used. */
function bucketHeat(plan: Plan, { bucket }: Pick<PlanWorld, 'bucket'>, batch?: Mixed): number | undefined {
  if (plan.school === 'bag' || !bucket || !batch) return undefined
  const { vessel } = bucket, height = Math.min(vessel.height, vesselHeight(vessel, batch.mix.slurry))
  const wetted = Math.PI * vessel.bottom ** 2 / 4
    + Math.PI * height * (vessel.bottom + vesselDiameter(vessel, height)) / 2
  return BUCKET_WALL * wetted / batch.mix.powder
}
type Mixed = Pick<Batch, 'mix'>

/** The batch that is sifted longest: what is told of a whole plan is told by it. */
export const largestOf = <T extends Mixed>(batches: readonly T[]): T =>
  batches.reduce((a, b) => b.mix.powder > a.mix.powder ? b : a)

/**
 * What the setting model needs to know of one kind of mould in this plan.
 * @param stirFrom when stirring begins: the largest batch's, which is sifted longest.
 * @param batch that is mixed in the bucket, where its heat counts
 */
export function momentsInput(
  plan: Plan,
  ratio: Estimate<WaterRatio>,
  mould: Pick<MouldFacts, 'material' | 'wall' | 'section' | 'fragile' | 'volume'>,
  stirFrom: Seconds,
  world: Pick<PlanWorld, 'bag' | 'bucket'> = {},
  batch?: Mixed,
): MomentsInput {
  const { bag } = world
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
    bucket: bucketHeat(plan, world, batch),
    bagUncertain: bag?.uncertain ?? true,
    bagRate: bag?.rate,
    openNotBefore: endUse(plan.endUse).openNotBefore * 60,
    fragile: mould.fragile,
    driving: BUBBLE_WAYS[plan.bubbles ?? 'tap'].driving,
  }
}
