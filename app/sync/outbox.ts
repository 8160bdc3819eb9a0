import { openDB, type DBSchema, type IDBPDatabase, type IDBPObjectStore, type StoreNames } from 'idb'
import { ref } from 'vue'
import { newId } from './api'
import type { FrozenRun } from '~core/plan/run'
import type { Reading } from '~core/pour/device-time'
import type { SentEvent, StartPour } from '~contract/pour'
import type { Change } from './kept-changes'

/** An entry waiting in this browser. `key` is whose it is; `refused` is why the server would not take it. */
export interface Waiting {
  readonly key: string
  readonly pour: string
  readonly order: number
  readonly event: SentEvent
  readonly refused?: string
  /** The device's clocks when it was told, where its time is not sure yet. */
  readonly told?: Reading
}

/**
 * A pour that was begun in this browser and that the server does not have yet, with its run whole: it is nowhere else.
 */
export interface Begun {
  readonly id: string
  readonly key: string
  readonly start: StartPour
  readonly run: FrozenRun
  readonly refused?: string
  readonly told?: Reading
}

interface Store extends DBSchema {
  waiting: { key: string, value: Waiting & { readonly id: string }, indexes: { key: string } }
  begun: { key: string, value: Begun, indexes: { key: string } }
  changes: { key: [string, string], value: Change, indexes: { key: string } }
  device: { key: string, value: { readonly name: string, readonly value: string | number } }
}

/** A tab with an older version holds the store, which has to grow: it goes on as soon as that tab is closed. */
export const heldByOldTab = ref(false)

let opened: Promise<IDBPDatabase<Store>> | undefined

/** The store of everything that waits in this browser; grown where an older version left it. */
export function open(): Promise<IDBPDatabase<Store>> {
  opened ??= openDB<Store>('nine-ripples', 3, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('waiting', { keyPath: 'id' }).createIndex('key', 'key')
        db.createObjectStore('device', { keyPath: 'name' })
      }
      if (from < 2) db.createObjectStore('begun', { keyPath: 'id' }).createIndex('key', 'key')
      if (from < 3) db.createObjectStore('changes', { keyPath: ['key', 'name'] }).createIndex('key', 'key')
    },
    blocked() {
      heldByOldTab.value = true
    },
    // A newer version in another tab has the store to itself; this tab opens it anew, if it can.
    blocking(_now, _wanted, event) {
      (event.target as IDBDatabase).close()
      opened = undefined
    },
    terminated() {
      opened = undefined
    },
  }).then((db) => {
    heldByOldTab.value = false
    return db
  }, (error) => {
    opened = undefined
    throw error
  })
  return opened
}

/** This browser's own name and its next numbers, taken within a transaction so that tabs never share one. */
async function takeNumbers(
  devices: IDBPObjectStore<Store, StoreNames<Store>[], 'device', 'readwrite'>,
  count: number,
): Promise<{ readonly device: string, readonly first: number }> {
  const device = String((await devices.get('device'))?.value ?? newId()),
    last = Number((await devices.get('seq'))?.value ?? 0)
  await devices.put({ name: 'device', value: device })
  await devices.put({ name: 'seq', value: last + count })
  return { device, first: last + 1 }
}

type Beginning = Omit<Begun, 'start'> & { readonly start: Omit<StartPour, 'device' | 'deviceSeq'> }
/** Writes down a pour that begins here; its first entry takes this device's next number. */
export async function keepBegun(begun: Beginning): Promise<Begun> {
  const tx = (await open()).transaction(['device', 'begun'], 'readwrite'),
    { device, first } = await takeNumbers(tx.objectStore('device'), 1),
    kept = { ...begun, start: { ...begun.start, device, deviceSeq: first } }
  await Promise.all([tx.objectStore('begun').put(kept), tx.done])
  return kept
}

export async function begunOf(key: string): Promise<Begun[]> {
  return (await (await open()).getAllFromIndex('begun', 'key', key))
    .sort((a, b) => a.start.deviceSeq - b.start.deviceSeq)
}

/** The server has it. */
export async function begunTaken(id: string): Promise<void> {
  await (await open()).delete('begun', id)
}

/** It will not be taken as it is, or is to be tried again. */
export async function markBegun(begun: Begun, refused: string | undefined): Promise<void> {
  await (await open()).put('begun', { ...begun, refused })
}

/** An entry before it has its number. */
export type Draft<E = SentEvent> = E extends SentEvent ? Omit<E, 'device' | 'deviceSeq'> : never

/**
 * Numbers entries and writes them down before anything is sent: all in one transaction, so that whoever reads meanwhile
 * finds all or none, and none that is later.
 */
export async function keep(
  key: string,
  pour: string,
  drafts: readonly Draft[],
  told?: Reading,
): Promise<Waiting[]> {
  const tx = (await open()).transaction(['device', 'waiting'], 'readwrite'),
    { device, first } = await takeNumbers(tx.objectStore('device'), drafts.length)
  const waiting = drafts.map((draft, i) => ({
    id: draft.id,
    key,
    pour,
    order: first + i,
    event: { ...draft, device, deviceSeq: first + i } as SentEvent,
    ...told && { told },
  }))
  await Promise.all([...waiting.map(w => tx.objectStore('waiting').put(w)), tx.done])
  return waiting
}

export async function waitingOf(key: string): Promise<Waiting[]> {
  return (await (await open()).getAllFromIndex('waiting', 'key', key)).sort((a, b) => a.order - b.order)
}

export async function taken(ids: readonly string[]): Promise<void> {
  const tx = (await open()).transaction('waiting', 'readwrite')
  await Promise.all([...ids.map(id => tx.store.delete(id)), tx.done])
}

/**
 * A mended entry takes the place of one that was not taken: it has an id and a number of its own, and names the other.
 */
export async function keepMended(mended: Waiting, data: object): Promise<Waiting> {
  const tx = (await open()).transaction(['device', 'waiting'], 'readwrite'),
    { device, first } = await takeNumbers(tx.objectStore('device'), 1), id = newId(),
    event = { ...mended.event, ...data, id, device, deviceSeq: first, mends: mended.event.id } as SentEvent,
    kept = { id, key: mended.key, pour: mended.pour, order: first, event },
    entries = tx.objectStore('waiting')
  await Promise.all([entries.put(kept), entries.delete(mended.event.id), tx.done])
  return kept
}

/** What was told before its time was sure, with the times that it has now. */
export async function putSettled(entries: readonly Waiting[], starts: readonly Begun[]): Promise<void> {
  const tx = (await open()).transaction(['waiting', 'begun'], 'readwrite')
  await Promise.all([
    ...entries.map(w => tx.objectStore('waiting').put({ ...w, id: w.event.id })),
    ...starts.map(b => tx.objectStore('begun').put(b)),
    tx.done,
  ])
}

/** Which database this browser last spoke with, as this person. */
export async function epochHere(key: string): Promise<string | undefined> {
  const kept = await (await open()).get('device', `epoch ${key}`)
  return kept && String(kept.value)
}
export async function keepEpoch(key: string, epoch: string): Promise<void> {
  await (await open()).put('device', { name: `epoch ${key}`, value: epoch })
}
/** What a server had once, and has no more: as it was sent then, with its own id and number. */
export async function keepSentAgain(key: string, pour: string, events: readonly SentEvent[]): Promise<void> {
  const tx = (await open()).transaction('waiting', 'readwrite')
  const put = events.map(event => tx.store.put({ id: event.id, key, pour, order: event.deviceSeq, event }))
  await Promise.all([...put, tx.done])
}
export async function keepBegunAgain(begun: Begun): Promise<void> {
  await (await open()).put('begun', begun)
}

/** These are sent again. */
export async function putBack(entries: readonly Waiting[]): Promise<void> {
  const tx = (await open()).transaction('waiting', 'readwrite')
  await Promise.all([...entries.map(w => tx.store.put({ ...w, id: w.event.id, refused: undefined })), tx.done])
}

/** The server will never take these: they are kept, with the reason, and shown. */
export async function markRefused(entries: readonly Waiting[], refused: string): Promise<void> {
  const tx = (await open()).transaction('waiting', 'readwrite')
  await Promise.all([...entries.map(w => tx.store.put({ ...w, id: w.event.id, refused })), tx.done])
}
