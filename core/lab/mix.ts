import type { Addition } from '../gypsum/additions'
import { powderClass, type PowderClassId } from '../gypsum/powders'
import { ratioOf } from '../gypsum/schools'
import type { Stirring } from '../gypsum/stirring'
import type { Plan, PlanResult } from '../plan/types'
import type { CastShape, MouldMaterial, Surroundings } from '../setting/body'
import type { Driving } from '../setting/flow'
import type { centreMoments, MomentsInput } from '../setting/moments'
import type { Celsius, Metres, Seconds, WaterRatio } from '../units/quantity'

/** A mix to try out without pouring it: everything that can be moved in the Lab. */
export interface LabMix {
  readonly classId: PowderClassId
  readonly ratio: WaterRatio
  readonly waterTemperature: Celsius
  readonly roomTemperature: Celsius
  /** Seconds from powder meeting water to the first stir: getting it in, and the soak. */
  readonly soak: Seconds
  readonly stir: Stirring
  readonly additions: readonly Addition[]
  /** Old set plaster in the bucket, share of the powder. */
  readonly dirt: number
  readonly section: Metres
  readonly mould: MouldMaterial
  readonly shape: CastShape
  readonly behind: Surroundings
  readonly driving: Driving
}

export type LabCentre = ReturnType<typeof centreMoments>

/** The recommended mix of a class in a usual small mould. */
export function usualMix(classId: PowderClassId): LabMix {
  return {
    classId,
    ratio: powderClass(classId).ratio.recommended,
    waterTemperature: 20,
    roomTemperature: 20,
    soak: 180,
    stir: { tool: 'hand', minutes: 2 },
    additions: [],
    dirt: 0,
    section: 0.025,
    mould: 'silicone',
    shape: 'open-slab',
    behind: 'bench',
    driving: 'tapped',
  }
}

/** The mix of a plan, with its thickest cast. */
export function mixOfPlan(plan: Plan, result: PlanResult): LabMix {
  const usual = usualMix(plan.classId), { setting } = result
  return {
    ...usual,
    ratio: result.ratio.value,
    waterTemperature: plan.waterTemperature,
    roomTemperature: plan.roomTemperature,
    stir: plan.stir,
    additions: plan.additions,
    soak: setting?.input.stirFrom ?? usual.soak,
    section: setting?.mould.section ?? usual.section,
    mould: setting?.mould.material ?? usual.mould,
    behind: setting?.mould.material === 'ground' ? 'ground' : 'air',
  }
}

/** What the setting model needs of it. The powder is taken as a bag that nobody has measured; both are weighed. */
export function labInput(mix: LabMix): MomentsInput {
  const powder = powderClass(mix.classId)
  return {
    powder,
    ratio: ratioOf('weighed', powder, mix.ratio, mix.waterTemperature),
    waterTemperature: mix.waterTemperature,
    roomTemperature: mix.roomTemperature,
    stir: mix.stir,
    stirFrom: mix.soak,
    additions: mix.additions,
    dirt: mix.dirt,
    section: mix.section,
    mould: mix.mould,
    shape: mix.shape,
    behind: mix.behind,
    driving: mix.driving,
    bagUncertain: false,
    openNotBefore: 0,
    fragile: false,
  }
}
