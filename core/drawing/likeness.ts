import { contours } from 'd3-contour'
import simplify from 'simplify-js'
import { columnSpans, dot, normalised, type Spans, type Vector } from '../mould/mesh/spans'
import type { Pixel } from '../mould/photo/photo'
import { MOST_POINTS, type Likeness, type Place } from './form-ids'

/** How a piece looks, found from its model or from what was traced in its photo. */
interface Point { x: number, y: number }

/** Columns along the longest side of a model when it is looked at. */
const LOOKING = 200
/** Taller than this against its width, a piece is seen from the side, as cups are. */
const STANDS = 0.6
/** Heights between the lowest and the highest place that is seen, at which a line is drawn. */
const HEIGHTS = [0.4, 0.75]
/** Most lines on a piece: more are a thicket. */
const MOST_LINES = 24
/** What lies nearer to the edge than so many columns is the edge. */
const AT_EDGE = 3

interface View {
  readonly right: Vector
  readonly down: Vector
  /** From the piece to the eye. */
  readonly toEye: Vector
}
const negative = ([x, y, z]: Vector): Vector => [-x, -y, -z]
const across = ([a, b, c]: Vector, [d, e, f]: Vector): Vector => [b * f - c * e, c * d - a * f, a * e - b * d]

/** The heights that are seen from one side, column by column, and how far the columns lie along the view's own axes. */
interface Seen {
  readonly heights: Float64Array
  readonly inside: Uint8Array
  readonly nu: number
  readonly nv: number
  readonly at: (column: number, row: number) => Point
}

function seenFrom(spans: Spans, { right, down }: View): Seen {
  const { nu, nv, start, hi, h, u0, v0, frame } = spans
  const heights = new Float64Array(nu * nv).fill(spans.bottom), inside = new Uint8Array(nu * nv)
  for (let c = 0; c < nu * nv; c++) {
    if (start[c + 1]! === start[c]!) continue
    inside[c] = 1
    heights[c] = hi[start[c + 1]! - 1]!
  }
  const [ru, rv, du, dv] = [dot(frame.u, right), dot(frame.v, right), dot(frame.u, down), dot(frame.v, down)]
  const at = (column: number, row: number): Point => {
    const u = u0 + column * h, v = v0 + row * h
    return { x: u * ru + v * rv, y: u * du + v * dv }
  }
  return { heights, inside, nu, nv, at }
}

/** Rings once round all that is at least so high, in columns (marching squares, by the contour library). */
const ringsAt = (values: ArrayLike<number>, nu: number, nv: number, height: number): Point[][] =>
  contours().size([nu, nv]).contour(Array.from(values), height).coordinates.flat()
    .map(ring => ring.map(([x, y]) => ({ x: x!, y: y! })))

/** Each column the mean of itself and those beside it: an edge without the steps of its columns. */
function smoothed(inside: Uint8Array, nu: number, nv: number): Float64Array {
  const mean = new Float64Array(nu * nv)
  for (let v = 1; v < nv - 1; v++) for (let u = 1; u < nu - 1; u++) {
    let sum = 0
    for (let dv = -1; dv <= 1; dv++) for (let du = -1; du <= 1; du++) sum += inside[(v + dv) * nu + u + du]!
    mean[v * nu + u] = sum / 9
  }
  return mean
}

/** Parts of a ring that do not run along the edge of what is seen. */
function awayFromEdge(ring: readonly Point[], { inside, nu, nv }: Seen): Point[][] {
  const away = ({ x, y }: Point) => {
    for (let dy = -AT_EDGE; dy <= AT_EDGE; dy++) for (let dx = -AT_EDGE; dx <= AT_EDGE; dx++) {
      const [u, v] = [Math.floor(x) + dx, Math.floor(y) + dy]
      if (u < 0 || v < 0 || u >= nu || v >= nv || !inside[v * nu + u]) return false
    }
    return true
  }
  const parts: Point[][] = [[]]
  for (const p of ring) {
    if (away(p)) parts.at(-1)!.push(p)
    else if (parts.at(-1)!.length > 0) parts.push([])
  }
  return parts.filter(p => p.length > 4)
}

const lengthOf = (line: readonly Point[]) =>
  line.reduce((sum, p, i) => i === 0 ? 0 : sum + Math.hypot(p.x - line[i - 1]!.x, p.y - line[i - 1]!.y), 0)

/** The longest lines, each made simpler until all together have at most so many points (Douglas and Peucker 1973). */
function withinPoints(lines: readonly Point[][], most: number, finest: number): Point[][] {
  const longest = [...lines].sort((a, b) => lengthOf(b) - lengthOf(a)).slice(0, MOST_LINES)
  for (let tolerance = finest; ; tolerance *= 1.4) {
    const made = longest.map(l => simplify(l, tolerance, true))
    if (made.reduce((n, l) => n + l.length, 0) <= most) return made
  }
}

const placed = (p: Point): Place => [Math.round(10 * p.x) / 10, Math.round(10 * p.y) / 10]

/** Lays lines into the square of 100 that their edges fill. */
function squared(edges: readonly Point[][], lines: readonly Point[][]): Pick<Likeness, 'edge' | 'lines'> {
  const all = edges.flat(), xs = all.map(p => p.x), ys = all.map(p => p.y)
  const [left, top] = [Math.min(...xs), Math.min(...ys)]
  const [wide, tall] = [Math.max(...xs) - left, Math.max(...ys) - top]
  const into = (line: readonly Point[]) =>
    line.map(p => placed({ x: 2 + 96 * (p.x - left) / wide, y: 2 + 96 * (p.y - top) / tall }))
  return { edge: edges.map(into), lines: lines.map(into) }
}

/** A section through the middle of a piece, as its mould has it: from lip to lip, x by half the width, z in widths. */
function cutThrough(spans: Spans, right: Vector, forward: Vector): Point[] {
  const { frame, nu, nv, start, lo, hi, h, u0, v0, top, bottom } = spans
  const [ru, rv, fu, fv] = [dot(frame.u, right), dot(frame.v, right), dot(frame.u, forward), dot(frame.v, forward)]
  const columns: { readonly c: number, readonly x: number, readonly y: number }[] = []
  for (let c = 0; c < nu * nv; c++) {
    if (start[c + 1]! === start[c]!) continue
    const u = u0 + (c % nu + 0.5) * h, v = v0 + (Math.floor(c / nu) + 0.5) * h
    columns.push({ c, x: u * ru + v * rv, y: u * fu + v * fv })
  }
  const range = (values: readonly number[]) => [Math.min(...values), Math.max(...values)] as const
  const [left, rightmost] = range(columns.map(p => p.x)), [near, far] = range(columns.map(p => p.y))
  // A picture of the section, a frame of nothing round it.
  const nx = Math.round((rightmost - left) / h) + 5, nz = Math.ceil((top - bottom) / h) + 5
  const inside = new Uint8Array(nx * nz)
  for (const { c, x, y } of columns) {
    if (Math.abs(y - (near + far) / 2) > 0.75 * h) continue
    const slot = Math.round((x - left) / h) + 2
    for (let i = start[c]!; i < start[c + 1]!; i++) {
      const lowest = Math.round((top - lo[i]!) / h)
      for (let z = Math.round((top - hi[i]!) / h); z < lowest; z++) inside[(z + 2) * nx + slot] = 1
    }
  }
  const ring = ringsAt(smoothed(inside, nx, nz), nx, nz, 0.5).sort((a, b) => b.length - a.length)[0] ?? []
  const wide = rightmost - left + h
  return fromLipToLip(ring.map(p => ({ x: 2 * (p.x - 2) * h / wide - 1, y: Math.max(0, (p.y - 2) * h / wide) })))
}

/** A ring opened at its top: from the left end of what is highest, down and round to the right end of it. */
function fromLipToLip(ring: readonly Point[]): Point[] {
  // A middle where nothing is, as between two legs, has no cut.
  if (ring.length === 0) return []
  const highest = Math.min(...ring.map(p => p.y)), lips = ring.flatMap((p, i) => p.y < highest + 0.012 ? [i] : [])
  const by = (sign: number) => lips.reduce((best, i) => sign * ring[i]!.x < sign * ring[best]!.x ? i : best, lips[0]!)
  const [from, to] = [by(1), by(-1)], n = ring.length
  const walk = (step: number) => {
    const made: Point[] = []
    for (let i = from; ; i = (i + step + n) % n) {
      made.push(ring[i]!)
      if (i === to) return made
    }
  }
  const deepest = (line: readonly Point[]) => Math.max(...line.map(p => p.y))
  const [one, other] = [walk(1), walk(-1)], down = deepest(one) > deepest(other) ? one : other
  return [{ x: down[0]!.x, y: 0 }, ...down.slice(1, -1), { x: down.at(-1)!.x, y: 0 }]
}

/** As round as it is wide: its columns fill a disc, and stand alike a quarter turn on, within so much. */
const AS_ROUND = 0.04
function isTurned(spans: Spans, wide: number, deep: number): boolean {
  const { start, nu, nv, h } = spans
  let columns = 0
  for (let c = 0; c < nu * nv; c++) if (start[c + 1]! > start[c]!) columns++
  const disc = Math.PI / 4 * wide * deep
  return Math.abs(wide / deep - 1) < AS_ROUND && Math.abs(columns * h * h / disc - 1) < AS_ROUND
}

/**
 * What a piece looks like, poured with `up` above: its face, which lies below while it is poured, or from the side
 * where it is taller than wide, standing on what was above. Its outline, lines of equal height on it, and the cut of
 * its mould.
 * @param positions of a closed solid facing outwards, in any unit
 */
export function likenessOfModel(positions: Float32Array, up: Vector): Likeness | undefined {
  const top = normalised(up), aside: Vector = Math.abs(top[0]) > 0.9 ? [0, 1, 0] : [1, 0, 0]
  const forward = normalised(across(top, aside)), right = across(forward, top)
  const poured = columnSpans(positions, top, LOOKING)
  if (poured.lo.length === 0) return undefined
  const extent = (along: Vector) => {
    let low = Infinity, high = -Infinity
    for (let i = 0; i < positions.length; i += 3) {
      const d = positions[i]! * along[0] + positions[i + 1]! * along[1] + positions[i + 2]! * along[2]
      if (d < low) low = d
      if (d > high) high = d
    }
    return high - low
  }
  const wide = extent(right), deep = extent(forward), stands = extent(top) > STANDS * Math.max(wide, deep)
  const view: View = stands
    ? { right, down: top, toEye: negative(forward) }
    : { right, down: forward, toEye: negative(top) }
  const spans = columnSpans(positions, view.toEye, LOOKING), seen = seenFrom(spans, view)
  const { heights, inside, nu, nv } = seen
  const edges = ringsAt(smoothed(inside, nu, nv), nu, nv, 0.5)
  const nearest = Math.max(...heights.filter((_, c) => inside[c]!))
  const farthest = Math.min(...heights.filter((_, c) => inside[c]!))
  const lines = nearest - farthest < 0.02 * wide
    ? []
    : HEIGHTS.flatMap(s => ringsAt(heights, nu, nv, farthest + s * (nearest - farthest)))
        .flatMap(ring => awayFromEdge(ring, seen))
  const turn = (line: Point[]) => line.map(p => seen.at(p.x, p.y)), fine = spans.h / 2
  const cut = withinPoints([cutThrough(poured, right, forward)], MOST_POINTS.cut, 0.004)[0]!
  return {
    turned: isTurned(poured, wide, deep),
    stands,
    ...squared(
      withinPoints(edges.map(turn), MOST_POINTS.edge, fine), withinPoints(lines.map(turn), MOST_POINTS.lines, fine),
    ),
    ...cut.length > 2 && { cut: cut.map(p => [Math.round(1000 * p.x) / 1000, Math.round(1000 * p.y) / 1000] as const) },
  }
}

/** Turns lines so that the long axis of the first, by the second moments of its outline, stands upright. */
function upright(lines: readonly (readonly Point[])[]): Point[][] {
  const outline = lines[0]!, pieces = outline.map((a, i) => {
    const b = outline[(i + 1) % outline.length]!
    return { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, long: Math.hypot(b.x - a.x, b.y - a.y) }
  })
  const sum = (of: (p: Point) => number) => pieces.reduce((s, p) => s + p.long * of(p), 0)
  const whole = sum(() => 1), x0 = sum(p => p.x) / whole, y0 = sum(p => p.y) / whole
  const xx = sum(p => (p.x - x0) ** 2), yy = sum(p => (p.y - y0) ** 2), xy = sum(p => (p.x - x0) * (p.y - y0))
  const turn = Math.PI / 2 - Math.atan2(2 * xy, xx - yy) / 2, [c, s] = [Math.cos(turn), Math.sin(turn)]
  return lines.map(l => l.map(({ x, y }) => ({ x: x * c - y * s, y: x * s + y * c })))
}

/**
 * What is known of a piece by lines traced round it in a photo, the largest its edge and the others on it, its long
 * side upright; none where nothing was traced. @param onGround where a pixel lies, in any unit
 */
export function likenessOfOutlines(
  outlines: readonly (readonly Pixel[])[], onGround: (p: Pixel) => Pixel,
): Likeness | undefined {
  const laid = outlines.filter(o => o.length >= 3).map(o => o.map(p => ({ ...onGround(p) })))
  const area = (o: readonly Point[]) => Math.abs(o.reduce((twice, a, i) => {
    const b = o[(i + 1) % o.length]!
    return twice + a.x * b.y - b.x * a.y
  }, 0))
  laid.sort((a, b) => area(b) - area(a))
  if (!laid[0] || !(area(laid[0]) > 0)) return undefined
  const [edge, ...others] = upright(laid) as [Point[], ...Point[][]]
  const closed = (o: readonly Point[]) => [...o, o[0]!]
  const size = Math.sqrt(area(edge))
  return {
    turned: false,
    stands: false,
    ...squared(
      withinPoints([closed(edge)], MOST_POINTS.edge, size / 400),
      withinPoints(others.map(closed), MOST_POINTS.lines, size / 400),
    ),
  }
}
