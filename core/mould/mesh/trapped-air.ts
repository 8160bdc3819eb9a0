import { decimated } from './mesh'
import {
  backToMesh,
  columnSpans,
  directions,
  dot,
  normalised,
  spanVolume,
  type Spans,
  type Vector,
  neighbour,
} from './spans'

/**
 * Where air stays when a mould is filled. Quasi-static: the level rises evenly, the pour hole is always supplied,
 * nothing bubbles through.
 * A point stays air when, in the part of the cavity at its height or above, nothing connects it to an opening.
 */

/** A round opening in the skin: its middle, its radius and the direction out of the mould. */
export interface Opening {
  readonly at: Vector
  readonly radius: number
  readonly out: Vector
  /**
   * How far below the disc the skin may lie where it is curved; the radius unless said. A mould that is open on top has
   * none: what lies lower is not open.
   */
  readonly reach?: number
}

export interface Pocket {
  readonly volume: number
  /** Middle and highest point, in the mesh's own coordinates. */
  readonly middle: Vector
  readonly peak: Vector
  /** Diameter of a ball of the same volume. */
  readonly across: number
}

export interface Trapped {
  readonly up: Vector
  readonly volume: number
  readonly trapped: number
  readonly pockets: readonly Pocket[]
  /** Error of about one column times the pockets' ground area, in volume. */
  readonly doubt: number
  /** Volume above the lip of the pour hole: not trapped, but not filled without a funnel. */
  readonly aboveLip: number
  readonly badColumns: number
}

/**
 * The upside-down priority flood (Barnes, Lehman and Mulla 2014): the level below which air can still leave, span by
 * span.
 * One function: the flood’s queue and its marks are local to its one loop.
 */
function releaseLevels(s: Spans, openings: readonly Opening[]): Float64Array {
  const release = new Float64Array(s.lo.length).fill(-Infinity)
  let heap = new Int32Array(1024), keys = new Float64Array(1024), size = 0
  const push = (span: number, level: number) => {
    release[span] = level
    if (size === heap.length) {
      const [wider, deeper] = [new Int32Array(2 * size), new Float64Array(2 * size)]
      wider.set(heap)
      deeper.set(keys)
      heap = wider
      keys = deeper
    }
    let i = size++
    while (i > 0) {
      const parent = i - 1 >> 1
      if (keys[parent]! >= level) break
      heap[i] = heap[parent]!
      keys[i] = keys[parent]!
      i = parent
    }
    heap[i] = span
    keys[i] = level
  }
  /** Takes the top off; it has to be read before. */
  const drop = () => {
    const span = heap[--size]!, key = keys[size]!
    let i = 0
    for (;;) {
      let child = 2 * i + 1
      if (child >= size) break
      if (child + 1 < size && keys[child + 1]! > keys[child]!) child++
      if (keys[child]! <= key) break
      heap[i] = heap[child]!
      keys[i] = keys[child]!
      i = child
    }
    heap[i] = span
    keys[i] = key
  }
  for (const [span, level] of openingLevels(s, openings)) push(span, level)
  const { nu, nv, start, lo, hi } = s
  // The column each span stands in.
  const column = new Int32Array(lo.length)
  for (let c = 0; c < nu * nv; c++) for (let i = start[c]!; i < start[c + 1]!; i++) column[i] = c
  while (size > 0) {
    const span = heap[0]!, level = keys[0]!
    drop()
    if (level < release[span]!) continue
    const c = column[span]!
    for (let k = 0; k < 4; k++) {
      const next = neighbour(c, k, nu, nv)
      if (next < 0) continue
      for (let i = start[next]!; i < start[next + 1]!; i++) {
        if (Math.min(hi[i]!, hi[span]!) <= Math.max(lo[i]!, lo[span]!)) continue
        const reached = Math.min(level, hi[i]!, hi[span]!)
        if (reached > release[i]!) push(i, reached)
      }
    }
  }
  return release
}

/** Spans under the openings, each with the lowest level that an opening frees it to. */
export function openingLevels(
  s: Spans,
  openings: readonly Opening[],
): readonly (readonly [span: number, level: number])[] {
  const levels = new Map<number, number>()
  for (const opening of openings)
    seed(s, opening, (span, level) =>
      levels.set(span, Math.max(level, levels.get(span) ?? -Infinity)))
  return [...levels]
}

/** Seeds the flood under an opening's disc; where the disc floats off a curved skin, the search marches inwards. */
function seed(
  s: Spans,
  { at, radius, out, reach = radius }: Opening,
  give: (span: number, level: number) => void,
): void {
  const { u, v, w } = s.frame
  const inward = normalised([-out[0], -out[1], -out[2]])
  const side = normalised(Math.abs(inward[2]) < 0.9 ? [inward[1], -inward[0], 0] : [0, inward[2], -inward[1]])
  const other: Vector = [
    inward[1] * side[2] - inward[2] * side[1],
    inward[2] * side[0] - inward[0] * side[2],
    inward[0] * side[1] - inward[1] * side[0],
  ]
  const golden = Math.PI * (3 - Math.sqrt(5))
  // Eighty places over the disc and forty on its rim, whose highest point decides how much air leaves.
  for (let k = 0; k < 120; k++) {
    const r = k < 80 ? radius * Math.sqrt((k + 0.5) / 80) : radius,
      turn = k < 80 ? golden * k : Math.PI * k / 20,
      a = r * Math.cos(turn),
      b = r * Math.sin(turn)
    const point: Vector = [
      at[0] + a * side[0] + b * other[0],
      at[1] + a * side[1] + b * other[1],
      at[2] + a * side[2] + b * other[2],
    ]
    const height = dot(point, w)
    for (let step = 0.3 * s.h; step <= reach + 0.31 * s.h; step += 0.5 * s.h) {
      const inside: Vector = [point[0] + step * inward[0], point[1] + step * inward[1], point[2] + step * inward[2]]
      const cu = Math.floor((dot(inside, u) - s.u0) / s.h),
        cv = Math.floor((dot(inside, v) - s.v0) / s.h),
        z = dot(inside, w)
      if (cu < 0 || cv < 0 || cu >= s.nu || cv >= s.nv) continue
      const c = cv * s.nu + cu
      let hit = false
      for (let i = s.start[c]!; i < s.start[c + 1]! && !hit; i++) {
        if (z < s.lo[i]! - 0.6 * s.h || z > s.hi[i]! + 0.6 * s.h) continue
        hit = true
        give(i, Math.min(s.hi[i]!, Math.max(height, Math.min(s.lo[i]!, z))))
      }
      if (hit) break
    }
  }
}

/**
 * Trapped air with this side up. @param cells columns along the longest side; @param smallest pockets below this volume
 * are left out of the list.
 * One function: the pockets are gathered in the pass that labels them.
 */
export function trappedAir(
  positions: Float32Array,
  up: Vector,
  pour: readonly Opening[],
  vents: readonly Opening[],
  cells: number,
  smallest = 0,
): Trapped {
  const s = columnSpans(positions, up, cells)
  const release = releaseLevels(s, [...pour, ...vents])
  const area = s.h * s.h
  const spans = s.lo.length
  const parent = new Int32Array(spans).map((_, i) => i)
  const root = (i: number): number => {
    while (parent[i] !== i) {
      parent[i] = parent[parent[i]!]!
      i = parent[i]!
    }
    return i
  }
  const floor = (i: number) => Math.max(s.lo[i]!, release[i]!)
  const isTrapped = (i: number) => s.hi[i]! - floor(i) > 1e-9 * s.h
  const lip = pour.length
    ? Math.min(
        ...pour.map(o =>
          dot(o.at, s.frame.w) - o.radius * Math.sqrt(Math.max(0, 1 - dot(normalised(o.out), s.frame.w) ** 2)),
        ),
      )
    : Infinity
  let trapped = 0, ground = 0, aboveLip = 0
  for (let c = 0; c < s.nu * s.nv; c++) {
    for (let i = s.start[c]!; i < s.start[c + 1]!; i++) {
      aboveLip += Math.max(0, Math.min(s.hi[i]!, floor(i)) - Math.max(lip, s.lo[i]!)) * area
      if (!isTrapped(i)) continue
      trapped += (s.hi[i]! - floor(i)) * area
      ground += area
      for (const next of [c % s.nu < s.nu - 1 ? c + 1 : -1, c + s.nu]) {
        if (next < 0 || next >= s.nu * s.nv) continue
        for (let j = s.start[next]!; j < s.start[next + 1]!; j++) {
          if (isTrapped(j) && Math.min(s.hi[i]!, s.hi[j]!) > Math.max(floor(i), floor(j))) parent[root(i)] = root(j)
        }
      }
    }
  }
  const gathered = new Map<
    number,
    { volume: number, a: number, b: number, z: number, peak: number, top: [number, number][] }
  >()
  for (let c = 0; c < s.nu * s.nv; c++) {
    for (let i = s.start[c]!; i < s.start[c + 1]!; i++) {
      if (!isTrapped(i)) continue
      const volume = (s.hi[i]! - floor(i)) * area,
        a = s.u0 + (c % s.nu + 0.5) * s.h,
        b = s.v0 + (Math.floor(c / s.nu) + 0.5) * s.h
      const key = root(i)
      const p = gathered.get(key) ?? { volume: 0, a: 0, b: 0, z: 0, peak: -Infinity, top: [] }
      p.volume += volume
      p.a += volume * a
      p.b += volume * b
      p.z += volume * (s.hi[i]! + floor(i)) / 2
      // The middle of the plateau, not the first column that reaches it.
      if (s.hi[i]! > p.peak + 0.25 * s.h) p.top = []
      if (s.hi[i]! > p.peak - 0.25 * s.h) p.top.push([a, b])
      p.peak = Math.max(p.peak, s.hi[i]!)
      gathered.set(key, p)
    }
  }
  const pockets = [...gathered.values()].filter(p => p.volume > smallest).sort((x, y) => y.volume - x.volume).map(
    (p): Pocket => {
      const [ta, tb] = p.top.reduce(([x, y], [a, b]) => [x + a / p.top.length, y + b / p.top.length], [0, 0])
      // The column of the plateau that is nearest its middle: a ring's middle is not on it.
      const [a, b] = p.top.reduce((best, q) =>
        Math.hypot(q[0] - ta, q[1] - tb) < Math.hypot(best[0] - ta, best[1] - tb) ? q : best,
      )
      return {
        volume: p.volume,
        middle: backToMesh(s.frame, p.a / p.volume, p.b / p.volume, p.z / p.volume),
        peak: backToMesh(s.frame, a, b, p.peak),
        across: Math.cbrt(6 * p.volume / Math.PI),
      }
    },
  )
  return { up: s.frame.w, volume: spanVolume(s), trapped, pockets, doubt: ground * s.h, aboveLip, badColumns: s.bad }
}

export interface TiltSearch {
  readonly upright: Trapped
  readonly best: Trapped /** Between upright and the best tilt, radians. */
  readonly angle: number
}

/** Tilts further than this let the pour run out of the hole (engineering guess). */
const MOST_TILT = 60 * Math.PI / 180

/**
 * The tilt that traps least, up to sixty degrees from upright; of those that trap nearly as little, the smallest. A
 * generator that yields the share done.
 */
export function* searchTilt(
  positions: Float32Array,
  upright: Vector,
  pour: readonly Opening[],
  vents: readonly Opening[],
  coarse = 48,
  fine = 96,
): Generator<number, TiltSearch> {
  const angleTo = (t: Trapped) => Math.acos(Math.max(-1, Math.min(1, dot(t.up, normalised(upright)))))
  // A tilt is not free: a degree must save a ten-thousandth of what the mould holds.
  const cost = (t: Trapped) => t.trapped / t.volume + 0.0001 * angleTo(t) * 180 / Math.PI
  const base = trappedAir(positions, upright, pour, vents, fine)
  // Looked for on simpler meshes, answered on the whole one.
  const rough = decimated(positions, 2 * coarse), near = decimated(positions, 1.3 * fine)
  const tries = 91
  const first: Trapped[] = []
  for (const [i, d] of directions(upright, MOST_TILT, tries).entries()) {
    first.push(trappedAir(rough, d, pour, vents, coarse))
    if (i % 5 === 0) yield 0.6 * i / tries
  }
  let best: Trapped | undefined
  const seeds = [...first].sort((a, b) => cost(a) - cost(b)).slice(0, 3)
  let done = 0
  for (const start of seeds) {
    let held = trappedAir(near, start.up, pour, vents, fine)
    for (const degrees of [8, 4, 2, 1]) {
      for (const d of directions(held.up, degrees * Math.PI / 180, 7).slice(1)) {
        const tried = trappedAir(near, d, pour, vents, fine)
        if (angleTo(tried) <= MOST_TILT + 1e-9 && cost(tried) < cost(held) - 1e-6) held = tried
      }
      yield 0.6 + 0.4 * ++done / 12
    }
    if (!best || cost(held) < cost(best) - 1e-6) best = held
  }
  const answer = near === positions ? best! : trappedAir(positions, best!.up, pour, vents, fine)
  const helped = cost(answer) < cost(base) - 1e-6 ? answer : base
  return { upright: base, best: helped, angle: angleTo(helped) }
}

/** The best place for one more vent with this side up: the peak of one of the five largest pockets, tried each. */
export function bestVent(
  positions: Float32Array,
  up: Vector,
  pour: readonly Opening[],
  vents: readonly Opening[],
  radius: number,
  cells = 96,
): { readonly vent: Opening, readonly after: Trapped } | undefined {
  const now = trappedAir(positions, up, pour, vents, cells)
  let best: { vent: Opening, after: Trapped } | undefined
  for (const pocket of now.pockets.slice(0, 5)) {
    const vent: Opening = { at: pocket.peak, radius, out: now.up }
    const after = trappedAir(positions, up, pour, [...vents, vent], cells)
    if (!best || after.trapped < best.after.trapped) best = { vent, after }
  }
  return best
}
