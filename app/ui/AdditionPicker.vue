<script setup lang="ts">
import Select from 'primevue/select'
import { ADDITIONS, additionKind, type Addition, type AdditionId } from '~core/gypsum/additions'
import { formatPercent } from '~core/units/format'
import Stepper from '~/ui/Stepper.vue'

/** What goes in beside powder and water: each with its dose, what it does, and where the dose becomes harmful. */
const { additions } = defineProps<{ additions: readonly Addition[] }>()
const emit = defineEmits<{ change: [additions: readonly Addition[]] }>()
const rows = computed(() => additions.map(a => ({ ...a, kind: additionKind(a.id) })))
const unused = computed(() => ADDITIONS.filter(a => !additions.some(x => x.id === a.id)))
const SURE = {
  'physics': '',
  'order of magnitude': 'Effect known to an order of magnitude: try a cup.',
  'direction only': 'Only the direction of its effect is known: try a cup.',
} as const

function setShare(id: AdditionId, percent: number) {
  emit(
    'change',
    percent > 0
      ? additions.map(a => a.id === id ? { id, share: percent / 100 } : a)
      : additions.filter(a => a.id !== id),
  )
}
function add(id: AdditionId | null) {
  if (id)
    emit('change', [...additions, {
      id,
      share: Math.max(additionKind(id).step, Math.min(additionKind(id).most, additionKind(id).step * 2)),
    }])
}
</script>

<template>
  <div class="additions">
    <div v-for="r in rows" :key="r.id" class="one">
      <span class="strong">{{ r.kind.name }}</span>
      <Stepper
        :label="`${r.kind.name}, percent of the powder’s weight`"
        unit=" %"
        :max="200"
        :step="r.kind.step * 100"
        :model-value="Number((r.share * 100).toFixed(3))"
        @update:model-value="setShare(r.id, $event)"
      />
      <p class="small soft full">
        {{ r.kind.does }} {{ SURE[r.kind.sure] }}
        <span :class="{ over: r.share > r.kind.harmful }">Harmful above {{ formatPercent(r.kind.harmful) }}.</span>
      </p>
    </div>
    <Select
      v-if="unused.length > 0"
      :key="additions.length"
      :model-value="null"
      :options="[...unused]"
      option-label="name"
      option-value="id"
      placeholder="Add to the mix: colour, sand, salt, citrate …"
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
.over { color: var(--heat); font-weight: 600; }
</style>
