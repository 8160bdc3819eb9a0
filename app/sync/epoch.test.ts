import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { PourAnswer } from '~contract/pour'
import { meetEpoch } from './epoch'
import { keepAnswer } from './kept'
import { begunOf, epochHere, waitingOf } from './outbox'
import { useSession } from './session'

const KEY = 'me@w', POUR = '1b671a64-40d5-491e-99b0-da01ff1f3341', GONE = '2b671a64-40d5-491e-99b0-da01ff1f3341'
const event = (pour: string, n: number, actor: string) => ({
  id: `${pour.slice(0, 8)}-0000-4000-8000-00000000000${n}`,
  pour,
  kind: 'stage',
  data: { stage: n === 0 ? 'ready' : 'weigh', from: n === 0 ? 'unbegun' : 'ready' },
  batch: 0,
  version: 2,
  happenedAt: 1_800_000_000_000 + n,
  recordedAt: 1_800_000_000_000 + n,
  device: 'd',
  deviceSeq: n + 1,
  actor,
})
/** As it was confirmed once: three entries, of which the last is somebody else's. */
const held = (id: string): PourAnswer => ({
  id,
  planId: undefined,
  run: { plan: { name: 'P' }, world: { moulds: [] }, batches: [{ fills: [] }] },
  startedBy: 'me',
  events: [event(id, 0, 'me'), event(id, 1, 'me'), event(id, 2, 'else')],
  seq: 9,
}) as unknown as PourAnswer

let there: Record<string, PourAnswer>, reachable: boolean
beforeEach(async () => {
  setActivePinia(createPinia())
  useSession().facts = {
    person: { id: 'me', name: 'Me', email: 'm@example.org', role: 'member' },
    workshop: { id: 'w', name: 'W', units: { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' } },
    clock: { now: 0, rate: 1 },
    demo: false,
    needsOwner: false,
  }
  there = {}
  reachable = true
  vi.stubGlobal('navigator', {})
  vi.stubGlobal('fetch', async (url: string, init?: { method?: string }) => {
    if (!reachable || init?.method === 'POST') throw new TypeError('no network')
    const pour = there[url.split('/').at(-1)!]
    return pour
      ? new Response(JSON.stringify(pour))
      : new Response(JSON.stringify({ data: { sentence: 'There is no such pour.' } }), { status: 404 })
  })
  for (const id of [POUR, GONE]) await keepAnswer(KEY, 'GET pours/:id', { params: { id } }, held(id))
})
afterEach(() => vi.unstubAllGlobals())
const waiting = async () => (await waitingOf(KEY)).map(w => [w.pour, w.event.deviceSeq])

it('a restored database gets again what this person told and it lacks, whole pours too; the same one is left alone', async () => {
  await meetEpoch('first')
  await meetEpoch('first')
  expect(await waiting()).toEqual([])
  // Restored from before the second entry; the other pour had not begun.
  there = { [POUR]: { ...held(POUR), events: [held(POUR).events[0]!], seq: 1 } }
  reachable = false
  await meetEpoch('restored')
  expect(await epochHere(KEY)).toBe('first')
  reachable = true
  await meetEpoch('restored')
  expect(await epochHere(KEY)).toBe('restored')
  expect((await waiting()).sort()).toEqual([[POUR, 2], [GONE, 2]])
  expect((await begunOf(KEY)).map(b => [b.id, b.start.eventId])).toEqual([[GONE, held(GONE).events[0]!.id]])
})
