import type { ZodType } from 'zod'
import { leftBegunSchema, leftBehindSchema, leftChangeSchema, leftWaitingSchema } from '~contract/left-behind'
import { nameOf, type Change } from './kept-changes'
import { open, type Begun, type Waiting } from './outbox'
import { tellTabs } from './tabs'

/** What another address of this workshop held in this browser, as far as it can be read. */
export interface Left {
  readonly waiting: readonly Waiting[]
  readonly begun: readonly Begun[]
  readonly changes: readonly Change[]
  /** Records that cannot be read, and stay where they are. */
  readonly unread: number
}
/** By which each is known in its list there. */
export interface Kept {
  readonly waiting: readonly string[]
  readonly begun: readonly string[]
  readonly changes: readonly (readonly [string, string])[]
}

const readAll = <T>(schema: ZodType, list: readonly unknown[]): T[] =>
  list.flatMap((one) => {
    const read = schema.safeParse(one)
    return read.success ? [read.data as T] : []
  })

/** @returns undefined where it is no such message at all */
export function readLeft(message: unknown): Left | undefined {
  const read = leftBehindSchema.safeParse(message)
  if (!read.success) return undefined
  const waiting = readAll<Waiting>(leftWaitingSchema, read.data.waiting),
    begun = readAll<Begun>(leftBegunSchema, read.data.begun),
    changes = readAll<Change>(leftChangeSchema, read.data.changes).filter(c => c.name === nameOf(c.target))
  const all = [read.data.waiting, read.data.begun, read.data.changes].reduce((sum, list) => sum + list.length, 0)
  return { waiting, begun, changes, unread: all - waiting.length - begun.length - changes.length }
}

/** Two versions of one thing: what was sent of it was of the one here. */
const beside = (change: Change, here: Change): Change =>
  ({ ...change, order: here.order, base: here.base, isNew: here.isNew, sent: here.sent, conflict: { here } })

/**
 * Writes it down among what waits here, each under whose it is: it is sent when they sign in. An entry that is here
 * already stays as it is; a thing that was changed here too waits in both versions, until somebody chooses.
 * @returns what may leave the other address
 */
export async function keepLeft({ waiting, begun, changes }: Left): Promise<Kept> {
  const tx = (await open()).transaction(['waiting', 'begun', 'changes'], 'readwrite')
  const entries = tx.objectStore('waiting'), starts = tx.objectStore('begun'), things = tx.objectStore('changes')
  for (const w of waiting)
    if (!await entries.get(w.event.id)) await entries.put({ ...w, id: w.event.id })
  for (const b of begun)
    if (!await starts.get(b.id)) await starts.put(b)
  for (const change of changes) {
    const here = await things.get([change.key, change.name])
    if (here?.stamp !== change.stamp) await things.put(here ? beside(change, here) : change)
  }
  await tx.done
  for (const key of new Set([...waiting, ...begun, ...changes].map(one => one.key))) tellTabs({ what: 'outbox', key })
  return {
    waiting: waiting.map(w => w.event.id),
    begun: begun.map(b => b.id),
    changes: changes.map(c => [c.key, c.name] as const),
  }
}
