import { advisedRatio, endUse } from '~core/gypsum/end-use'
import { powderClass } from '~core/gypsum/powders'
import { scoopsFor } from '~core/gypsum/schools'
import type { Plan } from '~core/plan/types'

/**
 * A change of powder or purpose, with the ratio and scoops moved to what is advised for the new pair.
 * A ratio that someone set by hand for the same powder is kept when only other things change.
 */
export function reAdvised(plan: Plan, change: Partial<Pick<Plan, 'endUse' | 'classId' | 'bag'>>): Partial<Plan> {
  const classId = change.classId ?? plan.classId
  const use = endUse(change.endUse ?? plan.endUse)
  const powder = powderClass(classId)
  const ratio = advisedRatio(powder, use)
  return { ...change, ratio, scoop: { ...plan.scoop, perWater: scoopsFor(powder, ratio, plan.scoop.filling) } }
}
