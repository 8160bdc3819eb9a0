import { shallowRef } from 'vue'
import type { Fate } from '~contract/pour'
import { begunOf, begunTaken, markBegun, markRefused, putSettled, taken, waitingOf, type Begun, type Waiting } from './outbox'
import type { settled } from './told-times'

/**
 * What waits in this browser of pours, as it stands in its store: entries, and pours that were begun here. Plain
 * objects: they go back into the store as they are.
 * @param who whose it is @param tell that it is other than before
 */
export function inHandOf(who: () => string | undefined, tell: () => void) {
  const waiting = shallowRef<readonly Waiting[]>([]), begun = shallowRef<readonly Begun[]>([])
  /** Counted, so that what was told here while it was read is not lost over it. */
  let edits = 0
  function changed(): void {
    edits++
    tell()
  }
  async function readAnew(): Promise<void> {
    const at = edits, key = who()
    const [stored, starts] = key ? await Promise.all([waitingOf(key), begunOf(key)]) : [[], []]
    if (at !== edits || key !== who()) return readAnew()
    waiting.value = stored
    begun.value = starts
  }
  /** Another tab may have written in the meantime; what was told here during the reading must not be lost over it. */
  async function readMore(key: string): Promise<void> {
    const stored = await waitingOf(key), known = new Set(stored.map(w => w.event.id)), starts = await begunOf(key)
    waiting.value = [...stored, ...waiting.value.filter(w => !known.has(w.event.id))].sort((a, b) => a.order - b.order)
    begun.value = [...starts, ...begun.value.filter(b => !starts.some(s => s.id === b.id))]
  }
  return { waiting, begun, changed, readAnew, readMore, unsent: () => waiting.value.filter(w => !w.refused) }
}
export type InHand = ReturnType<typeof inHandOf>

/** What becomes of what waits, in the store first. */
export function settlingOf({ waiting, begun, changed }: InHand) {
  async function setAside(mine: readonly Waiting[], sentence: string): Promise<void> {
    await markRefused(mine, sentence)
    waiting.value = waiting.value.map(w => mine.includes(w) ? { ...w, refused: sentence } : w)
    changed()
  }
  /** Each entry by what became of it. @returns whether something was said of every one; any other stays */
  async function settle(lot: readonly Waiting[], fates: readonly Fate[]): Promise<boolean> {
    const byId = new Map(fates.map(f => [f.id, f]))
    const done = lot.map(w => w.event.id).filter(id => ['stored', 'known'].includes(byId.get(id)?.fate ?? ''))
    await taken(done)
    waiting.value = waiting.value.filter(w => !done.includes(w.event.id))
    changed()
    for (const w of lot) {
      const fate = byId.get(w.event.id)
      if (fate?.fate === 'refused') await setAside([w], fate.sentence)
    }
    return lot.every(w => byId.has(w.event.id))
  }
  /** @param sentence why a pour is not taken that was begun here; undefined to try it again */
  async function markStarts(starts: readonly Begun[], sentence: string | undefined): Promise<void> {
    await Promise.all(starts.map(b => markBegun(b, sentence)))
    begun.value = begun.value.map(b => starts.includes(b) ? { ...b, refused: sentence } : b)
    changed()
  }
  async function isThere({ id }: Begun): Promise<void> {
    await begunTaken(id)
    begun.value = begun.value.filter(b => b.id !== id)
    changed()
  }
  /** What was told in doubt of its time, put right. */
  async function putRight(now: ReturnType<typeof settled>): Promise<void> {
    await putSettled(now.waiting, now.begun)
    const entries = new Map(now.waiting.map(w => [w.event.id, w])), starts = new Map(now.begun.map(b => [b.id, b]))
    waiting.value = waiting.value.map(w => entries.get(w.event.id) ?? w)
    begun.value = begun.value.map(b => starts.get(b.id) ?? b)
    changed()
  }
  return { setAside, settle, markStarts, isThere, putRight }
}
export type Settling = ReturnType<typeof settlingOf>
