import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { newId } from './api'
import type { SentEvent } from '~shared/pour'

/** An entry waiting in this browser. `key` is whose it is; `refused` is why the server would not take it. */
export interface Waiting { readonly key: string, readonly pour: string, readonly order: number, readonly event: SentEvent, readonly refused?: string }

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

/** This browser's own name and its next number, taken in one transaction so that tabs never share one. */
export async function nextStamp(): Promise<{ device: string, deviceSeq: number }> {
  const tx = (await open()).transaction('device', 'readwrite')
  const device = String((await tx.store.get('device'))?.value ?? newId())
  const deviceSeq = Number((await tx.store.get('seq'))?.value ?? 0) + 1
  await tx.store.put({ name: 'device', value: device })
  await tx.store.put({ name: 'seq', value: deviceSeq })
  await tx.done
  return { device, deviceSeq }
}

/** Writes entries down before anything is sent: all of them at once, so that whoever reads meanwhile finds all or none. */
export async function keep(key: string, pour: string, events: readonly SentEvent[]): Promise<Waiting[]> {
  const waiting = events.map(event => ({ id: event.id, key, pour, order: event.deviceSeq, event })), tx = (await open()).transaction('waiting', 'readwrite')
  await Promise.all([...waiting.map(w => tx.store.put(w)), tx.done])
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
