import { canonicalJson } from '~core/formats/canonical'
import type { LibraryKind } from '~contract/library'
import type { PhotoSubject } from '~contract/photo'
import { open } from './outbox'

/** A thing of the workshop that is saved whole, or put away; all but the photo can be changed again. */
export type Target
  = | { readonly what: 'item', readonly kind: LibraryKind, readonly id: string }
    | { readonly what: 'plan' | 'view', readonly id: string }
    | { readonly what: 'photo', readonly id: string, readonly of: PhotoSubject }
    | { readonly what: 'workshop' }

/** What one thing is called among all: it has one change that waits, however often it was changed here. */
export function nameOf(target: Target | Pick<Target & { what: 'photo' }, 'what' | 'id'>): string {
  switch (target.what) {
    case 'item':
      return `item/${target.kind}/${target.id}`
    case 'workshop':
      return 'workshop'
    default:
      return `${target.what}/${target.id}`
  }
}

export interface Picture {
  readonly blob: Blob
  readonly width: number
  readonly height: number
  readonly caption: string
}
/** Another version of the same thing, from another device; undefined when it was put away there. */
export interface Theirs { readonly revision: number, readonly body: unknown }

/** A change to a thing that waits in this browser. */
export interface Change {
  /** Whose it is. */
  readonly key: string
  readonly name: string
  readonly target: Target
  /** When it was first changed and not sent since, to send in that order. */
  readonly order: number
  /** The revision that it was made from; 0 for a new one, and where a thing has none. */
  readonly base: number
  /** No server was told of it yet, unless it was sent since. */
  readonly isNew: boolean
  /** The whole thing as it is now; undefined when it is put away. */
  readonly body?: unknown
  readonly picture?: Picture
  /** Another each time it is changed. */
  readonly stamp: string
  /** What went out from the same revision: one of these may be there without our having heard of it. */
  readonly sent: readonly unknown[]
  /** Why it was not taken. */
  readonly refused?: string
  /** It was changed elsewhere meanwhile: somebody has to say which version stands. */
  readonly conflict?: { readonly theirs?: Theirs }
}

const sameThing = (a: unknown, b: unknown) => canonicalJson(a ?? null) === canonicalJson(b ?? null)
/** More than this are never without an answer: each try is kept before it is sent. */
const MOST_SENT = 20

/** Writes a change down in the place of one that waits already for the same thing. @param revision it was made from */
export async function keepChange(
  change: Pick<Change, 'key' | 'target' | 'body' | 'picture' | 'stamp' | 'isNew'>,
  revision: number,
): Promise<Change> {
  const name = nameOf(change.target), tx = (await open()).transaction('changes', 'readwrite'),
    before = await tx.store.get([change.key, name])
  const kept = {
    ...change,
    name,
    order: before?.order ?? Date.now(),
    base: before?.base ?? revision,
    isNew: before?.isNew ?? change.isNew,
    sent: before?.sent ?? [],
    conflict: before?.conflict,
  }
  await Promise.all([tx.store.put(kept), tx.done])
  return kept
}

/** Whether it puts its thing away. */
export const putsAway = (change: Pick<Change, 'body' | 'picture'>): boolean =>
  change.body === undefined && !change.picture

/** Undefined drops it: never sent, or it stands on the server. */
export async function putChange(key: string, name: string, change: Change | undefined): Promise<void> {
  const db = await open()
  await (change ? db.put('changes', change) : db.delete('changes', [key, name]))
}

export async function changesOf(key: string): Promise<Change[]> {
  return (await (await open()).getAllFromIndex('changes', 'key', key)).sort((a, b) => a.order - b.order)
}

/** Notes what goes out now, before it does. @returns the change as it is to be sent; undefined when it is gone */
export async function goesOut(key: string, name: string): Promise<Change | undefined> {
  const tx = (await open()).transaction('changes', 'readwrite'), change = await tx.store.get([key, name])
  const now = change && {
    ...change,
    sent: [...change.sent.filter(b => !sameThing(b, change.body)), change.body].slice(-MOST_SENT),
  }
  await Promise.all([now && tx.store.put(now), tx.done])
  return now
}

/**
 * A change as it was sent stands on the server. What was changed since waits on, from the revision that came of it.
 * @returns what still waits
 */
export async function changeTaken(sent: Change, revision: number): Promise<Change | undefined> {
  const tx = (await open()).transaction('changes', 'readwrite'), now = await tx.store.get([sent.key, sent.name])
  const left = now && now.stamp !== sent.stamp ? { ...now, base: revision, isNew: false, sent: [] } : undefined
  await Promise.all([left ? tx.store.put(left) : tx.store.delete([sent.key, sent.name]), tx.done])
  return left
}

/**
 * What becomes of a change whose thing has another revision by now: `stands` when it is there without our having heard
 * of it, `again` when an earlier try of it is there, else it is `asked`.
 */
export function settle(change: Change, theirs: Theirs | undefined): 'stands' | 'again' | 'asked' {
  if (!theirs) return change.body === undefined ? 'stands' : 'asked'
  if (change.body !== undefined && sameThing(change.body, theirs.body)) return 'stands'
  return change.sent.some(body => body !== undefined && sameThing(body, theirs.body)) ? 'again' : 'asked'
}
