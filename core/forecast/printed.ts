import { centreMoments, MODEL_VERSION } from '../setting/moments'
import type { Printed, Taught } from '../plan/types'
import type { Celsius } from '../units/quantity'
import type { PowderClassId } from '../gypsum/powders'
import { cupInput } from './cup-test'

/**
 * What stands on a bag: its maker knows it better than its class does, until its own pours say more. Packs count from
 * when powder meets water, at room temperature, in a small mix (common practice, no source).
 */
const ROOM: Celsius = 21
/** How far what a pack says is from what a workshop sees, in its logarithm (engineering guesses). */
const SETS_SD = 0.2, WORKING_SD = 0.3

/**
 * The speed that the printed times stand for, as if a pour had taught it.
 * @returns mean and standard deviation of the logarithm of the rate against the class; none where no time is printed
 */
export function taughtByPack(classId: PowderClassId, { ratio, working, sets }: Printed = {}): Taught | undefined {
  if (!working && !sets) return undefined
  const { glossGone, pourBy } = centreMoments(cupInput(classId, ROOM, ratio))
  const told = [
    ...sets ? [{ mean: Math.log(glossGone / sets), precision: SETS_SD ** -2 }] : [],
    ...working ? [{ mean: Math.log(pourBy / working), precision: WORKING_SD ** -2 }] : [],
  ].filter(t => Number.isFinite(t.mean))
  const precision = told.reduce((sum, t) => sum + t.precision, 0)
  if (precision === 0) return undefined
  const mean = told.reduce((sum, t) => sum + t.mean * t.precision, 0) / precision
  return { mean, sd: Math.sqrt(1 / precision), model: MODEL_VERSION }
}
