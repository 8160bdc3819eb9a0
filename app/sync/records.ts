import { defineStore } from 'pinia'
import { computed, shallowRef, type ShallowRef } from 'vue'
import type { Happening, Instant, PourEvent } from '~core/pour/events'
import type { EventsAnswer } from '~contract/pour'
import { ask, newId, Refused } from '~/sync/api'
import { keep, markRefused, taken, waitingOf, type Draft, type Waiting } from '~/sync/outbox'
import { useClock } from './clock'
import { useSession } from './session'

const RETRY_FIRST_MS = 1000, RETRY_MOST_MS = 20_000

/** Answers after which what was sent is set aside; after any other it is sent again. */
const SET_ASIDE: readonly number[] = [400, 404, 409, 422]
const MOST_AT_ONCE = 500

/** One writer at a time across tabs where the browser can say so. */
function exclusively(work: () => Promise<void>): Promise<void> {
  const locks = globalThis.navigator?.locks
  return locks ? locks.request('outbox', work) : work()
}

/** Tries again later, and each time later still. */
function retrying(work: () => void) {
  let timer: ReturnType<typeof setTimeout> | undefined
  let delay = RETRY_FIRST_MS
  function again(after = delay): void {
    clearTimeout(timer)
    timer = setTimeout(() => {
      timer = undefined
      work()
    }, after)
    delay = Math.min(RETRY_MOST_MS, delay * 2)
  }
  /** It went well: the next trouble is a new one. */
  function wentWell(): void {
    delay = RETRY_FIRST_MS
  }
  return { again, wentWell, isSet: () => timer !== undefined }
}

/**
 * Sends what waits, in order, one tab at a time.
 * @param had how far this browser has a pour already
 * @param answered is told what the server says to a pour's entries
 */
function sendingOf(
  waiting: ShallowRef<readonly Waiting[]>,
  had: (pour: string) => number,
  answered: (pour: string, answer: EventsAnswer) => void,
) {
  const session = useSession(), clock = useClock()
  const retry = retrying(() => void send())
  let sending: Promise<void> | undefined
  function send(): Promise<void> {
    sending ??= exclusively(sendAll).finally(() => {
      sending = undefined
      // What was told while the last answer was on its way.
      if (!retry.isSet() && waiting.value.some(w => !w.refused)) retry.again(0)
    })
    return sending
  }

  /** Another tab may have written in the meantime; what was told here during the reading must not be lost over it. */
  async function readAnew(key: string): Promise<readonly Waiting[]> {
    const stored = await waitingOf(key), known = new Set(stored.map(w => w.event.id))
    waiting.value = [...stored, ...waiting.value.filter(w => !known.has(w.event.id))].sort((a, b) => a.order - b.order)
    return waiting.value.filter(w => !w.refused)
  }
  async function sendFor(pour: string, mine: readonly Waiting[]): Promise<void> {
    const answer = await ask('POST pours/:id/events', {
      params: { id: pour },
      body: { sentAt: clock.read(), person: session.person?.id, after: had(pour), events: mine.map(w => w.event) },
    })
    answered(pour, answer)
    const ids = mine.map(w => w.event.id)
    await taken(ids)
    waiting.value = waiting.value.filter(w => !ids.includes(w.event.id))
    retry.wentWell()
  }
  async function setAside(mine: readonly Waiting[], sentence: string): Promise<void> {
    await markRefused(mine, sentence)
    waiting.value = waiting.value.map(w => mine.includes(w) ? { ...w, refused: sentence } : w)
  }
  async function sendAll(): Promise<void> {
    if (!session.key) return
    const open = await readAnew(session.key)
    for (const pour of new Set(open.map(w => w.pour))) {
      const mine = open.filter(w => w.pour === pour).slice(0, MOST_AT_ONCE)
      try {
        await sendFor(pour, mine)
      }
      catch (error) {
        if (!(error instanceof Refused) || !SET_ASIDE.includes(error.status)) return retry.again()
        await setAside(mine, error.sentence)
      }
    }
  }

  /** Tries at once: the server is back. */
  function hurry(): void {
    retry.wentWell()
    if (waiting.value.some(w => !w.refused)) void send()
  }
  return { send, hurry }
}

/** A plain copy with an id of its own: the browser's store takes no reactive objects. */
function draftOf(happening: Happening, at: Pick<Draft, 'version' | 'batch' | 'happenedAt' | 'recordedAt'>): Draft {
  return { ...JSON.parse(JSON.stringify(happening)) as Happening, ...at, id: newId() } as Draft
}

/**
 * Everything that happens to a pour goes through here: written to the browser's own store first, then sent, in order,
 * one tab at a time.
 * What the server does not answer stays and is tried again; nothing is ever dropped.
 */
export const useRecords = defineStore('records', () => {
  const session = useSession(), clock = useClock()
  // Plain objects: they go back into the browser's store as they are.
  const waiting = shallowRef<readonly Waiting[]>([])
  const unsent = computed(() => waiting.value.filter(w => !w.refused).length)
  const refused = computed(() => waiting.value.filter(w => w.refused))
  const listeners = new Set<(pour: string, answer: EventsAnswer) => void>()
  /** Set by whoever shows a pour. */
  let had: (pour: string) => number = () => 0
  const { send, hurry } = sendingOf(waiting, pour => had(pour), (pour, answer) => {
    for (const listener of listeners) listener(pour, answer)
  })

  async function load(): Promise<void> {
    waiting.value = session.key ? await waitingOf(session.key) : []
    if (waiting.value.length > 0) void send()
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
    const at = { version: 1, batch, happenedAt: Math.round(happenedAt), recordedAt: Math.round(clock.read()) } as const
    const kept = await keep(key, pour, happenings.map(h => draftOf(h, at)))
    const known = new Set(waiting.value.map(w => w.event.id))
    waiting.value = [...waiting.value, ...kept.filter(w => !known.has(w.event.id))]
    void send()
  }

  function onAnswer(listener: (pour: string, answer: EventsAnswer) => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }
  function knows(howFar: typeof had): void {
    had = howFar
  }
  return { waiting, unsent, refused, knows, load, record, recordAll, pendingOf, hurry, onAnswer }
})
