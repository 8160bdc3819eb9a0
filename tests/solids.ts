import type { Vector } from '../core/mould/spans'

/** Closed solids with known volumes, as triangle positions facing outwards; for tests and benchmarks. */
type Triangle = readonly [Vector, Vector, Vector]

export function positionsOf(triangles: readonly Triangle[]): Float32Array {
  return Float32Array.from(triangles.flatMap(t => t.flatMap(p => [...p])))
}

export function box([x0, y0, z0]: Vector, [x1, y1, z1]: Vector): Triangle[] {
  const p = (i: number): Vector => [i & 1 ? x1 : x0, i & 2 ? y1 : y0, i & 4 ? z1 : z0]
  const quad = (a: number, b: number, c: number, d: number): Triangle[] => [[p(a), p(b), p(c)], [p(a), p(c), p(d)]]
  return [...quad(0, 2, 3, 1), ...quad(4, 5, 7, 6), ...quad(0, 1, 5, 4), ...quad(2, 6, 7, 3), ...quad(0, 4, 6, 2), ...quad(1, 3, 7, 5)]
}

/** A profile of (radius, height) from bottom to top turned about z, closed by discs where it does not end on the axis. */
export function turned(profile: readonly (readonly [number, number])[], segments = 96, [cx, cy, cz]: Vector = [0, 0, 0]): Triangle[] {
  const closed = [...(profile[0]![0] > 0 ? [[0, profile[0]![1]] as const] : []), ...profile, ...(profile.at(-1)![0] > 0 ? [[0, profile.at(-1)![1]] as const] : [])]
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
  return Array.from({ length: around }, (_, i) => Array.from({ length: across }, (_, j): Triangle[] => [[at(i, j), at(i + 1, j), at(i + 1, j + 1)], [at(i, j), at(i + 1, j + 1), at(i, j + 1)]])).flat(2)
}

/** Two legs of 20 x 20 x 100 joined at the bottom, 80 wide. */
export const hook = (): Triangle[] => [...box([0, 0, 0], [20, 20, 100]), ...box([60, 0, 0], [80, 20, 100]), ...box([0, 0, 0], [80, 20, 20])]

/** A box 100 x 100 x 50 with a round cup standing on its roof, r 15, 40 high: it would trap all of its air. */
export const cupOnRoof = (): Triangle[] => [...box([-50, -50, 0], [50, 50, 50]), ...turned([[15, 40], [15, 90]], 96)]

/** Turned by any rotation about three axes. */
export function rotated(positions: Float32Array, [a, b, c]: Vector): { readonly positions: Float32Array, readonly turn: (v: Vector) => Vector } {
  const turn = ([x, y, z]: Vector): Vector => {
    const [x1, y1] = [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)]
    const [y2, z2] = [y1 * Math.cos(b) - z * Math.sin(b), y1 * Math.sin(b) + z * Math.cos(b)]
    return [x1 * Math.cos(c) + z2 * Math.sin(c), y2, -x1 * Math.sin(c) + z2 * Math.cos(c)]
  }
  const out = new Float32Array(positions.length)
  for (let i = 0; i < positions.length; i += 3) out.set(turn([positions[i]!, positions[i + 1]!, positions[i + 2]!]), i)
  return { positions: out, turn }
}
