import type { Metres } from '../../units/quantity'
import type { Gauge } from './gauge'
import { outlineArea, turnedArea, type Point, type Shape } from './shapes'

/** The inner face of a mould, m2: what a coat is laid on and a release is spread over. Its mouth is not part of it. */

/** Walls of a shape, and how large it is at its lower and upper end. A rounded one has no lower end of its own. */
interface Faces { readonly walls: number, readonly bottom: number, readonly top: number }

const disc = (across: Metres) => Math.PI / 4 * across ** 2
const around = (points: readonly Point[]) => points.reduce((sum, p, i) => {
  const next = points[(i + 1) % points.length]!
  return sum + Math.hypot(next.x - p.x, next.y - p.y)
}, 0)

/** Thomsen's power of the mean of products of half axes: within 1.1 % of any ellipsoid's surface (from memory). */
const THOMSEN = 1.6075
function ellipsoidSurface(a: Metres, b: Metres, c: Metres): number {
  const mean = ((a * b) ** THOMSEN + (b * c) ** THOMSEN + (c * a) ** THOMSEN) / 3
  return 4 * Math.PI * mean ** (1 / THOMSEN)
}

/** Solid geometry, any handbook. */
function facesOf(shape: Shape): Faces {
  switch (shape.kind) {
    case 'box': {
      const { width, length, height } = shape, end = width * length
      return { walls: 2 * (width + length) * height, bottom: end, top: end }
    }
    case 'cylinder':
      return { walls: Math.PI * shape.across * shape.height, bottom: disc(shape.across), top: disc(shape.across) }
    case 'cup': {
      const { bottom, top, height } = shape, slope = Math.hypot(height, (top - bottom) / 2)
      return { walls: Math.PI * (bottom + top) / 2 * slope, bottom: disc(bottom), top: disc(top) }
    }
    case 'tray': {
      const { bottomWidth: a, bottomLength: b, topWidth: c, topLength: d, height } = shape
      const walls = (b + d) * Math.hypot(height, (c - a) / 2) + (a + c) * Math.hypot(height, (d - b) / 2)
      return { walls, bottom: a * b, top: c * d }
    }
    case 'cap':
      return { walls: Math.PI * ((shape.rim / 2) ** 2 + shape.depth ** 2), bottom: 0, top: disc(shape.rim) }
    case 'bowl': {
      const a = shape.width / 2, b = shape.length / 2
      return { walls: ellipsoidSurface(a, b, shape.depth) / 2, bottom: 0, top: Math.PI * a * b }
    }
    case 'ellipsoid':
      return { walls: ellipsoidSurface(shape.width / 2, shape.length / 2, shape.height / 2), bottom: 0, top: 0 }
    case 'outline': {
      const end = outlineArea(shape.points)
      return { walls: around(shape.points) * shape.height, bottom: end, top: end }
    }
    case 'turned': {
      const bottom = disc(shape.points[0]?.across ?? 0)
      return { walls: turnedArea(shape.points) - bottom, bottom, top: disc(shape.points.at(-1)?.across ?? 0) }
    }
  }
}

/**
 * Inner face of shapes stacked from the bottom up, m2: floor, walls, and the ledges where one is wider than the next.
 * @example stackFace([{ kind: 'box', width: 0.1, length: 0.1, height: 0.05 }]) // 0.03
 */
export function stackFace(stack: readonly Shape[]): number {
  let below = 0
  return stack.map(facesOf).reduce((sum, { walls, bottom, top }) => {
    const ledge = Math.abs(bottom - below)
    below = top
    return sum + walls + ledge
  }, 0)
}

/** An opening by its width and length. */
interface Opening { readonly shape: 'round' | 'rectangular', readonly width: Metres, readonly length: Metres }
const openingArea = ({ shape, width, length }: Opening) => (shape === 'round' ? Math.PI / 4 : 1) * width * length

/**
 * What its gauges tell of a mould's inner face, m2; undefined where none does. The last one measured counts. A model's
 * surface is the cast's own: where it lies in the mouth, no mould touches it.
 */
export function faceOf(gauges: readonly Gauge[], mouth: Opening): number | undefined {
  for (const gauge of [...gauges].reverse()) {
    if (gauge.how === 'shapes') return stackFace(gauge.stack)
    if (gauge.how === 'mesh' && gauge.surface !== undefined)
      return Math.max(gauge.surface / 2, gauge.surface - openingArea(mouth))
  }
  return undefined
}

/** A mould as a plan takes it: with its inner face, where its gauges tell it. */
export function withFace<T extends { readonly gauges?: readonly Gauge[], readonly mouth: Opening }>(
  mould: T,
): T & { readonly face?: number } {
  const face = faceOf(mould.gauges ?? [], mould.mouth)
  return face === undefined ? mould : { ...mould, face }
}
