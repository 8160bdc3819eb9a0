import { Z80, type Basis, type Celsius, type Kilograms, type Seconds } from '../units/quantity'
import { normalCube, sortedQuantile } from '../numeric/sampling'
import {
  dryingOf,
  frontReaches,
  moistureAt,
  wetFaces,
  type Body,
  type Drying,
  type Dryness,
  type Stay,
} from './cast'
import { freeFaces, place } from './places'
import type { WetFace } from './wet-face'
import { choleskyRoot, solveLinear } from '../numeric/linear'

/**
 * What is learnt of a drying cast from weighing and feeling it, and when it will be dry, with ranges. Seconds after it
 * was opened.
 */

export interface Weighed { readonly at: Seconds, readonly mass: Kilograms }
/** “Still cold to the cheek” or “feels dry”: counts for less than a weight. */
interface Felt { readonly at: Seconds, readonly how: 'cold' | 'dry' }

export interface DryingRecord {
  readonly body: Body
  readonly stays: readonly Stay[]
  readonly weighed: readonly Weighed[]
  readonly felt: readonly Felt[]
}

/**
 * Standard deviations of what is not known, in logarithms: speed of evaporation, where the face falls dry, free water
 * against dry mass, and size of the cast (engineering guesses).
 */
const PRIOR = [0.45, 0.40, 0.04, 0.05] as const
/**
 * A kitchen scale, and how far the model itself is off, as a share of the water that was lost (engineering guesses).
 */
const SCALE: Kilograms = 0.001, SCALE_SHARE = 5e-4, MODEL_SHARE = 0.012
/**
 * A cheek tells the wet period from the dry one within about this, in the logarithm of water over that at which the
 * face falls dry (engineering guess).
 */
const FEEL_SD = 0.5
const SAMPLES = 120
/** How dry is dry enough: ends 0.6 and 1.6 times what is said, at 10 and 90 % (engineering guess). */
const ENOUGH_SD = Math.log(1.6 / 0.6) / (2 * Z80)

type Guess = readonly [speed: number, dryFace: number, water: number, size: number]
function dryingFor(
  { body, stays }: DryingRecord,
  wet: readonly WetFace[],
  [speed, dryFace, water, size]: Guess,
): Drying {
  const scaled: Body = {
    ...body,
    dryMass: body.dryMass * Math.exp(PRIOR[3] * size),
    freeWater: body.freeWater * Math.exp(PRIOR[2] * water + PRIOR[3] * size),
  }
  return dryingOf(scaled, stays, { speed: Math.exp(PRIOR[0] * speed), dryFace: Math.exp(PRIOR[1] * dryFace) }, wet)
}

/** What is explained badly: prior, weights and feelings, each in its own standard deviation. */
function residuals(record: DryingRecord, wet: readonly WetFace[], guess: Guess): number[] {
  const drying = dryingFor(record, wet, guess), r: number[] = [...guess]
  for (const w of record.weighed) {
    const water = drying.water(w.at), expected = drying.body.dryMass + water
    r.push((w.mass - expected) / Math.hypot(SCALE, SCALE_SHARE * w.mass, MODEL_SHARE * (drying.body.freeWater - water)))
  }
  for (const f of record.felt) {
    // Cold means that the face is still wet; dry that it is not any more. Either says nothing beyond that.
    const ratio = Math.log(Math.max(1e-3, drying.water(f.at) / (0.3 * drying.body.freeWater)))
    r.push(f.how === 'cold' ? Math.min(0, ratio) / FEEL_SD : Math.max(0, ratio) / FEEL_SD)
  }
  return r
}

/**
 * The likeliest cast and how sure that is: Gauss and Newton with damping (Levenberg 1944, Marquardt 1963) from the
 * prior.
 */
function fit(
  record: DryingRecord,
  wet: readonly WetFace[],
): { readonly guess: Guess, readonly spread: readonly (readonly number[])[] } {
  let guess: Guess = [0, 0, 0, 0], r = residuals(record, wet, guess), damping = 1e-2
  const cost = (x: readonly number[]) => x.reduce((s, v) => s + v * v, 0)
  const slopes = (at: Guess, r0: readonly number[]) =>
    at.map((_, i) => {
      const h = 1e-3, moved = residuals(record, wet, at.map((v, j) => j === i ? v + h : v) as unknown as Guess)
      return moved.map((v, k) => (v - r0[k]!) / h)
    })
  const normal = (j: readonly number[][], lambda: number) =>
    j.map((a, i) => j.map((b, k) => a.reduce((s, v, n) => s + v * b[n]!, 0) * (i === k ? 1 + lambda : 1)))
  for (let step = 0; step < 40 && record.weighed.length + record.felt.length > 0; step++) {
    const j = slopes(guess, r)
    // The prior keeps the normal equations positive: they always have an answer.
    const { x } = solveLinear(normal(j, damping), j.map(a => -a.reduce((s, v, n) => s + v * r[n]!, 0)))!
    const tried = guess.map((v, i) => Math.max(-4, Math.min(4, v + x[i]!))) as unknown as Guess,
      rt = residuals(record, wet, tried)
    if (cost(rt) < cost(r)) {
      const gained = cost(r) - cost(rt)
      guess = tried
      r = rt
      damping = Math.max(1e-6, damping / 4)
      if (gained < 1e-6) break
    }
    else {
      damping *= 6
      if (damping > 1e6) break
    }
  }
  return { guess, spread: solveLinear(normal(slopes(guess, r), 0), [0, 0, 0, 0])!.inverse }
}

export interface DryingForecast {
  /** The likeliest course, and eight of ten on each side of it. */
  readonly centre: Drying
  waterRange(at: Seconds): { readonly low: Kilograms, readonly high: Kilograms }
  massRange(at: Seconds): { readonly low: Kilograms, readonly high: Kilograms }
  /**
   * When it holds no more than this share of its dry mass: `high` may be Infinity. For the last two per cent the slow
   * way by the receding front is the late end.
   */
  reaches(share: number): { readonly value: Seconds, readonly low: Seconds, readonly high: Seconds }
  /** When it is so dry; the same of its late end. */
  dries(to: Dryness): { readonly value: Seconds, readonly low: Seconds, readonly high: Seconds }
  /** Temperature of its face while it is wet, where it stands now. */
  readonly faceWhileWet: Celsius
  /** Water it gives off where it stands now while wet, kg/(m2 s). */
  readonly flux: number
  readonly basis: Basis
}

/** Below this share of water the receding front counts as well. */
const FRONT_BELOW = 0.02

/**
 * @returns the course of a cast's drying with its ranges, from everything that was weighed and felt. A few
 * milliseconds.
 */
export function forecastDrying(record: DryingRecord): DryingForecast {
  const wet = wetFaces(record.body, record.stays),
    { guess, spread } = fit(record, wet),
    root = Float64Array.from(spread.flat()),
    normal = normalCube(SAMPLES, 5)
  choleskyRoot(root, 4)
  const drawn = Array.from({ length: SAMPLES }, (_, s) => {
    const moved = guess.map((g, i) => {
      let at = g
      for (let k = 0; k <= i; k++) at += root[4 * i + k]! * normal[k]![s]!
      return at
    })
    return dryingFor(record, wet, moved as unknown as Guess)
  })
  const enough = normal[4]!.map(z => Math.exp(ENOUGH_SD * z))
  const centre = dryingFor(record, wet, guess), now = record.stays.at(-1)!
  const range = (of: (d: Drying, enough: number) => number) => {
    const sorted = drawn.map((d, s) => of(d, enough[s]!)).sort((a, b) => a - b), value = of(centre, 1)
    return {
      value,
      low: Math.min(value, sortedQuantile(sorted, 0.1)),
      high: Math.max(value, sortedQuantile(sorted, 0.9)),
    }
  }
  const face = wet.at(-1)!, speed = Math.exp(PRIOR[0] * guess[0])
  const withFront = (share: number, r: ReturnType<typeof range>) => {
    if (share >= FRONT_BELOW) return r
    const front = now.from + frontReaches({ ...centre.body, freeWater: centre.water(now.from) }, now, share) / speed
    return { ...r, high: Math.max(r.high, front) }
  }
  return {
    centre, faceWhileWet: face.celsius, flux: speed * face.flux,
    waterRange: at => range(d => d.water(at)),
    massRange: at => range(d => d.body.dryMass + d.water(at)),
    reaches: share => withFront(share, range(d => d.reaches(share))),
    dries: to => withFront(moistureAt(centre.body, to), range((d, times) => d.dries({ ...to, left: times * to.left }))),
    basis: record.weighed.length > 0
      ? {
          kind: 'your own record',
          note: `the drying model, fitted to ${
            record.weighed.length === 1 ? 'one weighing' : `${record.weighed.length} weighings`
          } of this cast`,
        }
      : {
          kind: 'model',
          note: record.felt.length > 0
            ? 'the drying model and what was felt; a weighing says far more'
            : 'the drying model in this air; nothing of this cast was weighed yet',
        },
  }
}

/**
 * Steady is a change under a tenth of a per cent in a day (the usual rule of drying to constant mass, as in EN 13279-2
 * and ASTM C472, from memory).
 */
const STEADY_A_DAY = 1e-3, DAY: Seconds = 86_400, LEAST_APART: Seconds = 12 * 3600
/**
 * Dry mass is known to this; and air that takes less than this from a wet face, kg/(m2 s), takes nothing that a scale
 * shows (engineering guesses).
 */
const NEAR_DRY = 0.02, DEMAND = 12 / 3.6e6

/** What a constant weight was told by, or why it is none. */
export type SteadyCode = 'losing' | 'near-dry' | 'air-would-take' | 'full-of-water'
export interface Steady { readonly steady: boolean, readonly dry: boolean, readonly code: SteadyCode }
/**
 * Whether its weight is constant, and whether that means dry: in cold damp air a cast full of water is steady too, so
 * that the weight must also be near
 * what it comes to without free water, or the air must be asking for water.
 */
export function constantWeight(record: DryingRecord, forecast: DryingForecast): Steady | undefined {
  const last = record.weighed.at(-1),
    before = record.weighed.filter(w => last !== undefined && last.at - w.at >= LEAST_APART).at(-1)
  if (!last || !before) return undefined
  const aDay = Math.abs(before.mass - last.mass) / last.mass / ((last.at - before.at) / DAY)
  if (aDay > STEADY_A_DAY) return { steady: false, dry: false, code: 'losing' }
  const over = last.mass / forecast.centre.body.dryMass - 1
  if (over < NEAR_DRY)
    return { steady: true, dry: true, code: 'near-dry' }
  if (forecast.flux >= DEMAND && freeFaces(place(record.stays.at(-1)!.place)) >= 0.9 && over < 3 * NEAR_DRY)
    return { steady: true, dry: true, code: 'air-would-take' }
  return { steady: true, dry: false, code: 'full-of-water' }
}

/**
 * Finest share of its pore water that a kitchen scale can tell of a cast: a step of the scale over all it held. 0.22 of
 * a die stone of 100 g, 0.02 of plaster of Paris.
 */
export function scaleTells({ dryMass, freeWater }: Pick<Body, 'dryMass' | 'freeWater'>): number {
  const held = freeWater - Math.min(freeWater, moistureAt({ dryMass, freeWater }, { left: 0 }) * dryMass)
  return held > 0 ? Math.min(1, SCALE / held) : 1
}
