/**
 * A solid cut into vertical columns along any "up": where each column is inside. No staircase on slopes, and exact
 * along up.
 */

export type Vector = readonly [number, number, number]

export interface Frame {
  /** Rows of the rotation from the mesh to the columns: across, along, up. */
  readonly u: Vector
  readonly v: Vector
  readonly w: Vector
}

export interface Spans {
  readonly frame: Frame
  /** Edge of a column, and its corner in the rotated frame. */
  readonly h: number
  readonly u0: number
  readonly v0: number
  readonly nu: number
  readonly nv: number
  /** Spans of column c are those from start[c] to start[c + 1], from the lowest up. */
  readonly start: Int32Array
  readonly lo: Float64Array
  readonly hi: Float64Array
  /** Columns whose surface did not close, and columns in which parts run through each other. */
  readonly bad: number
  readonly crossed: number
  /** Lowest and highest point along up. */
  readonly bottom: number
  readonly top: number
}

export function normalised([x, y, z]: Vector): Vector {
  // Of the smallest numbers there are the squares have no digits left: made large first.
  const most = Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) || 1
  const size = Math.hypot(x / most, y / most, z / most) || 1
  return [x / most / size, y / most / size, z / most / size]
}
const cross = (
  a: Vector,
  b: Vector,
): Vector => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** Columns are turned about up by this, so that walls that run along the axes never lie along a row of columns. */
const TWIST = 0.3717

function frameFor(up: Vector): Frame {
  const w = normalised(up)
  const a = normalised(cross(Math.abs(w[2]) < 0.9 ? [0, 0, 1] : [1, 0, 0], w)), b = cross(w, a)
  const c = Math.cos(TWIST), s = Math.sin(TWIST)
  return {
    w,
    u: [c * a[0] + s * b[0], c * a[1] + s * b[1], c * a[2] + s * b[2]],
    v: [c * b[0] - s * a[0], c * b[1] - s * a[1], c * b[2] - s * a[2]],
  }
}

/** Buffers that are kept from one tilt to the next. */
interface Scratch {
  rotated: Float64Array
  column: Int32Array
  height: Float64Array
  sign: Int8Array
}
const scratch: Scratch = {
  rotated: new Float64Array(0),
  column: new Int32Array(4096),
  height: new Float64Array(4096),
  sign: new Int8Array(4096),
}

function room(n: number): void {
  if (n <= scratch.column.length) return
  const size = Math.max(n, 2 * scratch.column.length)
  const column = new Int32Array(size), height = new Float64Array(size), sign = new Int8Array(size)
  column.set(scratch.column)
  height.set(scratch.height)
  sign.set(scratch.sign)
  Object.assign(scratch, { column, height, sign })
}

/**
 * @param positions triangles of a closed solid, facing outwards; @param cells columns along its longest side.
 * Triangles are rastered row by row; both triangles at an edge compute its crossing from the same end, so that columns
 * neither leak nor
 * count twice. Inside is where the winding number is above nothing: overlapping closed parts become one.
 * One function: the raster’s innermost loops share their counters.
 */
export function columnSpans(positions: Float32Array, up: Vector, cells: number): Spans {
  const frame = frameFor(up), { u, v, w } = frame
  const n = positions.length
  if (scratch.rotated.length < n) scratch.rotated = new Float64Array(n)
  const r = scratch.rotated
  let lu = Infinity, lv = Infinity, lw = Infinity, hu = -Infinity, hv = -Infinity, hw = -Infinity
  for (let i = 0; i < n; i += 3) {
    const x = positions[i]!, y = positions[i + 1]!, z = positions[i + 2]!
    const a = u[0] * x + u[1] * y + u[2] * z, b = v[0] * x + v[1] * y + v[2] * z, c = w[0] * x + w[1] * y + w[2] * z
    r[i] = a
    r[i + 1] = b
    r[i + 2] = c
    if (a < lu) lu = a
    if (a > hu) hu = a
    if (b < lv) lv = b
    if (b > hv) hv = b
    if (c < lw) lw = c
    if (c > hw) hw = c
  }
  const h = Math.max(hu - lu, hv - lv, hw - lw) / cells
  const u0 = lu - h / 2, v0 = lv - h / 2
  const nu = Math.ceil((hu - u0) / h) + 1, nv = Math.ceil((hv - v0) / h) + 1
  let found = 0
  let { column, height, sign: signs } = scratch
  for (let i = 0; i < n; i += 9) {
    let au = r[i]!,
      av = r[i + 1]!,
      aw = r[i + 2]!,
      bu = r[i + 3]!,
      bv = r[i + 4]!,
      bw = r[i + 5]!,
      cu = r[i + 6]!,
      cv = r[i + 7]!,
      cw = r[i + 8]!
    const facing = (bu - au) * (cv - av) - (bv - av) * (cu - au)
    if (facing === 0) continue
    const sign = facing > 0 ? -1 : 1 // a face that looks up ends what is below it
    // Corners from the lowest row up: every edge is then walked from the same end by both of its triangles.
    if (av > bv || (av === bv && au > bu)) {
      const tu = au, tv = av, tw = aw
      au = bu
      av = bv
      aw = bw
      bu = tu
      bv = tv
      bw = tw
    }
    if (bv > cv || (bv === cv && bu > cu)) {
      const tu = bu, tv = bv, tw = bw
      bu = cu
      bv = cv
      bw = cw
      cu = tu
      cv = tv
      cw = tw
    }
    if (av > bv || (av === bv && au > bu)) {
      const tu = au, tv = av, tw = aw
      au = bu
      av = bv
      aw = bw
      bu = tu
      bv = tv
      bw = tw
    }
    // Rows whose middle lies in [a, c): half open, so that a corner on a row counts once.
    const first = Math.max(0, Math.ceil((av - v0) / h - 0.5))
    for (let row = first; row < nv; row++) {
      const y = v0 + (row + 0.5) * h
      if (y >= cv) break
      if (y < av) continue
      const long = (y - av) / (cv - av)
      let u1 = au + (cu - au) * long, w1 = aw + (cw - aw) * long
      const below = y < bv
      const part = below ? (y - av) / (bv - av) : (y - bv) / (cv - bv)
      let u2 = below ? au + (bu - au) * part : bu + (cu - bu) * part,
        w2 = below ? aw + (bw - aw) * part : bw + (cw - bw) * part
      if (u1 > u2) {
        const tu = u1, tw = w1
        u1 = u2
        w1 = w2
        u2 = tu
        w2 = tw
      }
      const from = Math.max(0, Math.ceil((u1 - u0) / h - 0.5)), until = Math.min(nu, Math.ceil((u2 - u0) / h - 0.5))
      if (until <= from) continue
      if (found + until - from > column.length) {
        room(found + until - from);
        ({ column, height, sign: signs } = scratch)
      }
      const slope = u2 > u1 ? (w2 - w1) / (u2 - u1) : 0
      for (let col = from; col < until; col++) {
        column[found] = row * nu + col
        height[found] = w1 + slope * (u0 + (col + 0.5) * h - u1)
        signs[found++] = sign
      }
    }
  }
  return { frame, h, u0, v0, nu, nv, bottom: lw, top: hw, ...pairUp(found, nu * nv) }
}

/** Sorts the crossings of each column and pairs them to spans by winding number. */
function pairUp(found: number, columns: number): Pick<Spans, 'start' | 'lo' | 'hi' | 'bad' | 'crossed'> {
  const { column, height, sign } = scratch
  const first = new Int32Array(columns + 1)
  for (let i = 0; i < found; i++) first[column[i]! + 1]!++
  for (let c = 0; c < columns; c++) first[c + 1]! += first[c]!
  const at = first.slice(0, columns), z = new Float64Array(found), s = new Int8Array(found)
  for (let i = 0; i < found; i++) {
    const k = at[column[i]!]!++
    z[k] = height[i]!
    s[k] = sign[i]!
  }
  const start = new Int32Array(columns + 1), lo = new Float64Array(found / 2 + 1), hi = new Float64Array(found / 2 + 1)
  let spans = 0, bad = 0, crossed = 0
  for (let c = 0; c < columns; c++) {
    start[c] = spans
    const from = first[c]!, to = first[c + 1]!
    for (let i = from + 1; i < to; i++) {
      const zi = z[i]!, si = s[i]!
      let j = i - 1
      while (j >= from && z[j]! > zi) {
        z[j + 1] = z[j]!
        s[j + 1] = s[j]!
        j--
      }
      z[j + 1] = zi
      s[j + 1] = si
    }
    let winding = 0, opened = 0, most = 0
    for (let i = from; i < to; i++) {
      const before = winding
      winding += s[i]!
      if (winding > most) most = winding
      if (before <= 0 && winding > 0) opened = z[i]!
      else if (before > 0 && winding <= 0 && z[i]! > opened) {
        if (spans > start[c]! && opened <= hi[spans - 1]!) hi[spans - 1] = z[i]!
        else {
          lo[spans] = opened
          hi[spans++] = z[i]!
        }
      }
    }
    if (winding !== 0) bad++
    else if (most > 1) crossed++
  }
  start[columns] = spans
  return { start, lo: lo.slice(0, spans), hi: hi.slice(0, spans), bad, crossed }
}

/** Volume inside, by the columns. */
export function spanVolume(s: Spans): number {
  let length = 0
  for (let i = 0; i < s.lo.length; i++) length += s.hi[i]! - s.lo[i]!
  return length * s.h * s.h
}

/** A point of the rotated frame back in the mesh's own. */
export function backToMesh({ u, v, w }: Frame, a: number, b: number, c: number): Vector {
  return [a * u[0] + b * v[0] + c * w[0], a * u[1] + b * v[1] + c * w[1], a * u[2] + b * v[2] + c * w[2]]
}

/**
 * Directions spread evenly over a cap about `axis` (Fibonacci lattice). @param angle half-angle of the cap, radians; pi
 * is the whole sphere.
 */
export function directions(axis: Vector, angle: number, count: number): Vector[] {
  const { u, v, w } = frameFor(axis)
  const golden = Math.PI * (3 - Math.sqrt(5))
  return Array.from({ length: count }, (_, i) => {
    const z = 1 - (1 - Math.cos(angle)) * (count === 1 ? 0 : i / (count - 1)), r = Math.sqrt(Math.max(0, 1 - z * z))
    const [a, b] = [r * Math.cos(golden * i), r * Math.sin(golden * i)]
    return normalised([a * u[0] + b * v[0] + z * w[0], a * u[1] + b * v[1] + z * w[1], a * u[2] + b * v[2] + z * w[2]])
  })
}

/** The column beside column `c` of `nu` by `nv`, in direction 0 to 3; below nothing where there is none. */
export function neighbour(c: number, direction: number, nu: number, nv: number): number {
  const cu = c % nu
  switch (direction) {
    case 0: return cu > 0 ? c - 1 : -1
    case 1: return cu < nu - 1 ? c + 1 : -1
    case 2: return c - nu
    default: return c + nu < nu * nv ? c + nu : -1
  }
}
