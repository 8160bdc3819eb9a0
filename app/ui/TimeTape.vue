<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import { layoutTape, tapeReach, tapeScale, type TapeInput } from '~core/drawing/tape'
import { TAPE_WORDS, tapeTime, tapeWords } from '~core/drawing/words'
import { useWidth } from './width'

/** The edge of the table: the acts of one bucket on a strip of tape, how warm it gets, and where it is now. */
const { tape, now, until, warm, marks = [] } = defineProps<{
  tape: TapeInput
  /** Seconds after powder met water; undefined before that. */
  now?: number
  /** How far it reaches, s; else as far as is worth looking ahead. */
  until?: number
  /** What stands on the piece where it is left alone, instead of its own words. */
  warm?: string
  /** What else is due, with a word or two below. */
  marks?: readonly { readonly at: number, readonly words: string }[]
}>()
const HEIGHT = 40, TOP = 14, LETTER = 8.2
const box = ref<HTMLElement>(), measured = useWidth(box)
const width = computed(() => Math.max(240, measured.value))
const reach = computed(() => until ?? tapeReach(tape, now))
const drawn = computed(() => layoutTape(tape, width.value, reach.value, now))
const pieces = computed(() => drawn.value.pieces.map((p) => {
  const words = p.id === 'rest' ? warm ?? TAPE_WORDS.rest : TAPE_WORDS[p.id]
  return { ...p, words: p.width > LETTER * words.length + 8 ? words : '' }
}))
/** Below its place, or beside it where the tape would cut it off. */
const below = computed(() => drawn.value.ticks.map((t, i, all) => {
  const words = tapeTime(t.at, i === all.length - 1), half = LETTER * words.length / 2
  return { ...t, words, anchor: t.x < half ? 'start' : t.x > width.value - half ? 'end' : 'middle' }
}))
/** What else is due, as far as its words keep clear of each other. */
const due = computed(() => {
  const place = tapeScale(reach.value, width.value)
  let free = -Infinity
  return marks.filter(m => m.at <= reach.value && m.at > (now ?? 0)).flatMap((m) => {
    const x = place(m.at), room = LETTER * m.words.length
    if (x < free || x + room > width.value) return []
    free = x + room + 12
    return [{ x, words: m.words }]
  })
})
const says = computed(() => tapeWords(tape, now))
const id = useId()
</script>

<template>
  <div ref="box" class="tape">
    <svg
      v-if="measured > 0"
      :width="width"
      :height="TOP + HEIGHT + 22 + (due.length > 0 ? 18 : 0)"
      role="img"
      :aria-label="says"
    >
      <defs>
        <pattern :id="`${id}-late`" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="8" height="8" class="late-ground" />
          <line x1="0" y1="0" x2="0" y2="8" class="late-line" />
        </pattern>
      </defs>
      <rect
        v-for="p in pieces"
        :key="p.id"
        :x="p.x"
        :y="TOP"
        :width="p.width"
        :height="HEIGHT"
        :class="['piece', `of-${p.id}`, { past: p.past }]" />
      <rect
        v-for="(w, i) in drawn.warmth"
        :key="i"
        :x="w.x"
        :y="TOP"
        :width="w.width + 0.6"
        :height="HEIGHT"
        :fill="`var(--warmth-${w.step})`" />
      <rect
        v-if="drawn.trouble"
        :x="drawn.trouble.x"
        :y="TOP"
        :width="drawn.trouble.width"
        :height="HEIGHT"
        :style="{ fill: `url(#${id}-late)` }"
        class="trouble" />
      <rect x="1" :y="TOP" :width="width - 2" :height="HEIGHT" rx="3" class="edge" />
      <g v-for="p in pieces" :key="p.id">
        <line v-if="p.x > 1" :x1="p.x" :x2="p.x" :y1="TOP" :y2="TOP + HEIGHT" class="cut" />
        <text
          v-if="p.words"
          :x="p.x + p.width / 2"
          :y="TOP + HEIGHT / 2 + 5"
          text-anchor="middle"
          :class="['word', { warm: p.id === 'rest' && drawn.warmth.length > 0 }]"
        >{{ p.words }}</text>
      </g>
      <text
        v-for="t in below"
        :key="t.at"
        :x="t.x"
        :y="TOP + HEIGHT + 16"
        :text-anchor="t.anchor"
        class="num tick"
      >{{ t.words }}</text>
      <g v-for="d in due" :key="d.words">
        <line :x1="d.x" :x2="d.x" :y1="TOP + HEIGHT" :y2="TOP + HEIGHT + 34" class="cut thin" />
        <text :x="d.x + 5" :y="TOP + HEIGHT + 34" class="due">{{ d.words }}</text>
      </g>
      <g v-if="drawn.now !== undefined" class="needle">
        <path :d="`M${drawn.now - 9} 1h18l-9 12Z`" />
        <line :x1="drawn.now" :x2="drawn.now" :y1="TOP - 2" :y2="TOP + HEIGHT" class="under" />
        <line :x1="drawn.now" :x2="drawn.now" :y1="TOP - 2" :y2="TOP + HEIGHT" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.tape { min-width: 0; min-height: 76px; }
svg { display: block; overflow: visible; }
.of-sift { fill: var(--powder-soft); }
.of-water, .of-soak { fill: var(--water-soft); }
.of-stir, .of-knead { fill: var(--mix-soft); }
.of-fill { fill: var(--sheet); }
.of-rest { fill: var(--warmth-0); }
.of-open { fill: var(--set-soft); }
.past { opacity: 0.45; }
.late-ground { fill: var(--heat-soft); }
.late-line { stroke: var(--heat); stroke-width: 4; }
.trouble { stroke: var(--heat); stroke-width: 2; }
.edge { fill: none; stroke: var(--line-strong); stroke-width: 2; }
.cut { stroke: var(--line-strong); stroke-width: 2; }
.thin { stroke-width: 1; }
.word { fill: var(--ink); font-size: 14px; font-weight: 650; }
.word.warm { fill: #23292e; }
.tick, .due { fill: var(--soft); font-size: 13px; }
.needle path { fill: var(--now); stroke: var(--now-ink); stroke-width: 1.5; stroke-linejoin: round; }
.needle line { stroke: var(--now); stroke-width: 4; }
/* On a light ground yellow is never a line by itself. */
.needle .under { stroke: var(--now-ink); stroke-width: 7; }
</style>
