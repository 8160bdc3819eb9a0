import type { MeshMeasures } from './mesh'
import { dot, type Vector } from './spans'
import type { Opening } from './trapped-air'

/** Where a model is poured: found from its own shape. Lengths in the model's unit, directions of length 1. */

/** What lies within this share of the model's diagonal of its highest level counts as at it. */
const LEVEL = 1e-4

const diagonal = ({ low, high }: Pick<MeshMeasures, 'low' | 'high'>) =>
  Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2])

/**
 * How far a model reaches along a direction, and the middle of what reaches that far: of its flat facets there by their
 * area, or where it ends in an edge or a tip of the box around its corners.
 * @param positions corners of its triangles, x, y and z one after the other; at least one triangle
 * @param direction of length 1
 */
export function extentAlong(
  positions: Float32Array,
  measures: Pick<MeshMeasures, 'low' | 'high'>,
  direction: Vector,
): { readonly most: number, readonly at: Vector } {
  const corner = (i: number): Vector => [positions[i]!, positions[i + 1]!, positions[i + 2]!]
  let most = -Infinity
  for (let i = 0; i < positions.length; i += 3) most = Math.max(most, dot(corner(i), direction))
  const flat = most - LEVEL * diagonal(measures)
  const facets = new Middle(), low = [Infinity, Infinity, Infinity], high = [-Infinity, -Infinity, -Infinity]
  for (let i = 0; i < positions.length; i += 9) {
    const at = [corner(i), corner(i + 3), corner(i + 6)] as const
    const there = at.filter(c => dot(c, direction) >= flat)
    for (const c of there) {
      for (const axis of [0, 1, 2] as const) {
        low[axis] = Math.min(low[axis]!, c[axis])
        high[axis] = Math.max(high[axis]!, c[axis])
      }
    }
    if (there.length === 3) facets.add(scaled(sum(...at), 1 / 3), areaOf(...at))
  }
  const [x, y, z] = low.map((l, axis) => (l + high[axis]!) / 2) as [number, number, number]
  return { most, at: facets.at ?? [x, y, z] }
}

const sum = (a: Vector, b: Vector, c: Vector): Vector => [a[0] + b[0] + c[0], a[1] + b[1] + c[1], a[2] + b[2] + c[2]]
const scaled = (v: Vector, by: number): Vector => [v[0] * by, v[1] * by, v[2] * by]
function areaOf(a: Vector, b: Vector, c: Vector): number {
  const [u, v] = [[b[0] - a[0], b[1] - a[1], b[2] - a[2]], [c[0] - a[0], c[1] - a[1], c[2] - a[2]]] as const
  return Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2
}
/** A mean of places by weight. */
class Middle {
  private total: Vector = [0, 0, 0]
  private weight = 0
  add(at: Vector, weight: number): void {
    this.total = sum(this.total, scaled(at, weight), [0, 0, 0])
    this.weight += weight
  }

  get at(): Vector | undefined {
    return this.weight > 0 ? scaled(this.total, 1 / this.weight) : undefined
  }
}

/**
 * The whole upper face is open, as in a mould with its back up: a disc over all of it at its highest level.
 * @param up of length 1
 */
export function openOnTop(positions: Float32Array, measures: Pick<MeshMeasures, 'low' | 'high'>, up: Vector): Opening {
  const { low, high } = measures
  const middle: Vector = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2]
  const rise = extentAlong(positions, measures, up).most - dot(middle, up)
  return {
    at: [middle[0] + rise * up[0], middle[1] + rise * up[1], middle[2] + rise * up[2]],
    radius: diagonal(measures) / 2,
    out: up,
    reach: 0,
  }
}

/** A round hole where the model is highest. @param radius in the model's unit, above 0 */
export function holeOnTop(
  positions: Float32Array,
  measures: Pick<MeshMeasures, 'low' | 'high'>,
  up: Vector,
  radius: number,
): Opening {
  return { at: extentAlong(positions, measures, up).at, radius, out: up }
}
