<script setup lang="ts">
import InputText from 'primevue/inputtext'
import { ANY, FIELDS, type FieldId } from '~core/units/fields'
import { formatQuantity } from '~core/units/format'
import { unreadOf } from '~core/units/parse'
import { readQuantity, writingOf, type Reading } from '~core/units/reading/read-quantity'
import { optionWords, readingWords, unreadWords, wantsEcho } from '~core/units/words'
import { regionOf, type UnitKind } from '~core/units/units'
import { useSession } from '~/sync/session'
import MeantButtons from './MeantButtons.vue'

/**
 * A number with its unit, read as people type it. SI outside; what was understood stands beside it where it may be
 * another thing, with one press for that; a value that cannot be read is refused in words and the old one kept.
 */
const {
  modelValue = undefined,
  kind,
  field = undefined,
  label,
  hideLabel = false,
  clearable = false,
  problem = '',
  invalid = false,
  check,
} = defineProps<{
  modelValue?: number
  kind: UnitKind
  /** What it is of, where that says what makes sense in it. */
  field?: FieldId
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
/** What was understood of what stands there, what else it may be, and what it is asked about. */
const understood = ref<Reading>(), others = shallowRef<readonly Reading[]>([])
const echo = computed(() => {
  const reading = understood.value
  return reading && (others.value.length > 0 || wantsEcho(reading, kind, session.units))
    ? readingWords(reading, kind, session.units)
    : ''
})

const shown = computed(() => {
  if (typing.value) return typed.value
  return modelValue === undefined ? '' : formatQuantity(kind, modelValue, session.units)
})
const sentence = computed(() => own.value || problem)

function tell(value: number | undefined) {
  emit('update:modelValue', value)
  if (value !== undefined) emit('given', value)
  if (value) emit('amount', value)
}
// What is set from elsewhere was not typed here.
watch(() => modelValue, (now) => {
  if (understood.value === undefined || now === understood.value.value) return
  understood.value = undefined
  others.value = []
})
function take(reading: Reading, final: boolean) {
  const wrong = check?.(reading.value)
  if (wrong) return final ? refuse(wrong) : undefined
  own.value = ''
  understood.value = reading
  tell(reading.value)
  if (final) emit('settled', reading.value)
}
function refuse(why: string) {
  own.value = `${why}${modelValue === undefined ? '' : ' The old value is kept.'}`
}
function read(final: boolean) {
  understood.value = undefined
  others.value = []
  if (typed.value.trim() === '') {
    if (clearable && touched.value) tell(undefined)
    return
  }
  const found = readQuantity(typed.value, field ? FIELDS[field] : ANY[kind], writingOf(session.units))
  if (found.code === 'read') {
    // A bare number of degrees is what the workshop's thermometers show.
    if (found.other && kind !== 'temperature') others.value = [found.other]
    return take(found.reading, final)
  }
  if (!final) return
  const words = unreadWords(unreadOf(found, kind, typed.value.trim()), session.units)
  if (found.code !== 'ask') return refuse(words)
  others.value = found.options
  own.value = words
}
/** A question, with its answers below it: nothing was typed wrongly. */
const asks = computed(() => own.value !== '' && others.value.length > 0)
const choices = computed(() => others.value.map(o =>
  ({ meant: o, name: `${optionWords(o, kind, session.units)}${understood.value ? '?' : ''}` })))
/** The other reading is meant; whose pints and cups a workshop measures in is asked once. */
function choose(reading: Reading) {
  const before = understood.value, { region } = reading.parts[0]!.unit
  others.value = before ? [before] : []
  if (region && !regionOf(session.units) && session.isOwner) void session.changeUnits({ region })
  typing.value = false
  take(reading, true)
}
function begin(event: FocusEvent) {
  typed.value = shown.value
  typing.value = true
  touched.value = false
  understood.value = undefined
  others.value = []
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
      :invalid="sentence !== '' && (own !== '' || invalid) && !asks"
      :aria-describedby="[...sentence ? [`${id}-says`] : [], ...echo ? [`${id}-read`] : []].join(' ') || undefined"
      autocomplete="off"
      autocapitalize="off"
      spellcheck="false"
      @focus="begin"
      @input="input"
      @blur="end"
      @keydown.enter="settle" />
    <p v-if="sentence" :id="`${id}-says`" :class="asks ? 'question' : ['problem', { warn: own === '' && !invalid }]" role="alert">
      {{ sentence }}
    </p>
    <p v-if="echo" :id="`${id}-read`" class="echo" role="status">{{ echo }}</p>
    <MeantButtons v-if="others.length > 0" class="others" :options="choices" :of="label" @choose="choose" />
  </div>
</template>

<style scoped>
.quantity { display: grid; grid-template-columns: 1fr auto; align-items: center; gap: 2px 10px; }
label { font-weight: 600; }
.box { width: 9.2em; text-align: right; padding: 0.35rem 0.55rem; font-size: 0.95rem; }
.problem, .question, .echo, .others { grid-column: 1 / -1; }
.question { margin: 0; text-align: right; font-size: 0.9rem; }
.echo { margin: 0; text-align: right; font-size: 0.85rem; color: var(--soft); }
</style>
