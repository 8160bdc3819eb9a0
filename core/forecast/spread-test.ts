import { powderClass, type PowderClassId } from '../gypsum/powders'
import { settingCurve } from '../setting/hydration'
import { settingMix, type SettingInput } from '../setting/setting-mix'
import { pattyThickness, READABLE, spreadOf } from '../setting/spread'
import type { Celsius, Metres, Seconds, WaterRatio } from '../units/quantity'
import { cupInput } from './cup-test'

/** The spread test of a bag: what its flow says of the ratio, and whether the bag is as it was. */

/** Filled three minutes after powder met water: by then the minute counts. */
export const SPREAD_AT: Seconds = 180

/** One reading: as it was mixed, and the mean of two diameters at right angles. */
export interface SpreadReading {
  readonly ratio: WaterRatio
  readonly celsius: Celsius
  readonly diameter: Metres
  /** When the ring was lifted, after powder met water; three minutes unless said. */
  readonly after?: Seconds
}

const inputOf = (classId: PowderClassId, ratio: WaterRatio, celsius: Celsius): SettingInput =>
  ({ ...cupInput(classId, celsius), ratio })

/** How wide a mix of this class runs so long after wetting, m. */
export function spreadExpected(
  classId: PowderClassId, ratio: WaterRatio, celsius: Celsius, after: Seconds = SPREAD_AT,
): Metres {
  const input = inputOf(classId, ratio, celsius)
  const tau = settingCurve(input, after, 20).stiffness.at(-1)!
  return spreadOf(tau, settingMix(input).amounts.slurryDensity)
}

/** How much wider, in logarithms, for how much more water: 1 of plaster of Paris, 1.6 of a stone. */
function slope(classId: PowderClassId, { ratio, celsius, after }: SpreadReading): number {
  const at = (w: number) => Math.log(spreadExpected(classId, w, celsius, after))
  return (at(1.05 * ratio) - at(0.95 * ratio)) / Math.log(1.05 / 0.95)
}

/**
 * Standard deviations in the logarithm of a diameter: of a bag against its class, of a reading, and from day to day
 * (from memory). A class is known far less well than a bag: a first test only names the flow.
 */
const BAG_SD = 0.07, READING_SD = 0.03, DAY_SD = 0.02
const SEEN = READING_SD ** 2 + DAY_SD ** 2

/** What a bag's tests taught of its spread against its class: mean and standard deviation of the logarithm. */
export function bagSpread(
  classId: PowderClassId, readings: readonly SpreadReading[],
): { readonly mean: number, readonly sd: number } {
  const precision = 1 / BAG_SD ** 2 + readings.length / SEEN
  const sum = readings.reduce((s, r) =>
    s + Math.log(r.diameter / spreadExpected(classId, r.ratio, r.celsius, r.after)) / SEEN, 0)
  return { mean: sum / precision, sd: Math.sqrt(1 / precision) }
}

export type SpreadCode = 'stiff' | 'too-thin' | 'first' | 'as-it-was' | 'wider' | 'narrower'
export interface SpreadSaid {
  readonly code: SpreadCode
  /** What this bag was expected to run to. */
  readonly expected: Metres
  /** The ratio that would run so wide from this bag: a question, never a correction. */
  readonly like: WaterRatio
}

/**
 * What a diameter says, against what this bag did before.
 * @param before its readings until now, which are what the bag is known by
 */
export function readSpread(classId: PowderClassId, now: SpreadReading, before: readonly SpreadReading[]): SpreadSaid {
  const { ratio, celsius, diameter, after } = now, { mean, sd } = bagSpread(classId, before)
  const expected = spreadExpected(classId, ratio, celsius, after) * Math.exp(mean)
  const off = Math.log(diameter / expected)
  const like = ratio * Math.exp(off / Math.max(0.3, slope(classId, now)))
  const said = (code: SpreadCode): SpreadSaid => ({ code, expected, like })
  if (diameter < READABLE.from) return said('stiff')
  if (diameter > READABLE.to || pattyThickness(diameter) < READABLE.edge) return said('too-thin')
  if (before.length === 0) return said('first')
  if (Math.abs(off) <= 2 * Math.sqrt(SEEN + sd ** 2)) return said('as-it-was')
  return said(off > 0 ? 'wider' : 'narrower')
}

/** Water of a mix for the test: enough to fill the ring twice. */
export const SPREAD_POWDER = 0.1
export const spreadRatio = (classId: PowderClassId): WaterRatio => powderClass(classId).ratio.recommended
