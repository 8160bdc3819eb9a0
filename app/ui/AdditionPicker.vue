<script setup lang="ts">
import Select from 'primevue/select'
import {
  ADDITIONS, additionKind, setEffect, type Addition, type AdditionId, type Sureness,
} from '~core/gypsum/additions'
import type { SchoolId } from '~core/gypsum/schools'
import { wayIn, waysIn, type WayIn } from '~core/gypsum/ways-in'
import { WAY_IN_WORDS } from '~core/gypsum/words'
import { formatPercent } from '~core/units/format'
import Stepper from '~/ui/Stepper.vue'

/** What goes in beside powder and water: each with its dose, what it does, and where the dose becomes harmful. */
const { additions, gloss, school } = defineProps<{
  additions: readonly Addition[]
  /** How it is mixed: then a colour has its ways to go in. */
  school?: SchoolId
  /** When the gloss goes of the mix as it is, s: what each does to that is told in minutes. */
  gloss?: number
}>()
const emit = defineEmits<{ change: [additions: readonly Addition[]] }>()
const rows = computed(() => additions.map(a => ({ ...a, kind: additionKind(a.id) })))
const unused = computed(() => ADDITIONS.filter(a => !additions.some(x => x.id === a.id)))
const SURE: Readonly<Record<Sureness, string>> = {
  'physics': '',
  'order of magnitude': 'That way for certain, how much to an order of magnitude: try a cup.',
  'direction only': 'Likely; only the direction is known: try a cup.',
  'saying': 'A saying, weak or untrue: try a cup.',
}
/** Minutes that the gloss goes sooner or later for it, with their range. */
function shift(addition: Addition): string {
  const effect = setEffect(addition)
  if (!effect || !gloss || !Number.isFinite(gloss)) return ''
  const without = gloss / effect.factor
  const minutes = (factor: number) => {
    const exact = without * (factor - 1) / 60, size = Math.abs(exact), step = size >= 60 ? 10 : size >= 20 ? 5 : 1
    return Math.round(exact / step) * step
  }
  const [a, b] = [effect.low, effect.high].map(minutes).sort((x, y) => Math.abs(x) - Math.abs(y)) as [number, number]
  if (b === 0) return 'No minute either way.'
  const range = a === b ? `${Math.abs(b)}` : `${Math.abs(a)} to ${Math.abs(b)}`
  return `The gloss goes ${range} min ${b < 0 ? 'sooner' : 'later'} for it.`
}

function setShare(id: AdditionId, percent: number) {
  emit(
    'change',
    percent > 0
      ? additions.map(a => a.id === id ? { ...a, share: percent / 100 } : a)
      : additions.filter(a => a.id !== id),
  )
}
const waysOf = (id: AdditionId) => (school ? waysIn(id, school) : []).map(way => ({ id: way, name: WAY_IN_WORDS[way].name }))
const wayOf = (a: Addition) => school && wayIn(a, school)
const comes = (a: Addition) => {
  const way = wayOf(a)
  return way && waysOf(a.id).length > 1 ? WAY_IN_WORDS[way].comes : ''
}
const setWay = (id: AdditionId, way: WayIn) =>
  emit('change', additions.map(a => a.id === id ? { ...a, way } : a))
function add(id: AdditionId | null) {
  if (id)
    emit('change', [...additions, {
      id,
      share: additionKind(id).instead ? 1 : Math.max(additionKind(id).step, Math.min(additionKind(id).most, additionKind(id).step * 2)),
    }])
}
</script>

<template>
  <div class="additions">
    <div v-for="r in rows" :key="r.id" class="one">
      <span class="strong">{{ r.kind.name }}</span>
      <button v-if="r.kind.instead" class="drop" @click="setShare(r.id, 0)">Without</button>
      <Stepper
        v-else
        :label="`${r.kind.name}, percent of the powder’s weight`"
        unit=" %"
        :max="200"
        :step="r.kind.step * 100"
        :model-value="Number((r.share * 100).toFixed(3))"
        @update:model-value="setShare(r.id, $event)"
      />
      <Select
        v-if="waysOf(r.id).length > 1"
        class="full"
        :model-value="wayOf(r)"
        :options="waysOf(r.id)"
        option-label="name"
        option-value="id"
        :aria-label="`How it goes in: ${r.kind.name}`"
        fluid
        @update:model-value="setWay(r.id, $event)"
      />
      <p class="small soft full">
        {{ r.kind.does }} {{ comes(r) }} {{ shift(r) }} {{ SURE[r.kind.sure] }}
        <span v-if="!r.kind.instead" :class="{ over: r.share > r.kind.harmful }">Harmful above {{ formatPercent(r.kind.harmful) }}.</span>
      </p>
    </div>
    <Select
      v-if="unused.length > 0"
      :key="additions.length"
      :model-value="null"
      :options="[...unused]"
      option-label="name"
      option-value="id"
      placeholder="Add to the mix: colour, sand, salt, milk …"
      aria-label="Add to the mix"
      fluid
      @update:model-value="add"
    />
  </div>
</template>

<style scoped>
.additions { display: grid; grid-template-columns: minmax(0, 1fr); gap: 10px; }
.one { display: grid; grid-template-columns: minmax(74px, 1fr) auto; gap: 3px 10px; align-items: center; }
.full { grid-column: 1 / -1; }
.drop { border: 1px solid var(--line-strong); border-radius: 9px; background: none; min-height: 32px; padding: 2px 12px; }
.over { color: var(--heat); font-weight: 600; }
</style>
