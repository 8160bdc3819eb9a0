<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import Select from 'primevue/select'
import Textarea from 'primevue/textarea'
import { castsOf, type FrozenRun } from '~core/plan/run'
import type { Waiting } from '~/sync/outbox'

/** Says an entry otherwise that was not taken: what it is of, or its words. When and who stay as they were. */
const { entry, run } = defineProps<{ entry?: Waiting, run?: FrozenRun }>()
const emit = defineEmits<{ mended: [change: Partial<Pick<Waiting['event'], 'data' | 'batch'>>], closed: [] }>()

const cast = ref(''), batch = ref<number>(), text = ref('')
const data = computed(() => (entry?.event.data ?? {}) as { readonly cast?: string, readonly text?: string, readonly note?: string })
const casts = computed(() => run ? castsOf(run).map(c => ({ id: c.id, label: c.label })) : [])
const batches = computed(() => (run?.batches ?? []).map((_, i) => ({ id: i, label: `Batch ${i + 1}` })))
/** Which of its data is words. */
const worded = computed(() => (['text', 'note'] as const).find(key => typeof data.value[key] === 'string'))
watch(() => entry, () => {
  cast.value = casts.value.some(c => c.id === data.value.cast) ? data.value.cast! : ''
  batch.value = entry?.event.batch !== undefined && entry.event.batch < batches.value.length ? entry.event.batch : undefined
  text.value = worded.value ? data.value[worded.value]! : ''
})
const whole = computed(() =>
  (data.value.cast === undefined || cast.value !== '')
  && (data.value.cast !== undefined || entry?.event.batch === undefined || batch.value !== undefined),
)
function mend() {
  emit('mended', {
    data: {
      ...data.value,
      ...data.value.cast !== undefined && { cast: cast.value },
      ...worded.value && { [worded.value]: text.value },
    } as Waiting['event']['data'],
    ...batch.value !== undefined && { batch: batch.value },
  })
}
</script>

<template>
  <Dialog
    :visible="entry !== undefined"
    modal
    header="Mend this entry"
    :style="{ width: 'min(460px, 95vw)' }"
    @update:visible="emit('closed')">
    <form @submit.prevent="mend">
      <p class="soft">{{ entry?.refused }}</p>
      <div v-if="data.cast !== undefined" class="field">
        <span id="mend-cast" class="strong small">It is about</span>
        <Select v-model="cast" :options="casts" option-label="label" option-value="id" aria-labelledby="mend-cast" />
      </div>
      <div v-else-if="entry?.event.batch !== undefined" class="field">
        <span id="mend-batch" class="strong small">It belongs to</span>
        <Select
          v-model="batch"
          :options="batches"
          option-label="label"
          option-value="id"
          aria-labelledby="mend-batch" />
      </div>
      <div v-if="worded" class="field">
        <label for="mend-text">Its words</label>
        <Textarea id="mend-text" v-model="text" rows="4" maxlength="2000" />
      </div>
      <p v-if="data.cast === undefined && entry?.event.batch === undefined && !worded">
        There is nothing in it that can be said otherwise. Note it again where it belongs; this one stays here.
      </p>
      <Button v-else type="submit" label="Send it so" :disabled="!whole" />
    </form>
  </Dialog>
</template>

<style scoped>
form { display: grid; gap: 14px; }
</style>
