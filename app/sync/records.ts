import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { EVENT_VERSION, type Happening, type Instant, type PourEvent } from '~core/pour/events'
import type { Plan } from '~core/plan/types'
import { castsPerBatch, type FrozenRun } from '~core/plan/run'
import type { EventsAnswer, PourAnswer } from '~contract/pour'
import { holdable } from '~contract/text'
import { newId, Refused } from '~/sync/api'
import {
  begunOf,
  keep,
  keepBegun,
  keepMended,
  markBegun,
  putBack,
  waitingOf,
  type Begun,
  type Draft,
  type Waiting,
} from '~/sync/outbox'
import { askToKeep } from './room'
import { onTabs, tellTabs } from './tabs'
import { useChanges } from './changes'
import { useClock } from './clock'
import { sendingOf } from './sending'
import { useSession } from './session'

/** A plain copy with an id of its own, without what cannot be held: the browser's store takes no reactive objects. */
function draftOf(happening: Happening, at: Pick<Draft, 'version' | 'batch' | 'happenedAt' | 'recordedAt'>): Draft {
  return { ...holdable(JSON.parse(JSON.stringify(happening)) as Happening), ...at, id: newId() } as Draft
}

/** Is told what the server says to a pour's entries: all that came `after` a number, and those that were sent. */
type AnswerListener = (pour: string, answer: EventsAnswer, after: number) => void

/**
 * Everything that happens to a pour goes through here: written to the browser's own store first, then sent, in order,
 * one tab at a time.
 * What the server does not answer stays and is tried again; nothing is ever dropped.
 */
export const useRecords = defineStore('records', () => {
  const session = useSession(), clock = useClock(), changes = useChanges()
  // Plain objects: they go back into the browser's store as they are.
  const waiting = shallowRef<readonly Waiting[]>([])
  const begun = shallowRef<readonly Begun[]>([])
  const unsent = computed(() => [...waiting.value, ...begun.value].filter(w => !w.refused).length)
  const refused = computed(() => waiting.value.filter(w => w.refused))
  const refusedPours = computed(() => begun.value.filter(b => b.refused))
  const listeners = new Set<AnswerListener>()
  /** Set by who holds the pours. */
  let had: (pour: string) => number | undefined = () => undefined
  const { send, hurry, halted, trouble } = sendingOf(waiting, begun, pour => had(pour), (pour, answer, after) => {
    for (const listener of listeners) listener(pour, answer, after)
    tellTabs({ what: 'answer', key: session.key ?? '', pour, answer, after })
  }, answer => started(answer), changed)
  /** Tabs of one browser share what waits: it is read anew by the others. */
  function changed(): void {
    edits++
    tellTabs({ what: 'outbox', key: session.key ?? '' })
  }
  onTabs((message) => {
    if (message.key !== session.key) return
    if (message.what === 'outbox') void readAnew()
    else if (message.what === 'answer')
      for (const listener of listeners) listener(message.pour, message.answer, message.after)
  })
  /** Counted, so that what was told here while it was read is not lost over it. */
  let edits = 0
  async function readAnew(): Promise<void> {
    const at = edits, key = session.key
    const [stored, starts] = key ? await Promise.all([waitingOf(key), begunOf(key)]) : [[], []]
    if (at !== edits || key !== session.key) return readAnew()
    waiting.value = stored
    begun.value = starts
  }

  async function load(): Promise<void> {
    await Promise.all([readAnew(), changes.load()])
    if (unsent.value + changes.unsent.length > 0) void send()
  }

  /**
   * Begins a pour here, without asking: written down first, then sent, its entries after it.
   * @param plan as it was frozen into `run` @param planId where it is saved @returns the pour's id
   */
  async function begin(plan: Plan, run: FrozenRun, planId?: string): Promise<string> {
    const key = session.key, id = newId()
    if (!key) throw new Refused('Sign in first.', 401)
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
    changed()
    void send()
    void askToKeep()
    return id
  }

  /** The events of this pour that the server may not have yet, as this person's. */
  function pendingOf(pour: string): PourEvent[] {
    const actor = session.person?.id ?? ''
    return waiting.value.filter(w => w.pour === pour && !w.refused).map(w => ({ ...w.event, pour, actor } as PourEvent))
  }

  /** @param happenedAt on the workshop's clock; now unless it is told late. */
  const record = (pour: string, happening: Happening, batch?: number, happenedAt?: Instant): Promise<void> =>
    recordAll(pour, [happening], batch, happenedAt)

  /** Several things at one moment: told, shown and sent together. */
  async function recordAll(
    pour: string,
    happenings: readonly Happening[],
    batch?: number,
    happenedAt: Instant = clock.read(),
  ): Promise<void> {
    const key = session.key
    if (!key) throw new Refused('Sign in first.', 401)
    const at = {
      version: EVENT_VERSION,
      batch,
      happenedAt: Math.round(happenedAt),
      recordedAt: Math.round(clock.read()),
    } as const
    const kept = await keep(key, pour, happenings.map(h => draftOf(h, at)), clock.unsure())
    const known = new Set(waiting.value.map(w => w.event.id))
    waiting.value = [...waiting.value, ...kept.filter(w => !known.has(w.event.id))]
    changed()
    void send()
    void askToKeep()
  }

  /** Sends entries again that were not taken: a cast may be there by now, or the server mended. */
  async function sendAgain(entries: readonly Waiting[]): Promise<void> {
    await putBack(entries)
    const ids = new Set(entries.map(w => w.event.id)), pours = new Set(entries.map(w => w.pour))
    await beginAgain(begun.value.filter(b => pours.has(b.id)))
    waiting.value = waiting.value.map(w => ids.has(w.event.id) ? { ...w, refused: undefined } : w)
    changed()
    hurry()
  }

  /** Tries pours again that were begun here and not taken. */
  async function beginAgain(starts: readonly Begun[]): Promise<void> {
    await Promise.all(starts.map(b => markBegun(b, undefined)))
    begun.value = begun.value.map(b => starts.includes(b) ? { ...b, refused: undefined } : b)
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

  function onAnswer(listener: AnswerListener): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }
  /** Set by who holds the pours: is told of one that the server has now. */
  let started: (answer: PourAnswer) => void = () => {}
  function onStarted(listener: typeof started): void {
    started = listener
  }
  function knows(howFar: typeof had): void {
    had = howFar
  }
  return {
    waiting, begun, unsent, refused, refusedPours, halted, trouble,
    load, begin, record, recordAll, beginAgain, sendAgain, mend, hurry, pendingOf, knows, onStarted, onAnswer,
  }
})
