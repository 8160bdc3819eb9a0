import type { Vector } from './spans'

/** Closed solids as triangles that face outwards: samples, and profiles that become models. */
export type Triangle = readonly [Vector, Vector, Vector]

export function positionsOf(triangles: readonly Triangle[]): Float32Array {
  return Float32Array.from(triangles.flatMap(t => t.flatMap(p => [...p])))
}

export function box([x0, y0, z0]: Vector, [x1, y1, z1]: Vector): Triangle[] {
  const p = (i: number): Vector => [i & 1 ? x1 : x0, i & 2 ? y1 : y0, i & 4 ? z1 : z0]
  const quad = (a: number, b: number, c: number, d: number): Triangle[] => [[p(a), p(b), p(c)], [p(a), p(c), p(d)]]
  return [
    ...quad(0, 2, 3, 1),
    ...quad(4, 5, 7, 6),
    ...quad(0, 1, 5, 4),
    ...quad(2, 6, 7, 3),
    ...quad(0, 4, 6, 2),
    ...quad(1, 3, 7, 5),
  ]
}

/**
 * A profile of (radius, height) from bottom to top turned about z, closed by discs where it does not end on the axis.
 */
export function turned(
  profile: readonly (readonly [number, number])[],
  segments = 96,
  [cx, cy, cz]: Vector = [0, 0, 0],
): Triangle[] {
  const closed = [
    ...(profile[0]![0] > 0 ? [[0, profile[0]![1]] as const] : []),
    ...profile,
    ...(profile.at(-1)![0] > 0 ? [[0, profile.at(-1)![1]] as const] : []),
  ]
  const at = ([r, z]: readonly [number, number], k: number): Vector => {
    const a = 2 * Math.PI * (k % segments) / segments
    return [cx + r * Math.cos(a), cy + r * Math.sin(a), cz + z]
  }
  const list: Triangle[] = []
  for (let i = 0; i + 1 < closed.length; i++) {
    const low = closed[i]!, high = closed[i + 1]!
    for (let k = 0; k < segments; k++) {
      const [a, b, c, d] = [at(low, k), at(low, k + 1), at(high, k + 1), at(high, k)]
      if (low[0] > 0) list.push([a, b, c])
      if (high[0] > 0) list.push([a, c, d])
    }
  }
  return list
}

export function ball(radius: number, rings = 64, segments = 128): Triangle[] {
  return turned(Array.from({ length: rings + 1 }, (_, i) => {
    const a = -Math.PI / 2 + Math.PI * i / rings
    return [i === 0 || i === rings ? 0 : radius * Math.cos(a), radius * Math.sin(a)] as const
  }), segments)
}

export function torus(ring: number, tube: number, around = 128, across = 64): Triangle[] {
  const at = (i: number, j: number): Vector => {
    const a = 2 * Math.PI * (i % around) / around, b = 2 * Math.PI * (j % across) / across
    return [(ring + tube * Math.cos(b)) * Math.cos(a), (ring + tube * Math.cos(b)) * Math.sin(a), tube * Math.sin(b)]
  }
  return Array.from(
    { length: around },
    (_, i) =>
      Array.from(
        { length: across },
        (_, j): Triangle[] => [[at(i, j), at(i + 1, j), at(i + 1, j + 1)], [at(i, j), at(i + 1, j + 1), at(i, j + 1)]],
      ),
  ).flat(2)
}
