import type { Celsius, Seconds } from '../units/quantity'

/** What the heat of a setting cast would do to skin held against its hottest part. */
export interface SkinHeat {
  /** Seconds above 43 degC. */
  readonly above43: Seconds
  /** Cumulative equivalent minutes at 43 degC. */
  readonly dose: number
}

export const NO_SKIN_HEAT: SkinHeat = { above43: 0, dose: 0 }

/** Above this dose burns are to be expected (engineering guess on the safe side of published thresholds for skin). */
export const BURN_DOSE = 10

/**
 * Adds some time at a temperature: each degree above 43 counts double, each degree below a quarter, nothing below 39
 * (cumulative equivalent minutes at 43 degC: Sapareto and Dewey 1984, Int. J. Radiat. Oncol. Biol. Phys. 10:787, from memory).
 */
export function addSkinHeat(before: SkinHeat, duration: Seconds, t: Celsius): SkinHeat {
  if (t < 39) return before
  return { above43: before.above43 + (t > 43 ? duration : 0), dose: before.dose + duration / 60 * (t > 43 ? 0.5 : 0.25) ** (43 - t) }
}
