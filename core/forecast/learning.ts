import type { Taught } from '../plan/types'
import type { Basis, Celsius, Estimate, Seconds } from '../units/quantity'
import { latinCube, normalQuantile } from '../numeric/sampling'
import { Z80 } from '../units/quantity'
import { speedDoubt } from '../gypsum/additions'
import { MOULD_MATERIALS } from '../setting/body'
import type { Sample } from '../setting/conduction'
import { AFTER_WARMEST, coarseFor, runSetting } from '../setting/hydration'
import { settingMix } from '../setting/setting-mix'
import {
  advisedOpening,
  CONDUCTIVITY_SD,
  COOLING_SD,
  JAMMING_SD,
  NOT_WITHIN,
  TEMPERATURE_SD,
  tappingEnds,
  type Moments,
  type MomentsInput,
} from '../setting/moments'
import { warmToTouch } from '../setting/touch'
import { characterOf, drawCharacter, TAIL_MEDIAN, type BagCharacter, type Three } from '../setting/bag-character'
import { taughtFrom } from './bag'
import { fitSurfaces, onSurface, type Surface } from './surface'

/**
 * The forecast that learns. What is not known of a pour (the bag's speed, what stirring seeded, the late tail, ratio,
 * warmth, jamming, conduction) are
 * two thousand possible pours, each weighed by how well it explains what was marked, read and opened. See
 * docs/model.md.
 */

/**
 * Moments that can be marked, and how far a mark lies from the model's own moment in the logarithm of time: the eye,
 * the hand and the model's misfit together.
 */
const MARKS = {
  'webbing': { moment: 'webbing', sd: 0.10 },
  'will-not-pour': { moment: 'pourBy', sd: 0.13 },
  'warm': { moment: 'warm', sd: 0.17 },
  'gloss-gone': { moment: 'glossGone', sd: 0.077 },
  'warmest': { moment: 'warmest', sd: 0.047 },
  'cold-again': { moment: 'coolAgain', sd: 0.20 },
} as const satisfies Record<string, { readonly moment: Key, readonly sd: number }>
export type TellingSign = keyof typeof MARKS
export const TELLING_SIGNS = Object.keys(MARKS) as readonly TellingSign[]

/** One thing that tells how fast this pour is, in seconds after wetting. */
export type Observation
  = | { readonly what: 'mark', readonly sign: TellingSign, readonly at: Seconds }
  /** Thermometer in the cast. */
    | { readonly what: 'temperature', readonly at: Seconds, readonly celsius: Celsius }
  /** A cast opened, and whether it was hard enough: bounds from one side. */
    | { readonly what: 'opened', readonly at: Seconds, readonly hard: boolean }

const KEYS = [
  'pourBy',
  'webbing',
  'warm',
  'glossGone',
  'finalSet',
  'openFlexible',
  'rigidStrong',
  'thinStrong',
  'warmest',
  'coolAgain',
  'tapUntil',
] as const
type Key = typeof KEYS[number]
/** Place of each moment among the surfaces. */
const PLACE = Object.fromEntries(KEYS.map((k, i) => [k, i])) as Readonly<Record<Key, number>>
/**
 * Moments at which it is so and so strong: what their surfaces hold is how long after the loss of gloss, which the late
 * tail stretches; a quadratic follows that three times better than it does the moment.
 */
const AFTER_GLOSS: ReadonlySet<Key> = new Set(['finalSet', 'openFlexible', 'rigidStrong', 'thinStrong'])
/** Rise to its peak is followed at these shares of it. */
const SHARES = [0.05, 0.1, 0.2, 0.35, 0.5, 0.65, 0.8, 0.9, 0.97] as const

/**
 * Numbers that are drawn: bag's speed, seeds, ratio, warmth, jamming, conduction, the effect of additives where that is
 * doubtful, and the late tail.
 */
const DIMENSIONS = 8
/** Runs that the surfaces are put through; they have 53 terms. */
const RUNS = 84
const CANDIDATES = 2000
/**
 * Beyond what is drawn, the model itself is off by this in the logarithm of a time (engineering guess; cooling more).
 */
const MISFIT = 0.01
/** A thermometer's error with the model's, K; readings of one pour lean the same way, so each counts for half. */
const READING_SD = 0.8, READING_WEIGHT = 0.5
/** Student's t with eight degrees of freedom: one wrong press does not carry the forecast away. */
const FREEDOM = 8
/**
 * Some press everything early and some everything late, by this in the logarithm of time: each is so likely
 * (engineering guess).
 */
const HABITS = [{ late: -0.08, share: 0.15 }, { late: 0, share: 0.7 }, { late: 0.08, share: 0.15 }] as const
/** Marks farther from the best explanation than this many of their own deviations contradict each other. */
const CONTRADICTION = 2

/** Everything that does not depend on what was observed: surfaces of one kind of mould. */
export interface Prior {
  readonly input: MomentsInput
  /** Logarithms of the moments, in the order of their keys, and of the times of rise. */
  readonly times: readonly Surface[]
  readonly rises: readonly Surface[]
  /** Rise at the warmest, K. */
  readonly peak: Surface
  readonly bag: BagCharacter
  readonly start: Celsius
}

/** Seconds at which the hottest place has risen by each share of its peak. */
function riseTimes(samples: readonly Sample[], warmest: Seconds, hottest: Celsius, start: Celsius): number[] {
  const until = (rise: number): Seconds => {
    for (let i = 1; i < samples.length; i++) {
      const [a, b] = [samples[i - 1]!, samples[i]!]
      if (b.t > warmest + 60) break
      // Cold water and a warm room also warm a mix: only what comes with setting counts.
      if (b.hottest - start >= rise && b.mean > 0.02)
        return b.hottest === a.hottest
          ? b.t
          : a.t + (b.t - a.t) * Math.max(0, Math.min(1, (start + rise - a.hottest) / (b.hottest - a.hottest)))
    }
    return warmest
  }
  return SHARES.map(s => until(s * Math.max(0.1, hottest - start)))
}

/**
 * Works the surfaces out: a hundred runs of the setting model. @throws RangeError with a sentence when the mix cannot
 * be worked out.
 */
export function priorOf(input: MomentsInput): Prior {
  const cube = latinCube(RUNS, DIMENSIONS)
  const points = Array.from({ length: RUNS }, (_, i) => cube.map(values => 1.15 * normalQuantile(values[i]!)))
  const resolution = coarseFor(input.section)
  const ratioSd = Math.log(input.ratio.high / input.ratio.low) / (2 * Z80)
  const doubtful = speedDoubt(input.additions ?? []) > 0
  const bag = characterOf(input)
  const start = settingMix({ ...input, ratio: input.ratio.value }).start
  const ln = (t: number) => Math.log(Math.max(1, Math.min(NOT_WITHIN, t)))
  const values = points.map((z) => {
    const [speed, seeds, ratio, warmth, jamming, conduction, effect, tail] = z as [
      number,
      number,
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    const setting = {
      ...input,
      ratio: input.ratio.value * Math.exp(ratioSd * ratio),
      waterTemperature: input.waterTemperature + TEMPERATURE_SD * warmth,
      roomTemperature: input.roomTemperature + TEMPERATURE_SD * warmth,
    }
    const samples: Sample[] = [], [ownRate, ownSeeds, ownTail] = drawCharacter(bag, [speed, seeds, tail])
    const run = runSetting(
      setting,
      {
        rate: Math.exp(ownRate),
        seeds: Math.exp(ownSeeds),
        tail: TAIL_MEDIAN * Math.exp(ownTail),
        jamming: Math.exp(JAMMING_SD * jamming),
        conductivity: Math.exp(CONDUCTIVITY_SD * conduction),
        effect: doubtful ? effect : 0,
      },
      resolution,
      0,
      s => samples.push(s),
    )
    const { moments } = run
    const rises = riseTimes(samples, moments.warmest, moments.warmestTemperature, samples[0]!.hottest)
    const warm = warmToTouch(samples, setting.roomTemperature) ?? NOT_WITHIN
    const own: Record<Key, number> = { ...moments, warm, tapUntil: tappingEnds(setting, input, run) }
    const held = KEYS.map(k => ln(AFTER_GLOSS.has(k) && own[k] < NOT_WITHIN ? own[k] - own.glossGone : own[k]))
    return [...held, ...rises.map(ln), moments.warmestTemperature - samples[0]!.hottest]
  })
  const surfaces = fitSurfaces(points, values, DIMENSIONS)
  return {
    input,
    bag,
    start,
    times: surfaces.slice(0, KEYS.length),
    rises: surfaces.slice(KEYS.length, -1),
    peak: surfaces.at(-1)!,
  }
}

/** Possible pours: their numbers, and what each weighs. */
interface Candidates { readonly z: Float64Array, readonly weight: Float64Array }

let prepared: { readonly z: Float64Array, readonly misfit: Float64Array } | undefined
/** The same points each time, so that a forecast depends on what happened and nothing else. */
function preparedPoints() {
  if (prepared) return prepared
  const cube = latinCube(CANDIDATES, DIMENSIONS + 1),
    z = new Float64Array(CANDIDATES * DIMENSIONS),
    misfit = new Float64Array(CANDIDATES)
  for (let i = 0; i < CANDIDATES; i++) {
    for (let d = 0; d < DIMENSIONS; d++) z[i * DIMENSIONS + d] = normalQuantile(cube[d]![i]!)
    misfit[i] = normalQuantile(cube[DIMENSIONS]![i]!)
  }
  prepared = { z, misfit }
  return prepared
}

/** Logarithm of a candidate's moment. */
function lnMoment(prior: Prior, key: Key, z: Float64Array, at: number): number {
  const ln = onSurface(prior.times[PLACE[key]]!, z, at)
  if (!AFTER_GLOSS.has(key)) return ln
  return Math.log(Math.exp(ln) + Math.exp(onSurface(prior.times[PLACE.glossGone]!, z, at)))
}
/**
 * And of when it can be opened: strong enough for its mould, a rigid or thin piece not before it is past its warmest.
 */
function lnOpen(prior: Prior, z: Float64Array, at: number): number {
  const { mould, fragile } = prior.input, warmest = lnMoment(prior, 'warmest', z, at)
  const byMould = MOULD_MATERIALS[mould].flexible
    ? lnMoment(prior, 'openFlexible', z, at)
    : Math.max(lnMoment(prior, 'rigidStrong', z, at), warmest)
  return fragile
    ? Math.max(byMould, lnMoment(prior, 'thinStrong', z, at), Math.log(Math.exp(warmest) + AFTER_WARMEST))
    : byMould
}

const student = (r: number) => -(FREEDOM + 1) / 2 * Math.log1p(r * r / FREEDOM)
/**
 * Logarithm of the normal distribution function; by its tail series far out (Abramowitz and Stegun 7.1.26 within, from
 * memory).
 */
function logNormalCdf(x: number): number {
  if (x < -5) return -x * x / 2 - Math.log(-x * Math.sqrt(2 * Math.PI))
  const t = 1 / (1 + 0.3275911 * Math.abs(x) / Math.SQRT2),
    y = 1
      - ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t
      * Math.exp(-x * x / 2)
  return Math.log(Math.max(1e-12, x >= 0 ? (1 + y) / 2 : (1 - y) / 2))
}

/** Temperature of a candidate at a moment up to its peak; undefined after it, where mould and air decide. */
function risenAt(prior: Prior, z: Float64Array, at: number, lnT: number): number | undefined {
  let [t0, s0] = [-Infinity, 0]
  for (let k = 0; k < SHARES.length; k++) {
    const t1 = onSurface(prior.rises[k]!, z, at)
    if (lnT < t1)
      return onSurface(prior.peak, z, at) * (t0 === -Infinity
        ? SHARES[0] * Math.exp(2 * (lnT - t1))
        : s0 + (SHARES[k]! - s0) * (lnT - t0) / Math.max(1e-6, t1 - t0))
    t0 = t1
    s0 = SHARES[k]!
  }
  return undefined
}

/** Logarithm of how well a candidate explains what was seen. @param widened multiplies the deviations of marks. */
function explains(prior: Prior, seen: readonly Observation[], z: Float64Array, at: number, widened: number): number {
  let sum = 0
  let offset: number | undefined
  const marks = HABITS.map(p => Math.log(p.share))
  for (const o of seen) {
    const lnT = Math.log(Math.max(1, o.at))
    if (o.what === 'mark') {
      const { moment, sd } = MARKS[o.sign], off = lnT - lnMoment(prior, moment, z, at)
      for (let i = 0; i < HABITS.length; i++) marks[i]! += student((off - HABITS[i]!.late) / (sd * widened))
    }
    else if (o.what === 'temperature') {
      const risen = risenAt(prior, z, at, lnT)
      if (risen === undefined) continue
      // Only the rise since the first reading counts: where the thermometer sits is not known to the degree.
      if (offset === undefined) offset = o.celsius - risen
      else sum += READING_WEIGHT * student((o.celsius - risen - offset) / (READING_SD * widened))
    }
    else {
      const r = (lnT - lnOpen(prior, z, at)) / (0.1 * widened)
      sum += logNormalCdf(o.hard ? r : -r)
    }
  }
  const most = Math.max(...marks)
  return sum + most + Math.log(marks.reduce((all, x) => all + Math.exp(x - most), 0))
}

/**
 * Weighs the prior's candidates; where few of them explain what was seen, draws new ones around those and weighs these.
 */
function weighed(prior: Prior, seen: readonly Observation[], widened: number): Candidates {
  const { z } = preparedPoints()
  const weight = new Float64Array(CANDIDATES)
  if (seen.length === 0) return { z, weight: weight.fill(1 / CANDIDATES) }
  for (let i = 0; i < CANDIDATES; i++) weight[i] = explains(prior, seen, z, i * DIMENSIONS, widened)
  normalise(weight)
  let held: Candidates = { z, weight }
  for (let round = 0; round < 2 && 1 / weightSquares(held.weight) < 250; round++)
    held = drawnAround(prior, seen, held, widened)
  return held
}
const weightSquares = (w: Float64Array) => w.reduce((s, x) => s + x * x, 0)
/** From logarithms to shares. */
function normalise(weight: Float64Array): void {
  let top = -Infinity, sum = 0
  for (const w of weight) top = Math.max(top, w)
  for (let i = 0; i < weight.length; i++) sum += weight[i] = Math.exp(weight[i]! - top)
  for (let i = 0; i < weight.length; i++) weight[i]! /= sum
}

/**
 * New candidates around the weighed ones (population Monte Carlo; Cappé and others 2004): a normal a third wider than
 * they are.
 */
function drawnAround(prior: Prior, seen: readonly Observation[], from: Candidates, widened: number): Candidates {
  const D = DIMENSIONS, mean = new Float64Array(D), cov = new Float64Array(D * D)
  for (let i = 0; i < CANDIDATES; i++) {
    const w = from.weight[i]!
    for (let a = 0; a < D; a++) mean[a]! += w * from.z[i * D + a]!
  }
  for (let i = 0; i < CANDIDATES; i++)
    for (let a = 0; a < D; a++)
      for (let b = 0; b <= a; b++) cov[a * D + b]! += from.weight[i]! * (from.z[i * D + a]! - mean[a]!)
        * (from.z[i * D + b]! - mean[b]!)
  const L = new Float64Array(D * D)
  for (let a = 0; a < D; a++) {
    for (let b = 0; b <= a; b++) {
      let sum = 1.75 * cov[a * D + b]! + (a === b ? 0.01 : 0)
      for (let k = 0; k < b; k++) sum -= L[a * D + k]! * L[b * D + k]!
      L[a * D + b] = a === b ? Math.sqrt(Math.max(1e-6, sum)) : sum / L[b * D + b]!
    }
  }
  const z = new Float64Array(CANDIDATES * D), weight = new Float64Array(CANDIDATES), { z: base } = preparedPoints()
  for (let i = 0; i < CANDIDATES; i++) {
    let inner = 0, outer = 0
    for (let a = 0; a < D; a++) {
      let x = mean[a]!
      for (let b = 0; b <= a; b++) x += L[a * D + b]! * base[i * D + b]!
      z[i * D + a] = x
      inner += base[i * D + a]! ** 2
      outer += x * x
    }
    // How much likelier it is under the prior and what was seen than where it was drawn from; constants fall out.
    weight[i] = explains(prior, seen, z, i * D, widened) - outer / 2 + inner / 2
  }
  normalise(weight)
  return { z, weight }
}

interface Learnt {
  /** By kind of mould, in the order of the priors given. */
  readonly moments: readonly Moments[]
  readonly taught?: Taught
  /** Set when marks contradict each other: the one that fits worst. */
  readonly contradiction?: TellingSign
}

/**
 * What the moments are now.
 * @param priors of every kind of mould of the batch; marks are taken to be about the first, which opens last.
 */
export function learn(priors: readonly Prior[], told: readonly Observation[]): Learnt {
  // In the order of time, whatever order they came in: the first reading of a thermometer is what the others are held
  // against.
  const seen = [...told].sort((a, b) => a.at - b.at)
  const [first] = priors
  if (!first) return { moments: [] }
  let held = weighed(first, seen, 1)
  let contradiction: Learnt['contradiction']
  const worst = worstOf(first, seen, held)
  if (worst && worst.off > CONTRADICTION) {
    // Every mark is trusted less, by as much as the worst of them is off (Birge ratio), and that is said.
    held = weighed(first, seen, worst.off / CONTRADICTION * 1.5)
    contradiction = worst.sign
  }
  const moments = priors.map(p => momentsFrom(p, held, seen))
  return { moments, taught: seen.length === 0 ? undefined : taughtBy(first, held), contradiction }
}

/** The mark that lies farthest from where the weighed candidates have it, in its own deviations. */
function worstOf(
  prior: Prior,
  seen: readonly Observation[],
  { z, weight }: Candidates,
): { readonly sign: TellingSign, readonly off: number } | undefined {
  let worst: { sign: TellingSign, off: number } | undefined
  for (const o of seen) {
    if (o.what !== 'mark') continue
    const { moment, sd } = MARKS[o.sign]
    let mean = 0
    for (let i = 0; i < CANDIDATES; i++)
      if (weight[i]! > 1e-9) mean += weight[i]! * lnMoment(prior, moment, z, i * DIMENSIONS)
    const off = Math.abs(Math.log(Math.max(1, o.at)) - mean) / sd
    if (!worst || off > worst.off) worst = { sign: o.sign, off }
  }
  return worst
}

function momentsFrom(prior: Prior, { z, weight }: Candidates, seen: readonly Observation[]): Moments {
  const { misfit } = preparedPoints()
  const told = seen.length > 0
  const basis: Basis = {
    kind: 'model',
    note: told
      ? 'the setting model, weighed by what you marked'
      : '2 000 possible pours of the setting model; nothing marked yet',
  }
  const time = (ln: (at: number) => number, sd = told ? MISFIT : 0): Estimate<Seconds> => {
    const drawn = new Float64Array(CANDIDATES).map((_, i) => Math.exp(ln(i * DIMENSIONS) + sd * misfit[i]!))
    const [low, value, high] = quantiles(drawn, weight, [0.1, 0.5, 0.9]) as [number, number, number]
    return {
      low: Math.min(NOT_WITHIN, low),
      value: Math.min(NOT_WITHIN, value),
      high: Math.min(NOT_WITHIN, high),
      basis,
    }
  }
  const at = (key: Key) => time(i => lnMoment(prior, key, z, i))
  const peaks = new Float64Array(CANDIDATES).map((_, i) => prior.start + onSurface(prior.peak, z, i * DIMENSIONS))
  const [low, value, high] = quantiles(peaks, weight, [0.1, 0.5, 0.9]) as [number, number, number]
  const openEarliest = time(i => lnOpen(prior, z, i)),
    coolAgain = time(i => lnMoment(prior, 'coolAgain', z, i), COOLING_SD)
  return {
    pourBy: at('pourBy'),
    webbing: at('webbing'),
    glossGone: at('glossGone'),
    finalSet: at('finalSet'),
    warmest: at('warmest'),
    warmestTemperature: { low, value, high, basis },
    coolAgain,
    openEarliest,
    tapUntil: at('tapUntil'),
    open: advisedOpening(openEarliest, coolAgain, prior.input.openNotBefore),
  }
}

/**
 * Places that fit beside a value in one exact whole number, and the largest value that does: 2^53 over both, s or degC.
 */
const PLACES = 4096, MOST_PACKED = Number.MAX_SAFE_INTEGER / 1000 / PLACES - 1
/**
 * Weighted quantiles, to a thousandth of a second or degree: value and place are packed into one number, which sorts
 * many times faster than pairs do.
 */
export function quantiles(values: Float64Array, weight: Float64Array, at: readonly number[]): number[] {
  if (values.length > PLACES) throw new RangeError(`more than ${PLACES} values cannot be packed`)
  const packed = values.map((v, i) =>
    Math.round(Math.min(MOST_PACKED, Math.max(-MOST_PACKED, v)) * 1000) * PLACES + i).sort()
  const result: number[] = []
  let sum = 0
  for (const p of packed) {
    const i = p - Math.floor(p / PLACES) * PLACES
    sum += weight[i]!
    while (result.length < at.length && sum >= at[result.length]!) result.push(values[i]!)
  }
  while (result.length < at.length) result.push(values[packed.at(-1)! - Math.floor(packed.at(-1)! / PLACES) * PLACES]!)
  return result
}

/** Places of speed, seeds and tail among the numbers that are drawn. */
const OF_THE_BAG = [0, 1, 7] as const
/** What this pour tells of its bag. */
function taughtBy(prior: Prior, { z, weight }: Candidates): Taught | undefined {
  const mean = [0, 0, 0], square = OF_THE_BAG.map(() => [0, 0, 0])
  for (let i = 0; i < CANDIDATES; i++) {
    const w = weight[i]!, own = OF_THE_BAG.map(d => z[i * DIMENSIONS + d]!)
    own.forEach((x, a) => {
      mean[a]! += w * x
      for (let b = 0; b < 3; b++) square[a]![b]! += w * x * own[b]!
    })
  }
  const spread = square.map((row, a) => row.map((x, b) => x - mean[a]! * mean[b]!))
  return taughtFrom(prior.bag, mean as unknown as Three, spread)
}

/** A moment that moves by less than this, or by less than this share of its time, is as planned. */
const AS_PLANNED: Seconds = 90, AS_PLANNED_SHARE = 0.06
/** How far a moment has moved, s: later when above 0. Undefined while it is as planned. */
export function momentShift(planned: Estimate<Seconds>, now: Estimate<Seconds>): Seconds | undefined {
  const by = now.value - planned.value
  return Math.abs(by) < AS_PLANNED || Math.abs(by) < AS_PLANNED_SHARE * planned.value ? undefined : by
}
