import { defineStore } from 'pinia'
import { computed } from 'vue'
import { EVENT_VERSION, type Happening, type Instant, type PourEvent } from '~core/pour/events'
import type { Plan } from '~core/plan/types'
import { castsPerBatch, type FrozenRun } from '~core/plan/run'
import type { EventsAnswer, PourAnswer } from '~contract/pour'
import { holdable } from '~contract/text'
import { newId, Refused } from '~/sync/api'
import { keep, keepBegun, keepMended, putBack, type Begun, type Draft, type Waiting } from '~/sync/outbox'
import { askToKeep } from './room'
import { onTabs, tellTabs } from './tabs'
import { useChanges } from './changes'
import { useClock } from './clock'
import { inHandOf, type InHand } from './in-hand'
import type { Holder } from './pour-sending'
import { sendingOf } from './sending'
import { useSession } from './session'

/** A plain copy with an id of its own, without what cannot be held: the browser's store takes no reactive objects. */
function draftOf(happening: Happening, at: Pick<Draft, 'version' | 'batch' | 'happenedAt' | 'recordedAt'>): Draft {
  return { ...holdable(JSON.parse(JSON.stringify(happening)) as Happening), ...at, id: newId() } as Draft
}

/** Is told what the server says to a pour's entries: all that came `after` a number, and those that were sent. */
type AnswerListener = (pour: string, answer: EventsAnswer, after: number) => void

/** Who holds the pours, as far as they have said so. */
function holding() {
  const session = useSession(), listeners = new Set<AnswerListener>()
  let had: Holder['had'] = () => undefined, started: Holder['started'] = () => {}
  function tell(pour: string, answer: EventsAnswer, after: number): void {
    for (const listener of listeners) listener(pour, answer, after)
  }
  const holder: Holder = {
    had: pour => had(pour),
    started: answer => started(answer),
    answered(pour, answer, after) {
      tell(pour, answer, after)
      tellTabs({ what: 'answer', key: session.key ?? '', pour, answer, after })
    },
  }
  function onAnswer(listener: AnswerListener): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }
  /** Set by who holds the pours: is told of one that the server has now. */
  function onStarted(listener: (answer: PourAnswer) => void): void {
    started = listener
  }
  function knows(howFar: Holder['had']): void {
    had = howFar
  }
  return { holder, tell, onAnswer, onStarted, knows }
}

/** Telling what happens: written down here first. @param send sends what waits */
function telling({ waiting, begun, changed }: InHand, send: () => Promise<void>) {
  const session = useSession(), clock = useClock()
  function toldAs(): string {
    if (!session.key) throw new Refused('Sign in first.', 401)
    return session.key
  }
  function isKept(): void {
    changed()
    void send()
    void askToKeep()
  }
  /**
   * Begins a pour here, without asking: written down first, then sent, its entries after it.
   * @param plan as it was frozen into `run` @param planId where it is saved @returns the pour's id
   */
  async function begin(plan: Plan, run: FrozenRun, planId?: string): Promise<string> {
    const key = toldAs(), id = newId()
    const start = {
      id,
      planId,
      plan,
      person: session.person?.id,
      startedAt: Math.round(clock.read()),
      eventId: newId(),
      frozen: { world: run.world, casts: castsPerBatch(run) },
    }
    const plain = JSON.parse(JSON.stringify({ id, key, run, start, told: clock.unsure() })) as object
    const kept = await keepBegun(plain as Parameters<typeof keepBegun>[0])
    begun.value = [...begun.value, kept]
    isKept()
    return id
  }
  /**
   * Several things at one moment: told, shown and sent together.
   * @param happenedAt on the workshop's clock; now unless it is told late
   */
  async function recordAll(
    pour: string,
    happenings: readonly Happening[],
    batch?: number,
    happenedAt: Instant = clock.read(),
  ): Promise<void> {
    const key = toldAs(), recordedAt = Math.round(clock.read())
    const at = { version: EVENT_VERSION, batch, happenedAt: Math.round(happenedAt), recordedAt } as const
    const kept = await keep(key, pour, happenings.map(h => draftOf(h, at)), clock.unsure())
    const known = new Set(waiting.value.map(w => w.event.id))
    waiting.value = [...waiting.value, ...kept.filter(w => !known.has(w.event.id))]
    isKept()
  }
  const record = (pour: string, happening: Happening, batch?: number, happenedAt?: Instant): Promise<void> =>
    recordAll(pour, [happening], batch, happenedAt)
  return { begin, record, recordAll }
}

/** What somebody does about pours and entries that were not taken. */
function retrying({ waiting, begun, changed }: InHand, { settling, hurry }: ReturnType<typeof sendingOf>) {
  /** Tries pours again that were begun here. */
  async function beginAgain(starts: readonly Begun[]): Promise<void> {
    await settling.markStarts(starts, undefined)
    hurry()
  }
  /** Sends entries again: a cast may be there by now, or the server mended. */
  async function sendAgain(entries: readonly Waiting[]): Promise<void> {
    await putBack(entries)
    const ids = new Set(entries.map(w => w.event.id)), pours = new Set(entries.map(w => w.pour))
    await beginAgain(begun.value.filter(b => pours.has(b.id)))
    waiting.value = waiting.value.map(w => ids.has(w.event.id) ? { ...w, refused: undefined } : w)
    changed()
    hurry()
  }
  /** Sends a mended entry in the place of one that was not taken. @param change what is now said otherwise */
  async function mend(entry: Waiting, change: Partial<Pick<Waiting['event'], 'data' | 'batch'>>): Promise<void> {
    const kept = await keepMended(entry, holdable(JSON.parse(JSON.stringify(change)) as object))
    waiting.value = [...waiting.value.filter(w => w.event.id !== entry.event.id), kept]
    changed()
    hurry()
  }
  return { beginAgain, sendAgain, mend }
}

/**
 * Everything that happens to a pour goes through here: written to the browser's own store first, then sent, in order,
 * one tab at a time.
 * What the server does not answer stays and is tried again; nothing is ever dropped.
 */
export const useRecords = defineStore('records', () => {
  const session = useSession(), changes = useChanges(), { holder, tell, ...listening } = holding()
  // Tabs of one browser share what waits: it is read anew by the others.
  const hand = inHandOf(() => session.key, () => tellTabs({ what: 'outbox', key: session.key ?? '' }))
  const { waiting, begun } = hand, sending = sendingOf(hand, holder), { send, hurry, halted, trouble } = sending
  const unsent = computed(() => [...waiting.value, ...begun.value].filter(w => !w.refused).length)
  const refused = computed(() => waiting.value.filter(w => w.refused))
  const refusedPours = computed(() => begun.value.filter(b => b.refused))
  onTabs((message) => {
    if (message.key !== session.key) return
    if (message.what === 'outbox') void hand.readAnew()
    else if (message.what === 'answer') tell(message.pour, message.answer, message.after)
  })
  async function load(): Promise<void> {
    await Promise.all([hand.readAnew(), changes.load()])
    if (unsent.value + changes.unsent.length > 0) void send()
  }
  /** The events of this pour that the server may not have yet, as this person's. */
  function pendingOf(pour: string): PourEvent[] {
    const actor = session.person?.id ?? ''
    return hand.unsent().filter(w => w.pour === pour).map(w => ({ ...w.event, pour, actor } as PourEvent))
  }
  return {
    waiting, begun, unsent, refused, refusedPours, halted, trouble, load, hurry, pendingOf, ...listening,
    ...telling(hand, send), ...retrying(hand, sending),
  }
})
