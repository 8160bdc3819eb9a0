import 'fake-indexeddb/auto'
import { openDB } from 'idb'
import { expect, it, vi } from 'vitest'

/** The browser's store as version 1 wrote it: entries that wait, and the device's own name and number. */
async function storeOfOld() {
  const db = await openDB('nine-ripples', 1, {
    upgrade(store) {
      store.createObjectStore('waiting', { keyPath: 'id' }).createIndex('key', 'key')
      store.createObjectStore('device', { keyPath: 'name' })
    },
  })
  const event = {
    id: '1b671a64-40d5-491e-99b0-da01ff1f3341', kind: 'stage', data: { stage: 'sift' }, batch: 0, version: 1,
    happenedAt: 1_800_000_000_000, recordedAt: 1_800_000_000_000, device: 'old-phone', deviceSeq: 7,
  }
  await db.put('waiting', { id: event.id, key: 'me@w', pour: 'p', order: 7, event })
  await db.put('device', { name: 'device', value: 'old-phone' })
  await db.put('device', { name: 'seq', value: 7 })
  return { db, event }
}

it('a store of an older version is carried on: what waits is there, numbers go on; an older tab is asked to close', async () => {
  const { db, event } = await storeOfOld()
  vi.resetModules()
  const outbox = await import('./outbox')
  // The tab that made it has not closed it yet, and knows nothing of newer versions.
  const read = outbox.waitingOf('me@w')
  await expect.poll(() => outbox.heldByOldTab.value).toBe(true)
  db.close()
  expect(await read).toEqual([expect.objectContaining({ pour: 'p', event })])
  expect(outbox.heldByOldTab.value).toBe(false)
  expect(await outbox.begunOf('me@w')).toEqual([])
  const draft = { ...event, id: '2c671a64-40d5-491e-99b0-da01ff1f3341' } as never
  const [kept] = await outbox.keep('me@w', 'p', [draft])
  expect(kept!.event).toMatchObject({ device: 'old-phone', deviceSeq: 8 })
})

it('a tab of this version lets the store go when a newer one comes', async () => {
  vi.resetModules()
  const outbox = await import('./outbox')
  await outbox.waitingOf('me@w')
  const newer = await openDB('nine-ripples', 4)
  expect(newer.version).toBe(4)
  newer.close()
})
