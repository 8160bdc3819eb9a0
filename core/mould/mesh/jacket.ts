import type { Vector } from './spans'
import type { Triangles } from './stl'

/**
 * What a jacket of even thickness around a model takes, for shapes of any kind: hollows and inner corners take less
 * than the sum of faces and edges says. Signed distance on a grid; a cell on the edge counts by how far the edge lies
 * in it (first order).
 */

/** Cells a jacket's thickness is divided into at least. */
const FINENESS = 4
/** More cells than this are not looked at: the grid is then coarser. */
const MOST_CELLS = 4_000_000

export interface JacketRead {
  /** In the cube of the model's own unit. */
  readonly volume: number
  /** Side of a cell, in that unit: what it is good to. */
  readonly step: number
}

/** Square of the distance from a point to a triangle (Ericson 2005, Real-Time Collision Detection, 5.1.5). */
function distanceSquared(px: number, py: number, pz: number, t: Float64Array | Float32Array, i: number): number {
  const ax = t[i]!, ay = t[i + 1]!, az = t[i + 2]!
  const abx = t[i + 3]! - ax, aby = t[i + 4]! - ay, abz = t[i + 5]! - az
  const acx = t[i + 6]! - ax, acy = t[i + 7]! - ay, acz = t[i + 8]! - az
  const apx = px - ax, apy = py - ay, apz = pz - az
  const d1 = abx * apx + aby * apy + abz * apz, d2 = acx * apx + acy * apy + acz * apz
  const away = (v: number, w: number) =>
    (apx - v * abx - w * acx) ** 2 + (apy - v * aby - w * acy) ** 2 + (apz - v * abz - w * acz) ** 2
  if (d1 <= 0 && d2 <= 0) return away(0, 0)
  const ab = abx * abx + aby * aby + abz * abz, ac = acx * acx + acy * acy + acz * acz
  const both = abx * acx + aby * acy + abz * acz
  const d3 = d1 - ab, d4 = d2 - both
  if (d3 >= 0 && d4 <= d3) return away(1, 0)
  const vc = d1 * d4 - d3 * d2
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return away(d1 / (d1 - d3), 0)
  const d5 = d1 - both, d6 = d2 - ac
  if (d6 >= 0 && d5 <= d6) return away(0, 1)
  const vb = d5 * d2 - d1 * d6
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return away(0, d2 / (d2 - d6))
  const va = d3 * d6 - d5 * d4
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    const w = (d4 - d3) / (d4 - d3 + (d5 - d6))
    return away(1 - w, w)
  }
  const all = va + vb + vc
  return all === 0 ? away(0, 0) : away(vb / all, vc / all)
}

interface Grid {
  readonly low: readonly [number, number, number]
  readonly size: readonly [number, number, number]
  readonly step: number
}

function gridAround({ positions }: Triangles, thickness: number, wanted: number): Grid {
  const low = [Infinity, Infinity, Infinity], high = [-Infinity, -Infinity, -Infinity]
  positions.forEach((v, i) => {
    low[i % 3] = Math.min(low[i % 3]!, v)
    high[i % 3] = Math.max(high[i % 3]!, v)
  })
  const room = (step: number) => low.map((l, k) => Math.ceil((high[k]! - l + 2 * (thickness + step)) / step))
  let step = wanted
  while (room(step).reduce((a, b) => a * b) > MOST_CELLS) step *= 1.1
  const size = room(step) as [number, number, number]
  return { low: low.map(l => l - thickness - step) as [number, number, number], size, step }
}

/** Distances no larger than `reach`, squared, by cell; Infinity beyond. */
function nearDistances({ positions }: Triangles, { low, size, step }: Grid, reach: number): Float32Array {
  const [nx, ny, nz] = size, near = new Float32Array(nx * ny * nz).fill(Infinity)
  const span = (i: number, k: number, n: number) => {
    const a = positions[i + k]!, b = positions[i + 3 + k]!, c = positions[i + 6 + k]!
    const from = Math.floor((Math.min(a, b, c) - reach - low[k]!) / step - 0.5)
    const to = Math.ceil((Math.max(a, b, c) + reach - low[k]!) / step - 0.5)
    return [Math.max(0, from), Math.min(n - 1, to)] as const
  }
  for (let i = 0; i < positions.length; i += 9) {
    const [x0, x1] = span(i, 0, nx), [y0, y1] = span(i, 1, ny), [z0, z1] = span(i, 2, nz)
    for (let z = z0; z <= z1; z++)
      for (let y = y0; y <= y1; y++)
        for (let x = x0; x <= x1; x++) {
          const cell = (z * ny + y) * nx + x
          const d = distanceSquared(
            low[0] + (x + 0.5) * step, low[1] + (y + 0.5) * step, low[2] + (z + 0.5) * step, positions, i,
          )
          if (d < near[cell]!) near[cell] = d
        }
  }
  return near
}

/** Cells whose middle is outside the model: reached from the grid's edge without crossing what is at the surface. */
function outsideCells(near: Float32Array, [nx, ny, nz]: Grid['size'], step: number): Uint8Array {
  const outside = new Uint8Array(near.length), wall = (0.87 * step) ** 2, queue = new Int32Array(near.length)
  let head = 0, tail = 0
  const reach = (cell: number) => {
    if (outside[cell] || near[cell]! <= wall) return
    outside[cell] = 1
    queue[tail++] = cell
  }
  reach(0)
  while (head < tail) {
    const cell = queue[head++]!, x = cell % nx, y = Math.floor(cell / nx) % ny, z = Math.floor(cell / (nx * ny))
    if (x > 0) reach(cell - 1)
    if (x < nx - 1) reach(cell + 1)
    if (y > 0) reach(cell - nx)
    if (y < ny - 1) reach(cell + nx)
    if (z > 0) reach(cell - nx * ny)
    if (z < nz - 1) reach(cell + nx * ny)
  }
  return outside
}

/**
 * Volume within `thickness` of a closed model, outside of it.
 * @param own the model's own volume: what lies at its surface, on both sides, is counted and taken off again
 * @param table height below which nothing is: it stands there @param wanted side of a cell
 */
export function jacketVolume(
  model: Triangles, thickness: number, own: number, table?: number, wanted = thickness / FINENESS,
): JacketRead {
  const grid = gridAround(model, thickness, wanted), { size: [nx, ny], step, low } = grid
  const near = nearDistances(model, grid, thickness + step), outside = outsideCells(near, grid.size, step)
  let inside = 0, grown = 0
  near.forEach((d, cell) => {
    const z = low[2] + (Math.floor(cell / (nx * ny)) + 0.5) * step
    // The part of a cell above the table.
    const above = table === undefined ? 1 : Math.min(1, Math.max(0, (z - table) / step + 0.5))
    if (above === 0) return
    const atSurface = Math.sqrt(d) <= 0.87 * step
    if (!outside[cell] && !atSurface) {
      inside += above
      return
    }
    grown += above * Math.min(1, Math.max(0, 0.5 - (Math.sqrt(d) - thickness) / step))
  })
  return { volume: (inside + grown) * step ** 3 - own, step }
}

/** The model turned so that `up`, one of its axes, is its third: what it stands on is then its lowest height. */
export function stoodUp({ positions }: Triangles, up: Vector): Triangles {
  const axis = [0, 1, 2].reduce((most, i) => Math.abs(up[i]!) > Math.abs(up[most]!) ? i : most)
  const sign = Math.sign(up[axis]!), turned = new Float32Array(positions.length)
  for (let i = 0; i < positions.length; i += 3) {
    turned[i] = positions[i + (axis + 1) % 3]!
    turned[i + 1] = sign * positions[i + (axis + 2) % 3]!
    turned[i + 2] = sign * positions[i + axis]!
  }
  return { positions: turned }
}

/** A jacket in even layers: what each takes, from the innermost outwards, in the cube of the model's unit. */
export interface JacketLayers { readonly layers: readonly number[], readonly step: number }

/**
 * What each of several even layers around a closed model takes, each good to the cells of the whole.
 * Yields how far it is, 0 to 1.
 * @param thickness of one layer @param stands which of its axes is up where it stands on a table
 */
export function* jacketLayers(
  closed: Triangles, thickness: number, count: number, own: number, stands?: Vector,
): Generator<number, JacketLayers> {
  const model = stands ? stoodUp(closed, stands) : closed
  const table = stands && model.positions.reduce((low, v, i) => i % 3 === 2 ? Math.min(low, v) : low, Infinity)
  const upTo: number[] = [0]
  let step = 0
  for (let k = 1; k <= count; k++) {
    const read = jacketVolume(model, k * thickness, own, table, thickness / FINENESS)
    upTo.push(read.volume)
    step = Math.max(step, read.step)
    yield k / count
  }
  return { layers: upTo.slice(1).map((v, k) => v - upTo[k]!), step }
}
