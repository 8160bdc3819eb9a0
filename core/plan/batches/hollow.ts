import { BALL } from '../../drying/expected'
import type { Gauge } from '../../mould/gauge/gauge'
import type { CubicMetres, Metres } from '../../units/quantity'

/**
 * Hollow casts: what a wall takes, how much is mixed to swill it, and how much comes back. Forms and check values:
 * docs/model.md, “Hollow casts”.
 */

/** A cavity by what is known of every mould, and its inner face, m2, where that is known. */
export interface Cavity {
  readonly volume: { readonly value: CubicMetres }
  readonly section: Metres
  readonly face?: number
  readonly gauges?: readonly Gauge[]
}

/** Faces of casts against those of a ball of their volume: a cube's is 1.24 times (engineering guess, 1 to 1.25). */
const OVER_BALL = 1.12

/** Mix to roll over all faces, as a share of the cavity, and over what stays (common practice, no source). */
const ROLLED = 0.30, OVER = 1.15

/** Inner face, m2: more than a ball's, and at least that of a plate of its thickest section. */
export function innerFace({ volume: { value }, section, face }: Cavity): number {
  return face ?? Math.max(OVER_BALL * BALL * value ** (2 / 3), 2 * value / section)
}

/**
 * Volume of a wall of this thickness on the inside. Exact for balls and for boxes and prisms that a ball touches on all
 * sides, within 1 % of others near that; never more than the cavity. First principles.
 * @example wallVolume(ball of 60 mm radius, 0.008) // 0.3158e-3 m3
 */
export function wallVolume(cavity: Cavity, wall: Metres): CubicMetres {
  const whole = cavity.volume.value, reach = 3 * whole / innerFace(cavity)
  if (wall >= Math.min(reach, cavity.section / 2)) return whole
  return whole * (1 - (1 - wall / reach) ** 3)
}

/** Wall that so much of a cavity makes, evenly over its faces. */
export function wallOf(cavity: Cavity, volume: CubicMetres): Metres {
  const whole = cavity.volume.value, reach = 3 * whole / innerFace(cavity)
  return Math.min(cavity.section / 2, reach * (1 - Math.cbrt(Math.max(0, 1 - volume / whole))))
}

/**
 * Mix to pour into one mould for a coat of which so much stays: enough to roll over every face.
 */
export function swilled(cavity: Cavity, stays: CubicMetres): CubicMetres {
  return Math.min(cavity.volume.value, Math.max(ROLLED * cavity.volume.value, OVER * stays))
}
