import type { Mix } from '../../gypsum/mix'
import { siftsPowder, soaksPowder } from '../../gypsum/schools'
import { foldsIn } from '../../gypsum/ways-in'
import { Z80, type CubicMetres, type Estimate, type Kilograms, type Seconds } from '../../units/quantity'
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
/** Most of the water poured onto its powder. */
const WATERED: Seconds = 20
/** Folding a colour in: a few slow turns. */
const FOLDED_IN: Seconds = 20
/** Eight of ten lie within these factors. */
const SIFT_RANGE = 1.6, POUR_RANGE = 2, WAIT_RANGE = 1.3

const PACE: Estimate['basis'] = { kind: 'common practice', note: 'the pace of one person with this amount' }

/** By hand or spoon a bowl is slower than the form says: its late end is at least this, from 0.3 kg on. */
const BY_HAND: Seconds = 100, BY_HAND_FROM: Kilograms = 0.3
function siftRange({ school }: Pick<Plan, 'school'>, powder: Kilograms, duration: Seconds): number {
  if (!siftsPowder(school)) return SIFT_RANGE
  return Math.max(SIFT_RANGE, BY_HAND * Math.min(1, powder / BY_HAND_FROM) / duration)
}

/** What a person's own pours taught of their pace: the logarithm of what a step took over what it is taken for. */
export interface Learnt { readonly mean: number, readonly sd: number, readonly steps: number }
export type PaceStep = 'sift' | 'stir' | 'pour'
export type Pace = Readonly<Partial<Record<PaceStep, Learnt>>>

/** How far people differ before anything is known of one, and how far one step of theirs is from another (guesses). */
const PEOPLE: Readonly<Record<PaceStep, number>> = { sift: 0.47, stir: 0.4, pour: 0.54 }, STEP_SD = 0.25

/**
 * Learns a pace from steps that were timed: normal in logarithms, precisions add.
 * @param took logarithms of took over taken for
 * @example learnPace('sift', Array(3).fill(Math.log(0.6))).mean // ln .627
 */
export function learnPace(step: PaceStep, took: readonly number[]): Learnt {
  const each = 1 / STEP_SD ** 2, precision = 1 / PEOPLE[step] ** 2 + took.length * each
  return { mean: took.reduce((s, x) => s + x * each, 0) / precision, sd: Math.sqrt(1 / precision), steps: took.length }
}

/** A step at somebody's pace, and the factor that holds eight of ten of theirs; wider only where nothing is learnt. */
function paced(
  usual: Seconds, learnt: Learnt | undefined, within: number,
): { readonly takes: Seconds, readonly within: number } {
  if (!learnt || learnt.steps === 0) return { takes: usual, within }
  const own = Math.exp(Z80 * Math.hypot(learnt.sd, STEP_SD))
  return { takes: usual * Math.exp(learnt.mean), within: Math.min(within, own) }
}

/** One step after another: what is uncertain of each adds in squares, each way by itself. */
function sum(
  before: Estimate<Seconds> | undefined,
  duration: Seconds,
  within: number,
  late = within,
  basis: Estimate['basis'] = PACE,
): Estimate<Seconds> {
  const from = before?.value ?? 0, value = from + duration
  const down = Math.hypot(from - (before?.low ?? 0), duration * (1 - 1 / within))
  const up = Math.hypot((before?.high ?? 0) - from, duration * (late - 1))
  return { value, low: Math.max(0, value - down), high: value + up, basis }
}

/**
 * How long pouring takes one person: a larger amount runs in a larger stream.
 * @example pouringTime(0.001, 6) // 80 s
 */
export function pouringTime(volume: CubicMetres, moulds: number): Seconds {
  return 60 * POUR.perLitre * (1000 * volume) ** POUR.power + moulds * POUR.mould
}

/** When stirring begins at the centre of its range: sifting at the pace of one person, then the soak. */
export function stirStart(plan: Plan, powder: Kilograms, pace: Pace = {}): Seconds {
  if (plan.school === 'bag') return 0
  return paced(siftingTime(plan, powder), siftingPace(plan, pace), SIFT_RANGE).takes + soakingTime(plan)
}

/** How much sooner so much powder is in when it is dumped than when one person sifts it. */
export const dumpedSooner = (powder: Kilograms): Seconds =>
  siftingTime({ school: 'weighed' }, powder) - siftingTime({ school: 'dumped' }, powder)

/** Stirring, with what is folded in at its end. */
export const stirringTime = ({ stir, additions, school }: Pick<Plan, 'stir' | 'additions' | 'school'>): Seconds =>
  60 * stir.minutes + (foldsIn(additions, school) ? FOLDED_IN : 0)
/** Soaking, of schools that do. */
const soakingTime = ({ school, soakMinutes }: Plan): Seconds => soaksPowder(school) ? soakMinutes * 60 : 0
/** Tipping in at once is nobody's pace. */
const siftingPace = ({ school }: Plan, { sift }: Pace): Learnt | undefined => siftsPowder(school) ? sift : undefined

/**
 * Sifting or strewing powder into its water; dumped at once, it takes no longer than that. Two do it in half the time;
 * they stir and pour no faster, from one bucket in one stream.
 */
export function siftingTime({ school, hands = 1 }: Pick<Plan, 'school' | 'hands'>, powder: Kilograms): Seconds {
  if (school === 'bag') return 0
  if (school === 'powder-first') return WATERED
  return school === 'dumped' ? DUMPED : 60 * Math.max(SIFT.least, SIFT.perKilogram * powder ** SIFT.power) / hands
}

/**
 * When each step of a batch ends, seconds after its powder met water.
 * @param pace of who works, where it is known
 */
export function stepTimes(
  plan: Plan, mix: Pick<Mix, 'powder' | 'slurry'>, moulds: number, pace: Pace = {},
): StepTimes {
  const usual = siftingTime(plan, mix.powder), late = siftRange(plan, mix.powder, usual)
  const sifting = paced(usual, siftingPace(plan, pace), late)
  const sifted = sum(undefined, sifting.takes, Math.min(SIFT_RANGE, sifting.within), sifting.within, known(pace.sift))
  const soaked = sum(sifted, soakingTime(plan), WAIT_RANGE)
  const stirring = paced(stirringTime(plan), pace.stir, WAIT_RANGE)
  const stirred = sum(soaked, stirring.takes, stirring.within, stirring.within, known(pace.stir))
  const pour = paced(pouringTime(mix.slurry, moulds), pace.pour, POUR_RANGE)
  const poured = sum(stirred, pour.takes, pour.within, pour.within, known(pace.pour))
  return { sifted, soaked, stirred, poured, pouring: pour.takes }
}

/** Where a pace comes from: of the class of work, or of so many steps of one's own. */
const known = (learnt: Learnt | undefined): Estimate['basis'] => learnt && learnt.steps > 0
  ? { kind: 'your own record', note: `your own pace, from ${learnt.steps} ${learnt.steps === 1 ? 'step' : 'steps'}` }
  : PACE

/** Pouring at somebody's pace. */
export const pouringBy = (volume: CubicMetres, moulds: number, pace: Pace): Seconds =>
  paced(pouringTime(volume, moulds), pace.pour, POUR_RANGE).takes
