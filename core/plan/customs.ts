import { powderClass } from '../gypsum/powders'
import type { Kilograms, Seconds } from '../units/quantity'
import type { Batch, Plan } from './types'

/** Customs that the model does not reach: where they differ its range widens, and that is said. */

/** A large batch, cool water, gently stirred for a quarter of an hour: it still pours (common practice, no source). */
const LARGE: Kilograms = 5, COOL = 20, QUARTER = 15

/**
 * Until when custom pours a batch, seconds after wetting: a large, cool one of pottery plaster that is stirred gently.
 * @returns undefined where custom has nothing to say beyond the model
 */
export function customaryPourBy(plan: Plan, { mix, steps }: Pick<Batch, 'mix' | 'steps'>): Seconds | undefined {
  const { stir, classId, waterTemperature } = plan
  const gentle = stir.pace === 'gentle' && stir.tool === 'hand' && stir.minutes <= QUARTER
  const pottery = powderClass(classId).id === 'pottery-plaster' && waterTemperature <= COOL
  return gentle && pottery && mix.powder >= LARGE ? steps.poured.high : undefined
}
