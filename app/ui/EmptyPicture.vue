<script setup lang="ts">
import type { FormId } from '~core/drawing/form-ids'
import { FORMS } from '~core/drawing/forms'

/** What could stand where nothing stands yet: pieces in broken line on an empty board. The words are beside it. */
const { forms } = defineProps<{ forms: readonly FormId[] }>()
const SIZE = 64, GAP = 22, EDGE = 14
const width = computed(() => forms.length * (SIZE + GAP) - GAP + 2 * EDGE)
</script>

<template>
  <svg class="nothing" :width="width" :height="SIZE + 12" :viewBox="`0 0 ${width} ${SIZE + 12}`" aria-hidden="true">
    <g v-for="(id, i) in forms" :key="id" :transform="`translate(${EDGE + i * (SIZE + GAP)} 4) scale(${SIZE / 100})`">
      <path :d="FORMS[id].edge" />
      <path v-for="l in FORMS[id].lines" :key="l" :d="l" class="line" />
    </g>
    <path :d="`M0 ${SIZE + 8}H${width}`" class="board" />
  </svg>
</template>

<style scoped>
.nothing { display: block; max-width: 100%; margin: 0 auto 12px; }
path { fill: none; stroke: var(--soft); stroke-width: 1.8; stroke-dasharray: 5 4; stroke-linejoin: round; vector-effect: non-scaling-stroke; }
.line { stroke-width: 1.2; opacity: 0.7; }
.board { stroke: var(--ink); stroke-width: 3; stroke-dasharray: none; }
</style>
