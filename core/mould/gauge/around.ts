import type { CubicMetres, Kilograms, Metres } from '../../units/quantity'

/** What goes around a hand, foot or model: the container, and the soft one-use impression that fills it. */

/** Clear all round and below, m (common practice). */
const CLEARANCE: Metres = 0.025

export interface Around {
  /** Inside measures of the round container, m. */
  readonly across: Metres
  readonly height: Metres
  /** Impression mix to fill it with the part inside. */
  readonly impression: CubicMetres
  readonly water: Kilograms
  readonly powder: Kilograms
}

/**
 * Water to soft impression powder by weight, as most packs have it (common practice); the powder adds almost nothing to
 * the volume of its water.
 */
const IMPRESSION_WATER = 4
const IMPRESSION_POWDER_DENSITY = 2300

/**
 * Container and impression mix for a part of this size.
 * @param part its widest across, its depth in the container, and its volume when it was gauged (by dipping it in
 *   water); else an elliptical cylinder is assumed.
 */
export function aroundPart(
  part: { readonly width: Metres, readonly thickness: Metres, readonly depth: Metres, readonly volume?: CubicMetres },
  clearance: Metres = CLEARANCE,
): Around {
  const across = Math.max(part.width, part.thickness) + 2 * clearance, height = part.depth + clearance
  const inside = part.volume ?? Math.PI / 4 * part.width * part.thickness * part.depth
  const impression = Math.max(0, Math.PI / 4 * across * across * height - inside)
  // Volumes of water and of the powder's own grains add up.
  const powder = impression / (IMPRESSION_WATER / 998 + 1 / IMPRESSION_POWDER_DENSITY)
  return { across, height, impression, water: powder * IMPRESSION_WATER, powder }
}

/** A real length in a model. @param scale 1:scale. */
export function atScale(real: Metres, scale: number): Metres {
  return real / scale
}
