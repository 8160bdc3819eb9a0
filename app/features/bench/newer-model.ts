import { useLocalStorage } from '@vueuse/core'
import { computed, type ComputedRef } from 'vue'
import type { FrozenRun } from '~core/plan/run'
import { MODEL_VERSION } from '~core/setting/moments'

/** Pours of which it was said already, the latest last. */
const MOST_TOLD = 100

/**
 * Whether a pour was planned with an earlier model of setting: its plan stays as it was, what is still to come is
 * foretold with the one of today. Said once, in this browser.
 */
export function useNewerModel(id: ComputedRef<string | undefined>, run: ComputedRef<FrozenRun>) {
  const told = useLocalStorage<string[]>('newer-model-told', [])
  const newer = computed(() =>
    id.value !== undefined && run.value.modelVersion !== MODEL_VERSION && !told.value.includes(id.value),
  )
  function heard(): void {
    if (id.value !== undefined) told.value = [...told.value, id.value].slice(-MOST_TOLD)
  }
  return { newer, heard }
}
