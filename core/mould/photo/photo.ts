import { crossesItself } from '../gauge/shapes'
import { solveLinear } from '../../numeric/linear'
import type { Metres } from '../../units/quantity'
import { Z80 } from '../../units/quantity'

/**
 * Lengths and areas from a photo: by a ruler lying in it, or by the four corners of a rectangle of known size, which
 * also straightens the perspective.
 */

/** A place in the photo, in its pixels, from its upper left. */
export interface Pixel { readonly x: number, readonly y: number }

export type PhotoScale
  = | { readonly how: 'ruler', readonly ends: readonly [Pixel, Pixel], readonly length: Metres }
  /** Corners once round, starting upper left; width is from the first to the second. */
    | {
      readonly how: 'rectangle'
      readonly corners: readonly [Pixel, Pixel, Pixel, Pixel]
      readonly width: Metres
      readonly length: Metres
    }

/** Where the camera was: what lies deeper than the ruler looks smaller. */
export interface Camera { readonly distance: Metres, readonly deeper: Metres }

export interface Measured { readonly value: number, readonly low: number, readonly high: number, readonly note: string }

/** How well a hand marks a place, pixels (engineering guess); a loupe helps. */
export const MARKING = 1.5
/** How far from square a camera is held over a ruler by eye, radians (engineering guess). */
const TILT = 5 * Math.PI / 180
/** How well the height of a camera is known by eye (engineering guess). */
const DISTANCE = 0.2

/** Rows of a projective map, and its value at a pixel. */
type Homography = Float64Array

/**
 * The projective map that takes four pixels to four places of a plane (direct linear transform; Hartley and Zisserman,
 * Multiple View Geometry, from memory).
 */
function homography(from: readonly Pixel[], to: readonly Pixel[]): Homography | undefined {
  // Shifted and scaled to about one, so that the system is well conditioned.
  const cx = from.reduce((s, p) => s + p.x, 0) / 4, cy = from.reduce((s, p) => s + p.y, 0) / 4
  const k = 1 / Math.max(1e-9, ...from.map(p => Math.hypot(p.x - cx, p.y - cy)))
  const rows: number[][] = [], right: number[] = []
  from.forEach((p, i) => {
    const u = (p.x - cx) * k, v = (p.y - cy) * k, { x, y } = to[i]!
    rows.push([u, v, 1, 0, 0, 0, -u * x, -v * x], [0, 0, 0, u, v, 1, -u * y, -v * y])
    right.push(x, y)
  })
  const h = solveLinear(rows, right)?.x
  return h && Float64Array.from([...h, 1, cx, cy, k])
}

/** A pixel on the ground, m; from any origin. */
type OnGround = (p: Pixel) => Pixel

/** Why marks do not give a scale. */
export type ScaleProblem = 'ruler-length' | 'ruler-short' | 'rectangle-size' | 'corners-crossed' | 'no-rectangle'

/** @returns the map from the photo to the ground, or why the marks do not give one. */
export function ground(
  scale: PhotoScale,
): { readonly ok: true, readonly at: OnGround } | { readonly ok: false, readonly code: ScaleProblem } {
  const refuse = (code: ScaleProblem) => ({ ok: false, code }) as const
  if (scale.how === 'ruler') {
    const [a, b] = scale.ends, pixels = Math.hypot(a.x - b.x, a.y - b.y)
    if (!(scale.length > 0)) return refuse('ruler-length')
    if (pixels < 20)
      return refuse('ruler-short')
    const k = scale.length / pixels
    return { ok: true, at: p => ({ x: p.x * k, y: p.y * k }) }
  }
  const { corners, width, length } = scale
  if (!(width > 0 && length > 0)) return refuse('rectangle-size')
  // Once round without crossing itself: all turns go the same way.
  const turns = corners.map((p, i) => {
    const q = corners[(i + 1) % 4]!, r = corners[(i + 2) % 4]!
    return (q.x - p.x) * (r.y - q.y) - (q.y - p.y) * (r.x - q.x)
  })
  if (!turns.every(t => t > 200) && !turns.every(t => t < -200))
    return refuse('corners-crossed')
  const h = homography(corners, [{ x: 0, y: 0 }, { x: width, y: 0 }, { x: width, y: length }, { x: 0, y: length }])
  if (!h) return refuse('no-rectangle')
  return {
    ok: true, at: (p) => {
      const u = (p.x - h[9]!) * h[11]!, v = (p.y - h[10]!) * h[11]!, w = h[6]! * u + h[7]! * v + 1
      return { x: (h[0]! * u + h[1]! * v + h[2]!) / w, y: (h[3]! * u + h[4]! * v + h[5]!) / w }
    },
  }
}

/** Something measured on the ground, as a function of the marks. */
type Measure = (at: OnGround, marks: readonly Pixel[]) => number
const lengthOf: Measure = (at, [a, b]) => {
  const p = at(a!), q = at(b!)
  return Math.hypot(p.x - q.x, p.y - q.y)
}
const areaOf: Measure = (at, marks) => {
  const p = marks.map(at)
  return Math.abs(p.reduce((twice, a, i) => twice + a.x * p[(i + 1) % p.length]!.y - p[(i + 1) % p.length]!.x * a.y, 0))
    / 2
}

/**
 * Diameter of the circle of equal area inside marks once round an edge: between two marks the square of the distance
 * from the middle changes evenly with the angle, which is exact for a circle however many marks there are.
 */
const roundOf: Measure = (at, marks) => {
  const p = marks.map(at), n = p.length
  const middle = { x: p.reduce((s, q) => s + q.x, 0) / n, y: p.reduce((s, q) => s + q.y, 0) / n }
  const from = p.map(q => ({ x: q.x - middle.x, y: q.y - middle.y }))
  const twice = from.reduce((sum, a, i) => {
    const b = from[(i + 1) % n]!
    const turn = Math.atan2(a.x * b.y - a.y * b.x, a.x * b.x + a.y * b.y)
    return sum + turn * (a.x ** 2 + a.y ** 2 + b.x ** 2 + b.y ** 2) / 2
  }, 0)
  return 2 * Math.sqrt(Math.abs(twice) / 2 / Math.PI)
}

/** The same scale with one of its own marks moved by a marking error. */
function nudged(scale: PhotoScale): PhotoScale[] {
  const moves = [{ x: MARKING, y: 0 }, { x: 0, y: MARKING }]
  const moved = <T extends readonly Pixel[]>(marks: T) =>
    marks.flatMap((_, i) =>
      moves.map(m => marks.map((p, j) => i === j ? { x: p.x + m.x, y: p.y + m.y } : p) as unknown as T),
    )
  return scale.how === 'ruler'
    ? moved(scale.ends).map(ends => ({ ...scale, ends }))
    : moved(scale.corners).map(corners => ({ ...scale, corners }))
}

function measured(
  what: Measure,
  power: 1 | 2,
  scale: PhotoScale,
  marks: readonly Pixel[],
  camera?: Camera,
): Measured | undefined {
  const g = ground(scale)
  if (!g.ok) return undefined
  const plain = what(g.at, marks)
  let variance = 0
  // Marking errors of the scale and of the marks themselves, each carried through (first-order propagation).
  for (const other of nudged(scale)) {
    const o = ground(other)
    if (o.ok) variance += (what(o.at, marks) - plain) ** 2
  }
  marks.forEach((_, i) => {
    for (const m of [{ x: MARKING, y: 0 }, { x: 0, y: MARKING }])
      variance += (what(g.at, marks.map((p, j) => i === j ? { x: p.x + m.x, y: p.y + m.y } : p)) - plain) ** 2
  })
  const notes: string[] = [scale.how === 'ruler' ? 'by the ruler' : 'straightened by the rectangle']
  // A ruler alone does not tell how square the camera was held: lengths along the lean shrink by its cosine.
  if (scale.how === 'ruler') variance += (power * (1 - Math.cos(TILT)) * plain) ** 2
  let factor = 1
  if (camera && camera.distance > 0 && camera.deeper !== 0) {
    factor = ((camera.distance + camera.deeper) / camera.distance) ** power
    variance += (power * DISTANCE * camera.deeper / camera.distance * plain) ** 2
    notes.push(`${camera.deeper > 0 ? 'deeper' : 'nearer'} than it: corrected`)
  }
  const value = plain * factor, sd = Math.sqrt(variance) * factor
  return { value, low: Math.max(0, value - Z80 * sd), high: value + Z80 * sd, note: notes.join('; ') }
}

/** Length between two marks, m, with its 10 and 90 per cent bounds; undefined when the scale does not stand. */
export function photoLength(scale: PhotoScale, a: Pixel, b: Pixel, camera?: Camera): Measured | undefined {
  return measured(lengthOf, 1, scale, [a, b], camera)
}

/**
 * Area inside a line of marks, m2; undefined when the scale does not stand, there are fewer than three, or the line
 * crosses itself.
 */
export function photoArea(scale: PhotoScale, marks: readonly Pixel[], camera?: Camera): Measured | undefined {
  return marks.length < 3 || crossesItself(marks) ? undefined : measured(areaOf, 2, scale, marks, camera)
}

/**
 * Diameter of something round by marks on its edge, m; undefined when the scale does not stand, there are fewer than
 * three, or their line crosses itself.
 */
export function photoRound(scale: PhotoScale, marks: readonly Pixel[]): Measured | undefined {
  return marks.length < 3 || crossesItself(marks) ? undefined : measured(roundOf, 1, scale, marks)
}
