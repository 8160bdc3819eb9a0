import type { Celsius, Metres, Seconds, WaterRatio } from '../units/quantity'
import { withWords } from '../units/sentences'
import { DRIVING_WORDS } from './words'
import { powderSpecificVolume, waterDensity } from '../gypsum/mix'
import { byVolume } from '../gypsum/paste'
import type { PowderClass } from '../gypsum/powders'

/**
 * How stiff a mix is, before and while it sets, and which bubbles can leave it. Forms: granular jamming and Stokes;
 * constants: engineering guesses on practice.
 */

/** Yield stress at which the gloss has gone, Pa. */
export const GLOSS_YIELD = 20_000
const MOST_VISCOSITY = 20
const GRAVITY = 9.80665

export interface FreshMix {
  /** Solid volume over solid and liquid volume, fine grains among the solids; the fraction at which it jams. */
  readonly phi: number
  readonly jam: number
  /** Yield stress before any reaction, Pa, kept within 0.5 and 2000. */
  readonly yieldStress: number
  readonly viscosityExponent: number
  /** How much thicker coarse grains make it: a factor on its viscosity. */
  readonly crowding: number
  /** kg/m3 of the mix with its air. */
  readonly density: number
}

/** Share of volume at which grains jam: of fine ones, and of coarse ones (engineering guess; Chateau et al. below). */
const FINE_JAM = 0.60, COARSE_JAM = 0.60
/** The same of a bed of fine grains that settles in still water (makes the bed of the 1:1 class; engineering guess). */
const FINE_BED = 0.63

interface FreshGrains {
  /** Volume of fine grains, m3 by kilogram of plaster, and the share that coarse ones take of the whole mix. */
  readonly fineVolume: number
  readonly coarseShare: number
}

/**
 * How coarse grains stiffen a paste: factors on yield stress and viscosity. Chateau, Ovarlez and Trung 2008, J. Rheol.
 * 52:489 (from memory). @param share of the whole volume that they take
 */
export function coarseStiffening(share: number): { readonly yieldStress: number, readonly viscosity: number } {
  const phi = Math.min(share, 0.95 * COARSE_JAM)
  const viscosity = (1 - phi / COARSE_JAM) ** -1.5
  return { yieldStress: Math.sqrt((1 - phi) * viscosity), viscosity }
}

/**
 * @param ratio water per plaster left to thin the mix once additions have drunk theirs
 * @param thickening multiplies the yield stress (fibre); @param jamming relative shift of the jamming fraction.
 */
export function freshMix(
  plaster: PowderClass,
  ratio: WaterRatio,
  t: Celsius,
  density: number,
  { fineVolume, coarseShare }: FreshGrains,
  thickening = 1,
  jamming = 1,
): FreshMix {
  const solids = powderSpecificVolume(plaster) + fineVolume
  const phi = solids / (solids + ratio / waterDensity(t))
  const jam = byVolume(plaster, fineVolume, plaster.jammingFraction, FINE_JAM) * jamming
  const gap = Math.max(0.004, jam - phi), coarse = coarseStiffening(coarseShare)
  const yieldStress = Math.min(
    2000,
    Math.max(
      0.5,
      thickening * coarse.yieldStress * plaster.yieldScale * phi * Math.max(0.02, phi - 0.15) ** 2 / (jam * gap),
    ),
  )
  const { viscosityExponent } = plaster
  return { phi, jam, yieldStress, viscosityExponent, crowding: coarse.viscosity, density }
}

/** Viscosity of water, Pa s, 0 to 100 degC. Vogel form with constants from memory, within 2.5 % of handbook values. */
function waterViscosity(t: Celsius): number {
  return 2.414e-5 * 10 ** (247.8 / (t + 133.15))
}

/** Yield stress when the reaction has gone `share` of the way to the loss of gloss, Pa; at most that of lost gloss. */
export function yieldStress(mix: FreshMix, share: number): number {
  return mix.yieldStress * (GLOSS_YIELD / mix.yieldStress) ** Math.min(1, share)
}

/** The share of the way to the loss of gloss at which the yield stress reaches `tau`. */
export function shareAtYield(mix: FreshMix, tau: number): number {
  return tau <= mix.yieldStress ? 0 : Math.log(tau / mix.yieldStress) / Math.log(GLOSS_YIELD / mix.yieldStress)
}

/**
 * Plastic viscosity at the same moment, Pa s: solids crowd towards jamming (Krieger and Dougherty 1959 form). Not above
 * 20 Pa s: beyond that the form is too steep to mean anything.
 */
export function plasticViscosity(mix: FreshMix, share: number, t: Celsius): number {
  const phi = mix.phi + (mix.jam - mix.phi) * Math.min(1, share)
  const room = 1 - phi / mix.jam
  return room <= 0
    ? MOST_VISCOSITY
    : Math.min(MOST_VISCOSITY, mix.crowding * waterViscosity(t) * room ** -mix.viscosityExponent)
}

/**
 * Too stiff to pour, and films between spread fingers: yield stresses in Pa (engineering guesses that land on
 * practice).
 */
export function pourLimit(mix: FreshMix): number {
  return Math.max(25, 2.5 * mix.yieldStress)
}
export function webbingLimit(mix: FreshMix): number {
  return Math.max(80, 6 * mix.yieldStress)
}

/** Diameter of the smallest bubble that a mix at rest lets go, in yield stresses over weight (C of `freeBubble`). */
const AT_REST = 14
/** Larger ones are not stirred in (common practice). */
export const LARGEST_BUBBLE: Metres = 0.003

/**
 * Smallest bubble that rises by itself in a mix at rest, m: d = C tau/(rho g), C = 14 (10 to 21). Sphere at Bingham
 * number .143: Tsamopoulos et al. 2008, JFM 601:123; bound of Dubash and Frigaard 2004 (from memory). Longer ones go
 * sooner.
 */
export function freeBubble(mix: FreshMix, tau: number = mix.yieldStress): Metres {
  return AT_REST * tau / (mix.density * GRAVITY)
}

export type Driving = 'none' | 'tapped' | 'vibrated'

/** Ways to drive bubbles out; acceleration in m/s2 (engineering guesses: a knocked bench, a vibrating table). */
const DRIVING_FACTS: Readonly<Record<Driving, { readonly acceleration: number }>> = {
  none: { acceleration: 0 },
  tapped: { acceleration: 2 * GRAVITY },
  vibrated: { acceleration: 4 * GRAVITY },
}

export const DRIVING = withWords(DRIVING_FACTS, DRIVING_WORDS)

/** Stress that shaking puts into a mix of this depth, Pa; a third of the depth, 5 to 20 mm, is shaken as one. */
export function drivingStress(mix: FreshMix, driving: Driving, depth: Metres): number {
  return 0.3 * mix.density * DRIVING[driving].acceleration * Math.max(0.005, Math.min(0.02, depth / 3))
}
/** Stays put before that long, s; and thicker than this no mix is while it is shaken, Pa s (engineering guesses). */
const LEAST_SHAKING: Seconds = 5, MOST_SHAKEN = 3

/** One moment of a setting mix: seconds after wetting, share of the way to the loss of gloss, temperature. */
export interface Thickening {
  readonly time: ArrayLike<number>
  readonly share: ArrayLike<number>
  readonly temperature: ArrayLike<number>
}

interface Clearing {
  /** When shaking stops helping, seconds after wetting. */
  readonly until: Seconds
  /** Smallest bubble that has reached the top from the given depth by then, m; never above what the section holds. */
  readonly smallest: Metres
}

/** Speed at which a bubble rises, m/s: Stokes, with a rigid skin (18) or a clean one (12). */
export function bubbleSpeed(diameter: Metres, density: number, viscosity: number, skin: 12 | 18 = 18): number {
  return density * GRAVITY * diameter ** 2 / (skin * viscosity)
}

/**
 * Which bubbles shaking clears from a depth. While the shaking stress passes the yield stress a part of the mix flows,
 * and a bubble of diameter d travels d^2 rho g / 18 times the integral of that part over viscosity. What a mix at rest
 * lets go, it lets go shaken too.
 * @param depth of the section, which a bubble has to fit into; @param from when shaking begins
 * @param flow factor on the stiffness
 */
export function clearing(
  mix: FreshMix,
  course: Thickening,
  driving: Driving,
  depth: Metres,
  from: Seconds,
  flow = 1,
): Clearing {
  const push = drivingStress(mix, driving, depth)
  const most = Math.min(depth, LARGEST_BUBBLE, freeBubble(mix) * flow)
  if (push <= mix.yieldStress) return { until: from, smallest: most }
  const { until, travelled } = shaking(mix, course, push, from)
  return { until, smallest: Math.min(most, Math.sqrt(flow * 18 * depth / (mix.density * GRAVITY * travelled))) }
}

/** Until when shaking moves the mix, and the integral of the part that flows over its viscosity, m s/kg. */
function shaking(
  mix: FreshMix,
  course: Thickening,
  push: number,
  from: Seconds,
): { readonly until: Seconds, readonly travelled: number } {
  const end = shareAtYield(mix, push)
  const flow = (share: number, t: Celsius) =>
    Math.max(0, 1 - yieldStress(mix, share) / push) / Math.min(MOST_SHAKEN, plasticViscosity(mix, share, t))
  let travelled = 0, until = from
  for (let i = 1; i < course.time.length; i++) {
    const t0 = course.time[i - 1]!, t1 = course.time[i]!, s0 = course.share[i - 1]!, s1 = course.share[i]!
    const stop = s1 <= end ? t1 : t0 + (t1 - t0) * Math.max(0, (end - s0) / (s1 - s0))
    until = Math.max(from, stop)
    const begin = Math.max(from, t0)
    if (stop > begin) {
      // Simpson over the part of this stretch that is shaken.
      const at = (t: number) => {
        const x = (t - t0) / (t1 - t0)
        return flow(
          s0 + (s1 - s0) * x,
          course.temperature[i - 1]! + (course.temperature[i]! - course.temperature[i - 1]!) * x,
        )
      }
      travelled += (stop - begin) / 6 * (at(begin) + 4 * at((begin + stop) / 2) + at(stop))
    }
    if (s1 > end) break
  }
  const atOnce = LEAST_SHAKING * flow(0, course.temperature[0] ?? 20)
  return { until, travelled: Math.max(travelled, atOnce) }
}

/** Grain size behind the settling of a thin mix, m (engineering guess: a few times smaller than the coarse end). */
const GRAIN = { beta: 20e-6, alpha: 25e-6 } as const

/**
 * Clear water that stands on a mix thinner than its settled bed holds, as a share of the mix's depth. The bed cannot
 * hold more than its saturation water; it also cannot settle further than hindered settling takes it before it stiffens
 * (Stokes; Richardson and Zaki 1954). A mix at its powder's own ratio is taken to hold its water.
 * @param effective water per plaster once additions have drunk theirs; @param standing seconds from the end of stirring
 *   until it is too stiff to pour; @param depth of the cast; @param grains the volume of fine ones, m3 by kilogram of
 *   plaster, and the water by which the usual mix has more for them
 * Low confidence: engineering guess for the bed and the grains.
 */
export function bleedShare(
  plaster: PowderClass,
  effective: WaterRatio,
  t: Celsius,
  standing: Seconds,
  depth: Metres,
  { fineVolume, water }: { readonly fineVolume: number, readonly water: number } = { fineVolume: 0, water: 0 },
): number {
  const grains = powderSpecificVolume(plaster) + fineVolume, rho = waterDensity(t)
  const bed = byVolume(plaster, fineVolume, plaster.settledFraction, FINE_BED)
  const held = Math.max(rho * grains * (1 - bed) / bed, plaster.ratio.recommended + water)
  if (effective <= held || standing <= 0) return 0
  const free = (effective - held) / rho / (grains + effective / rho)
  const phi = grains / (grains + effective / rho)
  const stokes = (1 / powderSpecificVolume(plaster) - rho) * GRAVITY * GRAIN[plaster.crystal] ** 2
    / (18 * waterViscosity(t))
  return Math.min(free, stokes * (1 - phi) ** 4.65 * phi * standing / depth)
}
