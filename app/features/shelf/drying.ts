import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { endUse } from '~core/gypsum/end-use'
import { dryingForecast, dryingRecord } from '~core/pour/drying'
import { useCache } from '~/sync/cache'

/**
 * One cast on the shelf, looked at closely: its pour, and what its drying comes to with everything told here already.
 */
export const useDrying = defineStore('drying', () => {
  const cache = useCache()
  const id = ref(''), cast = ref(''), trouble = ref('')
  const pour = computed(() => id.value ? cache.pourOf(id.value) : undefined), state = computed(() => pour.value?.state)

  async function look(pourId: string, castId: string): Promise<void> {
    id.value = pourId
    cast.value = castId
    try {
      await cache.load(pourId)
      trouble.value = ''
    }
    catch (error) {
      trouble.value = (error as Error).message
    }
  }
  const close = () => {
    id.value = ''
  }
  const castState = computed(() => state.value?.casts.find(c => c.cast.id === cast.value))
  const known = computed(() => {
    const record = pour.value && state.value && castState.value
      && dryingRecord(pour.value.run, state.value, castState.value)
    return record && { record, ...dryingForecast(record, endUse(pour.value!.run.plan.endUse).dryTo) }
  })
  return { pour, cast, state, castState, known, trouble, look, close }
})
