import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import type { Happening, Instant, PourEvent } from '~core/pour/events'
import type { EventsAnswer } from '~contract/pour'
import { ask, newId, Refused } from '~/sync/api'
import { keep, markRefused, taken, waitingOf, type Draft, type Waiting } from '~/sync/outbox'
import { useClock } from './clock'
import { useSession } from './session'

const RETRY_FIRST_MS = 1000, RETRY_MOST_MS = 20_000

/**
 * Everything that happens to a pour goes through here: written to the browser's own store first, then sent, in order,
 * one tab at a time.
 * What the server does not answer stays and is tried again; nothing is ever dropped.
 */
export const useRecords = defineStore('records', () => {
  const session = useSession()
  const clock = useClock()
  // Plain objects: they go back into the browser's store as they are.
  const waiting = shallowRef<readonly Waiting[]>([])
  const unsent = computed(() => waiting.value.filter(w => !w.refused).length)
  const refused = computed(() => waiting.value.filter(w => w.refused))
  const listeners = new Set<(pour: string, answer: EventsAnswer) => void>()
  /** How far this browser has a pour already; set by whoever shows one. */
  let had: (pour: string) => number = () => 0
  let timer: ReturnType<typeof setTimeout> | undefined
  let delay = RETRY_FIRST_MS
  let sending: Promise<void> | undefined

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
  function record(
    pour: string,
    happening: Happening,
    batch?: number,
    happenedAt: Instant = clock.read(),
  ): Promise<void> {
    return recordAll(pour, [happening], batch, happenedAt)
  }

  /** Several things at one moment: told, shown and sent together. */
  async function recordAll(
    pour: string,
    happenings: readonly Happening[],
    batch?: number,
    happenedAt: Instant = clock.read(),
  ): Promise<void> {
    const key = session.key
    if (!key) throw new Refused('Sign in first.', 401)
    const at = { version: 1, batch, happenedAt: Math.round(happenedAt), recordedAt: Math.round(clock.read()) }
    // Plain copies: the browser's store takes no reactive objects.
    const kept = await keep(
      key,
      pour,
      happenings.map(h => ({ ...JSON.parse(JSON.stringify(h)) as Happening, ...at, id: newId() }) as Draft),
    )
    const known = new Set(waiting.value.map(w => w.event.id))
    waiting.value = [...waiting.value, ...kept.filter(w => !known.has(w.event.id))]
    void send()
  }

  /** One writer at a time across tabs where the browser can say so. */
  function exclusively(work: () => Promise<void>): Promise<void> {
    const locks = globalThis.navigator?.locks
    return locks ? locks.request('outbox', work) : work()
  }

  function send(): Promise<void> {
    sending ??= exclusively(sendAll).finally(() => {
      sending = undefined
      // What was told while the last answer was on its way.
      if (timer === undefined && waiting.value.some(w => !w.refused)) again(0)
    })
    return sending
  }

  async function sendAll(): Promise<void> {
    if (!session.key) return
    // Another tab may have written in the meantime; what was told here during the reading must not be lost over it.
    const stored = await waitingOf(session.key)
    const known = new Set(stored.map(w => w.event.id))
    waiting.value = [...stored, ...waiting.value.filter(w => !known.has(w.event.id))].sort((a, b) => a.order - b.order)
    const open = waiting.value.filter(w => !w.refused)
    for (const pour of new Set(open.map(w => w.pour))) {
      const mine = open.filter(w => w.pour === pour).slice(0, 500)
      try {
        const answer = await ask('POST pours/:id/events', {
          params: { id: pour },
          body: { sentAt: clock.read(), person: session.person?.id, after: had(pour), events: mine.map(w => w.event) },
        })
        for (const listener of listeners) listener(pour, answer)
        const ids = mine.map(w => w.event.id)
        await taken(ids)
        waiting.value = waiting.value.filter(w => !ids.includes(w.event.id))
        delay = RETRY_FIRST_MS
      }
      catch (error) {
        const { status = 0, sentence = '' } = error instanceof Refused ? error : {}
        if (status === 400 || status === 404 || status === 409 || status === 422) {
          await markRefused(mine, sentence)
          waiting.value = waiting.value.map(w => mine.includes(w) ? { ...w, refused: sentence } : w)
        }
        else {
          again()
          return
        }
      }
    }
  }

  function again(after = delay): void {
    clearTimeout(timer)
    timer = setTimeout(() => {
      timer = undefined
      void send()
    }, after)
    delay = Math.min(RETRY_MOST_MS, delay * 2)
  }

  /** Tries at once: the server is back. */
  function hurry(): void {
    delay = RETRY_FIRST_MS
    if (unsent.value > 0) void send()
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
