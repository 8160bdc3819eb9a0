import { measureMesh, type MeshMeasures } from './mesh'

/** Reads and writes STL, the plain triangle format. Positions are as in the file: STL has no unit. */

/** Nine numbers a triangle: three corners. */
export interface Triangles { readonly positions: Float32Array }

/** Most triangles that are taken. */
export const MOST_TRIANGLES = 5_000_000
/** Largest file that can hold them. */
export const MOST_BYTES = 84 + 50 * MOST_TRIANGLES

/** Why a file is no model that can be used. */
export type ModelProblem = 'too-many-triangles' | 'empty-file' | 'too-short' | 'no-triangle' | 'no-numbers'

/** What was odd about a model, and yet it can be used. */
export type ModelRemark
  = | { readonly code: 'breaks-off' | 'goes-on', readonly claimed: number, readonly there: number }
    | { readonly code: 'half-triangle' | 'overlaps' | 'inside-out' | 'encloses-nothing' }
    | { readonly code: 'bad-numbers', readonly count: number }
    | { readonly code: 'counts-none', readonly there: number }
    | { readonly code: 'holes' | 'crowded' | 'touching' | 'flipped', readonly edges: number }

interface NotRead { readonly ok: false, readonly code: ModelProblem }

/** Triangles as they stand in the file, whatever their numbers. */
interface RawTriangles { readonly ok: true, readonly positions: Float32Array, readonly remarks: readonly ModelRemark[] }
type RawRead = RawTriangles | NotRead

type StlRead = (RawTriangles & { readonly measures: MeshMeasures }) | NotRead

const FARTHEST = 1e7

/** A binary file's length follows from its triangle count; a header may say anything, even “solid”. */
function isBinary(bytes: Uint8Array): boolean {
  if (bytes.length < 84) return false
  const count = new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true)
  if (bytes.length === 84 + 50 * count) return true
  const head = new Uint8Array(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, 2000))
  const text = String.fromCharCode(...head.slice(0, 600)).toLowerCase()
  return head.includes(0)
    || !(text.trimStart().startsWith('solid') && (text.includes('facet') || text.includes('endsolid')))
}

/**
 * Reads an STL file, binary or text. Never allocates by what a header claims.
 * @returns the triangles, their measures and remarks on what was odd, or why there is nothing to use.
 */
export function readStl(bytes: Uint8Array): StlRead {
  if (bytes.length > MOST_BYTES)
    return { ok: false, code: 'too-many-triangles' }
  if (bytes.length === 0) return { ok: false, code: 'empty-file' }
  const read = isBinary(bytes) ? readBinary(bytes) : readText(bytes)
  if (!read.ok) return read
  return kept(read.positions, read.remarks)
}

function readBinary(bytes: Uint8Array): RawRead {
  if (bytes.length < 84 + 50)
    return { ok: false, code: 'too-short' }
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const claimed = view.getUint32(80, true), there = Math.floor((bytes.length - 84) / 50)
  const count = claimed === 0 ? there : Math.min(claimed, there)
  const remarks: ModelRemark[] = []
  if (claimed === 0) remarks.push({ code: 'counts-none', there })
  else if (claimed > there) remarks.push({ code: 'breaks-off', claimed, there })
  else if (claimed < there) remarks.push({ code: 'goes-on', claimed, there })
  return { ok: true, positions: corners(bytes.subarray(84, 84 + 50 * count), count), remarks }
}

/** Triangles copied at a time; even, so that every piece begins alike. */
const PIECE = 16_384

/**
 * Corners of records of fifty bytes: every other record lies two bytes off the grid of four, so a piece is copied
 * twice, once for each half, and both are
 * read as numbers at once. Twice as fast as byte by byte. Takes the machine to be little-endian, as STL and every
 * browser are.
 */
function corners(records: Uint8Array, count: number): Float32Array {
  const positions = new Float32Array(9 * count)
  const even = new Uint8Array(50 * PIECE), odd = new Uint8Array(50 * PIECE)
  const evenNumbers = new Float32Array(even.buffer), oddNumbers = new Float32Array(odd.buffer)
  for (let first = 0, out = 0; first < count; first += PIECE) {
    const n = Math.min(PIECE, count - first)
    even.set(records.subarray(50 * first, 50 * (first + n)))
    odd.set(records.subarray(50 * first + 2, 50 * (first + n)))
    for (let t = 0; t < n; t++, out += 9) {
      const numbers = t % 2 ? oddNumbers : evenNumbers, at = (50 * t - (t % 2 ? 2 : 0) + 12) / 4
      positions[out] = numbers[at]!
      positions[out + 1] = numbers[at + 1]!
      positions[out + 2] = numbers[at + 2]!
      positions[out + 3] = numbers[at + 3]!
      positions[out + 4] = numbers[at + 4]!
      positions[out + 5] = numbers[at + 5]!
      positions[out + 6] = numbers[at + 6]!
      positions[out + 7] = numbers[at + 7]!
      positions[out + 8] = numbers[at + 8]!
    }
  }
  return positions
}

function readText(bytes: Uint8Array): RawRead {
  let numbers = new Float32Array(9 * 1024), n = 0
  const text = new TextDecoderLite(bytes)
  for (let word = text.next(); word !== undefined; word = text.next()) {
    if (word.length !== 6 || word.toLowerCase() !== 'vertex') continue
    if (n + 3 > numbers.length) {
      const grown = new Float32Array(2 * numbers.length)
      grown.set(numbers)
      numbers = grown
    }
    for (let k = 0; k < 3; k++) numbers[n++] = Number(text.next() ?? NaN)
    if (n > 9 * MOST_TRIANGLES)
      return { ok: false, code: 'too-many-triangles' }
  }
  if (n === 0) return { ok: false, code: 'no-triangle' }
  const whole = n - n % 9
  return {
    ok: true,
    positions: numbers.slice(0, whole),
    remarks: whole < n ? [{ code: 'half-triangle' }] : [],
  }
}

/** Words of ASCII bytes, one at a time, without a string of the whole file. */
class TextDecoderLite {
  private at = 0
  constructor(private readonly bytes: Uint8Array) {}
  next(): string | undefined {
    const { bytes } = this
    while (this.at < bytes.length && bytes[this.at]! <= 32) this.at++
    const from = this.at
    while (this.at < bytes.length && bytes[this.at]! > 32) this.at++
    if (from === this.at) return undefined
    return String.fromCharCode(...bytes.subarray(from, Math.min(this.at, from + 64)))
  }
}

/** Leaves out triangles with impossible numbers. */
function kept(positions: Float32Array, remarks: readonly ModelRemark[]): StlRead {
  const count = positions.length / 9
  const measures = measureMesh(positions)
  // One number that is none spoils the area; one out of reach shows in the box.
  if (
    Number.isFinite(measures.area)
    && Math.max(...measures.low.map(Math.abs), ...measures.high.map(Math.abs)) <= FARTHEST
  ) return { ok: true, positions, measures, remarks }
  let bad = 0
  const usable = (t: number) => {
    for (let k = 9 * t; k < 9 * t + 9; k++) if (!(Math.abs(positions[k]!) <= FARTHEST)) return false
    return true
  }
  for (let t = 0; t < count; t++) if (!usable(t)) bad++
  if (bad === count) return { ok: false, code: 'no-numbers' }
  const clean = new Float32Array(9 * (count - bad))
  for (let t = 0, out = 0; t < count; t++) {
    if (!usable(t)) continue
    clean.set(positions.subarray(9 * t, 9 * t + 9), out)
    out += 9
  }
  return {
    ok: true,
    positions: clean,
    measures: measureMesh(clean),
    remarks: [
      ...remarks,
      { code: 'bad-numbers', count: bad },
    ],
  }
}

/** Writes binary STL, with normals by the right-hand rule. */
export function writeStl({ positions }: Triangles): Uint8Array {
  const count = positions.length / 9
  const bytes = new Uint8Array(84 + 50 * count), view = new DataView(bytes.buffer)
  view.setUint32(80, count, true)
  for (let t = 0, at = 84; t < count; t++, at += 50) {
    const p = positions.subarray(9 * t, 9 * t + 9) as Float32Array & Record<number, number>
    const [ux, uy, uz, vx, vy, vz] = [
      p[3]! - p[0]!,
      p[4]! - p[1]!,
      p[5]! - p[2]!,
      p[6]! - p[0]!,
      p[7]! - p[1]!,
      p[8]! - p[2]!,
    ]
    const normal = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const
    const size = Math.hypot(...normal) || 1
    normal.forEach((n, k) => view.setFloat32(at + 4 * k, n / size, true))
    for (let k = 0; k < 9; k++) view.setFloat32(at + 12 + 4 * k, p[k]!, true)
  }
  return bytes
}
