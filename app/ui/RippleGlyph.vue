<script setup lang="ts">
import { layoutRipples } from '~core/pour/ripples'
import { useClock } from '~/sync/clock'
import type { Milestone } from '~core/pour/milestones'
import type { MilestoneMark } from '~core/pour/projection'

/**
 * The same drawing at the size of a letter: what has been is filled, what is to come is drawn. It reads the clock
 * itself, so that a list of it stands still.
 */
const { marks, wetAt, size = 30 } = defineProps<{ marks: readonly MilestoneMark[], wetAt?: number, size?: number }>()
const clock = useClock()
const layout = computed(() =>
  layoutRipples(marks as readonly Milestone[], wetAt === undefined ? undefined : (clock.beat - wetAt) / 1000, 3, 28),
)
const arc = (r: number) => `M${r} 0A${r} ${r} 0 0 1 0 ${r}`
const sector = (r: number) => `M0 0L${r} 0A${r} ${r} 0 0 1 0 ${r}Z`
</script>

<template>
  <svg :width="size" :height="size" viewBox="-0.5 -0.5 29 29" aria-hidden="true">
    <path v-if="layout.now > 0" :d="sector(layout.now)" fill="var(--powder-mid)" opacity="0.55" />
    <path
      v-for="a in layout.arcs"
      :key="a.id"
      :d="arc(a.r)"
      fill="none"
      :stroke="
        a.past ? 'var(--ink)' : a.id === 'open' ? 'var(--set)' : a.id === 'dry' ? 'var(--action)' : 'var(--line-strong)'
      "
      :stroke-width="a.id === 'open' || a.id === 'dry' ? 1.6 : 0.8" />
  </svg>
</template>
