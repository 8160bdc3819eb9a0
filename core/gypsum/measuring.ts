import type { CubicMetres, Kilograms, Metres, WaterRatio } from '../units/quantity'

/**
 * How well a ratio is known from how powder and water are measured. First principles of rounding; what an eye makes of
 * a water line, and what care leaves, are engineering guesses. Check values: tests/published/measuring.test.ts.
 */

/** What powder and water are measured with. */
export interface Measures {
  /** Step of the scale. */
  readonly scale: Kilograms
  /** The jug that water is measured with; weighed as well where there is none. */
  readonly jug?: Jug
}
export interface Jug {
  /** From one line to the next, and how wide it is where it is read. */
  readonly step: CubicMetres
  readonly width: Metres
}
/** A kitchen scale, and a jug of a litre, where nobody has said: guesses. */
export const USUAL_SCALE: Kilograms = 0.001
export const USUAL_JUG: Jug = { step: 50e-6, width: 0.11 }

/** An eye reads a line to this. */
const EYE: Metres = 0.001
/** What stays in the bowl, drips and draws damp, as a standard deviation of the ratio's logarithm. */
export const CARE_SD = 0.0145

/** What is less than a step is not told by it: then the ratio is known to no better than this (engineering guess). */
const UNTOLD = 0.5

/** A mass is the difference of two readings, each off by up to half a step: its standard deviation, kg. */
const rounded = (scale: Kilograms) => scale / Math.sqrt(6)

/**
 * Standard deviation of the ratio's logarithm when both are weighed.
 * @example scaleSd(0.001, 0.1, 0.3) // 0.0142
 */
export function scaleSd(scale: Kilograms, powder: Kilograms, ratio: WaterRatio): number {
  return Math.min(UNTOLD, rounded(scale) * Math.hypot(1 / powder, 1 / (ratio * powder)))
}

/**
 * Least powder whose ratio a scale tells within so much, at two standard deviations, kg.
 * @example leastPowder(0.001, 0.7, 0.01) // 0.142
 */
export function leastPowder(scale: Kilograms, ratio: WaterRatio, within: number): Kilograms {
  return 2 * rounded(scale) / within * Math.hypot(1, 1 / ratio)
}

/**
 * Standard deviation of the logarithm of a volume read in a jug: its lines, and the eye.
 * @example jugSd({ step: 25e-6, width: 0.085 }, 250e-6) // 0.037
 */
export function jugSd({ step, width }: Jug, volume: CubicMetres): number {
  return Math.min(UNTOLD, Math.hypot(step / Math.sqrt(12), Math.PI / 4 * width * width * EYE) / volume)
}

/** Of the ratio's logarithm, however water is measured, and what care leaves. @param powder the least of a batch, kg */
export function measuredSd({ scale, jug }: Measures, powder: Kilograms, ratio: WaterRatio): number {
  if (!(powder > 0)) return CARE_SD
  if (!jug) return Math.hypot(CARE_SD, scaleSd(scale, powder, ratio))
  return Math.hypot(CARE_SD, Math.min(UNTOLD, rounded(scale) / powder), jugSd(jug, ratio * powder / 1000))
}
