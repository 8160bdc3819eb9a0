import type { Celsius, Metres, Seconds, WaterRatio } from '../units/quantity'
import { withWords } from '../units/sentences'
import { DRIVING_WORDS } from './words'
import { powderSpecificVolume, saturationRatio, waterDensity } from '../gypsum/mix'
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
  /** Solid volume over solid and liquid volume; the fraction at which it jams. */
  readonly phi: number
  readonly jam: number
  /** Yield stress before any reaction, Pa, kept within 0.5 and 2000. */
  readonly yieldStress: number
  readonly viscosityExponent: number
  /** kg/m3 of the mix with its air. */
  readonly density: number
}

/**
 * @param ratio water per powder left to thin the mix once additions have drunk theirs; @param thickening multiplies the
 * yield stress (fibre); @param jamming relative shift of the jamming fraction.
 */
export function freshMix(
  powder: PowderClass,
  ratio: WaterRatio,
  t: Celsius,
  density: number,
  thickening = 1,
  jamming = 1,
): FreshMix {
  const grains = powderSpecificVolume(powder)
  const phi = grains / (grains + ratio / waterDensity(t))
  const jam = powder.jammingFraction * jamming
  const gap = Math.max(0.004, jam - phi)
  const yieldStress = Math.min(
    2000,
    Math.max(0.5, thickening * powder.yieldScale * phi * Math.max(0.02, phi - 0.15) ** 2 / (jam * gap)),
  )
  return { phi, jam, yieldStress, viscosityExponent: powder.viscosityExponent, density }
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
  return room <= 0 ? MOST_VISCOSITY : Math.min(MOST_VISCOSITY, waterViscosity(t) * room ** -mix.viscosityExponent)
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

/**
 * Smallest bubble that rises by itself in a mix at rest, m: buoyancy against yield stress, for a sphere (factor good to
 * a half).
 */
export function freeBubble(mix: FreshMix, tau: number = mix.yieldStress): Metres {
  return tau / (0.07 * mix.density * GRAVITY)
}

export type Driving = 'none' | 'tapped' | 'vibrated'

/** Ways to drive bubbles out; acceleration in m/s2 (engineering guesses: a knocked bench, a vibrating table). */
const DRIVING_FACTS: Readonly<Record<Driving, { readonly acceleration: number }>> = {
  none: { acceleration: 0 },
  tapped: { acceleration: 2 * GRAVITY },
  vibrated: { acceleration: 4 * GRAVITY },
}

export const DRIVING = withWords(DRIVING_FACTS, DRIVING_WORDS)

/** Stress that shaking puts into a mix of this depth, Pa; a third of the depth, at most 20 mm, is shaken as one. */
function drivingStress(mix: FreshMix, driving: Driving, depth: Metres): number {
  return 0.3 * mix.density * DRIVING[driving].acceleration * Math.min(0.02, depth / 3)
}

/** One moment of a setting mix: seconds after wetting, share of the way to the loss of gloss, temperature. */
export interface Thickening {
  readonly time: ArrayLike<number>
  readonly share: ArrayLike<number>
  readonly temperature: ArrayLike<number>
}

interface Clearing {
  /** When shaking stops helping, seconds after wetting. */
  readonly until: Seconds
  /** Smallest bubble that has reached the top from the given depth by then, m; Infinity when none has. */
  readonly smallest: Metres
}

/** Speed at which a bubble rises, m/s: Stokes, with a rigid skin (18) or a clean one (12). */
export function bubbleSpeed(diameter: Metres, density: number, viscosity: number, skin: 12 | 18 = 18): number {
  return density * GRAVITY * diameter ** 2 / (skin * viscosity)
}

/**
 * Which bubbles shaking clears from a depth. While the shaking stress passes the yield stress a part of the mix flows,
 * and a bubble of
 * diameter d travels d^2 rho g / 18 times the integral of that part over viscosity.
 * @param from when shaking begins.
 */
export function clearing(mix: FreshMix, course: Thickening, driving: Driving, depth: Metres, from: Seconds): Clearing {
  const push = drivingStress(mix, driving, depth)
  if (push <= mix.yieldStress) return { until: from, smallest: freeBubble(mix) }
  const end = shareAtYield(mix, push)
  const flow = (share: number, t: Celsius) =>
    Math.max(0, 1 - yieldStress(mix, share) / push) / plasticViscosity(mix, share, t)
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
  return { until, smallest: travelled > 0 ? Math.sqrt(18 * depth / (mix.density * GRAVITY * travelled)) : Infinity }
}

/** Grain size behind the settling of a thin mix, m (engineering guess: a few times smaller than the coarse end). */
const GRAIN = { beta: 20e-6, alpha: 25e-6 } as const

/**
 * Clear water that stands on a mix thinner than its settled bed holds, as a share of the mix's depth. The bed cannot
 * hold more than its
 * saturation water; it also cannot settle further than hindered settling (Stokes; Richardson and Zaki 1954) takes it
 * before it stiffens.
 * @param effective water per powder once additions have drunk theirs; @param standing seconds from the end of stirring
 *   until it is too stiff to pour; @param depth of the cast.
 * Low confidence: engineering guess for the bed and the grains.
 */
export function bleedShare(
  powder: PowderClass,
  effective: WaterRatio,
  t: Celsius,
  standing: Seconds,
  depth: Metres,
): number {
  const held = saturationRatio(powder, t)
  if (effective <= held || standing <= 0) return 0
  const grains = powderSpecificVolume(powder), rho = waterDensity(t)
  const free = (effective - held) / rho / (grains + effective / rho)
  const phi = grains / (grains + effective / rho)
  const stokes = (1 / grains - rho) * GRAVITY * GRAIN[powder.crystal] ** 2 / (18 * waterViscosity(t))
  return Math.min(free, stokes * (1 - phi) ** 4.65 * phi * standing / depth)
}
