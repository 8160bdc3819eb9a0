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
/** Which version of a thing somebody had before them: the server's, or what was changed here since. */
export interface Version { readonly revision: number, readonly stamp?: string }

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
  /**
   * It was changed elsewhere meanwhile, or here in another tab, whose change then waits in it whole: somebody has to
   * say which version stands.
   */
  readonly conflict?: { readonly theirs?: Theirs, readonly here?: Change }
}

const sameThing = (a: unknown, b: unknown) => canonicalJson(a ?? null) === canonicalJson(b ?? null)
/** More than this are never without an answer: each try is kept before it is sent. */
const MOST_SENT = 20

/** The other version of a thing in two: undefined when it was put away. */
export const otherOf = ({ conflict }: Pick<Change, 'conflict'>): unknown =>
  conflict?.here ? conflict.here.body : conflict?.theirs?.body

/** How a change waits with the one that waits already: in its place when made from it, else beside it. */
function layOver(before: Change, mine: Change, from: Version | undefined): Change {
  const goesOn = from === undefined || from.stamp === before.stamp || sameThing(before.body, mine.body)
  const { order, base, isNew, sent, conflict } = before
  if (goesOn) return { ...mine, order, base, isNew, sent, conflict }
  const made = (c: Change): boolean =>
    c.stamp === from.stamp || (c.conflict?.here !== undefined && made(c.conflict.here))
  return conflict?.here && made(conflict.here)
    ? { ...before, conflict: { here: layOver(conflict.here, mine, from) } }
    : { ...mine, order, base, isNew, sent, conflict: { here: before } }
}

/**
 * Writes a change down in the place of one that waits already for the same thing; one made from another version than
 * that, in another tab, stands beside it until somebody chooses.
 * @param revision what it was made from on the server
 * @param from what it was made from; undefined when the last one stands whatever it was made from
 */
export async function keepChange(
  change: Pick<Change, 'key' | 'target' | 'body' | 'picture' | 'stamp' | 'isNew'>,
  revision: number,
  from?: Version,
): Promise<Change> {
  const name = nameOf(change.target), tx = (await open()).transaction('changes', 'readwrite'),
    before = await tx.store.get([change.key, name]),
    mine = { ...change, name, order: Date.now(), base: revision, sent: [] }
  const kept = before ? layOver(before, mine, from) : mine
  await Promise.all([tx.store.put(kept), tx.done])
  return kept
}

/** What the server said is about the first of those that stand beside each other: only that one was sent. */
export function atFirst(change: Change, part: Partial<Change>): Change {
  const here = change.conflict?.here
  return here ? { ...change, conflict: { here: atFirst(here, part) } } : { ...change, ...part }
}

/** A thing in two versions, with the later one as what is to stand: it takes the place of the other. */
export function withMine(change: Change): Change {
  const { here, theirs } = change.conflict ?? {}
  return here
    ? { ...change, base: here.base, isNew: here.isNew, sent: here.sent, conflict: here.conflict }
    : { ...change, base: theirs?.revision ?? 0, conflict: undefined, sent: [] }
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

/**
 * Notes what goes out now, before it does.
 * @returns the change as it is to be sent; undefined when it is gone, or asked about
 */
export async function goesOut(key: string, name: string): Promise<Change | undefined> {
  const tx = (await open()).transaction('changes', 'readwrite'), change = await tx.store.get([key, name])
  const now = change && !change.conflict
    ? { ...change, sent: [...change.sent.filter(b => !sameThing(b, change.body)), change.body].slice(-MOST_SENT) }
    : undefined
  await Promise.all([now && tx.store.put(now), tx.done])
  return now
}

/** What still waits of a change, or of several beside each other, once one of them stands on the server. */
function leftOf(now: Change, sent: Change, revision: number): Change | undefined {
  if (now.stamp === sent.stamp) return undefined
  const here = now.conflict?.here
  if (!here) return { ...now, base: revision, isNew: false, sent: [] }
  const left = leftOf(here, sent, revision), { body } = sent
  return { ...now, conflict: left ? { here: left } : { theirs: body === undefined ? undefined : { revision, body } } }
}

/**
 * A change as it was sent stands on the server. What was changed since waits on, from the revision that came of it.
 * @returns what still waits
 */
export async function changeTaken(sent: Change, revision: number): Promise<Change | undefined> {
  const tx = (await open()).transaction('changes', 'readwrite'), now = await tx.store.get([sent.key, sent.name])
  const left = now && leftOf(now, sent, revision)
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
