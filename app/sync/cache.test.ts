import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { chance } from '~demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '~demo/saltmarsh'
import type { PourEvent } from '~core/pour/events'
import { summariseCasts, summarisePour } from '~core/pour/projection'
import { foldPour } from '~core/pour/fold'
import { freezeRun } from '~core/plan/run'
import type { LiveMessage } from '~contract/pour'
import { useCache } from './cache'
import { useClock } from './clock'
import { useLive } from './live'
import { usePours } from './pours'
import { useRecords } from './records'
import { useSession } from './session'

const NOW = 1_800_000_000_000, ids = makeIds(chance(1))
const frozen = freezeRun({ ...planOf(ids, WISHES.lanterns), bag: undefined }, {
  moulds: [{ id: ids.moulds.lantern, ...MOULDS.lantern }],
  bucket: { id: ids.buckets.bowl, ...BUCKETS.bowl },
})
if (!frozen.ok) throw new Error('refused')
const { run } = frozen

/** The server's record of pours: numbered entries, and what was asked for. */
const server = {
  events: {} as Record<string, readonly (PourEvent & { seq: number })[]>,
  asked: [] as string[],
  reached: true,
  seq: 0,
  /** Whose the last pour is that was begun elsewhere. */
  begunBy: '',
  /** Why it takes no pour that was begun elsewhere. */
  unfit: '',
  tell(pour: string, happening: Pick<PourEvent, 'kind' | 'data'>, at: number): PourEvent {
    const event = {
      ...happening, id: `00000000-0000-4000-8000-${String(++server.seq).padStart(12, '0')}`, pour, batch: 0, version: 2,
      happenedAt: NOW + at, recordedAt: NOW + at, device: 'other', deviceSeq: server.seq, actor: 'x', seq: server.seq,
    } as PourEvent & { seq: number }
    server.events[pour] = [...server.events[pour] ?? [], event]
    return event
  },
  of(pour: string, after = 0) {
    const events = (server.events[pour] ?? []).filter(e => e.seq > after)
    return { events, seq: server.events[pour]?.at(-1)?.seq ?? after }
  },
  async fetch(url: string, init?: { method?: string, body?: string }): Promise<Response> {
    server.asked.push(`${init?.method ?? 'GET'} ${url.slice('/api/'.length)}`)
    if (!server.reached) throw new TypeError('no network')
    const answer = (body: unknown) => new Response(JSON.stringify(body))
    const pour = /pours\/([\w-]+)/.exec(url)?.[1]
    if (init?.method === 'POST' && !pour) {
      const { id, startedAt, person } = JSON.parse(init.body!) as { id: string, startedAt: number, person: string }
      server.begunBy = person
      if (server.unfit) return new Response(JSON.stringify({ data: { sentence: server.unfit } }), { status: 409 })
      server.tell(id, step('ready', 'unbegun'), startedAt - NOW)
      return answer({ id, run, startedBy: 'me', ...server.of(id) })
    }
    if (init?.method === 'POST') {
      const { events, after } = JSON.parse(init.body!) as { events: PourEvent[], after: number }
      for (const e of events) server.events[pour!] = [...server.events[pour!] ?? [], { ...e, pour: pour!, actor: 'me', seq: ++server.seq } as never]
      return answer({ ...server.of(pour!, after), fates: events.map(({ id }) => ({ id, fate: 'stored' })) })
    }
    if (pour) return answer({ id: pour, run, startedBy: 'x', ...server.of(pour) })
    const folds = Object.keys(server.events).map(id => ({ id, state: foldPour(run, server.events[id]!) }))
    if (url.endsWith('/pours'))
      return answer(folds.map(({ id, state }) => ({ id, seq: server.of(id).seq, summary: summarisePour(run, state) })))
    return answer(folds.flatMap(({ id, state }) =>
      summariseCasts(run, state).map(cast => ({ pour: id, pourName: run.plan.name, cast })),
    ))
  },
}
const stages = (pour: string) => useCache().pourOf(pour)!.state.batches[0]!.stages.map(s => s.stage)
const step = (stage: 'ready' | 'weigh' | 'sift' | 'soak', from: string) =>
  ({ kind: 'stage', data: { stage, from } }) as never

/** What the stream says, as if it were heard. */
let hear: (message: LiveMessage | { what: 'caught-up' }) => void
beforeEach(() => {
  Object.assign(server, { events: {}, asked: [], reached: true, seq: 0, unfit: '' })
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('fetch', server.fetch)
  setActivePinia(createPinia())
  useSession().facts = {
    person: { id: 'me', name: 'Me', email: 'm@example.org', role: 'member' },
    workshop: { id: `w${Math.random()}`, name: 'W', units: { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' } },
    clock: { now: NOW, rate: 1 },
    demo: false,
    needsOwner: false,
  }
  useClock().anchor(NOW, 1)
  const listeners = new Set<(message: never) => void>()
  vi.spyOn(useLive(), 'on').mockImplementation((listener) => {
    listeners.add(listener as never)
    return () => {}
  })
  hear = message => [...listeners].forEach(listener => listener(message as never))
  server.tell('p', step('ready', 'unbegun'), 0)
  server.tell('p', step('weigh', 'ready'), 60_000)
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})
const heard = (pour: string, after: number, events?: readonly PourEvent[]) =>
  hear({ what: 'pour', pour, after, seq: server.of(pour).seq, ...events && { events } })

describe('a pour that is held here', () => {
  it('takes what the stream brings without asking, and asks when something is missing in between', async () => {
    const cache = useCache()
    await cache.load('p')
    server.asked = []
    const sift = server.tell('p', step('sift', 'weigh'), 120_000)
    heard('p', 2, [sift])
    expect(stages('p')).toEqual(['ready', 'weigh', 'sift'])
    expect(server.asked).toEqual([])
    // Heard twice, it is one entry.
    heard('p', 2, [sift])
    expect(cache.pourOf('p')!.events).toHaveLength(3)
    server.tell('p', { kind: 'mark', data: { sign: 'islands' } } as never, 200_000)
    const soak = server.tell('p', step('soak', 'sift'), 240_000)
    heard('p', 4, [soak])
    await expect.poll(() => cache.pourOf('p')!.seq).toBe(5)
    expect(server.asked).toEqual(['GET pours/p'])
    expect(stages('p')).toEqual(['ready', 'weigh', 'sift', 'soak'])
    // What was too much to send along is asked for.
    server.tell('p', { kind: 'note', data: { text: 'long' } } as never, 250_000)
    heard('p', 5)
    await expect.poll(() => cache.pourOf('p')!.seq).toBe(6)
  })

  it('is asked for again when the stream was away', async () => {
    const cache = useCache()
    await cache.load('p')
    server.tell('p', step('sift', 'weigh'), 120_000)
    hear({ what: 'caught-up' })
    await expect.poll(() => cache.pourOf('p')!.seq).toBe(3)
  })

  it('shows what was told here at once, and the same once the server has it', async () => {
    const cache = useCache(), records = useRecords()
    await cache.load('p')
    server.reached = false
    await records.record('p', step('sift', 'weigh'), 0)
    expect(stages('p')).toEqual(['ready', 'weigh', 'sift'])
    const { wetAt } = cache.pourOf('p')!.state.batches[0]!
    server.reached = true
    records.hurry()
    await expect.poll(() => records.unsent).toBe(0)
    expect(cache.pourOf('p')!.state.batches[0]!.wetAt).toBe(wetAt)
    expect(cache.pourOf('p')!.events).toHaveLength(3)
  })

  it('is nobody else’s: whoever signs in next finds nothing of it', async () => {
    const cache = useCache()
    await cache.load('p')
    useSession().facts = { ...useSession().facts!, person: { ...useSession().facts!.person!, id: 'other' } }
    expect(cache.pourOf('p')).toBeUndefined()
  })
})

describe('lists', () => {
  it('show a pour as it is folded here, and one that is not held after it was asked for alone', async () => {
    const pours = usePours(), cache = useCache()
    server.tell('q', step('ready', 'unbegun'), 5000)
    await pours.load()
    await cache.load('p')
    server.asked = []
    heard('p', 2, [server.tell('p', step('sift', 'weigh'), 120_000)])
    expect(pours.rows.find(r => r.id === 'p')!.summary).toMatchObject({ status: 'pouring', wetAt: NOW + 120_000 })
    expect(server.asked).toEqual([])
    const before = server.of('q').seq
    heard('q', before, [server.tell('q', step('weigh', 'ready'), 60_000)])
    await expect.poll(() => pours.rows.find(r => r.id === 'q')!.summary.step.stage).toBe('weigh')
    expect(server.asked).toEqual(['GET pours/q'])
    // One that begins elsewhere comes in, the newest first.
    server.tell('r', step('ready', 'unbegun'), 9e6)
    heard('r', 0)
    await expect.poll(() => pours.rows.map(r => r.id)).toEqual(['r', 'q', 'p'])
  })

  it('show what was told of a pour that is not held, before and after the server has it', async () => {
    const pours = usePours(), records = useRecords(), [cast] = summariseCasts(run, foldPour(run, []))
    await pours.load()
    const status = () => pours.casts.find(c => c.pour === 'p' && c.cast.id === cast!.id)!.cast.status
    server.reached = false
    await records.record('p', { kind: 'finished', data: { cast: cast!.id } })
    expect(status()).toBe('finished')
    server.reached = true
    records.hurry()
    await expect.poll(() => records.unsent).toBe(0)
    expect(status()).toBe('finished')
    expect(server.asked.filter(a => a === 'GET pours/p')).toEqual([])
  })
})

describe('a pour that is begun without a network', () => {
  const plan = { name: 'Here' } as never
  it('is there at once, takes entries, survives a reload, and goes to the server before them', async () => {
    server.reached = false
    const before = useRecords(), who = useSession().facts
    useCache()
    const id = await before.begin(plan, run)
    await before.record(id, step('weigh', 'ready'), 0)
    expect(stages(id)).toEqual(['ready', 'weigh'])
    // The page is opened again, still without a network.
    setActivePinia(createPinia())
    useSession().facts = who
    useClock().anchor(NOW + 60_000, 1)
    const records = useRecords(), pours = usePours(), cache = useCache()
    await records.load()
    await cache.load(id)
    expect(stages(id)).toEqual(['ready', 'weigh'])
    expect(pours.rows.map(r => r.id)).toContain(id)
    server.reached = true
    server.asked = []
    records.hurry()
    await expect.poll(() => [records.unsent, records.begun.length]).toEqual([0, 0])
    expect(server.begunBy).toBe('me')
    expect(server.asked.filter(a => a.startsWith('POST'))).toEqual(['POST pours', `POST pours/${id}/events`])
    await expect.poll(() => stages(id)).toEqual(['ready', 'weigh'])
    expect(cache.pourOf(id)!.seq).toBe(server.of(id).seq)
  })

  it('that the server does not take stands aside with its entries and the reason, until it is tried again', async () => {
    server.unfit = 'It was divided otherwise.'
    const records = useRecords(), cache = useCache(), id = await records.begin(plan, run)
    await records.record(id, step('weigh', 'ready'), 0)
    await expect.poll(() => records.refusedPours.map(b => b.refused)).toEqual([server.unfit])
    await expect.poll(() => records.refused.map(w => w.refused)).toEqual([expect.any(String)])
    expect(records.unsent).toBe(0)
    server.unfit = ''
    await records.sendAgain(records.refused)
    await expect.poll(() => [records.refusedPours.length, records.waiting.length]).toEqual([0, 0])
    expect(server.of(id).events.map(e => (e.data as { stage: string }).stage)).toEqual(['ready', 'weigh'])
    expect(cache.pourOf(id)!.state.batches[0]!.step).toBe(1)
  })
})
