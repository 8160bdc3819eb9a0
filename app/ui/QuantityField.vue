<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { formatLength, formatMass, formatTemperature, formatVolume, formatDuration } from '~core/units/format'
import { parseQuantity } from '~core/units/parse'
import { unreadWords } from '~core/units/words'
import type { UnitKind } from '~core/units/units'
import { useSession } from '~/sync/session'

/**
 * A number with its unit, read as people type it. SI outside; a value that cannot be read is refused in words and the
 * old one kept.
 */
const {
  modelValue = undefined,
  kind,
  label,
  hideLabel = false,
  clearable = false,
  problem = '',
  invalid = false,
  check,
} = defineProps<{
  modelValue?: number
  kind: UnitKind
  label: string
  hideLabel?: boolean
  /** Emptied, it means “not decided”. */
  clearable?: boolean
  /** A sentence from outside about this field. */
  problem?: string
  invalid?: boolean
  /** A further rule; returns a sentence when the value will not do. */
  check?: (value: number) => string | undefined
}>()
const emit = defineEmits<{
  /** Whatever it says now; nothing when it was emptied. */
  'update:modelValue': [value: number | undefined]
  /** A number, as it is typed. */
  'given': [value: number]
  /** A number other than nothing. */
  'amount': [value: number]
  /** Told once the value is final: on leaving the field or Enter. */
  'settled': [value: number]
}>()
const session = useSession()
const id = useId()
const typed = ref('')
const typing = ref(false)
const touched = ref(false)
const own = ref('')

const write: Record<UnitKind, (value: number) => string> = {
  mass: v => formatMass(v, session.units),
  volume: v => formatVolume(v, session.units),
  length: v => formatLength(v, session.units),
  temperature: v => formatTemperature(v, session.units),
  time: v => formatDuration(v),
}
const shown = computed(() => typing.value ? typed.value : modelValue === undefined ? '' : write[kind](modelValue))
const sentence = computed(() => own.value || problem)

function tell(value: number | undefined) {
  emit('update:modelValue', value)
  if (value !== undefined) emit('given', value)
  if (value) emit('amount', value)
}
function read(final: boolean) {
  if (typed.value.trim() === '') {
    if (clearable && touched.value) tell(undefined)
    return
  }
  const parsed = parseQuantity(typed.value, kind, session.units)
  const wrong = parsed.ok ? check?.(parsed.value) : unreadWords(parsed)
  if (parsed.ok && !wrong) {
    own.value = ''
    tell(parsed.value)
    if (final) emit('settled', parsed.value)
  }
  else if (final) own.value = `${wrong}${modelValue === undefined ? '' : ' The old value is kept.'}`
}
function begin(event: FocusEvent) {
  typed.value = shown.value
  typing.value = true
  touched.value = false
  void nextTick(() => (event.target as HTMLInputElement).select())
}
function input(event: Event) {
  typed.value = (event.target as HTMLInputElement).value
  touched.value = true
  own.value = ''
  read(false)
}
/** Reads what stands there for good, once. */
function settle() {
  if (touched.value) read(true)
  touched.value = false
}
function end() {
  settle()
  typing.value = false
}
</script>

<template>
  <div class="quantity">
    <label :for="id" :class="{ 'sr-only': hideLabel }">{{ label }}</label>
    <InputText
      :id="id"
      class="num box"
      :model-value="shown"
      :invalid="sentence !== '' && (own !== '' || invalid)"
      :aria-describedby="sentence ? `${id}-says` : undefined"
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      @focus="begin"
      @input="input"
      @blur="end"
      @keydown.enter="settle" />
    <p v-if="sentence" :id="`${id}-says`" :class="['problem', { warn: own === '' && !invalid }]" role="alert">
      {{ sentence }}
    </p>
  </div>
</template>

<style scoped>
.quantity { display: grid; grid-template-columns: 1fr auto; align-items: center; gap: 2px 10px; }
label { font-weight: 600; }
.box { width: 9.2em; text-align: right; padding: 0.35rem 0.55rem; font-size: 0.95rem; }
.problem { grid-column: 1 / -1; }
</style>
