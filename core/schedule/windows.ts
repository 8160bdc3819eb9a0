/**
 * When each step of a chain may be: a simple temporal network, solved exactly, with the hours in which hands work.
 * Dechter, Meiri and Pearl 1991, Artificial Intelligence 49:61 (networks of least and greatest lags); Bellman 1958
 * (label correcting). Citations from memory. Times are whole numbers of one unit, minutes or seconds, from any zero:
 * fractions would make cycles that are a hair too long.
 */

/** Event `to` comes at least `min` and at most `max` after event `from`. */
export interface Bound {
  readonly from: number
  readonly to: number
  readonly min?: number
  readonly max?: number
}

/** From when to when hands work; `[from, to)` in whole units. */
export type Shift = readonly [from: number, to: number]

/** A step that begins at an event and lies wholly inside one shift. Shifts are in order and do not touch. */
export interface StepHours {
  readonly shifts: readonly Shift[]
  readonly length: number
}

/** Events 0 to `nodes - 1`. Event 0 is the zero of time, and nothing comes before it. */
export interface Network {
  readonly nodes: number
  readonly bounds: readonly Bound[]
  readonly hours?: ReadonlyMap<number, StepHours>
}

/** Each event's window; a latest time may be Infinity. Without hours every time in it is part of some schedule. */
export interface Windows {
  readonly earliest: readonly number[]
  readonly latest: readonly number[]
}

/** One bound that would do, given so much. */
export interface Relief {
  readonly bound: number
  readonly by: number
}

/** Facts that clash, and not one too many: whichever of them is dropped, the others can be kept. */
export interface Conflict {
  /** Numbers of bounds, in their own order. */
  readonly bounds: readonly number[]
  /** Events whose hours are part of it. */
  readonly hours: readonly number[]
  /** By how much it is too tight at least; Infinity where no bound alone can give enough. */
  readonly excess: number
  readonly reliefs: readonly Relief[]
}

export type Worked
  = | { readonly ok: true, readonly windows: Windows }
    | { readonly ok: false, readonly conflict: Conflict }

/** The next moment from `t` on at which a step of that length lies in one shift; Infinity if there is none. */
export function nextStart({ shifts, length }: StepHours, t: number): number {
  for (const [from, to] of shifts) if (Math.max(from, t) + length <= to) return Math.max(from, t)
  return Infinity
}

/** The last moment up to `t` at which it does; -Infinity if there is none. */
export function lastStart({ shifts, length }: StepHours, t: number): number {
  for (let i = shifts.length - 1; i >= 0; i--) {
    const start = Math.min(shifts[i]![1] - length, t)
    if (start >= shifts[i]![0]) return start
  }
  return -Infinity
}

/** `to` comes at least `by` after `from`; `by` may be negative. */
interface Arc { readonly from: number, readonly to: number, readonly by: number, readonly bound: number }

function arcsOf(bounds: readonly Bound[], kept?: ReadonlySet<number>): readonly Arc[] {
  return bounds.flatMap(({ from, to, min, max }, bound) => kept && !kept.has(bound)
    ? []
    : [
        ...min === undefined ? [] : [{ from, to, by: min, bound }],
        ...max === undefined ? [] : [{ from: to, to: from, by: -max, bound }],
      ])
}

type Reached = { readonly at: number[], readonly failed?: undefined } | { readonly failed: ReadonlySet<number> }

/**
 * The least times that keep every arc, each at its hours. A push by hours starts a new round of at most `nodes` visits
 * of each event; more than that is a cycle that grows for ever.
 */
function reach(nodes: number, arcs: readonly Arc[], hours: ReadonlyMap<number, StepHours>): Reached {
  const at = new Array<number>(nodes).fill(0), leaving: Arc[][] = at.map(() => [])
  for (const arc of arcs) leaving[arc.from]!.push(arc)
  const raisedBy = new Array<Arc | undefined>(nodes), visits = new Array<number>(nodes).fill(0)
  const queued = new Array<boolean>(nodes).fill(true), queue = at.map((_, i) => i)
  let allowed = nodes + 1
  for (const [node, when] of hours) at[node] = nextStart(when, 0)
  for (let head = 0; head < queue.length; head++) {
    const from = queue[head]!
    queued[from] = false
    if (++visits[from]! > allowed || at[from] === Infinity || at[0]! > 0)
      return { failed: boundsBehind(from, raisedBy) }
    for (const arc of leaving[from]!) {
      let raised = at[from]! + arc.by
      if (raised <= at[arc.to]!) continue
      const when = hours.get(arc.to), start = when ? nextStart(when, raised) : raised
      if (start > raised) allowed += nodes
      raised = start
      at[arc.to] = raised
      raisedBy[arc.to] = arc
      if (!queued[arc.to]) queue.push(arc.to)
      queued[arc.to] = true
    }
  }
  return at[0]! > 0 || at.includes(Infinity) ? { failed: boundsBehind(at.indexOf(Math.max(...at)), raisedBy) } : { at }
}

/** The bounds that pushed an event to where it is, as far back as they go. */
function boundsBehind(event: number, raisedBy: readonly (Arc | undefined)[]): ReadonlySet<number> {
  const bounds = new Set<number>(), seen = new Set<number>()
  for (let at = event; !seen.has(at);) {
    seen.add(at)
    const arc = raisedBy[at]
    if (!arc) break
    bounds.add(arc.bound)
    at = arc.from
  }
  return bounds
}

/** The greatest times that keep every arc and are no later than the horizon. */
function reachBack(nodes: number, arcs: readonly Arc[], hours: ReadonlyMap<number, StepHours>): number[] {
  const at = new Array<number>(nodes).fill(Infinity), entering: Arc[][] = at.map(() => [])
  for (const arc of arcs) entering[arc.to]!.push(arc)
  at[0] = 0
  for (const [node, when] of hours) at[node] = lastStart(when, at[node]!)
  const queue = at.flatMap((t, i) => t < Infinity ? [i] : [])
  for (let head = 0; head < queue.length; head++) {
    const to = queue[head]!
    for (const arc of entering[to]!) {
      const lowered = at[to]! - arc.by
      if (lowered >= at[arc.from]!) continue
      const when = hours.get(arc.from)
      at[arc.from] = when ? lastStart(when, lowered) : lowered
      queue.push(arc.from)
    }
  }
  return at
}

/**
 * The window of every event, or what clashes. Least and greatest lags, and the hours of the steps that need hands, are
 * kept exactly; with hours a window's ends are possible and not everything between them need be.
 * @example workOutWindows({ nodes: 3, bounds: [{ from: 0, to: 1, min: 10 }, { from: 1, to: 2, min: 5, max: 9 }] })
 */
export function workOutWindows({ nodes, bounds, hours = new Map<number, StepHours>() }: Network): Worked {
  const arcs = arcsOf(bounds), reached = reach(nodes, arcs, hours)
  if (reached.failed) return { ok: false, conflict: findConflict({ nodes, bounds, hours }, reached.failed) }
  return { ok: true, windows: { earliest: reached.at, latest: reachBack(nodes, arcs, hours) } }
}

/**
 * Drops one fact after the other that the clash does not need, from what was seen behind it if that clashes by itself:
 * Junker 2004, QuickXplain, in its plain form. @param seen bounds behind the first clash that was met
 */
function findConflict(network: Required<Network>, seen: ReadonlySet<number>): Conflict {
  const { nodes, bounds, hours } = network
  const clashes = (kept: ReadonlySet<number>, open: ReadonlyMap<number, StepHours>) =>
    reach(nodes, arcsOf(bounds, kept), open).failed !== undefined
  let kept = clashes(seen, hours) ? new Set(seen) : new Set(bounds.keys()), open = new Map(hours)
  for (const node of hours.keys()) {
    const fewer = new Map(open)
    fewer.delete(node)
    if (clashes(kept, fewer)) open = fewer
  }
  for (const bound of [...kept].sort((a, b) => b - a)) {
    const fewer = new Set(kept)
    fewer.delete(bound)
    if (clashes(fewer, open)) kept = fewer
  }
  const inIt = [...kept].sort((a, b) => a - b)
  const reliefs = inIt.flatMap((bound) => {
    const by = leastRelief(network, kept, open, bound)
    return by === undefined ? [] : [{ bound, by }]
  })
  return { bounds: inIt, hours: [...open.keys()], excess: Math.min(...reliefs.map(r => r.by)), reliefs }
}

/** How much one bound has to give so that the rest of a clash can be kept; nothing where it never does. */
function leastRelief(
  { nodes, bounds }: Network, kept: ReadonlySet<number>, hours: ReadonlyMap<number, StepHours>, which: number,
): number | undefined {
  const given = (by: number) => bounds.map((b, i) => i !== which
    ? b
    : { ...b, ...b.min !== undefined && { min: b.min - by }, ...b.max !== undefined && { max: b.max + by } })
  const does = (by: number) => reach(nodes, arcsOf(given(by), kept), hours).failed === undefined
  let high = 1
  while (!does(high)) {
    high *= 2
    if (high > 1e9) return undefined
  }
  let low = high / 2
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (does(middle)) high = middle
    else low = middle
  }
  return Math.ceil(high)
}
