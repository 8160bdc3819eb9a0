import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { PourEvent } from '~core/pour/events'
import { waitingOf } from '~/sync/outbox'
import { useClock } from './clock'
import { useRecords } from './records'
import { useSession } from './session'

/** A server that takes events as the real one does, and can be out of reach, refuse, or answer late. */
function fakeServer() {
  const taken = new Map<string, { pour: string, seq: number }>()
  const server = {
    taken, requests: 0,
    /** How many entries came in each request. */
    sizes: [] as number[],
    /** Who the cookie says it is. */
    signedIn: '',
    behaviour: 'takes' as
    | 'takes'
    | 'unreachable'
    | 'signed-out'
    | 'refuses'
    | 'takes but the answer is lost'
    | 'broken'
    | 'nonsense'
    | 'a proxy',
    held: undefined as Promise<void> | undefined,
    /** When each note happened, as it was told. */
    got: new Map<string, number>(),
    /** What it says the time is. */
    now: 1_800_000_000_000,
    /** Entries it will never take. */
    unfit: new Set<string>(),
    /** Pours it answers with this status and nothing of its own to say. */
    ends: {} as Record<string, number>,
    /** More entries than this in one request are too many. */
    most: undefined as number | undefined,
    async fetch(url: string, init?: { body?: string }): Promise<Response> {
      if (url.endsWith('/session')) {
        if (server.behaviour === 'unreachable') throw new TypeError('no network')
        return new Response(JSON.stringify({ person: {}, clock: { now: server.now, rate: 1 } }))
      }
      // Pages of tests before this one still try now and then.
      const { person, events } = JSON.parse(init?.body ?? '{}') as { events: PourEvent[], person?: string }
      if (person === server.signedIn) server.requests++
      if (server.behaviour === 'unreachable') throw new TypeError('no network')
      const answer = (status: number, body: unknown) => new Response(JSON.stringify(body), { status })
      if (server.behaviour === 'signed-out') return answer(401, { data: { sentence: 'Sign in first.' } })
      if (server.behaviour === 'refuses') return answer(422, { data: { sentence: 'This pour has no cast 9.9.' } })
      if (server.behaviour === 'broken') return answer(500, {})
      if (server.behaviour === 'nonsense') return answer(200, {})
      if (server.behaviour === 'a proxy') return answer(404, { error: 'no such site' })
      await server.held
      const pour = /pours\/([^/]+)\/events/.exec(url)![1]!
      if (person !== server.signedIn) return answer(401, { data: { sentence: 'These entries are someone else’s.' } })
      server.sizes.push(events.length)
      for (const e of events) if ('text' in e.data) server.got.set(e.data.text, e.happenedAt)
      if (server.ends[pour] !== undefined) return answer(server.ends[pour], {})
      if (server.most !== undefined && events.length > server.most) return answer(413, {})
      const fates = events.map(({ id }) => {
        if (server.unfit.has(id)) return { id, fate: 'refused', code: 'cast', sentence: 'This pour has no cast 9.9.' }
        const fate = taken.has(id) ? 'known' : 'stored'
        if (fate === 'stored') taken.set(id, { pour, seq: taken.size })
        return { id, fate }
      })
      if (server.behaviour === 'takes but the answer is lost') throw new TypeError('cut off')
      const known = events.filter(e => taken.has(e.id)).map(e => ({ ...e, pour, actor: 'me' }))
      return answer(200, { events: known, seq: taken.size, fates })
    },
  }
  return server
}

let server: ReturnType<typeof fakeServer>
const person = (id: string) => ({
  person: { id, name: id, email: `${id}@example.org`, role: 'member' as const },
  workshop: { id: 'w', name: 'W', units: { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' } as const },
  clock: { now: 0, rate: 1 },
  demo: false,
  needsOwner: false,
})

let pinia: ReturnType<typeof createPinia>
/** A page as it is after loading: new stores over the same browser. */
async function page(who: string) {
  server.signedIn = who
  // A page before this one that still tries to send may make its own stores the active ones meanwhile.
  setActivePinia(pinia = createPinia())
  useSession(pinia).facts = person(who)
  useClock().anchor(1_800_000_000_000, 1)
  const records = useRecords()
  await records.load()
  return records
}
const drained = (records: ReturnType<typeof useRecords>) =>
  expect.poll(() => records.waiting.length).toBe(0)
let who = 0

beforeEach(() => {
  server = fakeServer()
  vi.stubGlobal('fetch', server.fetch)
  vi.stubGlobal('navigator', {})
  who++
})
afterEach(() => {
  vi.unstubAllGlobals()
})

describe('time', () => {
  it('that was not sure when it was told is put right before it is sent; what is sure is sent as it is', async () => {
    const records = await page(`t${who}`), clock = useClock()
    // Only what was kept here says what time it is, and the device's clock was an hour behind.
    server.behaviour = 'unreachable'
    clock.anchor(1_800_000_000_000 - 3_600_000, 1, false)
    await records.record('p', { kind: 'note', data: { text: 'behind' } }, 0)
    expect(records.waiting[0]!.told).toBeDefined()
    server.behaviour = 'takes'
    records.hurry()
    await drained(records)
    expect(Math.abs(server.got.get('behind')! - 1_800_000_000_000)).toBeLessThan(10_000)
    const requests = server.requests
    await records.record('p', { kind: 'note', data: { text: 'sure' } }, 0)
    expect(records.waiting.find(w => w.event.data && 'text' in w.event.data)?.told).toBeUndefined()
    await drained(records)
    expect(server.requests).toBe(requests + 1)
  })
})

describe('what is told', () => {
  it('is written down before it is sent, and gone from here once the server has it', async () => {
    const records = await page(`p${who}`)
    await records.record('a', { kind: 'stage', data: { stage: 'sift' } }, 0)
    expect(records.pendingOf('a')).toHaveLength(1)
    await drained(records)
    expect([...server.taken.values()]).toEqual([{ pour: 'a', seq: 0 }])
  })

  it('at one moment goes together: whoever reads what waits, while it is written down, finds all of it or none', async () => {
    const me = `p${who}`, records = await page(me), key = useSession().key!, found = new Set<number>()
    server.behaviour = 'unreachable'
    const told = records.recordAll(
      'a',
      ['1.1', '1.2', '1.3', '1.4'].map(cast => ({ kind: 'opened' as const, data: { cast } })),
    )
    let done = false
    void told.then(() => {
      done = true
    })
    while (!done) found.add((await waitingOf(key)).length)
    expect([...found].filter(n => n !== 0)).toEqual([4])
    server.behaviour = 'takes'
    records.hurry()
    await drained(records)
    expect(server.sizes).toEqual([4])
  })

  it('keeps its order and numbers, pour by pour', async () => {
    const records = await page(`p${who}`)
    for (const pour of ['a', 'b', 'a']) await records.record(pour, { kind: 'note', data: { text: pour } })
    const numbers = records.waiting.map(w => w.event.deviceSeq)
    expect(numbers).toEqual([...numbers].sort((x, y) => x - y))
    expect(new Set(numbers).size).toBe(numbers.length)
    await drained(records)
    expect([...server.taken.values()].map(t => t.pour).sort()).toEqual(['a', 'a', 'b'])
  })

  it('carries the time it happened and the time it was told', async () => {
    const records = await page(`p${who}`)
    server.behaviour = 'unreachable'
    await records.record('a', { kind: 'mark', data: { sign: 'gloss-gone' } }, 0, 1_799_999_880_000)
    const [event] = records.pendingOf('a')
    expect(event!.happenedAt).toBe(1_799_999_880_000)
    expect(event!.recordedAt).toBeGreaterThanOrEqual(1_800_000_000_000)
  })

  it('survives a reload without a network, and is sent when it is back', async () => {
    server.behaviour = 'unreachable'
    const before = await page(`p${who}`)
    await before.record('a', { kind: 'stage', data: { stage: 'stir' } }, 0)
    const after = await page(`p${who}`)
    expect(after.unsent).toBe(1)
    server.behaviour = 'takes'
    after.hurry()
    await drained(after)
    expect(server.taken.size).toBe(1)
  })

  it('an answer that is lost leads to sending again, and still to one entry', async () => {
    server.behaviour = 'takes but the answer is lost'
    const records = await page(`p${who}`)
    await records.record('a', { kind: 'stage', data: { stage: 'soak' } }, 0)
    await expect.poll(() => server.requests).toBeGreaterThan(0)
    expect(records.unsent).toBe(1)
    server.behaviour = 'takes'
    await drained(records)
    expect(server.taken.size).toBe(1)
  })

  it.each(['signed-out', 'broken', 'nonsense', 'a proxy'] as const)('a server that is %s drops nothing', async (behaviour) => {
    server.behaviour = behaviour
    const records = await page(`p${who}`)
    await records.record('a', { kind: 'stage', data: { stage: 'fill' } }, 0)
    await expect.poll(() => server.requests).toBeGreaterThan(0)
    expect(records.unsent).toBe(1)
    expect(records.refused).toEqual([])
  })

  it('what the server will never take is kept with its reason, out of the fold, and does not hold up the rest', async () => {
    server.behaviour = 'refuses'
    const records = await page(`p${who}`)
    await records.record('a', { kind: 'opened', data: { cast: '9.9' } })
    await expect.poll(() => records.refused.map(w => w.refused)).toEqual(['This pour has no cast 9.9.'])
    expect(records.pendingOf('a')).toEqual([])
    server.behaviour = 'takes'
    await records.record('a', { kind: 'opened', data: { cast: '1.1' } })
    await expect.poll(() => server.taken.size).toBe(1)
    expect((await page(`p${who}`)).refused).toHaveLength(1)
  })

  it('is taken each for itself: one that does not fit holds none of twenty, and is sent again when asked to', async () => {
    const records = await page(`p${who}`)
    server.behaviour = 'unreachable'
    await records.recordAll('a', Array.from({ length: 21 }, (_, i) => ({ kind: 'note' as const, data: { text: `${i}` } })))
    const odd = records.waiting[7]!.event.id
    server.unfit.add(odd)
    server.behaviour = 'takes'
    records.hurry()
    await expect.poll(() => records.refused.map(w => [w.event.id, w.refused])).toEqual([
      [odd, 'This pour has no cast 9.9.'],
    ])
    expect(server.taken.size).toBe(20)
    expect(records.unsent).toBe(0)
    server.unfit.clear()
    await records.sendAgain(records.refused)
    await drained(records)
    expect(server.taken.size).toBe(21)
  })

  it('can be mended: the new entry names the one that was not taken, and takes its place', async () => {
    const records = await page(`p${who}`)
    server.behaviour = 'unreachable'
    await records.record('a', { kind: 'opened', data: { cast: '9.9' } }, 0)
    const [odd] = records.waiting
    server.unfit.add(odd!.event.id)
    server.behaviour = 'takes'
    records.hurry()
    await expect.poll(() => records.refused).toHaveLength(1)
    server.behaviour = 'unreachable'
    await records.mend(records.refused[0]!, { data: { cast: '1.1' } })
    expect(records.refused).toEqual([])
    const [mended] = (await page(`p${who}`)).waiting
    expect(mended!.event).toMatchObject({ ...odd!.event, id: expect.any(String) as string, deviceSeq: odd!.order + 1, data: { cast: '1.1' }, mends: odd!.event.id })
    expect(mended!.event.id).not.toBe(odd!.event.id)
  })

  it('waits pour by pour: what one cannot send holds up no other', async () => {
    const records = await page(`p${who}`)
    server.ends.a = 500
    for (const pour of ['a', 'b']) await records.record(pour, { kind: 'note', data: { text: pour } })
    await expect.poll(() => [...server.taken.values()].map(t => t.pour)).toEqual(['b'])
    expect(records.unsent).toBe(1)
    server.ends = {}
    await drained(records)
  })

  it('goes in halves when it is too much at once', async () => {
    const records = await page(`p${who}`)
    server.most = 3
    await records.recordAll('a', Array.from({ length: 10 }, (_, i) => ({ kind: 'note' as const, data: { text: `${i}` } })))
    await drained(records)
    expect(server.taken.size).toBe(10)
    expect(records.refused).toEqual([])
  })

  it('is kept without what no database can hold', async () => {
    const records = await page(`p${who}`)
    await records.record('a', { kind: 'note', data: { text: 'crack\u0000ed \uD83D' } })
    expect(records.waiting[0]!.event.data).toEqual({ text: 'cracked ' })
    await drained(records)
  })

  it('told while an earlier answer is still on its way is neither lost nor stuck', async () => {
    let release = () => {}
    server.held = new Promise(done => release = done)
    const records = await page(`p${who}`)
    await records.record('a', { kind: 'note', data: { text: 'first' } })
    await expect.poll(() => server.requests).toBe(1)
    await Promise.all(['second', 'third'].map(text => records.record('a', { kind: 'note', data: { text } })))
    release()
    await drained(records)
    expect(server.taken.size).toBe(3)
  })

  it('belongs to the person who told it: the next one at this browser neither sees nor sends it', async () => {
    server.behaviour = 'unreachable'
    const mine = await page(`p${who}`)
    await mine.record('a', { kind: 'note', data: { text: 'mine' } })
    server.behaviour = 'takes'
    const theirs = await page(`other${who}`)
    expect(theirs.waiting).toEqual([])
    await theirs.record('a', { kind: 'note', data: { text: 'theirs' } })
    await drained(theirs)
    expect(server.taken.size).toBe(1)
    const again = await page(`p${who}`)
    await drained(again)
    expect(server.taken.size).toBe(2)
  })

  it('cannot be told by nobody', async () => {
    const records = await page(`p${who}`)
    useSession(pinia).facts = undefined
    await expect(records.record('a', { kind: 'note', data: { text: 'x' } })).rejects.toThrow('Sign in first.')
  })
})
