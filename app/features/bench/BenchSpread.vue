<script setup lang="ts">
import Dialog from 'primevue/dialog'
import type { FrozenRun } from '~core/plan/run'
import type { BatchState } from '~core/pour/fold'
import type { BagBody } from '~contract/library'
import SpreadTest from '~/features/powders/SpreadTest.vue'
import { useLibrary } from '~/sync/library'

/** The mix in hand let run from a ring: half a minute that says whether ratio and bag are what they were. */
const { open, run, batch, wetFor } = defineProps<{
  open: boolean
  run: FrozenRun
  batch: BatchState
  /** Since powder met water, s. */
  wetFor: number
}>()
const emit = defineEmits<{ closed: [] }>()
const library = useLibrary()
const trouble = ref(''), said = ref(''), busy = ref(false), lifted = ref(0)
const bag = computed(() => library.items.bag.find(b => b.id === run.world.bag?.id))
const mix = computed(() => ({
  ratio: batch.ratio ?? run.ratio.value,
  celsius: Math.round(batch.water ?? run.plan.waterTemperature),
  after: Math.round(lifted.value),
}))
// The ring is lifted as this is opened, or just after: the minute counts.
watch(() => open, async (now) => {
  if (!now) return
  lifted.value = wetFor
  trouble.value = said.value = ''
  await library.load()
  if (!bag.value) trouble.value = 'This bag is not among your powders any more.'
}, { immediate: true })
async function keep(change: Partial<BagBody>, words: string) {
  busy.value = true
  try {
    await library.save('bag', bag.value!.id, { ...bag.value!.body, ...change }, bag.value)
    said.value = words
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  busy.value = false
}
</script>

<template>
  <Dialog
    :visible="open"
    modal
    :header="`How it flows${bag ? `: ${bag.body.name}` : ''}`"
    :style="{ width: 'min(600px, 95vw)' }"
    @update:visible="emit('closed')">
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="said" role="status" class="strong">{{ said }}</p>
    <SpreadTest v-if="bag" :body="bag.body" :busy="busy" :mix="mix" @kept="keep" />
  </Dialog>
</template>
