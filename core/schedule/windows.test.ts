import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { campaign } from '../../tests/campaign'
import { orderHands, type HandsChain } from './hands'
import instances from './instances.test.json'
import { workOutWindows, type Bound, type Network, type Shift, type StepHours } from './windows'

/** The check instances; answers found by two methods each. */
interface Instance {
  readonly id: string
  readonly title: string
  readonly nodes: readonly string[]
  readonly bounds: readonly { from: number, to: number, min: number | null, max: number | null }[]
  readonly calendars: Readonly<Record<string, readonly [number, number, number]>>
  readonly earliest?: readonly number[]
  readonly latest?: readonly number[]
  readonly conflict?: readonly number[]
  readonly excess?: number
  readonly chain: HandsChain
  readonly optimum: number
}
const ofKind = (kind: string) =>
  instances.instances.filter(i => i.kind === kind) as unknown as readonly Instance[]
const DAYS = 30
const daily = ([from, to, length]: readonly [number, number, number]): StepHours =>
  ({ length, shifts: Array.from({ length: DAYS }, (_, day): Shift => [day * 1440 + from, day * 1440 + to]) })

describe('windows', () => {
  it.each(ofKind('windows'))('$id: $title', ({ nodes, bounds, calendars, earliest, latest, conflict, excess }) => {
    const worked = workOutWindows({
      nodes: nodes.length,
      bounds: bounds.map(({ from, to, min, max }) => ({ from, to, min: min ?? undefined, max: max ?? undefined })),
      hours: new Map(Object.entries(calendars).map(([node, hours]) => [Number(node), daily(hours)])),
    })
    if (worked.ok) expect(worked.windows).toEqual({ earliest, latest })
    else expect(worked.conflict).toMatchObject({ bounds: conflict, excess, hours: [] })
    expect(worked.ok).toBe(conflict === undefined)
  })

  const drawnBounds = (nodes: number, span: number) => fc.array(
    fc.record({
      from: fc.nat(nodes - 1), to: fc.nat(nodes - 1), least: fc.integer({ min: -span, max: span }), room: fc.nat(span),
      which: fc.constantFrom('min', 'max', 'both'),
    }), { maxLength: nodes * 2 },
  ).map(list => list.filter(b => b.from !== b.to).map(({ from, to, least, room, which }): Bound => ({
    from, to, ...which !== 'max' && { min: least }, ...which !== 'min' && { max: least + room },
  })))

  const drawnNetwork = (most: number, span: number) => fc.integer({ min: 2, max: most })
    .chain(nodes => drawnBounds(nodes, span).map(bounds => ({ nodes, bounds })))

  it('has the windows that all shortest paths give, and a cycle that is too tight where there is one', () => {
    fc.assert(fc.property(drawnNetwork(9, 20), ({ nodes: n, bounds }) => {
      const apart = shortestPaths(n, bounds), worked = workOutWindows({ nodes: n, bounds })
      expect(worked.ok).toBe(apart.every((row, i) => row[i]! >= 0))
      if (!worked.ok) return
      expect(worked.windows.earliest).toEqual(apart.map(row => 0 - row[0]!))
      expect(worked.windows.latest).toEqual(apart[0])
    }), { numRuns: campaign(3000).of })
  })

  it('names a smallest set: any one of it dropped, or given what is said, and the others can be kept', () => {
    fc.assert(fc.property(drawnNetwork(7, 12), (network) => {
      const worked = workOutWindows(network)
      if (worked.ok) return
      const { conflict } = worked, kept = conflict.bounds.map(i => network.bounds[i]!)
      const works = (bounds: readonly Bound[]) => workOutWindows({ ...network, bounds }).ok
      expect(works(kept)).toBe(false)
      for (const [k] of kept.entries()) expect(works(kept.filter((_, i) => i !== k))).toBe(true)
      const given = (b: Bound, by: number): Bound =>
        ({ ...b, ...b.min !== undefined && { min: b.min - by }, ...b.max !== undefined && { max: b.max + by } })
      for (const { bound, by } of conflict.reliefs) {
        const with_ = (n: number) => kept.map(b => b === network.bounds[bound] ? given(b, n) : b)
        expect([works(with_(by)), works(with_(by - 1))]).toEqual([true, false])
      }
    }), { numRuns: campaign(2000).of })
  })

  it('has the ends that trying every minute gives, where steps lie in hours', () => {
    const hours: StepHours = { shifts: [[2, 5], [8, 11]], length: 2 }
    const at = fc.subarray([1, 2, 3])
    fc.assert(fc.property(drawnBounds(4, 6), at, (drawn, inHours) => {
      const bounds = [...drawn, { from: 0, to: 1, max: 11 }, { from: 0, to: 2, max: 11 }, { from: 0, to: 3, max: 11 }]
      const network: Network = { nodes: 4, bounds, hours: new Map(inHours.map(n => [n, hours])) }
      const possible = everyTime(network, 12), worked = workOutWindows(network)
      expect(worked.ok).toBe(possible.length > 0)
      if (!worked.ok) return
      expect(worked.windows.earliest).toEqual([0, 1, 2, 3].map(i => Math.min(...possible.map(t => t[i]!))))
      expect(worked.windows.latest).toEqual([0, 1, 2, 3].map(i => Math.max(...possible.map(t => t[i]!))))
    }), { numRuns: campaign(600).of })
  })

  it('says that hours are part of what clashes, and that there are none at all', () => {
    const hours = new Map([[1, { shifts: [[540, 600] as const], length: 30 }]])
    const late = workOutWindows({ nodes: 2, bounds: [{ from: 0, to: 1, min: 580 }], hours })
    expect(late).toMatchObject({ ok: false, conflict: { bounds: [0], hours: [1], excess: 10 } })
    const never = workOutWindows({ nodes: 2, bounds: [], hours: new Map([[1, { shifts: [], length: 1 }]]) })
    expect(never).toMatchObject({ ok: false, conflict: { bounds: [], hours: [1], excess: Infinity } })
  })
})

/** Longest times between events by Floyd and Warshall; nothing comes before event 0. */
function shortestPaths(n: number, bounds: readonly Bound[]): number[][] {
  const apart = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (_, j) => i === j ? 0 : Infinity))
  const take = (i: number, j: number, by: number) => { apart[i]![j] = Math.min(apart[i]![j]!, by) }
  for (let i = 1; i < n; i++) take(i, 0, 0)
  for (const { from, to, min, max } of bounds) {
    if (max !== undefined) take(from, to, max)
    if (min !== undefined) take(to, from, 0 - min)
  }
  for (let k = 0; k < n; k++) {
    for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) take(i, j, apart[i]![k]! + apart[k]![j]!)
  }
  return apart
}

/** Every choice of whole times below `until` that keeps everything. */
function everyTime({ nodes, bounds, hours }: Network, until: number): number[][] {
  const all: number[][] = []
  const place = (times: number[]): void => {
    if (times.length === nodes) return void all.push(times)
    for (let t = 0; t < (times.length === 0 ? 1 : until); t++) {
      const step = hours?.get(times.length)
      if (step && !step.shifts.some(([from, to]) => t >= from && t + step.length <= to)) continue
      const next = [...times, t]
      const kept = bounds.every(({ from, to, min = -Infinity, max = Infinity }) =>
        from >= next.length || to >= next.length || (next[to]! - next[from]! >= min && next[to]! - next[from]! <= max))
      if (kept) place(next)
    }
  }
  place([])
  return all
}

describe('chains on the same hands', () => {
  it.each(ofKind('hands-chain'))('$id: $title', ({ chain, optimum }) => {
    expect(orderHands(chain)).toMatchObject({ end: optimum, proved: true })
  })

  it('ends when the best of all whole times ends', () => {
    const task = fc.record({ length: fc.integer({ min: 1, max: 3 }), hands: fc.constantFrom(0, 1, 1, 2) })
    const drawn = fc.record({ tasks: fc.array(task, { minLength: 2, maxLength: 4 }), hands: fc.constantFrom(1, 2) })
      .chain(({ tasks, hands }) => fc.record({
        tasks: fc.constant(tasks.map(t => ({ ...t, hands: Math.min(t.hands, hands) }))),
        hands: fc.constant(hands),
        lags: fc.array(fc.record({
          from: fc.nat(tasks.length - 1), to: fc.nat(tasks.length - 1), min: fc.nat(4), room: fc.nat(4),
        }), { maxLength: 3 }).map(list => list.filter(l => l.from < l.to)
          .map(({ from, to, min, room }) => ({ from, to, min, max: min + room }))),
      }))
    fc.assert(fc.property(drawn, (chain) => {
      expect(orderHands(chain)?.end).toBe(bestEnd(chain))
    }), { numRuns: campaign(1500).of })
  })
})

function bestEnd({ tasks, lags, hands }: HandsChain): number | undefined {
  const until = 14, starts = everyTime({
    nodes: tasks.length + 1, bounds: lags.map(l => ({ ...l, from: l.from + 1, to: l.to + 1 })),
  }, until)
  const ends = starts.flatMap(([, ...at]) => {
    const most = Math.max(...Array.from({ length: until + 4 }, (_, t) =>
      tasks.reduce((n, task, i) => n + (at[i]! <= t && t < at[i]! + task.length ? task.hands : 0), 0)))
    return most > hands ? [] : [Math.max(...tasks.map((task, i) => at[i]! + task.length))]
  })
  return ends.length > 0 ? Math.min(...ends) : undefined
}
