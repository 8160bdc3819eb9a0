import { box, turned, type Triangle } from '../core/mould/mesh/solids'
import type { Vector } from '../core/mould/mesh/spans'

/** Solids with known answers, for tests and benchmarks. */
/** Two legs of 20 x 20 x 100 joined at the bottom, 80 wide. */
export const hook
  = (): Triangle[] => [
    ...box([0, 0, 0], [20, 20, 100]),
    ...box([60, 0, 0], [80, 20, 100]),
    ...box([0, 0, 0], [80, 20, 20]),
  ]

/** A box 100 x 100 x 50 with a round cup standing on its roof, r 15, 40 high: it would trap all of its air. */
export const cupOnRoof = (): Triangle[] => [...box([-50, -50, 0], [50, 50, 50]), ...turned([[15, 40], [15, 90]], 96)]

/** Turned by any rotation about three axes. */
export function rotated(
  positions: Float32Array,
  [a, b, c]: Vector,
): { readonly positions: Float32Array, readonly turn: (v: Vector) => Vector } {
  const turn = ([x, y, z]: Vector): Vector => {
    const [x1, y1] = [x * Math.cos(a) - y * Math.sin(a), x * Math.sin(a) + y * Math.cos(a)]
    const [y2, z2] = [y1 * Math.cos(b) - z * Math.sin(b), y1 * Math.sin(b) + z * Math.cos(b)]
    return [x1 * Math.cos(c) + z2 * Math.sin(c), y2, -x1 * Math.sin(c) + z2 * Math.cos(c)]
  }
  const out = new Float32Array(positions.length)
  for (let i = 0; i < positions.length; i += 3) out.set(turn([positions[i]!, positions[i + 1]!, positions[i + 2]!]), i)
  return { positions: out, turn }
}
