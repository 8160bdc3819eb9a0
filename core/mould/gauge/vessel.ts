import type { CubicMetres, Metres } from '../../units/quantity'

/** A round bucket or cup, inside measures; straight when both diameters are equal. */
export interface Vessel { readonly bottom: Metres, readonly top: Metres, readonly height: Metres }

/** Volume up to a height: frustum of a cone. */
export function vesselVolume(v: Vessel, height: Metres = v.height): CubicMetres {
  const r0 = v.bottom / 2, r1 = r0 + (v.top - v.bottom) / 2 * (height / v.height)
  return Math.PI * height / 3 * (r0 * r0 + r0 * r1 + r1 * r1)
}

/**
 * Height at which a volume stands. Written so that nothing cancels as the walls become straight, and also right for a
 * bucket that narrows.
 * @returns the height, above the rim when the volume does not fit (the cone is continued).
 */
export function vesselHeight(v: Vessel, volume: CubicMetres): Metres {
  const r0 = v.bottom / 2
  const k = (v.top - v.bottom) / 2 / v.height
  if (r0 === 0) return Math.cbrt(3 * volume / (Math.PI * k * k))
  const x = 3 * volume * k / (Math.PI * r0 ** 3)
  if (x <= -1) return Infinity
  const c = Math.cbrt(1 + x)
  return 3 * volume / (Math.PI * r0 * r0 * (1 + c + c * c))
}

/** Diameter at a height. */
export function vesselDiameter(v: Vessel, height: Metres): Metres {
  return v.bottom + (v.top - v.bottom) * height / v.height
}

/** How full a bucket may be with room to stir: an eighth of its height stays free, at least 25 mm (common practice). */
export function safeHeight(v: Vessel): Metres {
  return Math.max(0, v.height - Math.max(0.025, v.height / 8))
}

type MouthShape = 'round' | 'rectangular'

/** What is known of the inside of a mould from its mouth: enough to draw it to scale. */
export interface Mouth { readonly shape: MouthShape, readonly width: Metres, readonly length: Metres }

function mouthArea(m: Mouth): number {
  return m.shape === 'round' ? Math.PI / 4 * m.width * m.width : m.width * m.length
}

/** Depth of a straight-sided form of this mouth and volume; the drawing's depth where none was measured. */
export function evenDepth(m: Mouth, volume: CubicMetres): Metres {
  return volume / mouthArea(m)
}
