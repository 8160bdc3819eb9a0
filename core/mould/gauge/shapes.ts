import type { CubicMetres, Metres } from '../../units/quantity'

/**
 * Closed shapes that people measure a mould as. All lengths are inside measures in metres. Formulas: solid geometry,
 * any handbook.
 */
export type Shape
  = | { readonly kind: 'box', readonly width: Metres, readonly length: Metres, readonly height: Metres }
    | { readonly kind: 'cylinder', readonly across: Metres, readonly height: Metres }
    | { readonly kind: 'cup', readonly bottom: Metres, readonly top: Metres, readonly height: Metres }
    | {
      readonly kind: 'tray'
      readonly bottomWidth: Metres
      readonly bottomLength: Metres
      readonly topWidth: Metres
      readonly topLength: Metres
      readonly height: Metres
    }
    | { readonly kind: 'cap', readonly rim: Metres, readonly depth: Metres }
    | { readonly kind: 'bowl', readonly width: Metres, readonly length: Metres, readonly depth: Metres }
    | { readonly kind: 'ellipsoid', readonly width: Metres, readonly length: Metres, readonly height: Metres }
    | { readonly kind: 'outline', readonly points: readonly Point[], readonly height: Metres }
    | { readonly kind: 'turned', readonly points: readonly TurnedPoint[] }

export interface Point {
  readonly x: Metres
  readonly y: Metres
}
/** One height of a turned profile, from the bottom up, with its inside diameter there. */
export interface TurnedPoint { readonly height: Metres, readonly across: Metres }

/** Cone frustum between two radii. Written with sums only, so that nothing cancels as it becomes a cylinder. */
function frustum(r0: Metres, r1: Metres, height: Metres): CubicMetres {
  return Math.PI * height / 3 * (r0 * r0 + r0 * r1 + r1 * r1)
}

/** Area inside a traced outline, m2, whichever way round it was traced (shoelace formula). */
export function outlineArea(points: readonly Point[]): number {
  let twice = 0
  for (let i = 0; i < points.length; i++) {
    const a = points[i]!, b = points[(i + 1) % points.length]!
    twice += a.x * b.y - b.x * a.y
  }
  return Math.abs(twice) / 2
}

/** On which side of the way from a to b a point lies: above 0 to the left. */
const side = (a: Point, b: Point, p: Point) => Math.sign((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x))

/** Whether an outline, closed from its last corner to its first, runs through itself: its area is then of no thing. */
export function crossesItself(points: readonly Point[]): boolean {
  const n = points.length, corner = (i: number) => points[i % n]!
  for (let i = 0; i < n; i++)
    for (let j = i + 2; j < n; j++) {
      // The last side ends where the first begins.
      if (i === 0 && j === n - 1) continue
      const [a, b, c, d] = [corner(i), corner(i + 1), corner(j), corner(j + 1)]
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return true
    }
  return false
}

export function shapeVolume(shape: Shape): CubicMetres {
  switch (shape.kind) {
    case 'box': return shape.width * shape.length * shape.height
    case 'cylinder': return Math.PI / 4 * shape.across ** 2 * shape.height
    case 'cup': return frustum(shape.bottom / 2, shape.top / 2, shape.height)
    case 'tray': {
      const { bottomWidth: a, bottomLength: b, topWidth: c, topLength: d, height } = shape
      return height / 6 * (2 * a * b + a * d + b * c + 2 * c * d)
    }
    case 'cap':
      return Math.PI * shape.depth * (3 * (shape.rim / 2) ** 2 + shape.depth ** 2) / 6
    case 'bowl':
      return 2 / 3 * Math.PI * shape.width / 2 * shape.length / 2 * shape.depth
    case 'ellipsoid':
      return Math.PI / 6 * shape.width * shape.length * shape.height
    case 'outline':
      return outlineArea(shape.points) * shape.height
    case 'turned':
      return shape.points.slice(1).reduce(
        (v, p, i) => v + frustum(shape.points[i]!.across / 2, p.across / 2, p.height - shape.points[i]!.height),
        0,
      )
  }
}

/** Area of the walls of a turned profile and of its floor, m2: what a coat or a release has to cover. */
export function turnedArea(points: readonly TurnedPoint[]): number {
  const floor = points[0] ? Math.PI / 4 * points[0].across ** 2 : 0
  return points.slice(1).reduce((area, p, i) => {
    const before = points[i]!
    return area
      + Math.PI * (before.across + p.across) / 2 * Math.hypot(p.height - before.height, (p.across - before.across) / 2)
  }, floor)
}

/**
 * Where a turned profile narrows towards its opening: a rigid cast or mould would lock there. Scanning from the mouth
 * down,
 * everything wider than the narrowest place above it. @returns heights from..to and by how much, largest first; empty
 * when it lets go.
 */
export function turnedUndercuts(
  points: readonly TurnedPoint[],
): readonly { readonly from: Metres, readonly to: Metres, readonly by: Metres }[] {
  const found: { from: Metres, to: Metres, by: Metres }[] = []
  let neck = Infinity, neckAt = 0, widest = 0
  const close = (to: Metres) => {
    if (widest > 1e-6) found.push({ from: to, to: neckAt, by: widest })
    widest = 0
  }
  for (let i = points.length - 1; i >= 0; i--) {
    const p = points[i]!
    if (p.across <= neck) {
      close(p.height)
      neck = p.across
      neckAt = p.height
    }
    else widest = Math.max(widest, (p.across - neck) / 2)
  }
  close(points[0]?.height ?? 0)
  return found.sort((a, b) => b.by - a.by)
}

export type ShapeProblem
  = | 'few-corners'
    | 'outline-empty'
    | 'outline-crosses'
    | 'no-depth'
    | 'few-heights'
    | 'no-diameter'
    | 'heights-fall'
    | 'profile-empty'
    | 'no-measure'

/** Why a shape cannot be worked out; undefined when it can. */
export function shapeProblem(shape: Shape): ShapeProblem | undefined {
  if (shape.kind === 'outline') {
    if (shape.points.length < 3) return 'few-corners'
    if (!(outlineArea(shape.points) > 0)) return 'outline-empty'
    if (crossesItself(shape.points)) return 'outline-crosses'
    return shape.height > 0 ? undefined : 'no-depth'
  }
  if (shape.kind === 'turned') {
    if (shape.points.length < 2) return 'few-heights'
    if (shape.points.some(p => !(p.across >= 0) || !Number.isFinite(p.height))) return 'no-diameter'
    if (shape.points.slice(1).some((p, i) => p.height <= shape.points[i]!.height)) return 'heights-fall'
    return shapeVolume(shape) > 0 ? undefined : 'profile-empty'
  }
  const lengths = Object.entries(shape).filter(([key]) => key !== 'kind').map(([key, v]) => [key, v as number] as const)
  return lengths.every(([key, v]) => v > 0 || (shape.kind === 'cup' && key === 'bottom' && v === 0))
    ? undefined
    : 'no-measure'
}

/**
 * The same shape with every length scaled or moved by the measuring error of one of them; used to carry errors into the
 * volume.
 */
function nudged(shape: Shape, by: Metres): Shape[] {
  if (shape.kind === 'outline')
    return [{ ...shape, height: shape.height + by }, { ...shape, points: grown(shape.points, by) }]
  if (shape.kind === 'turned')
    return [{ ...shape, points: shape.points.map(p => ({ ...p, across: p.across + by })) }, {
      ...shape,
      points: shape.points.map((p, i) => i === shape.points.length - 1 ? { ...p, height: p.height + by } : p),
    }]
  return Object.keys(shape).filter(k => k !== 'kind').map(key =>
    ({ ...shape, [key]: (shape as unknown as Record<string, number>)[key]! + by }) as Shape,
  )
}

/** An outline whose width has grown by `by`: scaled about its middle. */
function grown(points: readonly Point[], by: Metres): Point[] {
  const span = Math.sqrt(outlineArea(points)) || 1
  const cx = points.reduce((s, p) => s + p.x, 0) / points.length,
    cy = points.reduce((s, p) => s + p.y, 0) / points.length
  return points.map(p => ({ x: cx + (p.x - cx) * (1 + by / span), y: cy + (p.y - cy) * (1 + by / span) }))
}

/**
 * Relative standard deviation of the volume of a measured stack, when each length is known to `error` (one standard
 * deviation, m): first-order propagation.
 */
export function shapeDoubt(stack: readonly Shape[], error: Metres): number {
  const total = stack.reduce((v, s) => v + shapeVolume(s), 0)
  const variance = stack.reduce(
    (sum, s) => sum + nudged(s, error).reduce((v, n) => v + (shapeVolume(n) - shapeVolume(s)) ** 2, 0),
    0,
  )
  return Math.sqrt(variance) / total
}
