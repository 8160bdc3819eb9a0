import type { CubicMetres, Metres } from '../../units/quantity'
import type { ModelRemark } from './stl'

/** Measures of a triangle mesh, in the units of its positions. */
export interface MeshMeasures {
  readonly triangles: number
  /** Signed: negative when the mesh is inside out. */
  readonly volume: number
  readonly area: number
  readonly low: readonly [number, number, number]
  readonly high: readonly [number, number, number]
}

/**
 * Volume, area and box in one pass. Volume is the sum of signed tetrahedra from the first corner (Zhang and Chen 2001),
 * in double precision.
 */
export function measureMesh(positions: Float32Array): MeshMeasures {
  const n = positions.length
  const [ox, oy, oz] = [positions[0] ?? 0, positions[1] ?? 0, positions[2] ?? 0]
  let volume = 0, area = 0
  let lx = Infinity, ly = Infinity, lz = Infinity, hx = -Infinity, hy = -Infinity, hz = -Infinity
  for (let i = 0; i < n; i += 9) {
    const ax = positions[i]!, ay = positions[i + 1]!, az = positions[i + 2]!
    const bx = positions[i + 3]!, by = positions[i + 4]!, bz = positions[i + 5]!
    const cx = positions[i + 6]!, cy = positions[i + 7]!, cz = positions[i + 8]!
    const ux = bx - ax, uy = by - ay, uz = bz - az, vx = cx - ax, vy = cy - ay, vz = cz - az
    const nx = uy * vz - uz * vy, ny = uz * vx - ux * vz, nz = ux * vy - uy * vx
    volume += (ax - ox) * nx + (ay - oy) * ny + (az - oz) * nz
    area += Math.sqrt(nx * nx + ny * ny + nz * nz)
    if (ax < lx) lx = ax
    if (bx < lx) lx = bx
    if (cx < lx) lx = cx
    if (ax > hx) hx = ax
    if (bx > hx) hx = bx
    if (cx > hx) hx = cx
    if (ay < ly) ly = ay
    if (by < ly) ly = by
    if (cy < ly) ly = cy
    if (ay > hy) hy = ay
    if (by > hy) hy = by
    if (cy > hy) hy = cy
    if (az < lz) lz = az
    if (bz < lz) lz = bz
    if (cz < lz) lz = cz
    if (az > hz) hz = az
    if (bz > hz) hz = bz
    if (cz > hz) hz = cz
  }
  return { triangles: n / 9, volume: volume / 6, area: area / 2, low: [lx, ly, lz], high: [hx, hy, hz] }
}

interface Tightness {
  /**
   * Edges with a triangle on one side only, with more than two that do not pair off, with four or more that do, and
   * with two that face opposite ways.
   */
  readonly open: number
  readonly crowded: number
  readonly touching: number
  readonly flipped: number
  readonly corners: number
}

/**
 * Whether a mesh is closed: corners are joined when they lie in the same cell of a hundred-thousandth of the diagonal,
 * then every edge is
 * counted both ways in an open-addressed table.
 */
export function tightness(
  positions: Float32Array,
  { low, high }: Pick<MeshMeasures, 'low' | 'high'> = measureMesh(positions),
): Tightness {
  const corners = positions.length / 3
  const cell = Math.max(1e-12, 1e-5 * Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]))
  const index = weld(positions, low, cell)
  let size = 1
  while (size < 2.2 * corners) size *= 2
  const from = new Int32Array(size).fill(-1),
    to = new Int32Array(size),
    along = new Int32Array(size),
    against = new Int32Array(size)
  for (let c = 0; c < corners; c += 3) {
    for (let k = 0; k < 3; k++) {
      const a = index[c + k]!, b = index[c + (k + 1) % 3]!
      if (a === b) continue
      const [u, v] = a < b ? [a, b] : [b, a]
      let at = (Math.imul(u, 0x9E3779B1) ^ Math.imul(v, 0x85EBCA6B)) >>> 0 & size - 1
      while (from[at] !== -1 && (from[at] !== u || to[at] !== v)) at = at + 1 & size - 1
      from[at] = u
      to[at] = v
      if (a === u) along[at]!++
      else against[at]!++
    }
  }
  let open = 0, crowded = 0, touching = 0, flipped = 0
  for (let at = 0; at < size; at++) {
    if (from[at] === -1) continue
    const uses = along[at]! + against[at]!
    if (uses === 1) open++
    else if (uses > 2 && along[at] !== against[at]) crowded++
    else if (uses > 2) touching++
    else if (uses === 2 && along[at] !== 1) flipped++
  }
  return { open, crowded, touching, flipped, corners: index.reduce((most, i) => Math.max(most, i), -1) + 1 }
}

/** The same number for corners in the same cell. */
function weld(positions: Float32Array, low: readonly [number, number, number], cell: number): Int32Array {
  const corners = positions.length / 3
  let size = 1
  while (size < 2 * corners) size *= 2
  const table = new Int32Array(size).fill(-1), index = new Int32Array(corners)
  const key = new Int32Array(3 * corners)
  let found = 0
  for (let c = 0; c < corners; c++) {
    const x = Math.round((positions[3 * c]! - low[0]) / cell),
      y = Math.round((positions[3 * c + 1]! - low[1]) / cell),
      z = Math.round((positions[3 * c + 2]! - low[2]) / cell)
    let at = (Math.imul(x, 0x9E3779B1) ^ Math.imul(y, 0x85EBCA6B) ^ Math.imul(z, 0xC2B2AE35)) >>> 0 & size - 1
    for (;;) {
      const i = table[at]!
      if (i === -1) {
        table[at] = found
        key.set([x, y, z], 3 * found)
        index[c] = found++
        break
      }
      if (key[3 * i] === x && key[3 * i + 1] === y && key[3 * i + 2] === z) {
        index[c] = i
        break
      }
      at = at + 1 & size - 1
    }
  }
  return index
}

export type FileUnit = 'mm' | 'cm' | 'inch' | 'm'
export const FILE_UNITS: Readonly<Record<FileUnit, { readonly name: string, readonly metres: number }>> = {
  mm: { name: 'Millimetres', metres: 1e-3 },
  cm: { name: 'Centimetres', metres: 1e-2 },
  inch: { name: 'Inches', metres: 0.0254 },
  m: { name: 'Metres', metres: 1 },
}

interface UnitChoice {
  readonly unit: FileUnit /** Largest side in that unit, m. */
  readonly across: Metres
  readonly volume: CubicMetres
  readonly plausible: boolean
}

/** What the model would measure in each unit; plausible when a caster could hold it: between 5 mm and 2.5 m across. */
export function unitChoices(m: MeshMeasures): readonly UnitChoice[] {
  const side = Math.max(m.high[0] - m.low[0], m.high[1] - m.low[1], m.high[2] - m.low[2])
  return (Object.keys(FILE_UNITS) as FileUnit[]).map((unit) => {
    const { metres } = FILE_UNITS[unit]
    const across = side * metres
    return { unit, across, volume: Math.abs(m.volume) * metres ** 3, plausible: across >= 0.005 && across <= 2.5 }
  })
}

/**
 * What is odd about a mesh; `trusted` when its volume can be relied on.
 * @param crossed columns in which parts run through each other.
 */
export function meshRemarks(
  m: MeshMeasures,
  t: Tightness,
  crossed = 0,
): { readonly trusted: boolean, readonly remarks: readonly ModelRemark[] } {
  const remarks: ModelRemark[] = []
  if (t.open > 0) remarks.push({ code: 'holes', edges: t.open })
  if (t.crowded > 0) remarks.push({ code: 'crowded', edges: t.crowded })
  if (t.touching > 0 && crossed === 0) remarks.push({ code: 'touching', edges: t.touching })
  if (crossed > 0) remarks.push({ code: 'overlaps' })
  if (t.flipped > 0) remarks.push({ code: 'flipped', edges: t.flipped })
  if (m.volume < 0) remarks.push({ code: 'inside-out' })
  if (m.volume === 0) remarks.push({ code: 'encloses-nothing' })
  return { trusted: t.open === 0 && t.flipped === 0 && m.volume !== 0, remarks }
}

/**
 * A simpler mesh for searching: corners are drawn together in cells of a `cells`-th of the longest side, each to the
 * mean of its corners, and triangles
 * that fall flat are left out. The surface stays closed; it moves by less than half a cell. A mesh that would hardly
 * shrink comes back as it is.
 */
export function decimated(positions: Float32Array, cells: number): Float32Array {
  if (positions.length / 9 < 4 * cells * cells) return positions
  const { low, high } = measureMesh(positions)
  const cell = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]) / cells
  const index = weld(positions, low, cell)
  const corners = index.reduce((most, i) => Math.max(most, i), -1) + 1
  const mean = new Float64Array(3 * corners), n = new Int32Array(corners)
  for (let c = 0; c < index.length; c++) {
    const i = index[c]!
    n[i]!++
    for (let k = 0; k < 3; k++) mean[3 * i + k]! += positions[3 * c + k]!
  }
  const kept = new Float32Array(positions.length)
  let out = 0
  for (let c = 0; c < index.length; c += 3) {
    const a = index[c]!, b = index[c + 1]!, d = index[c + 2]!
    if (a === b || b === d || a === d) continue
    for (const i of [a, b, d]) for (let k = 0; k < 3; k++) kept[out++] = mean[3 * i + k]! / n[i]!
  }
  return kept.slice(0, out)
}

/** The mesh with every triangle turned round. */
export function turnedInsideOut(positions: Float32Array): Float32Array {
  const turned = positions.slice()
  for (let i = 0; i < turned.length; i += 9) {
    for (let k = 3; k < 6; k++) {
      turned[i + k] = positions[i + k + 3]!
      turned[i + k + 3] = positions[i + k]!
    }
  }
  return turned
}
