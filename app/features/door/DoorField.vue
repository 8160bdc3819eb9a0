<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import { ANY, FIELDS, type FieldId } from '~core/units/fields'
import { formatQuantity } from '~core/units/format'
import { unreadOf } from '~core/units/parse'
import { readQuantity, writingOf } from '~core/units/reading/read-quantity'
import type { UnitKind, UnitPreferences } from '~core/units/units'
import { optionWords, unreadWords } from '~core/units/words'

/** A quantity as people type it, in any unit; what cannot be read is said at its place, and the old value stands. */
const { modelValue, kind, field, label, units } = defineProps<{
  modelValue: number | undefined
  kind: UnitKind
  field?: FieldId
  label: string
  units: UnitPreferences
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()
const id = useId(), typed = ref<string>(), why = ref(''), others = ref<readonly { value: number, words: string }[]>([])
const shown = computed(() => typed.value ?? (modelValue ? formatQuantity(kind, modelValue, units) : ''))
function read(event: Event, final: boolean) {
  const text = (event.target as HTMLInputElement).value
  typed.value = final ? undefined : text
  if (text.trim() === '') return
  const found = readQuantity(text, field ? FIELDS[field] : ANY[kind], writingOf(units))
  if (found.code === 'read') {
    why.value = ''
    others.value = []
    return emit('update:modelValue', found.reading.value)
  }
  if (!final) return
  why.value = unreadWords(unreadOf(found, kind, text.trim()), units)
  others.value = found.code === 'ask'
    ? found.options.map(o => ({ value: o.value, words: optionWords(o, kind, units) }))
    : []
}
function choose(value: number) {
  why.value = ''
  others.value = []
  emit('update:modelValue', value)
}
</script>

<template>
  <div class="of">
    <label :for="id">{{ label }}</label>
    <input
      :id="id"
      class="num"
      :value="shown"
      autocomplete="off"
      :aria-invalid="why !== '' && others.length === 0 ? true : undefined"
      :aria-describedby="why ? `${id}-why` : undefined"
      @input="read($event, false)"
      @change="read($event, true)"
    >
    <p v-if="why" :id="`${id}-why`" class="why" role="status">{{ why }}</p>
    <p v-if="others.length > 0" class="others">
      <button v-for="o in others" :key="o.words" type="button" @click="choose(o.value)">{{ o.words }}</button>
    </p>
  </div>
</template>

<style scoped>
.of { display: grid; gap: 3px; align-content: start; min-width: 0; }
label { font-weight: 600; font-size: 0.92rem; }
input { width: 100%; min-height: 44px; padding: 6px 10px; border: 1.5px solid var(--line-strong); border-radius: 9px; background: var(--sheet); }
input[aria-invalid] { border-color: var(--heat); }
.why { color: var(--heat); font-size: 0.88rem; }
.others { display: flex; flex-wrap: wrap; gap: 6px; }
.others button { min-height: 32px; border: 1.5px solid var(--ink); border-radius: 16px; background: var(--sheet); padding: 2px 12px; font-weight: 600; }
</style>
