<script setup lang="ts">
import { lateWords, remedyWords } from '~core/plan/words'
import type { Late, Remedy } from '~core/plan/late'
import type { FrozenRun } from '~core/plan/run'
import { late as askLate } from '~/features/plan/forecasts'
import { usePlanning } from '~/features/plan/planning'
import { useLibrary } from '~/sync/library'
import { useRecords } from '~/sync/records'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'

/**
 * Before powder meets water: whether the last mould may be poured too late, and what would help. A remedy begins this
 * pour again with that changed; nothing is wet yet, and nothing is lost.
 */
const { run } = defineProps<{ run: FrozenRun }>()
const library = useLibrary(), store = useRun(), records = useRecords(), planning = usePlanning(), session = useSession()
const late = shallowRef<Late>(), trouble = ref(''), busy = ref(false)
/** Of the mould that becomes too stiff first, as the run foretold it. */
const pourBy = computed(() =>
  Object.values(run.moments).map(m => m.pourBy).reduce((a, b) => b.value < a.value ? b : a))
watch(() => run, async (now) => {
  const answer = await askLate(now.plan, now.world, pourBy.value)
  // Where custom pours on regardless there is nothing to warn of.
  if (now === run) late.value = answer && !answer.custom ? answer : undefined
}, { immediate: true })
async function take(remedy: Remedy) {
  busy.value = true
  trouble.value = ''
  try {
    const before = store.id
    // A pour is begun from the things as they are now.
    if (!library.loaded) await library.load()
    const pour = await planning.toBench({ plan: { ...run.plan, ...remedy.change } })
    await records.record(before, { kind: 'abandoned', data: { reason: remedyWords(remedy, session.units) } })
    await navigateTo(`/bench/${pour}`, { replace: true })
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  busy.value = false
}
</script>

<template>
  <div v-if="late" class="too-late" role="note">
    <p>{{ lateWords(late, session.units) }}</p>
    <ul v-if="late.remedies.length > 0 && session.mayWrite" aria-label="What would help">
      <li v-for="r in late.remedies" :key="r.code">
        <button :disabled="busy" @click="take(r)">{{ remedyWords(r, session.units) }}</button>
      </li>
    </ul>
    <p v-if="trouble" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.too-late { border-left: 4px solid var(--warn); padding: 2px 0 2px 12px; display: grid; gap: 8px; }
ul { list-style: none; margin: 0; padding: 0; display: flex; flex-wrap: wrap; gap: 8px; }
button { border: 1.5px solid var(--line-strong); border-radius: 18px; background: none; color: var(--ink); min-height: 40px; padding: 4px 14px; font-weight: 600; text-align: left; }
</style>
