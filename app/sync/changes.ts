import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { holdable } from '~contract/text'
import type { UnitPreferences } from '~core/units/units'
import { newId, Refused } from '~/sync/api'
import { putOnServer, theirsOf } from './change-routes'
import { endOf, type End } from './fates'
import {
  atFirst,
  changesOf,
  changeTaken,
  goesOut,
  keepChange,
  nameOf,
  putChange,
  putsAway,
  settle,
  withMine,
  type Change,
  type Picture,
  type Target,
  type Version,
} from './kept-changes'
import { askToKeep } from './room'
import { useSession } from './session'
import { onTabs, tellTabs } from './tabs'

/** Long enough for the server's answer on a good line; after that it is sent in peace. */
const SOON_MS = 3000
/** What the server has now of a thing that was changed here; no answer when it was put away. */
export interface Stands {
  readonly target: Target
  readonly answer?: unknown
  /** The change of this browser that it came of, if it did, and the revision. */
  readonly stamp?: string
  readonly revision: number
}
type Listener = (stands: Stands) => void

/** A change before it is kept: the whole thing as it is now, or nothing when it is put away. */
export interface Wish {
  readonly target: Target
  readonly body?: unknown
  /** The one it was changed from; none for a new one. */
  readonly from?: Version
  /** Whether nobody knows of it yet. */
  readonly isNew?: boolean
  readonly picture?: Picture
}

/** Things of the workshop changed in this browser, until the server has them: each written down first, then sent. */
function keeping() {
  const session = useSession(), changes = shallowRef<readonly Change[]>([]), listeners = new Set<Listener>()
  /** Revisions that changes made, by their stamps: who edits on goes on from them. */
  const made = new Map<string, number>()
  /** Who waits for what becomes of a change just made. */
  const hoping = new Map<string, (end: End | 'taken', change?: Change) => void>()
  let edits = 0
  const inHand = (name: string) => changes.value.find(c => c.name === name)
  function show(name: string, change: Change | undefined): void {
    edits++
    changes.value = change
      ? [...changes.value.filter(c => c.name !== name), change].sort((a, b) => a.order - b.order)
      : changes.value.filter(c => c.name !== name)
    tellTabs({ what: 'outbox', key: session.key ?? '' })
  }
  async function set(change: Change): Promise<void> {
    await putChange(change.key, change.name, change)
    show(change.name, change)
  }
  async function readAnew(): Promise<void> {
    const at = edits, key = session.key, stored = key ? await changesOf(key) : []
    if (at !== edits || key !== session.key) return readAnew()
    changes.value = stored
  }
  function stands(told: Stands): void {
    if (told.stamp !== undefined) made.set(told.stamp, told.revision)
    if (told.target.what === 'workshop') session.haveUnits((told.answer as { readonly units: UnitPreferences }).units)
    for (const listener of listeners) listener(told)
  }
  onTabs((message) => {
    if (message.key !== session.key) return
    if (message.what === 'stands') stands(message.told)
    if (message.what === 'outbox') void readAnew()
  })
  return { session, changes, listeners, made, hoping, inHand, show, set, readAnew, stands }
}
type Keeping = ReturnType<typeof keeping>

/** Sending one of them: what waits for others is decided by who sends all. */
function sending({ session, hoping, show, set, inHand, stands }: Keeping) {
  async function taken(sent: Change, revision: number, answer: unknown): Promise<'taken'> {
    const told = { target: sent.target, answer, stamp: sent.stamp, revision }
    stands(told)
    tellTabs({ what: 'stands', key: sent.key, told })
    show(sent.name, await changeTaken(sent, revision))
    return 'taken'
  }
  /** It has another revision by now. */
  async function meet(sent: Change): Promise<End | 'taken'> {
    const theirs = await theirsOf(sent.target), becomes = settle(sent, theirs), now = inHand(sent.name) ?? sent
    if (becomes === 'stands') return taken(sent, theirs?.revision ?? 0, theirs?.answer)
    if (becomes === 'again') await set(atFirst(now, { base: theirs!.revision, sent: [] }))
    else {
      stands({ target: sent.target, answer: theirs?.answer, revision: theirs?.revision ?? 0 })
      const conflict = { theirs: theirs && { revision: theirs.revision, body: theirs.body } }
      await set(atFirst(now, { conflict }))
    }
    return becomes === 'again' ? 'later' : 'set-aside'
  }
  async function tried(sent: Change): Promise<End | 'taken'> {
    try {
      const { revision, answer } = await putOnServer(sent)
      return await taken(sent, revision, answer)
    }
    catch (error) {
      if (!(error instanceof Refused)) return 'later'
      const end = endOf(error, 1)
      if (end !== 'set-aside') return end
      // Somebody else put it away already.
      if (error.status === 404 && putsAway(sent)) return taken(sent, 0, undefined)
      try {
        if (error.status === 409 && sent.target.what !== 'photo') return await meet(sent)
      }
      catch {
        return 'later'
      }
      const now = inHand(sent.name)
      // It was changed on while this was on its way: that has not been tried yet.
      if (now && now.stamp !== sent.stamp) return 'later'
      await set({ ...now ?? sent, refused: error.sentence })
      return end
    }
  }
  /** @returns what came of it; a refusal is kept with it, and holds nothing else. */
  async function send(name: string): Promise<End | 'taken'> {
    const key = session.key, sent = key ? await goesOut(key, name) : undefined
    // From now on somebody may have heard of it.
    if (sent) show(name, sent)
    const end = sent ? await tried(sent) : 'taken'
    hoping.get(name)?.(end, inHand(name))
    return end === 'set-aside' ? 'taken' : end
  }
  return { send }
}

/** Those that can be sent now: a photo of a mould waits for its mould alone. */
function readyOf({ changes, inHand }: Keeping) {
  const waitsFor = ({ target }: Change): Change | undefined => target.what === 'photo' && 'mould' in target.of
    ? inHand(nameOf({ what: 'item', kind: 'mould', id: target.of.mould }))
    : undefined
  return computed(() => changes.value.filter(c => !c.refused && !c.conflict && !waitsFor(c)))
}

/** What somebody decides about a change that was not taken. */
function deciding({ show, set }: Keeping, poke: () => void) {
  /** Of two versions made here the other waits on. */
  async function drop(change: Change): Promise<undefined> {
    const other = change.conflict?.here
    await putChange(change.key, change.name, other)
    show(change.name, other)
    if (other) poke()
  }
  async function sendAgain(change: Change): Promise<void> {
    await set({ ...change, refused: undefined })
    poke()
  }
  /** Mine stands; theirs is what it is changed from. */
  async function keepMine(change: Change): Promise<undefined> {
    await set(withMine(change))
    poke()
  }
  /** Both stand: mine as a thing of its own. @param mark put behind its name @returns its id */
  async function keepBoth(change: Change, mark: string): Promise<string> {
    const id = newId(), body = change.body as { readonly name?: string } | undefined,
      target = { ...change.target, id } as Target
    const kept = {
      ...change,
      target,
      name: nameOf(target),
      base: 0,
      isNew: true,
      sent: [],
      conflict: undefined,
      refused: undefined,
      body: { ...body, name: `${body?.name ?? ''}${mark}`.slice(0, 80) },
    }
    await putChange(kept.key, kept.name, kept)
    show(kept.name, kept)
    await drop(change)
    poke()
    return id
  }
  return { drop, sendAgain, keepMine, keepBoth }
}

/** Keeping what somebody wishes. @param poke something is there to be sent: false when nothing can be just now */
function wishing({ session, made, hoping, inHand, show }: Keeping, poke: () => boolean) {
  function soon(name: string): Promise<void> {
    hoping.get(name)?.('later')
    return new Promise((done, failed) => {
      const timer = setTimeout(done, SOON_MS)
      hoping.set(name, (end, change) => {
        clearTimeout(timer)
        hoping.delete(name)
        if (end === 'set-aside' && change?.refused) failed(new Refused(change.refused, 422))
        else done()
      })
    })
  }
  /**
   * Keeps a change here, and sends it. @returns when it is kept: its stamp, and `becomes`, which ends as `write` does
   */
  async function keep(wish: Wish): Promise<{ readonly stamp: string, readonly becomes: Promise<void> }> {
    const { target, body, from, isNew = false, picture } = wish
    const key = session.key, name = nameOf(target), before = inHand(name), stamp = newId()
    if (!key) throw new Refused('Sign in first.', 401)
    const isLast = before && !before.conflict && (from === undefined || from.stamp === before.stamp)
    // Nobody heard of it yet.
    if (putsAway({ body, picture }) && isLast && before.isNew && before.sent.length === 0) {
      await putChange(key, name, undefined)
      show(name, undefined)
      return { stamp, becomes: Promise.resolve() }
    }
    const told = body === undefined ? undefined : holdable(JSON.parse(JSON.stringify(body)) as unknown)
    const plain = JSON.parse(JSON.stringify(target)) as Target,
      revision = made.get(from?.stamp ?? '') ?? from?.revision ?? 0
    show(name, await keepChange({ key, target: plain, body: told, isNew, picture, stamp }, revision, from))
    void askToKeep()
    const becomes = soon(name)
    // Heard by nobody is no fault: it stands with the change.
    becomes.catch(() => {})
    if (!poke()) hoping.get(name)?.('away')
    return { stamp, becomes }
  }
  /**
   * Keeps a change and sends it. @returns when the server has it, or cannot be asked just now, and a moment later at
   * most; it is kept all the same. @throws Refused with the server's sentence when it will not take it
   */
  async function write(wish: Wish): Promise<void> {
    await (await keep(wish)).becomes
  }
  return { keep, write }
}

/**
 * Moulds, buckets, bags, plans, views, photos and the workshop's units, changed here: every screen writes them through
 * this, and reads what waits laid over what the server said.
 */
export const useChanges = defineStore('changes', () => {
  const kept = keeping(), { changes, listeners, inHand } = kept
  /** Set by who sends: something is there to be sent. @returns false when nothing can be sent just now */
  let poke = () => false
  const { send } = sending(kept), ready = readyOf(kept)
  function onStands(listener: Listener): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }
  /** Those of one kind: the same list while it says the same, so that screens are not drawn anew for others. */
  const ofKind = <W extends Target['what']>(what: W) => computed<readonly Change[]>((before) => {
    const now = changes.value.filter(c => c.target.what === what)
    const isSame = (c: Change, i: number) => c.name === before![i]!.name && c.stamp === before![i]!.stamp
    return before?.length === now.length && now.every(isSame) ? before : now
  })
  const unsent = computed(() => changes.value.filter(c => !c.refused && !c.conflict))
  const refused = computed(() => changes.value.filter(c => c.refused ?? c.conflict))
  return {
    changes, ofKind, unsent, refused, ready, send, onStands, inHand,
    load: kept.readAnew,
    ...wishing(kept, () => poke()),
    ...deciding(kept, () => poke()),
    onKept: (work: typeof poke) => {
      poke = work
    },
  }
})
