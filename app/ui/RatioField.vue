<script setup lang="ts">
import { understoodWords, readingName, saidRatioWords } from '~core/gypsum/saying-words'
import { readSaying, type Understood } from '~core/gypsum/saying/read-saying'
import { saturationRatio } from '~core/gypsum/mix'
import type { PowderClass, Span } from '~core/gypsum/powders'
import type { Reading } from '~core/gypsum/sayings'
import type { Scoop } from '~core/gypsum/schools'
import { formatConsistency } from '~core/units/format'
import { writingOf } from '~core/units/reading/read-quantity'
import { useSession } from '~/sync/session'
import MeantButtons from './MeantButtons.vue'

/**
 * Water to 100 powder, typed as a number or as people say it: “2 to 1 by volume”. What was understood stands below;
 * where two readings make sense it is asked which.
 */
const { modelValue = undefined, label, powder, filling = 'loose', bulk = undefined, temperature = 20 } = defineProps<{
  /** None while nobody has said. */
  modelValue?: number
  label: string
  powder: PowderClass
  filling?: Scoop['filling']
  bulk?: Span
  temperature?: number
}>()
const emit = defineEmits<{ 'update:modelValue': [ratio: number], 'emptied': [] }>()
const written = () => modelValue === undefined ? '' : formatConsistency(modelValue)
const session = useSession(), id = useId()
/** What is being typed: a page that is drawn anew in between must not take it back. */
const draft = ref<string>(), found = shallowRef<Understood>(), taken = shallowRef<Reading>()
const told = computed(() => found.value?.code === 'read' ? found.value : undefined)
const question = computed(() => found.value && !taken.value
  ? saidRatioWords(found.value, powder, saturationRatio(powder, temperature))
  : '')
/** A plain number stands in the field as it was typed: it needs no echo. */
const echo = computed(() => {
  const reading = taken.value
  if (!reading || !told.value || (told.value.readings.length === 1 && !wordy.value)) return ''
  return understoodWords({ ...told.value, readings: [reading] })
})
const wordy = ref(false)
const choices = computed(() => told.value && told.value.readings.length > 1
  ? told.value.readings.filter(r => r !== taken.value)
      .map(r => ({ meant: r, name: `${formatConsistency(r.ratio.value)} ${readingName(r)}` }))
  : [])

function take(reading: Reading) {
  taken.value = reading
  emit('update:modelValue', reading.ratio.value)
}
function typed(event: Event) {
  draft.value = undefined
  const field = event.target as HTMLInputElement, said = field.value
  if (said.trim() === '') {
    found.value = taken.value = undefined
    field.value = written()
    return emit('emptied')
  }
  wordy.value = !/^[\s\d.,]+%?$/.test(said)
  taken.value = undefined
  found.value = readSaying(said, {
    powder, filling, temperature, writing: writingOf(session.units), ...bulk && { bulk },
  })
  if (told.value?.readings.length === 1) take(told.value.readings[0]!)
  field.value = written()
}
/** What is set from elsewhere was not typed here; whoever takes a ratio may round it to a hundredth. */
watch(() => modelValue, (now) => {
  if (now === undefined || !taken.value || Math.abs(now - taken.value.ratio.value) > 0.006) found.value = taken.value = undefined
})
</script>

<template>
  <div class="ratio-field">
    <div class="line">
      <label :for="id" class="strong">{{ label }}</label>
      <input
        :id="id"
        class="num typed"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        maxlength="120"
        :value="draft ?? written()"
        :aria-describedby="question || echo ? `${id}-says` : undefined"
        @input="draft = ($event.target as HTMLInputElement).value"
        @change="typed"
        @focus="($event.target as HTMLInputElement).select()"
      >
    </div>
    <p v-if="question" :id="`${id}-says`" :class="told ? 'question' : 'problem'" role="alert">{{ question }}</p>
    <p v-else-if="echo" :id="`${id}-says`" class="echo small soft" role="status">{{ echo }}</p>
    <MeantButtons v-if="choices.length > 0" :options="choices" :of="label" @choose="take" />
  </div>
</template>

<style scoped>
.ratio-field { display: grid; gap: 4px; }
.line { display: flex; justify-content: space-between; align-items: center; gap: 10px; }
.echo, .question { margin: 0; text-align: right; }
.typed {
  width: 8.4em;
  text-align: right;
  font-weight: 700;
  font-size: 1.05rem;
  border: 1px solid var(--line-strong);
  border-radius: 9px;
  background: var(--sheet);
  color: inherit;
  padding: 0.3rem 0.5rem;
}
</style>
