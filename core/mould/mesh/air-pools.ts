import { neighbour, type Spans } from './spans'

/**
 * Where a given amount of air comes to rest under the ceilings of a tilted mould: it rises by the steepest way to a
 * peak, fills it from the top
 * down, spills over the highest saddle into the next, and two full peaks go on as one. An opening lets go of what
 * reaches it.
 * The tree of pools is a merge tree of the ceilings, filled as in Fill-Spill-Merge (Barnes, Callaghan and Wickert
 * 2020), upside down.
 */
export interface AirPools {
  readonly spans: Spans
  /** The peak that air under each span rises to, as a node of the tree; -1 when it leaves by an opening. */
  readonly peak: Int32Array
  readonly nodes: readonly PoolNode[]
}

interface PoolNode {
  parent: number
  /** The two pools that met; a peak has none, an opening closes a single one. */
  readonly a: number
  readonly b: number
  /** Peaks that what spills over from the other side rises to. */
  readonly intoA: number
  readonly intoB: number
  /** What it holds before it spills, in the mesh's unit cubed. */
  capacity: number
  /** Whatever is too much leaves. */
  readonly sky: boolean
  /** Spans that joined while this was the pool around them. */
  readonly members: number[]
}

/**
 * Volume of a pool above a level is sum - n * level + done, with sum and n over the spans that the level has not run
 * out of.
 */
interface Gathered { node: number, sum: number, n: number, done: number }

/**
 * Ceilings closer than this share of a column are one level: flat roofs come out of a file with the noise of its
 * numbers.
 */
const FLAT = 1e-4

/** Air that has come to an opening, and leaves. */
const OUT = -1

/**
 * @param openings spans with the level down to which an opening frees them.
 * One function: one sweep from the top down, whose heap, sets and levels every part of it reads and writes.
 */
export function airPools(spans: Spans, openings: readonly (readonly [span: number, level: number])[]): AirPools {
  const { nu, nv, start, lo, hi, h } = spans
  const count = lo.length, area = h * h
  const column = new Int32Array(count)
  for (let c = 0; c < nu * nv; c++) for (let i = start[c]!; i < start[c + 1]!; i++) column[i] = c
  const touching = (i: number): number[] => {
    const c = column[i]!, list: number[] = []
    for (let k = 0; k < 4; k++) {
      const next = neighbour(c, k, nu, nv)
      if (next < 0) continue
      for (let j = start[next]!; j < start[next + 1]!; j++)
        if (Math.min(hi[i]!, hi[j]!) > Math.max(lo[i]!, lo[j]!)) list.push(j)
    }
    return list
  }
  const down = (keys: Float64Array, n = keys.length) =>
    new Int32Array(n).map((_, k) => k).sort((x, y) => keys[y]! - keys[x]!)

  // From the top down, flat ceilings at one level.
  const order = down(hi, count), ceiling = Float64Array.from(hi)
  for (let k = 1; k < count; k++) {
    const before = ceiling[order[k - 1]!]!
    if (before - ceiling[order[k]!]! < FLAT * h) ceiling[order[k]!] = before
  }
  const bottoms = down(lo, count)
  const opened = [...openings].sort((x, y) => y[1] - x[1])
  const exit = new Set(openings.filter(([i, level]) => level > hi[i]! - FLAT * h).map(([i]) => i))

  const nodes: PoolNode[] = []
  const make = (a: number, b: number, intoA: number, intoB: number, sky: boolean): number => {
    nodes.push({ parent: -1, a, b, intoA, intoB, capacity: Infinity, sky, members: [] })
    const made = nodes.length - 1
    if (a >= 0) nodes[a]!.parent = made
    if (b >= 0) nodes[b]!.parent = made
    return made
  }
  const peak = new Int32Array(count).fill(OUT), root = new Int32Array(count).fill(-1)
  const gathered = new Map<number, Gathered>()
  const find = (i: number): number => {
    while (root[i] !== i) {
      root[i] = root[root[i]!]!
      i = root[i]!
    }
    return i
  }
  const close = (g: Gathered, level: number) => {
    nodes[g.node]!.capacity = Math.max(0, g.sum - g.n * level + g.done) * area
  }
  /**
   * A ceiling joins the pools that it touches, and joins them to each other. @param from the neighbour that its own air
   * goes to; none when it is a peak.
   */
  const join = (i: number, from: number | undefined) => {
    if (exit.has(i)) peak[i] = OUT
    else if (from !== undefined) peak[i] = peak[from]!
    const met: number[] = from === undefined ? [] : [from]
    for (const j of touching(i)) {
      if (root[j] === -1) continue
      const same = met.findIndex(t => find(t) === find(j))
      if (same === -1) met.push(j)
      else if (same > 0 && hi[j]! > hi[met[same]!]!) met[same] = j
    }
    if (met.length === 0) {
      root[i] = i
      const node = make(-1, -1, -1, -1, false)
      if (!exit.has(i)) peak[i] = node
      gathered.set(i, { node, sum: 0, n: 0, done: 0 })
    }
    else root[i] = find(met[0]!)
    const g = gathered.get(root[i]!)!
    for (const other of met.slice(1)) {
      const r = find(other), o = gathered.get(r)!
      close(g, ceiling[i]!)
      close(o, ceiling[i]!)
      g.node = make(g.node, o.node, peak[met[0]!]!, peak[other]!, nodes[g.node]!.sky || nodes[o.node]!.sky)
      g.sum += o.sum
      g.n += o.n
      g.done += o.done
      root[r] = root[i]!
      gathered.delete(r)
    }
    g.sum += ceiling[i]!
    g.n++
    nodes[g.node]!.members.push(i)
  }
  /** Openings and floors that lie above a level. */
  let nextOpening = 0, nextBottom = 0
  const reach = (level: number) => {
    for (;;) {
      const o = opened[nextOpening], b = nextBottom < count ? bottoms[nextBottom]! : undefined
      if (o && o[1] > level && (b === undefined || o[1] >= lo[b]!)) {
        nextOpening++
        const g = gathered.get(find(o[0]))!
        if (nodes[g.node]!.sky) continue
        close(g, o[1])
        g.node = make(g.node, -1, -1, -1, true)
      }
      else if (b !== undefined && lo[b]! > level) {
        nextBottom++
        const g = gathered.get(find(b))!
        g.sum -= ceiling[b]!
        g.n--
        g.done += ceiling[b]! - lo[b]!
      }
      else return
    }
  }

  const queued = new Uint8Array(count)
  for (let k = 0; k < count;) {
    const level = ceiling[order[k]!]!
    let end = k + 1
    while (end < count && ceiling[order[end]!] === level) end++
    reach(level)
    // On a flat ceiling air goes to where it is nearest to rise on or to leave; where there is no such place, it is a
    // peak.
    const queue: (readonly [number, number | undefined])[] = []
    const enter = (i: number, from: number | undefined) => {
      queued[i] = 1
      queue.push([i, from])
    }
    for (let m = k; m < end; m++) {
      const i = order[m]!
      const higher = touching(i).filter(j => root[j] !== -1)
      if (higher.length) enter(i, higher.reduce((a, b) => hi[b]! > hi[a]! ? b : a))
      else if (exit.has(i)) enter(i, undefined)
    }
    for (let m = k, at = 0; m < end || at < queue.length;) {
      const entry = queue[at]
      if (!entry) {
        const i = order[m++]!
        if (!queued[i]) enter(i, undefined)
        continue
      }
      at++
      join(...entry)
      for (const j of touching(entry[0])) if (!queued[j] && ceiling[j] === level) enter(j, entry[0])
    }
    k = end
  }
  reach(-Infinity)
  for (const g of gathered.values()) nodes[g.node]!.capacity = g.done * area
  return { spans, peak, nodes }
}

/**
 * Lets air come to rest. @param risen air that rises to each peak, by node.
 * @returns for every span the level that its air reaches down to; its own ceiling where it has none.
 * One function: two passes over the same flat arrays, up the tree and down again.
 */
export function restingAir({ spans, nodes }: AirPools, risen: Float64Array): Float64Array {
  const { lo, hi, h } = spans
  const air = new Float64Array(nodes.length),
    own = new Float64Array(nodes.length),
    over = new Float64Array(nodes.length)
  /** Adds air that rises to a peak within a pool already at rest. @returns what the pool has no room for. */
  const add = (pool: number, amount: number, at: number): number => {
    if (at === OUT) return 0
    let left = amount
    for (let n = at; ; n = nodes[n]!.parent) {
      const { a, b, intoA, intoB, capacity, sky } = nodes[n]!
      if (a < 0) {
        const taken = Math.min(left, capacity - air[n]!)
        air[n]! += taken
        left -= taken
      }
      else {
        // It came up through one of the two; what that one could not hold goes over into the other.
        if (left > 0 && b >= 0) left = below.get(n) === a ? add(b, left, intoB) : add(a, left, intoA)
        const inside = air[a]! + (b >= 0 ? air[b]! : 0)
        if (sky) left = 0
        else if (left > 0) {
          const taken = Math.min(left, capacity - inside - own[n]!)
          own[n]! += taken
          left -= taken
        }
        air[n] = inside + own[n]!
      }
      below.set(nodes[n]!.parent, n)
      if (n === pool) return Math.max(0, left)
    }
  }
  const below = new Map<number, number>()
  // Pools are numbered as they were made: both that meet come before what they become.
  for (const [n, { a, b, intoA, intoB, capacity, sky }] of nodes.entries()) {
    if (a < 0) {
      air[n] = Math.min(risen[n]!, capacity)
      over[n] = risen[n]! - air[n]!
      continue
    }
    let left = over[a]!
    if (b >= 0) {
      left = (over[a]! > 0 ? add(b, over[a]!, intoB) : 0) + (over[b]! > 0 ? add(a, over[b]!, intoA) : 0)
    }
    const inside = air[a]! + (b >= 0 ? air[b]! : 0)
    own[n] = sky ? 0 : Math.min(left, Math.max(0, capacity - inside))
    air[n] = inside + own[n]!
    over[n] = sky ? 0 : left - own[n]!
  }

  const level = Float64Array.from(hi)
  const draw = nodes.flatMap((node, n) => node.parent === -1 ? [n] : [])
  for (let n = draw.pop(); n !== undefined; n = draw.pop()) {
    const { a, b } = nodes[n]!
    if (a >= 0 && !(own[n]! > 0)) {
      draw.push(a)
      if (b >= 0) draw.push(b)
      continue
    }
    if (!(air[n]! > 0)) continue
    const inside: number[] = [], open = [n]
    for (let m = open.pop(); m !== undefined; m = open.pop()) {
      for (const i of nodes[m]!.members) inside.push(i)
      if (nodes[m]!.a >= 0) open.push(nodes[m]!.a)
      if (nodes[m]!.b >= 0) open.push(nodes[m]!.b)
    }
    let low = Infinity, high = -Infinity
    for (const i of inside) {
      low = Math.min(low, lo[i]!)
      high = Math.max(high, hi[i]!)
    }
    for (let step = 0; step < 48; step++) {
      const middle = (low + high) / 2
      let above = 0
      for (const i of inside) above += Math.max(0, hi[i]! - Math.max(middle, lo[i]!))
      if (above * h * h > air[n]!) low = middle
      else high = middle
    }
    for (const i of inside) level[i] = Math.min(hi[i]!, Math.max(high, lo[i]!))
  }
  return level
}
