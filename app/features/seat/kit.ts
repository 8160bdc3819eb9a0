import { useLocalStorage } from '@vueuse/core'
import { computed, watch } from 'vue'
import type { Happening, PourEvent } from '~core/pour/events'
import { EVENT_VERSION } from '~core/pour/events'
import { foldPour } from '~core/pour/fold'
import type { SeatAnswer, SEAT_KINDS } from '~contract/classroom'
import { untilItWorks } from '~/sync/again'
import { ask, newId } from '~/sync/api'
import { useClock } from '~/sync/clock'
import { useSeat } from './seat'

type Kit = NonNullable<SeatAnswer['kit']>
type SeatHappening = Extract<Happening, { readonly kind: typeof SEAT_KINDS[number] }>
interface Waiting {
  readonly pour: string
  readonly events: readonly PourEvent[]
  readonly seq: number
  readonly begun?: true
}

/**
 * One’s own kit: what is told of it is written down in this phone first, and lets go of it only when the server has
 * it. @param kit as the server told it last
 */
export function useKit(kit: () => Kit) {
  const seat = useSeat(), clock = useClock()
  const kept = useLocalStorage<Waiting>('seat-kit', { pour: '', events: [], seq: 0 })
  const waiting = computed(() => kept.value.pour === kit().pour ? kept.value.events : [])
  const known = computed(() => new Set(kit().events.map(e => e.id)))
  const unsent = computed(() => waiting.value.filter(e => !known.value.has(e.id)))
  const state = computed(() => foldPour(kit().run, [...kit().events, ...unsent.value]))

  /** Also where the server does not know it yet. */
  const begun = computed(() => kit().begun || (kept.value.pour === kit().pour && kept.value.begun === true))
  async function send(): Promise<boolean> {
    if (begun.value && !kit().begun) seat.take(await ask('POST seat/kit'))
    if (waiting.value.length === 0) return true
    const sent = waiting.value
    const { fates } = await ask('POST seat/events', { body: { sentAt: clock.now, events: sent.map(e => ({ ...e })) } })
    await seat.load()
    const settled = new Set(fates.map(f => f.id))
    kept.value = { ...kept.value, events: kept.value.events.filter(e => !settled.has(e.id)) }
    return kept.value.events.length === 0
  }
  const hurry = untilItWorks(send)
  watch(() => seat.connected, now => now && hurry(), { immediate: true })

  function tell(happening: SeatHappening, batch = 0): void {
    const { pour } = kit(), before = kept.value.pour === pour ? kept.value : { pour, events: [], seq: 0 }
    const event = {
      ...happening, id: newId(), pour, batch, version: EVENT_VERSION, happenedAt: clock.now, recordedAt: clock.now,
      device: `seat-${seat.answer?.seat.number ?? 0}`, deviceSeq: before.seq + 1, actor: '',
    } as PourEvent
    kept.value = { ...before, events: [...before.events, event], seq: before.seq + 1 }
    hurry()
  }
  function begin(): void {
    kept.value = { pour: kit().pour, events: [], seq: 0, begun: true }
    hurry()
  }
  return { state, begun, waiting, tell, begin }
}
