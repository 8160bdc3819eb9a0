import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ask } from './api'
import { beGuest, guestHere, guestKey, leaveGuest, openToGuests, takeOverLater, takingOver } from './guest'
import { keep, keepBegun, waitingOf, begunOf } from './outbox'
import { keepChange, changesOf, type Change } from './kept-changes'
import { holdsAnswers, keepAnswer, remembered } from './kept'
import { useSession } from './session'
import { countOf, forgetGuest, guestsHere, takeOver } from './take-over'

/** A browser's own small stores. */
function storage(full = false): Storage {
  const kept = new Map<string, string>()
  return {
    getItem: (k: string) => kept.get(k) ?? null,
    setItem: (k: string, v: string) => {
      if (full) throw new DOMException('full', 'QuotaExceededError')
      kept.set(k, v)
    },
    removeItem: (k: string) => void kept.delete(k),
  } as unknown as Storage
}
const asked: string[] = []
beforeEach(() => {
  asked.length = 0
  setActivePinia(createPinia())
  vi.stubGlobal('sessionStorage', storage())
  vi.stubGlobal('localStorage', storage())
  vi.stubGlobal('fetch', (url: string) => {
    asked.push(url)
    return Promise.resolve(new Response(JSON.stringify({ clock: { now: 1, rate: 1 }, demo: false, needsOwner: true })))
  })
})
afterEach(() => vi.unstubAllGlobals())

const ME = '5b671a64-40d5-491e-99b0-da01ff1f3341@6b671a64-40d5-491e-99b0-da01ff1f3341'
const at = { version: 1, batch: 0, happenedAt: 1000, recordedAt: 1000 }
const draft = (n: number) => ({ ...at, id: `e${n}`, kind: 'stage', data: { stage: 'sift' } }) as never
const change = (guest: string, id: string, what: 'item' | 'workshop' = 'item') => keepChange({
  key: guestKey(guest), target: what === 'item' ? { what, kind: 'mould', id } : { what }, body: { name: id }, isNew: true,
  stamp: `s${id}`,
} as unknown as Parameters<typeof keepChange>[0], 0, undefined)
async function pourOf(guest: string, id: string, startedAt: number) {
  const told = { page: 'p', wall: 5, mono: 5 }
  await keepBegun({
    id, key: guestKey(guest), run: {}, told,
    start: { id, plan: {}, person: 'guest', startedAt, eventId: `first-${id}`, frozen: {} },
  } as unknown as Parameters<typeof keepBegun>[0])
  await keep(guestKey(guest), id, [draft(Number(id) * 10 + 1), draft(Number(id) * 10 + 2)], told)
}

describe('a guest', () => {
  it('asks nothing of the server, and has empty lists in place of a workshop’s', async () => {
    beGuest('anna')
    const session = useSession()
    await session.load()
    expect(session.isGuest).toBe(true)
    expect(session.key).toBe('guest/anna')
    expect(session.mayWrite).toBe(true)
    expect((await remembered(session.key!, 'GET library/:kind', { params: { kind: 'mould' } })).value).toEqual([])
    await expect(ask('GET pace')).rejects.toMatchObject({ status: 0 })
    expect(asked).toEqual([])
    // Asked who they would be, they are a guest still.
    expect((await session.askWho()).needsOwner).toBe(true)
    await expect(ask('GET pace')).rejects.toMatchObject({ status: 0 })
    expect(asked).toHaveLength(1)
    session.endGuest()
    expect([guestHere(), session.key]).toEqual([undefined, undefined])
  })
  it('has the bench and what comes of it; the rest is a workshop’s', () => {
    expect(['/', '/bench', '/bench/1', '/shelf', '/piece/1/2', '/pour/1', '/keep'].every(openToGuests)).toBe(true)
    expect(['/settings', '/logbook', '/moulds', '/account', '/not-taken'].some(openToGuests)).toBe(false)
  })
  it('a browser that holds a workshop’s answers knows one; what nobody asked for is none', async () => {
    await remembered('', 'GET session')
    await vi.waitFor(() => expect(asked).toHaveLength(1))
    expect(await holdsAnswers()).toBe(false)
    await keepAnswer('guest/anna', 'GET plans', {}, [])
    expect(await holdsAnswers()).toBe(false)
    await keepAnswer(ME, 'GET plans', {}, [])
    expect(await holdsAnswers()).toBe(true)
  })
  it('a browser that keeps nothing says so, and nobody is a guest', () => {
    vi.stubGlobal('sessionStorage', storage(true))
    expect(beGuest('anna')).toBe(false)
    expect(guestHere()).toBeUndefined()
  })
  it('whose pours are to be taken over is known through a reload', () => {
    takeOverLater('anna')
    leaveGuest()
    expect(takingOver()).toBe('anna')
    takeOverLater(undefined)
    expect(takingOver()).toBeUndefined()
  })
})

describe('what guests poured', () => {
  it('is known guest by guest, the newest first; forgotten, nothing of it is left, and of others all', async () => {
    await pourOf('anna', '1', 100)
    await pourOf('ben', '2', 300)
    await pourOf('anna', '3', 200)
    await change('anna', 'm1')
    expect((await guestsHere()).map(g => [g.guest, g.pours.map(p => p.id)])).toEqual([['ben', ['2']], ['anna', ['3', '1']]])
    expect(await countOf('anna')).toEqual({ pours: 2, entries: 4, things: 1 })
    await forgetGuest('ben')
    expect((await guestsHere()).map(g => g.guest)).toEqual(['anna'])
    expect(await countOf('ben')).toEqual({ pours: 0, entries: 0, things: 0 })
    expect(await countOf('anna')).toEqual({ pours: 2, entries: 4, things: 1 })
  })
  it('taken over it waits as somebody’s own, with ids, times and doubts as they were, and nothing stays behind', async () => {
    await change('anna', 'units', 'workshop')
    await takeOver('anna', ME)
    expect(await countOf('anna')).toEqual({ pours: 0, entries: 0, things: 0 })
    expect((await waitingOf(ME)).map(w => [w.event.id, w.event.happenedAt, w.told])).toEqual(
      ['e11', 'e12', 'e31', 'e32'].map(id => [id, 1000, { page: 'p', wall: 5, mono: 5 }]),
    )
    expect((await begunOf(ME)).map(b => [b.id, b.start.person, b.start.startedAt, b.told?.wall])).toEqual([
      ['1', ME.split('@')[0], 100, 5], ['3', ME.split('@')[0], 200, 5],
    ])
    // How a guest liked their units is not what the workshop does.
    expect((await changesOf(ME)).map((c: Change) => c.name)).toEqual(['item/mould/m1'])
    // Once more is nothing more.
    await takeOver('anna', ME)
    expect(await waitingOf(ME)).toHaveLength(4)
  })
})
