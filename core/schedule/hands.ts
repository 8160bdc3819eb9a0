import type { Bound } from './windows'

/**
 * Several chains on the same hands: in which order, so that the last of it ends soonest. Branch and bound over the
 * order of tasks that would overlap: one more bound for each, propagated at once (precedence posting: Cesta, Oddi and
 * Smith 2002; from memory). Exact while it is allowed to look at enough branches.
 */

export interface HandsTask {
  /** Whole units of time. */
  readonly length: number
  /** How many pairs of hands it takes; 0 for a soak or a wait. */
  readonly hands: number
}

export interface HandsChain {
  readonly tasks: readonly HandsTask[]
  /** From the start of one task to the start of another. */
  readonly lags: readonly Bound[]
  /** Pairs of hands there are. */
  readonly hands: number
}

export interface HandsOrder {
  readonly starts: readonly number[]
  /** End of the last task. */
  readonly end: number
  /** Whether no other order ends sooner; false where the search was cut off. */
  readonly proved: boolean
}

interface Arc { readonly from: number, readonly to: number, readonly by: number }
/** Beyond so many branches the best found is taken. */
const BRANCHES = 50_000

/** Raises starts until every arc is kept. @returns false when one passes `limit`: then there is no such order */
function raise(starts: Int32Array, arcs: readonly Arc[][], tails: Int32Array, from: number[], limit: number): boolean {
  for (let at = from.pop(); at !== undefined; at = from.pop()) {
    for (const arc of arcs[at]!) {
      const start = starts[at]! + arc.by
      if (start <= starts[arc.to]!) continue
      if (start + tails[arc.to]! >= limit) return false
      starts[arc.to] = start
      from.push(arc.to)
    }
  }
  return true
}

/** The first tasks in time that need more hands than there are. */
function clashing({ tasks, hands }: HandsChain, starts: Int32Array): readonly number[] | undefined {
  const inOrder = tasks.map((_, i) => i).filter(i => tasks[i]!.hands > 0 && tasks[i]!.length > 0)
    .sort((a, b) => starts[a]! - starts[b]!)
  for (const [k, i] of inOrder.entries()) {
    const busy = inOrder.slice(0, k).filter(j => starts[j]! + tasks[j]!.length > starts[i]!)
    let needed = tasks[i]!.hands
    const together = [i]
    for (const j of busy.sort((a, b) => tasks[b]!.hands - tasks[a]!.hands)) {
      if (needed > hands) break
      needed += tasks[j]!.hands
      together.push(j)
    }
    if (needed > hands) return together
  }
  return undefined
}

/** From the start of each task to the end of the last that must follow it. */
function tailsOf({ tasks, lags }: HandsChain): Int32Array {
  const tails = Int32Array.from(tasks, t => t.length)
  for (let round = 0; round < tasks.length; round++) {
    for (const { from, to, min } of lags) {
      if (min !== undefined && min >= 0) tails[from] = Math.max(tails[from]!, min + tails[to]!)
    }
  }
  return tails
}

/** In time, more hands than are needed at once: no task can start before its chain lets it. */
const arcsOf = (tasks: readonly HandsTask[], lags: readonly Bound[]): Arc[][] => {
  const arcs: Arc[][] = tasks.map(() => [])
  for (const { from, to, min, max } of lags) {
    if (min !== undefined) arcs[from]!.push({ from, to, by: min })
    if (max !== undefined) arcs[to]!.push({ from: to, to: from, by: -max })
  }
  return arcs
}

/**
 * The order that ends soonest. @returns nothing where no order keeps every lag
 * @param branches how many may be looked at; the answer says whether that was enough
 */
export function orderHands(chain: HandsChain, branches = BRANCHES): HandsOrder | undefined {
  const { tasks, lags } = chain, arcs = arcsOf(tasks, lags), tails = tailsOf(chain)
  const longest = tasks.reduce((n, t) => n + t.length, 0) + lags.reduce((n, l) => n + Math.max(0, l.min ?? 0), 0) + 1
  let best: HandsOrder | undefined, left = branches
  const limit = () => best?.end ?? longest + 1
  function search(starts: Int32Array): void {
    if (left-- <= 0) return
    if (starts.some((s, i) => s + tails[i]! >= limit())) return
    const together = clashing(chain, starts)
    if (!together) {
      best = { starts: [...starts], end: Math.max(0, ...tasks.map((t, i) => starts[i]! + t.length)), proved: false }
      return
    }
    const pairs = together.flatMap(i => together.filter(j => j !== i).map(j => [i, j] as const))
      .sort((a, b) => starts[a[0]]! + tails[b[0]]! - starts[b[0]]! - tails[a[0]]!)
    for (const [first, second] of pairs) {
      const arc = { from: first, to: second, by: tasks[first]!.length }, next = Int32Array.from(starts)
      arcs[first]!.push(arc)
      if (raise(next, arcs, tails, [first], limit())) search(next)
      arcs[first]!.pop()
    }
  }
  const starts = new Int32Array(tasks.length)
  if (raise(starts, arcs, tails, tasks.map((_, i) => i), limit())) search(starts)
  return best && { ...best, proved: left > 0 }
}
