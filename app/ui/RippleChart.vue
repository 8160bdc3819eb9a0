<script setup lang="ts">
import type { Milestone } from '~core/pour/milestones'
import { layoutRipples } from '~core/pour/ripples'
import { formatDuration, formatDurationRange } from '~core/units/format'

/** The ripple chart: one batch from the drop to dry. */
const { milestones, now, before = 3, size = 440, letter = 15 } = defineProps<
  { milestones: readonly Milestone[], now?: number, before?: number, size?: number, letter?: number }
>()
const layout = computed(() => layoutRipples(milestones, now, before, size, letter))
const ring = (inner: number, outer: number) =>
  `M${outer} 0A${outer} ${outer} 0 0 1 0 ${outer}L0 ${inner}A${inner} ${inner} 0 0 0 ${inner} 0Z`
const arc = (r: number) => `M${r} 0A${r} ${r} 0 0 1 0 ${r}`
const sector = (r: number) => `M0 0L${r} 0A${r} ${r} 0 0 1 0 ${r}Z`
/** Half the width of a label's plate. */
const half = (a: { word: string, past: boolean }) => letter * 0.3 * (a.word.length + (a.past ? 3.2 : 1.2))
const spoken = computed(() => milestones.map(m => m.actual !== undefined
  ? `${m.word} was after ${formatDuration(m.actual)}`
  : `${m.word} expected after ${formatDurationRange(m.low, m.high)}`))
</script>

<template>
  <figure class="ripples">
    <svg
      :viewBox="`-2 ${-letter * 2.4} ${size + 8} ${size + letter * 2.6}`"
      role="img"
      :aria-label="`Ripple chart, time after powder met water. ${spoken.join('. ')}.`"
    >
      <path v-if="layout.now > 0" :d="sector(layout.now)" class="disc" />
      <path :d="sector(layout.drop)" class="drop" />
      <path v-for="(t, i) in layout.ticks" :key="i" :d="arc(t.r)" :class="['tick', { done: t.done }]" />
      <g v-for="a in layout.arcs" :key="a.id" :class="['ripple', `tone-${a.tone}`, { past: a.past }]">
        <path v-if="!a.past" :d="ring(a.inner, a.outer)" class="band" />
        <path :d="arc(a.r)" class="line" />
      </g>
      <path v-if="layout.now > 0" :d="arc(layout.now)" class="edge" />
      <line x1="-2" :x2="size + 4" y1="0" y2="0" class="surface" />
      <g v-for="t in layout.axis" :key="t.label">
        <line :x1="t.x" :x2="t.x" :y1="-letter * 0.5" y2="0" class="surface" />
        <text :x="t.x" :y="-letter * 0.85" text-anchor="middle" class="num axis" :font-size="letter * 0.8">
          {{ t.label }}
        </text>
      </g>
      <g v-for="a in layout.arcs" :key="`label-${a.id}`" :class="[`tone-${a.tone}`]">
        <rect
          :x="a.label.x - half(a)"
          :y="a.label.y - letter * 0.66"
          :width="2 * half(a)"
          :height="letter * 1.32"
          :rx="letter * 0.3"
          class="plate" />
        <text :x="a.label.x" :y="a.label.y + letter * 0.35" text-anchor="middle" :font-size="letter" font-weight="640">
          {{ a.word }}{{ a.past ? ' ✓' : '' }}
        </text>
      </g>
    </svg>
  </figure>
</template>

<style scoped>
svg { display: block; width: 100%; height: auto; }
.disc { fill: var(--powder-mid); opacity: 0.42; }
.edge { fill: none; stroke: var(--powder); stroke-width: 3; }
.drop { fill: var(--powder-mid); }
.tick { fill: none; stroke: var(--ground); stroke-width: 2; opacity: 0.45; }
.tick.done { opacity: 1; }
.band { opacity: 0.24; }
.line { fill: none; stroke-width: 1.6; }
.past .line { stroke-width: 3; }
.surface { stroke: var(--line-strong); stroke-width: 1; }
.axis { fill: var(--soft); }
.plate { fill: var(--ground); }
.tone-powder .band { fill: var(--powder-mid); } .tone-powder .line { stroke: var(--powder-mid); }
.tone-water .band { fill: var(--water); } .tone-water .line { stroke: var(--water); }
.tone-mix .band { fill: var(--mix); } .tone-mix .line { stroke: var(--mix); }
.tone-heat .band { fill: var(--heat); } .tone-heat .line { stroke: var(--heat); }
.tone-set .band { fill: var(--set); } .tone-set .line { stroke: var(--set); }
.tone-air .band { fill: var(--air); } .tone-air .line { stroke: var(--air); }
</style>
