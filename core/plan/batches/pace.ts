import type { Mix } from '../../gypsum/mix'
import type { CubicMetres, Estimate, Kilograms, Seconds } from '../../units/quantity'
import type { Plan, StepTimes } from '../types'

/**
 * How long one person takes for each step, with its range. Customs (common practice, no source): 0.3 to 0.6 kg go in by
 * hand or spoon in 80 to 100 s, 20 kg through a sieve in 2 to 8 min; a small detailed mould takes 20 to 40 s to fill.
 * The forms through them are engineering guesses.
 */

/** Minutes for a kilogram, its power, and the least that anything takes. */
const SIFT = { perKilogram: 1.2, power: 0.6, least: 1 / 3 } as const
/**
 * Minutes for a litre in one stream, its power, and seconds a mould (5 to 30). Which moulds are finely detailed, and
 * take 20 to 40 s, nobody has told: the range holds them.
 */
const POUR = { perLitre: 1 / 3, power: 0.6, mould: 10 } as const
const DUMPED: Seconds = 12
/** Eight of ten lie within these factors. */
const SIFT_RANGE = 1.6, POUR_RANGE = 2, WAIT_RANGE = 1.3

const PACE: Estimate['basis'] = { kind: 'common practice', note: 'the pace of one person with this amount' }

/** By hand or spoon a bowl is slower than the form says: its late end is at least this, from 0.3 kg on. */
const BY_HAND: Seconds = 100, BY_HAND_FROM: Kilograms = 0.3
function siftRange({ school }: Pick<Plan, 'school'>, powder: Kilograms, duration: Seconds): number {
  if (school === 'dumped' || duration === 0) return SIFT_RANGE
  return Math.max(SIFT_RANGE, BY_HAND * Math.min(1, powder / BY_HAND_FROM) / duration)
}

/** One step after another: what is uncertain of each adds in squares, each way by itself. */
function sum(
  before: Estimate<Seconds> | undefined,
  duration: Seconds,
  within: number,
  late = within,
): Estimate<Seconds> {
  const from = before?.value ?? 0, value = from + duration
  const down = Math.hypot(from - (before?.low ?? 0), duration * (1 - 1 / within))
  const up = Math.hypot((before?.high ?? 0) - from, duration * (late - 1))
  return { value, low: Math.max(0, value - down), high: value + up, basis: PACE }
}

/**
 * How long pouring takes one person: a larger amount runs in a larger stream.
 * @example pouringTime(0.001, 6) // 80 s
 */
export function pouringTime(volume: CubicMetres, moulds: number): Seconds {
  return 60 * POUR.perLitre * (1000 * volume) ** POUR.power + moulds * POUR.mould
}

/** When stirring begins at the centre of its range: sifting at the pace of one person, then the soak. */
export function stirStart(plan: Plan, powder: Kilograms): Seconds {
  return plan.school === 'bag' ? 0 : siftingTime(plan, powder) + plan.soakMinutes * 60
}

/**
 * Sifting or strewing powder into its water; dumped at once, it takes no longer than that. Two do it in half the time;
 * they stir and pour no faster, from one bucket in one stream.
 */
export function siftingTime({ school, hands = 1 }: Pick<Plan, 'school' | 'hands'>, powder: Kilograms): Seconds {
  if (school === 'bag') return 0
  return school === 'dumped' ? DUMPED : 60 * Math.max(SIFT.least, SIFT.perKilogram * powder ** SIFT.power) / hands
}

/** When each step of a batch ends, seconds after its powder met water. */
export function stepTimes(plan: Plan, mix: Pick<Mix, 'powder' | 'slurry'>, moulds: number): StepTimes {
  const sifting = siftingTime(plan, mix.powder)
  const sifted = sum(undefined, sifting, SIFT_RANGE, siftRange(plan, mix.powder, sifting))
  const soaked = sum(sifted, plan.school === 'bag' ? 0 : plan.soakMinutes * 60, WAIT_RANGE)
  const stirred = sum(soaked, plan.stir.minutes * 60, WAIT_RANGE)
  const pouring = pouringTime(mix.slurry, moulds)
  return { sifted, soaked, stirred, poured: sum(stirred, pouring, POUR_RANGE), pouring }
}
