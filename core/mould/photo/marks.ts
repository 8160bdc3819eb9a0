import type { Gauge } from '../gauge/gauge'
import type { Metres } from '../../units/quantity'
import type { Measured, PhotoScale, Pixel } from './photo'

/** What is marked in the photo of a print, and what it says of the ring around it. */

export interface PhotoMark {
  readonly name: string
  readonly what: 'length' | 'outline'
  readonly points: readonly Pixel[]
}
/** A picture in pixels. */
export interface Picture { readonly width: number, readonly height: number }

/** Plaster above the ground that lifts whole; half of it is the least, m (common practice, no source). */
export const COVER: Metres = 0.025
/** Between a print and its ring, unless that is traced too, m (engineering guess). */
export const RING: Metres = 0.04
/** A print's depth before anybody has measured it, m (engineering guess). */
export const DEPTH: Metres = 0.015
/** A print is about this much narrower than it is long, where only its length is known (engineering guess). */
const NARROW = 0.4

/** A place given as shares of the picture's sides. */
const placed = (picture: Picture, places: readonly (readonly [number, number])[]): Pixel[] =>
  places.map(([x, y]) => ({ x: Math.round(picture.width * x), y: Math.round(picture.height * y) }))

/** Where the marks of a scale lie until somebody moves them: a ruler of 20 cm, or a sheet of A4. */
export function startingScale(how: PhotoScale['how'], picture: Picture): PhotoScale {
  if (how === 'ruler') {
    const [from, to] = placed(picture, [[0.2, 0.85], [0.6, 0.85]])
    return { how, ends: [from!, to!], length: 0.2 }
  }
  const [a, b, c, d] = placed(picture, [[0.3, 0.3], [0.7, 0.3], [0.7, 0.7], [0.3, 0.7]])
  return { how, corners: [a!, b!, c!, d!], width: 0.21, length: 0.297 }
}

/** Where a new mark lies until somebody moves it. @param nth how many of its kind there are already */
export function startingPoints(what: PhotoMark['what'], nth: number, picture: Picture): readonly Pixel[] {
  const y = 0.4 + 0.08 * (nth % 4)
  if (what === 'length') return placed(picture, [[0.25, y], [0.75, y]])
  return nth === 0
    ? placed(picture, [[0.3, 0.35], [0.7, 0.35], [0.7, 0.6], [0.3, 0.6]])
    : placed(picture, [[0.2, 0.2], [0.8, 0.2], [0.8, 0.78], [0.2, 0.78]])
}

/** Where eight marks round an edge lie until somebody moves them. */
export function startingRound({ width, height }: Picture): readonly Pixel[] {
  const radius = Math.min(width, height) / 4
  return Array.from({ length: 8 }, (_, i) => ({
    x: Math.round(width / 2 + radius * Math.cos(i * Math.PI / 4)),
    y: Math.round(height * 0.42 + radius * Math.sin(i * Math.PI / 4)),
  }))
}

/** A scale with one of its marks moved. */
export function withScaleMoved(scale: PhotoScale, index: number, to: Pixel): PhotoScale {
  const put = <T extends readonly Pixel[]>(list: T) => list.map((p, j) => j === index ? to : p) as unknown as T
  return scale.how === 'ruler' ? { ...scale, ends: put(scale.ends) } : { ...scale, corners: put(scale.corners) }
}

/** How far a place lies from the line between two others, pixels. */
function offSide(place: Pixel, a: Pixel, b: Pixel): number {
  const [x, y] = [b.x - a.x, b.y - a.y], squared = x * x + y * y
  const along = squared === 0 ? 0 : ((place.x - a.x) * x + (place.y - a.y) * y) / squared
  const t = Math.max(0, Math.min(1, along))
  return Math.hypot(place.x - a.x - t * x, place.y - a.y - t * y)
}

/**
 * One more corner of an outline: in the side it lies nearest to, or in the middle of the longest where no place is
 * given.
 * @param points at least two
 */
export function withCorner(points: readonly Pixel[], place?: Pixel): readonly Pixel[] {
  const sides = points.map((a, j) => ({ j, a, b: points[(j + 1) % points.length]! }))
  const off = ({ a, b }: { readonly a: Pixel, readonly b: Pixel }) =>
    place ? offSide(place, a, b) : -Math.hypot(b.x - a.x, b.y - a.y)
  const { j, a, b } = sides.reduce((best, s) => off(s) < off(best) ? s : best)
  const corner = place ?? { x: Math.round((a.x + b.x) / 2), y: Math.round((a.y + b.y) / 2) }
  return [...points.slice(0, j + 1), corner, ...points.slice(j + 1)]
}

/** What the marks of a print measure together. */
interface PrintSize {
  /** The longest length that was measured, m; at least a centimetre. */
  readonly long: Metres
  readonly width: Metres
  /** Area of the print, m2, where it was outlined; of two outlines the larger is the ring. */
  readonly area?: number
  readonly ring?: number
}

/** @param measured what each mark measures; undefined where it cannot be told */
export function printSize(marks: readonly PhotoMark[], measured: readonly (Measured | undefined)[]): PrintSize {
  const values = (what: PhotoMark['what']) =>
    marks.flatMap((m, i) => m.what === what ? measured[i]?.value ?? [] : [])
  const areas = values('outline').filter(a => a > 0).sort((a, b) => b - a)
  const long = Math.max(0.01, ...values('length')), area = areas[1] ?? areas[0]
  return { long, width: Math.min(long, area ? area / long : long * NARROW), area, ring: areas[1] && areas[0] }
}

/** The ring around a print as a gauge, once the print was outlined; around it by 40 mm unless it was traced too. */
export function outlinedGauge(size: PrintSize, depth: Metres, cover: Metres): Gauge | undefined {
  if (size.area === undefined) return undefined
  const around = (Math.sqrt(size.area) + 2 * RING) ** 2
  return { how: 'dam', area: size.ring ?? around, printArea: size.area, printDepth: depth, cover }
}

/** The same by its length alone. */
export function guessedGauge({ long, width }: PrintSize, depth: Metres, cover: Metres): Gauge {
  return {
    how: 'dam',
    area: (long + 2 * RING) * (width + 2 * RING),
    printArea: long * width,
    printDepth: depth,
    cover,
  }
}
