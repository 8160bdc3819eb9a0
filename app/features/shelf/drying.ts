import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { dryingForecast, dryingRecord } from '~core/pour/drying'
import { foldPour } from '~core/pour/fold'
import type { EventsAnswer, PourAnswer } from '~contract/pour'
import { remembered } from '~/sync/kept'
import { useLive } from '../../sync/live'
import { useRecords } from '../../sync/records'
import { useSession } from '../../sync/session'

/**
 * One cast on the shelf, looked at closely: its pour, and what its drying comes to with everything told here already.
 */
export const useDrying = defineStore('drying', () => {
  const records = useRecords()
  const pour = shallowRef<PourAnswer>()
  const cast = ref('')
  const trouble = ref('')

  async function look(pourId: string, castId: string): Promise<void> {
    cast.value = castId
    if (pour.value?.id !== pourId) pour.value = undefined
    await load(pourId)
  }
  async function load(pourId: string): Promise<void> {
    try {
      const { value } = await remembered(useSession().key ?? '', 'GET pours/:id', { params: { id: pourId } })
      if (pour.value === undefined || pour.value.id === pourId) pour.value = value
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
    }
  }
  const close = () => {
    pour.value = undefined
  }
  // What was taken must not vanish between the answer and the next look.
  records.onAnswer((id: string, answer: EventsAnswer) => {
    if (pour.value?.id !== id) return
    // An answer may tell only what is new: the rest of the pour stays.
    const events = [...new Map([...pour.value.events, ...answer.events].map(e => [e.id, e])).values()]
    pour.value = { ...pour.value, events, seq: Math.max(pour.value.seq, answer.seq) }
  })
  useLive().on((message) => {
    if (pour.value && message.what === 'pour' && message.pour === pour.value.id) void load(pour.value.id)
  })
  const state = computed(() =>
    pour.value && foldPour(pour.value.run, [...pour.value.events, ...records.pendingOf(pour.value.id)]),
  )
  const castState = computed(() => state.value?.casts.find(c => c.cast.id === cast.value))
  const known = computed(() => {
    const record = pour.value && state.value && castState.value
      && dryingRecord(pour.value.run, state.value, castState.value)
    return record && { record, ...dryingForecast(record) }
  })
  return { pour, cast, state, castState, known, trouble, look, close }
})
