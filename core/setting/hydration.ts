import type { Celsius, Metres, Seconds } from '../units/quantity'

import { shellsOf, CONDUCTIVITY, type Body } from './body'
import { conductionOf, ledgerOf, samplingOf, type HeatLedger, type Sample } from './conduction'
import { growingStrength, openingStrengths } from './hardening'
import { fastTemperatureFactor, isothermalTime } from './kinetics'

import { plasticViscosity, pourLimit, shareAtYield, webbingLimit, yieldStress, type Thickening } from './flow'

import { reactionOf } from './reaction'
import { bodyOf, CENTRE, settingMix, type Scatter, type SettingInput, type SettingMix } from './setting-mix'
import { watchCooling } from './touch'

/**
 * Hydration of a mix, coupled to heat that flows one way through cast and mould into what surrounds them. Equations and
 * sources: docs/model.md.
 */

/** Shells of the cast, and steps up to the loss of gloss. */
export interface Resolution { readonly cells: number, readonly steps: number }
export const FINE: Resolution = { cells: 20, steps: 50 }
/**
 * For many samples: thick pieces need more shells. Its milestones stay within 1 % of the fine run, and within 2 % for
 * when it is cool again (checked in tests; at most 1.1 % in 6 000 drawn casts).
 */
export function coarseFor(section: Metres): Resolution {
  return section <= 0.03 ? { cells: 8, steps: 36 } : { cells: 14, steps: 40 }
}
/**
 * Moments of one cast in seconds after powder meets water; Infinity when the mix never gets there within twelve hours.
 * Cool again is what a hand feels of its outside.
 */
export interface SettingMoments {
  readonly pourBy: Seconds
  readonly webbing: Seconds
  readonly glossGone: Seconds
  /** Initial set as a needle has it: it no longer sinks in. */
  readonly initialSet: Seconds
  /** Final set as a needle has it: it leaves no mark. */
  readonly finalSet: Seconds
  readonly openFlexible: Seconds
  readonly openRigid: Seconds
  readonly openThin: Seconds
  /** Strong enough for a rigid mould, and for thin parts, whether or not it is past its warmest. */
  readonly rigidStrong: Seconds
  readonly thinStrong: Seconds
  readonly warmest: Seconds
  readonly warmestTemperature: Celsius
  readonly coolAgain: Seconds
}

export interface SettingRun {
  readonly moments: SettingMoments
  readonly mix: SettingMix
  /** Mean course of the cast until the gloss has gone: what pouring and bubbles feel. */
  readonly course: Thickening
  readonly heat: HeatLedger
  /** Hydration of the slowest place one hour after wetting. */
  readonly afterHour: number
  /** Seconds that the hottest place is above 43 degC: long enough there burns skin. */
  readonly above43: Seconds
}

export interface SettingCurve {
  /** Seconds after wetting, sample by sample. */
  readonly time: readonly number[]
  /** Hottest place of the cast and its open (or mould) face, degC. */
  readonly temperature: readonly number[]
  readonly face: readonly number[]
  /** Mean degree of hydration, 0 to 1. */
  readonly hydration: readonly number[]
  /** Yield stress, Pa (capped at 20 kPa), plastic viscosity, Pa s (capped at 20), and wet strength, MPa. */
  readonly stiffness: readonly number[]
  readonly viscosity: readonly number[]
  readonly strength: readonly number[]
}

/**
 * What a needle stands on. Pressures: light Gillmore 1/4 lb on 1/12 in, 315 kPa; heavy 1 lb on 1/24 in, 5.04 MPa; Vicat
 * 300 g on 1.00 mm, 3.75 MPa (ASTM C266 and C191, from memory; first principles). Initial: yield stress of a ninth to a
 * sixth of the light one, 35 to 53 kPa, Pa. Final: no mark where hardness, one to three times strength, bears the heavy
 * one: 1.7 to 5.0 MPa, centre 3.4 (hardness of half as much again, engineering guess; the threefold of Tabor 1951 holds
 * for plastic bodies), and at least half hydrated. Gloss is what the eye has, 20 kPa. Dental times are needle times.
 */
export const NEEDLE = { initial: 45_000, final: 3.4, finalLow: 1.7, finalHigh: 5.0 } as const
/** A weak mix is always marked: it counts as set when it has this share of its strength (engineering guess). */
const NEARLY_ALL = 0.9

const LONGEST: Seconds = 12 * 3600, HOUR: Seconds = 3600
const LONGEST_STEP: Seconds = 60
/** Thin parts are left this long beyond the warmest. */
export const AFTER_WARMEST: Seconds = 300

/**
 * Integrates reaction and conduction: Strang splitting, half a step of reaction (midpoint, each shell without heat
 * flow), a full step of conduction, half a step of reaction. Second order in time and space.
 * @param each is called at every step and stops the run with `false`.
 */
function integrate(
  mix: SettingMix,
  body: Body,
  resolution: Resolution,
  conductivity: number,
  each: (s: Sample) => boolean,
): HeatLedger {
  const shells = shellsOf(body, resolution.cells, conductivity)
  const temperature = new Float64Array(shells.cells + 1).fill(mix.start), alpha = new Float64Array(shells.cells)
  temperature[shells.cells] = shells.behind // the wall's middle
  const glossGuess = isothermalTime(
    mix.k * Math.max(0.02, fastTemperatureFactor(mix.start)),
    mix.seedsAt(Infinity),
    Math.min(0.99, mix.alphaSet / mix.alphaMax),
  )
  const react = reactionOf(mix), cast = { mix, body, shells, alpha, temperature }
  const { conduct, flow } = conductionOf(cast), sample = samplingOf(cast, flow)
  let dt = Math.min(20, Math.max(0.5, glossGuess / resolution.steps)), t = 0
  let go = each(sample(t))
  while (go && t < LONGEST) {
    const seeds = mix.seedsAt(t + dt / 2)
    react(alpha, temperature, shells.cells, dt / 2, seeds)
    conduct(dt)
    react(alpha, temperature, shells.cells, dt / 2, seeds)
    t += dt
    const now = sample(t)
    // Once it is all gypsum only cooling is left, and that is slow.
    if (now.slowest > 0.985 * mix.alphaMax) dt = Math.min(LONGEST_STEP, dt * 1.2)
    go = each(now)
  }
  return ledgerOf(cast, flow)
}

/**
 * How much later a corner is strong than the slab that is worked out, in the cold: 3 % by free edge, as much as it is
 * wide (engineering guess; a finite-difference bar and cube of 50 mm, mixed at 10 degC in air of 5, are 3.4 and 6.9 %
 * later, and none at 21). Grows from 16 degC of air down to 12.
 */
const EDGE_IN_THE_COLD = 0.03, COOL_AIR: Celsius = 16, COLD_AIR: Celsius = 12
function atCorners({ across, section, roomTemperature: air }: SettingInput): number {
  const cold = Math.max(0, Math.min(1, (COOL_AIR - air) / (COOL_AIR - COLD_AIR)))
  return 1 + EDGE_IN_THE_COLD * cold * (across ?? []).reduce((sum, side) => sum + Math.min(1, section / side), 0)
}

/**
 * The moments of a cast and the course that led to them. Earliest physical times: what to advise is decided in
 * core/setting/moments.
 * Criteria (engineering, see docs/model.md): pour-by and webbing by mean yield stress, gloss at the face by jamming or
 * needle percolation,
 * final set by needle and opening at the slowest place by wet strength S x^2, opening against a share of the full one.
 * @param until runs at least this long even when all moments are known.
 * @throws RangeError with a sentence when the mix cannot be worked out.
 * One function: the moments are found while the run goes on, so that it can stop when all are known.
 */
export function runSetting(
  input: SettingInput,
  scatter: Scatter = CENTRE,
  resolution: Resolution = FINE,
  until: Seconds = 0,
  each?: (s: Sample) => void,
): SettingRun {
  const mix = settingMix(input, scatter)
  const { alphaSet, alphaMax, strength, fresh } = mix
  const atStrength = (needed: number, least = 0) =>
    alphaSet + (alphaMax - alphaSet) * Math.min(0.995, Math.max(least, Math.sqrt(Math.min(1, needed / strength))))
  const needle = scatter.needle ?? 1
  const opens = openingStrengths(strength)
  const levels = [
    alphaSet * shareAtYield(fresh, pourLimit(fresh)),
    alphaSet * shareAtYield(fresh, webbingLimit(fresh)),
    alphaSet,
    Math.min(0.99 * alphaMax, alphaSet * shareAtYield(fresh, NEEDLE.initial)),
    Math.max(0.5 * alphaMax, atStrength(Math.min(NEEDLE.final * needle, NEARLY_ALL * strength))),
    Math.max(atStrength(1.7, 0.25), atStrength(opens.flexible)),
    atStrength(opens.rigid),
    atStrength(opens.thin),
  ]
  // Pouring and webbing are looked for in the mean, gloss and needle at the face, strength where it is slowest.
  const where = (s: Sample, i: number) => i < 2 ? s.mean : i < 4 ? s.face : s.slowest
  const reached = levels.map(() => Infinity)
  const time: number[] = [], share: number[] = [], temperature: number[] = []
  let previous: Sample | undefined, earlier: Sample | undefined
  let peak: Sample | undefined, warmest = 0, hottest = -Infinity, cool = Infinity
  const cooling = watchCooling(input.roomTemperature, 0.8 * alphaMax)
  let afterHour: number | undefined, above43 = 0
  const heat = integrate(mix, bodyOf(input), resolution, CONDUCTIVITY * (scatter.conductivity ?? 1), (now) => {
    let open = 0
    for (let i = 0; i < levels.length; i++) {
      if (reached[i]! < Infinity) continue
      const a = where(now, i), level = levels[i]!
      if (a < level) open++
      else if (!previous) reached[i] = 0
      else reached[i] = previous.t + (now.t - previous.t) * (level - where(previous, i)) / (a - where(previous, i))
    }
    if ((share.at(-1) ?? 0) < 1) {
      time.push(now.t)
      share.push(now.mean / alphaSet)
      temperature.push(now.meanTemperature)
    }
    if (now.mean > 0.05 && now.hottest > hottest) {
      hottest = now.hottest
      peak = now
    }
    else if (peak && peak === previous && earlier) {
      // A parabola through the three samples around the top.
      const [y0, y1, y2] = [earlier.hottest, peak.hottest, now.hottest]
      const bend = y0 - 2 * y1 + y2, offset = bend < 0 ? 0.5 * (y0 - y2) / bend : 0
      warmest = peak.t + Math.max(-1, Math.min(1, offset)) * (now.t - earlier.t) / 2
      hottest = y1 - 0.25 * (y0 - y2) * offset
    }
    cool = cooling(now)
    if (previous && previous.hottest + now.hottest > 86) above43 += now.t - previous.t
    if (now.t <= HOUR || afterHour === undefined) afterHour = now.slowest
    each?.(now)
    earlier = previous
    previous = now
    return now.t < until || open > 0 || cool === Infinity || peak === now
  })
  const [pourBy, webbing, glossGone, initialSet, finalSet, flexible, rigid, thin] = reached as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ]
  if (warmest === 0 && peak) warmest = peak.t
  const corner = atCorners(input)
  return {
    mix, heat, course: { time, share, temperature }, afterHour: afterHour ?? 0, above43,
    moments: {
      pourBy,
      webbing,
      glossGone,
      initialSet,
      finalSet: corner * finalSet,
      openFlexible: corner * flexible,
      openRigid: Math.max(corner * rigid, warmest),
      openThin: Math.max(corner * thin, warmest + AFTER_WARMEST),
      rigidStrong: corner * rigid,
      thinStrong: corner * thin,
      warmest: peak ? warmest : Infinity,
      warmestTemperature: peak ? hottest : mix.start,
      coolAgain: Math.max(cool, corner * finalSet),
    },
  }
}

/**
 * When a mix becomes too stiff to pour, seconds after wetting; Infinity within twelve hours. Stops there: much cheaper
 * than a whole run. @throws RangeError as `runSetting`.
 */
export function pourableUntil(input: SettingInput, scatter: Scatter = CENTRE): Seconds {
  const mix = settingMix(input, scatter)
  const level = mix.alphaSet * shareAtYield(mix.fresh, pourLimit(mix.fresh))
  let until = Infinity
  let previous: Sample | undefined
  integrate(mix, bodyOf(input), coarseFor(input.section), CONDUCTIVITY, (now) => {
    if (now.mean >= level)
      until = previous
        ? previous.t + (now.t - previous.t) * (level - previous.mean) / (now.mean - previous.mean)
        : 0
    previous = now
    return until === Infinity
  })
  return until
}

/** The moments alone. @throws RangeError with a sentence when the mix cannot be worked out. */
export function settingMoments(
  input: SettingInput,
  scatter: Scatter = CENTRE,
  resolution: Resolution = FINE,
): SettingMoments {
  return runSetting(input, scatter, resolution).moments
}

/**
 * The course of temperature, hydration, stiffness and strength as a run's samples have it, thinned to about `points`
 * evenly spaced in log time, to `until` seconds or where the run ends.
 */
export function curveOf(mix: SettingMix, samples: readonly Sample[], until: Seconds, points = 120): SettingCurve {
  const curve = {
    time: [] as number[],
    temperature: [] as number[],
    face: [] as number[],
    hydration: [] as number[],
    stiffness: [] as number[],
    viscosity: [] as number[],
    strength: [] as number[],
  }
  const spread = Math.log1p(until / 30) / points
  let next = -1
  for (const now of samples) {
    if (Math.log1p(now.t / 30) < next) continue
    const share = now.mean / mix.alphaSet
    curve.time.push(now.t)
    curve.temperature.push(now.hottest)
    curve.face.push(now.faceTemperature)
    curve.hydration.push(now.mean)
    curve.stiffness.push(yieldStress(mix.fresh, share))
    curve.viscosity.push(plasticViscosity(mix.fresh, share, now.meanTemperature))
    curve.strength.push(growingStrength(mix.strength, (now.mean - mix.alphaSet) / (mix.alphaMax - mix.alphaSet)))
    next = Math.log1p(now.t / 30) + spread
    if (now.t >= until) break
  }
  return curve
}

/** The same of a mix to `until` seconds, by a run of its own. @throws RangeError as `runSetting`. */
export function settingCurve(
  input: SettingInput,
  until: Seconds,
  points = 120,
  resolution: Resolution = coarseFor(input.section),
  scatter: Scatter = CENTRE,
): SettingCurve {
  const mix = settingMix(input, scatter), samples: Sample[] = []
  const conductivity = CONDUCTIVITY * (scatter.conductivity ?? 1)
  integrate(mix, bodyOf(input), resolution, conductivity, (now) => {
    samples.push(now)
    return now.t < until
  })
  return curveOf(mix, samples, until, points)
}
