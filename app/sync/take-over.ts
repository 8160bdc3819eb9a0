import { guestKey, GUEST_KEYS } from './guest'
import { open, type Begun } from './outbox'

/**
 * What a guest told, made somebody's own: under their key it waits like whatever else they tell, in the order and with
 * the patience of all that is sent, each with the id it always had. One transaction: all of it moves, or nothing.
 */
export async function takeOver(guest: string, key: string): Promise<void> {
  const from = guestKey(guest), [person] = key.split('@')
  const tx = (await open()).transaction(['waiting', 'begun', 'changes'], 'readwrite')
  const waiting = tx.objectStore('waiting'), begun = tx.objectStore('begun'), changes = tx.objectStore('changes')
  for (const w of await waiting.index('key').getAll(from)) await waiting.put({ ...w, key })
  for (const b of await begun.index('key').getAll(from))
    await begun.put({ ...b, key, start: { ...b.start, person } })
  for (const c of await changes.index('key').getAll(from)) {
    // How a guest liked their units is not what the workshop does.
    if (c.target.what !== 'workshop') await changes.put({ ...c, key })
    await changes.delete([from, c.name])
  }
  await tx.done
}

/** All that one guest told, gone. */
export async function forgetGuest(guest: string): Promise<void> {
  const from = guestKey(guest), tx = (await open()).transaction(['waiting', 'begun', 'changes'], 'readwrite')
  for (const name of ['waiting', 'begun', 'changes'] as const) {
    const store = tx.objectStore(name)
    for (let at = await store.index('key').openCursor(from); at; at = await at.continue()) await at.delete()
  }
  await tx.done
}

export interface GuestPours { readonly guest: string, readonly pours: readonly Begun[] }
/** Guests whose pours are kept in this browser, the newest first. */
export async function guestsHere(): Promise<readonly GuestPours[]> {
  const all = await (await open()).getAllFromIndex('begun', 'key', IDBKeyRange.bound(GUEST_KEYS, `${GUEST_KEYS}\uFFFF`))
  const byGuest = new Map<string, Begun[]>()
  for (const b of all.sort((a, b) => b.start.startedAt - a.start.startedAt)) {
    const guest = b.key.slice(GUEST_KEYS.length)
    byGuest.set(guest, [...byGuest.get(guest) ?? [], b])
  }
  return [...byGuest].map(([guest, pours]) => ({ guest, pours }))
}

interface GuestCount { readonly pours: number, readonly entries: number, readonly things: number }
/** How much is kept of a guest. */
export async function countOf(guest: string): Promise<GuestCount> {
  const db = await open(), key = guestKey(guest)
  const count = (store: 'begun' | 'waiting' | 'changes') => db.countFromIndex(store, 'key', key)
  const [pours, entries, things] = await Promise.all([count('begun'), count('waiting'), count('changes')])
  return { pours, entries, things }
}
