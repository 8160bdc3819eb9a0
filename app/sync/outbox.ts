import { openDB, type DBSchema, type IDBPDatabase, type IDBPObjectStore, type StoreNames } from 'idb'
import { newId } from './api'
import type { SentEvent } from '~contract/pour'

/** An entry waiting in this browser. `key` is whose it is; `refused` is why the server would not take it. */
export interface Waiting {
  readonly key: string
  readonly pour: string
  readonly order: number
  readonly event: SentEvent
  readonly refused?: string
}

interface Store extends DBSchema {
  waiting: { key: string, value: Waiting & { readonly id: string }, indexes: { key: string } }
  device: { key: string, value: { readonly name: string, readonly value: string | number } }
}

let opened: Promise<IDBPDatabase<Store>> | undefined

function open(): Promise<IDBPDatabase<Store>> {
  opened ??= openDB<Store>('nine-ripples', 1, {
    upgrade(db) {
      db.createObjectStore('waiting', { keyPath: 'id' }).createIndex('key', 'key')
      db.createObjectStore('device', { keyPath: 'name' })
    },
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

export async function nextStamp(): Promise<{ device: string, deviceSeq: number }> {
  const tx = (await open()).transaction(['device'], 'readwrite'),
    { device, first } = await takeNumbers(tx.objectStore('device'), 1)
  await tx.done
  return { device, deviceSeq: first }
}

/** An entry before it has its number. */
export type Draft<E = SentEvent> = E extends SentEvent ? Omit<E, 'device' | 'deviceSeq'> : never

/**
 * Numbers entries and writes them down before anything is sent: all in one transaction, so that whoever reads meanwhile
 * finds all or none, and none that is later.
 */
export async function keep(key: string, pour: string, drafts: readonly Draft[]): Promise<Waiting[]> {
  const tx = (await open()).transaction(['device', 'waiting'], 'readwrite'),
    { device, first } = await takeNumbers(tx.objectStore('device'), drafts.length)
  const waiting = drafts.map((draft, i) => ({
    id: draft.id,
    key,
    pour,
    order: first + i,
    event: { ...draft, device, deviceSeq: first + i } as SentEvent,
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

/** The server will never take these: they are kept, with the reason, and shown. */
export async function markRefused(entries: readonly Waiting[], refused: string): Promise<void> {
  const tx = (await open()).transaction('waiting', 'readwrite')
  await Promise.all([...entries.map(w => tx.store.put({ ...w, id: w.event.id, refused })), tx.done])
}
