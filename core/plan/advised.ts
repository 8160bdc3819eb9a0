import { advisedRatio, endUse } from '../gypsum/end-use'
import { powderClass } from '../gypsum/powders'
import { scoopsFor } from '../gypsum/schools'
import type { Plan } from './types'
import type { WaterRatio } from '../units/quantity'

/**
 * A change of powder or purpose, with the ratio and scoops moved to what is advised for the new pair.
 * A ratio that someone set by hand for the same powder is kept when only other things change.
 * @param printed on the bag that is chosen
 */
export function reAdvised(
  plan: Plan, change: Partial<Pick<Plan, 'endUse' | 'classId' | 'bag'>>, printed?: WaterRatio,
): Partial<Plan> {
  const classId = change.classId ?? plan.classId
  const use = endUse(change.endUse ?? plan.endUse)
  const powder = powderClass(classId)
  const { ratio: span } = powder, recommended = printed ?? span.recommended
  // What stands on the bag outranks its class.
  const low = Math.min(span.low, recommended), high = Math.max(span.high, recommended)
  const ratio = advisedRatio({ ...powder, ratio: { recommended, low, high } }, use)
  return { ...change, ratio, scoop: { ...plan.scoop, perWater: scoopsFor(powder, ratio, plan.scoop.filling) } }
}
