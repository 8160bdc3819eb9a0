import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Happening, Instant, PourEvent } from '~core/pour/events'
import { foldPour } from '~core/pour/timeline'
import type { FrozenRun } from '~core/pour/run'
import type { EventsAnswer, PourAnswer } from '~shared/pour'
import { api } from '~/lib/api'
import { useClock } from './clock'
import { useLive } from './live'
import { useRecords } from './records'

/** One pour in hand: its frozen run, its events from the server and those still waiting here, folded into its state. */
export const useRun = defineStore('run', () => {
  const records = useRecords(), live = useLive(), clock = useClock()
  const id = ref('')
  const run = shallowRef<FrozenRun>()
  const events = shallowRef<readonly PourEvent[]>([])
  const trouble = ref('')
  const missing = ref(false)

  const state = computed(() => run.value && foldPour(run.value, [...events.value, ...records.pendingOf(id.value)]))

  function merge(pour: string, answer: EventsAnswer): void {
    if (pour !== id.value) return
    const known = new Map(events.value.map(e => [e.id, e]))
    for (const e of answer.events) known.set(e.id, e)
    events.value = [...known.values()]
  }

  async function load(pour: string): Promise<void> {
    if (id.value !== pour) {
      id.value = pour
      run.value = undefined
      events.value = []
    }
    try {
      const answer = await api<PourAnswer>(`pours/${pour}`)
      if (id.value !== pour) return
      run.value = answer.run
      merge(pour, answer)
      trouble.value = ''
      missing.value = false
    }
    catch (error) {
      trouble.value = (error as Error).message
      missing.value = (error as { status?: number }).status === 404
    }
  }

  function record(happening: Happening, batch?: number, happenedAt?: Instant): Promise<void> {
    return records.record(id.value, happening, batch, happenedAt)
  }

  /** Takes an event back by a further one, which must sort after it even when clocks differ. */
  function undo(event: PourEvent): Promise<void> {
    return records.record(id.value, { kind: 'undo', data: { event: event.id } }, event.batch, Math.max(clock.read(), event.happenedAt + 1))
  }

  records.onAnswer(merge)
  live.on((message) => {
    if (id.value && run.value && ((message.what === 'pour' && message.pour === id.value) || message.what === 'caught-up')) void load(id.value)
  })
  return { id, run, events, state, trouble, missing, load, record, undo }
})
