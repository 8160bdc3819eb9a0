import type { CubicMetres, Metres } from '../units/quantity'
import type { Gauge } from '../mould/gauge/gauge'
import type { Shape } from '../mould/gauge/shapes'
import type { Mouth } from '../mould/gauge/vessel'
import type { FormId, Likeness, Line } from './form-ids'
import { FORMS, type Form } from './forms'

/**
 * A mould cut through its middle, as it is drawn: the inside from lip to lip, and what stands in it. What is drawn
 * holds what is stated. Lengths in metres, x from the middle, z down from the lip.
 */
export interface CutPoint { readonly x: Metres, readonly z: Metres }

export interface Profile {
  /** The inside from the left lip round to the right one. */
  readonly points: readonly CutPoint[]
  /** A turned one is as round as it is wide; any other goes so far into the page. */
  readonly turned: boolean
  readonly length: Metres
  readonly depth: Metres
  /** Whether its sides were measured; otherwise they are those of its kind, and drawn dashed. */
  readonly measured: boolean
}

/** What is known of a mould that is to be drawn. */
export interface Drawable {
  readonly form?: FormId
  /** How its own piece looks, by its model or a photo. A form that somebody chose goes before it. */
  readonly looks?: Likeness
  readonly kind?: string
  readonly volume: { readonly value: CubicMetres }
  readonly mouth: Mouth
  readonly gauges?: readonly Gauge[]
}

/** Deeper than this against its width, a round mould without a form of its own is drawn as a tapered cup. */
const CUP_DEPTH = 0.6
/** Flatter than this, a rectangular one is a tile. */
const TILE_DEPTH = 0.25

/** What a mould is drawn as: as somebody chose, else by what it is made from and how deep it would be. */
export function formOf({ form, kind, mouth, volume }: Drawable): FormId {
  if (form) return form
  if (kind === 'impression' || kind === 'print') return 'print'
  const area = mouth.width * (mouth.shape === 'round' ? mouth.width * Math.PI / 4 : mouth.length)
  const flat = volume.value / area / mouth.width
  if (mouth.shape === 'round') return flat > CUP_DEPTH ? 'cup' : 'tub'
  return flat < TILE_DEPTH ? 'bat' : 'box'
}

const path = (line: Line, closed: boolean) => `M${line.map(p => p.join(' ')).join('L')}${closed ? 'Z' : ''}`

/** What it looks like: as somebody chose, else as its own model or photo shows it, else as its kind does. */
export function lookOf(mould: Drawable): Form {
  const { looks } = mould, kind = FORMS[formOf(mould)]
  if (mould.form || !looks) return kind
  return {
    turned: looks.cut ? looks.turned : kind.turned,
    cut: looks.cut ?? kind.cut,
    edge: looks.edge.map(l => path(l, true)).join(''),
    lines: looks.lines.map(l => path(l, false)),
    ...looks.stands ? { stands: true } : {},
  }
}

/** A closed outline from the inside of a cut: its lips joined. */
const area = (points: readonly CutPoint[]) => points.reduce((sum, p, i) => {
  const q = points[(i + 1) % points.length]!
  return sum + p.x * q.z - q.x * p.z
}, 0) / 2

/** Integral of the distance from the axis over the right half of a cut, by its corners (Green’s theorem), m3. */
function momentAboutAxis(points: readonly CutPoint[]): number {
  const half = clip(points, p => p.x)
  return Math.abs(half.reduce((sum, p, i) => {
    const q = half[(i + 1) % half.length]!
    return sum + (p.x + q.x) * (p.x * q.z - q.x * p.z)
  }, 0) / 6)
}

/** What a cut holds: turned once round (Pappus), or carried through the length. */
const holds = (points: readonly CutPoint[], turned: boolean, length: Metres): CubicMetres =>
  turned ? 2 * Math.PI * momentAboutAxis(points) : Math.abs(area(points)) * length

/** The part of a closed outline where a linear measure is not below nothing (Sutherland and Hodgman 1974). */
function clip(points: readonly CutPoint[], measure: (p: CutPoint) => number): readonly CutPoint[] {
  return points.flatMap((p, i) => {
    const q = points[(i + 1) % points.length]!, a = measure(p), b = measure(q)
    const cross = a * b < 0 ? [{ x: p.x + (q.x - p.x) * a / (a - b), z: p.z + (q.z - p.z) * a / (a - b) }] : []
    return a >= 0 ? [p, ...cross] : cross
  })
}

const ROUND = new Set<Shape['kind']>(['cylinder', 'cup', 'cap', 'bowl', 'ellipsoid', 'turned'])
/** Steps a curved wall is drawn with. */
const STEPS = 10

/** Half widths of one measured shape, from its floor up: height above it, and half width there. */
function wallOf(shape: Shape): readonly (readonly [Metres, Metres])[] {
  const curve = (height: Metres, half: (share: number) => Metres) =>
    Array.from({ length: STEPS + 1 }, (_, k) => [height * k / STEPS, half(k / STEPS)] as const)
  switch (shape.kind) {
    case 'box': return [[0, shape.width / 2], [shape.height, shape.width / 2]]
    case 'cylinder': return [[0, shape.across / 2], [shape.height, shape.across / 2]]
    case 'cup': return [[0, shape.bottom / 2], [shape.height, shape.top / 2]]
    case 'tray': return [[0, shape.bottomWidth / 2], [shape.height, shape.topWidth / 2]]
    case 'cap': {
      const { rim, depth } = shape, r = (rim * rim / 4 + depth * depth) / (2 * depth)
      return curve(depth, s => Math.sqrt(Math.max(0, r * r - (r - s * depth) ** 2)))
    }
    case 'bowl': return curve(shape.depth, s => shape.width / 2 * Math.sqrt(1 - (1 - s) ** 2))
    case 'ellipsoid': return curve(shape.height, s => shape.width / 2 * Math.sqrt(1 - (1 - 2 * s) ** 2))
    case 'outline': {
      const xs = shape.points.map(p => p.x), half = (Math.max(...xs) - Math.min(...xs)) / 2
      return [[0, half], [shape.height, half]]
    }
    case 'turned': return shape.points.map(p => [p.height - shape.points[0]!.height, p.across / 2] as const)
  }
}

/** Shapes stacked as they were measured, seen as one cut. */
function stackedCut(stack: readonly Shape[]): readonly CutPoint[] {
  let floor = 0
  const wall = stack.flatMap((shape) => {
    const part = wallOf(shape).map(([height, half]) => ({ x: half, up: floor + height }))
    floor = part.at(-1)!.up
    return part
  })
  const right = wall.map(({ x, up }) => ({ x, z: floor - up }))
  const left = right.map(({ x, z }) => ({ x: -x, z })).reverse()
  return [...left, ...right]
}

/** Far out, a bent side is no longer the kind’s own: then the depth gives way. */
const MOST_BENT = 0.7
/**
 * Bends the sides in or out, the lip staying as wide as it is, until the cut holds the volume; what bending cannot do
 * is done by the depth. One parameter, by bisection.
 */
function bendTo(points: readonly CutPoint[], volume: CubicMetres, turned: boolean, length: Metres) {
  const depth = Math.max(...points.map(p => p.z))
  const bent = (b: number) => points.map(p => ({ x: p.x * (1 + b * p.z / depth), z: p.z }))
  let low = -MOST_BENT, high = MOST_BENT
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2
    if (holds(bent(middle), turned, length) < volume) low = middle
    else high = middle
  }
  const made = bent((low + high) / 2), stretch = volume / holds(made, turned, length)
  return made.map(p => ({ x: p.x, z: p.z * stretch }))
}

/**
 * The cut of a mould: as its shapes were measured, else its kind’s own, as wide as its mouth and as deep as its volume
 * asks.
 */
export function profileOf(mould: Drawable): Profile {
  const { mouth, volume: { value: volume }, gauges = [] } = mould
  const measured = gauges.filter(g => g.how === 'shapes').at(-1), form = lookOf(mould)
  const own = !measured && !mould.form && mould.looks?.cut !== undefined
  const turned = measured ? measured.stack.every(s => ROUND.has(s.kind)) : form.turned && (own || mouth.shape === 'round')
  let length = mouth.shape === 'round' ? mouth.width : mouth.length
  let points: readonly CutPoint[]
  if (measured) points = bendTo(stackedCut(measured.stack), volume, turned, length)
  else {
    const wide = form.cut.map(([x, z]) => ({ x: x * mouth.width / 2, z: z * mouth.width }))
    // A section of its own keeps its shape, and goes as far into the page as it holds.
    if (own && !turned) length = volume / Math.abs(area(wide))
    const stretch = volume / holds(wide, turned, length)
    points = wide.map(({ x, z }) => ({ x, z: z * stretch }))
  }
  return { points, turned, length, depth: Math.max(...points.map(p => p.z)), measured: own || measured !== undefined }
}

/** The mix in a mould that is filled up to so far below its lip. */
export const mixBelow = ({ points }: Profile, z: Metres): readonly CutPoint[] => clip(points, p => p.z - z)
/** How much that is. */
export const volumeBelow = (profile: Profile, z: Metres): CubicMetres =>
  holds(mixBelow(profile, z), profile.turned, profile.length)

/** How far below its lip a mould stands that holds so much: half of it is not half as high. Brimful at most. */
export function levelOf(profile: Profile, volume: CubicMetres): Metres {
  let low = 0, high = profile.depth
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2
    if (volumeBelow(profile, middle) > volume) low = middle
    else high = middle
  }
  return (low + high) / 2
}
