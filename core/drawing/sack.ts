import type { KilogramsPerCubicMetre, Kilograms, Metres } from '../units/quantity'

/** A sack of powder, seen from the front, filled as high as what is left of it stands. */

/** A paper sack of 25 kg: so wide, so high, and so thick when it is filled (common practice, no source). */
export const SACK = { width: 0.4, height: 0.66, thickness: 0.13 } as const
/** Of its height the fold and the seam take so much. */
const FOLD = 0.06

/** How high powder stands in a sack, m: no higher than its fold. @param bulk as it lies, kg/m3 */
export function sackLevel(mass: Kilograms, bulk: KilogramsPerCubicMetre): Metres {
  return Math.min(SACK.height - FOLD, Math.max(0, mass) / bulk / (SACK.width * SACK.thickness))
}
