<script setup lang="ts">
import { format } from 'date-fns'
import { layOutDay, type Block, type DayRow } from '~core/schedule/day'
import { BLOCK_WORDS, rowWords } from '~core/schedule/words'
import type { Timetable } from '~core/schedule/round'
import { useWidth } from '~/ui/width'
import { instantOf, unitOf } from './hours'

/**
 * One day of a plan on one axis of time: hands above, moulds and buckets below, what is past paler, the next act loudest.
 * Whoever cannot see it has each row as a sentence.
 */
const { table, zero, day, now, people, shapes, copies, buckets } = defineProps<{
  table: Timetable
  /** Instant of unit 0, and the day that is drawn: any instant in it. */
  zero: number
  day: number
  now: number
  people: readonly string[]
  shapes: readonly string[]
  copies: readonly number[]
  buckets: number
}>()
const box = ref<HTMLElement>()
const measured = useWidth(box), width = computed(() => Math.max(320, measured.value))
const NAME = 132, ROW = 22, TALL = 40, HEAD = 22, HOUR_MS = 3_600_000
const begins = computed(() => new Date(day).setHours(0, 0, 0, 0)), ends = computed(() => new Date(begins.value).setHours(24, 0, 0, 0))
/** The hours that something is done in, with one before. */
const span = computed(() => {
  const from = unitOf(zero, begins.value), to = unitOf(zero, ends.value)
  const own = table.tasks.filter(t => t.to > from && t.from < to)
  if (own.length === 0) return { from: begins.value + 8 * HOUR_MS, to: begins.value + 18 * HOUR_MS }
  const first = instantOf(zero, Math.min(...own.map(t => t.from))), last = instantOf(zero, Math.max(...own.map(t => t.to)))
  return { from: Math.floor((first - 6 * 60_000) / HOUR_MS) * HOUR_MS, to: Math.ceil((last + 6 * 60_000) / HOUR_MS) * HOUR_MS }
})
const hours = computed(() =>
  Array.from({ length: Math.round((span.value.to - span.value.from) / HOUR_MS) + 1 }, (_, i) => span.value.from + i * HOUR_MS))
const rows = computed(() => layOutDay(
  table, { persons: people.length, copies, buckets }, unitOf(zero, span.value.from), unitOf(zero, span.value.to),
))
const x = (instant: number) =>
  NAME + (width.value - NAME - 8) * Math.min(1, Math.max(0, (instant - span.value.from) / (span.value.to - span.value.from)))
const xOf = (unit: number) => x(instantOf(zero, unit))
const nameOf = ({ of, number, shape = 0 }: DayRow): string => {
  if (of === 'person') return people[number] || (people.length === 1 ? 'You' : `Person ${number + 1}`)
  if (of === 'bucket') return buckets === 1 ? 'Bucket' : `Bucket ${number + 1}`
  return copies[shape] === 1 ? shapes[shape]! : `${shapes[shape]} ${number + 1}`
}
const drawn = computed(() => {
  let at = HEAD
  return rows.value.map((row) => {
    const tall = row.of === 'person' ? TALL : ROW, y = at
    at += tall + (row.of === 'person' ? 8 : 4)
    return { ...row, y, tall, name: nameOf(row), says: rowWords(row, nameOf(row), unit => format(instantOf(zero, unit), 'HH:mm')) }
  })
})
const height = computed(() => (drawn.value.at(-1)?.y ?? HEAD) + ROW + 10)
/** The first thing that hands do from now on. */
const next = computed(() => {
  const at = unitOf(zero, now)
  return [...table.tasks].filter(t => t.to > at).sort((a, b) => a.from - b.from)[0]
})
const isNext = (row: DayRow, block: Block) =>
  row.of === 'person' && next.value?.person === row.number && next.value.from === block.from && next.value.kind === block.what
const isPast = (block: Block) => instantOf(zero, block.to) <= now
const wide = (block: Block) => Math.max(1.5, xOf(block.to) - xOf(block.from) - 1)
const numberOf = (block: Block) => block.mix < 0 ? '' : String(block.mix + 1)
const KEY: readonly Block['what'][] = ['weigh', 'sift', 'fill', 'clean', 'open', 'set']
</script>

<template>
  <div ref="box" class="day">
    <svg :width="width" :height="height" aria-hidden="true">
      <g v-for="hour in hours" :key="hour">
        <line :x1="x(hour)" :x2="x(hour)" :y1="HEAD - 4" :y2="height" class="hour" />
        <text :x="x(hour)" y="13" text-anchor="middle" class="num small">{{ format(hour, 'H') }}</text>
      </g>
      <g v-for="row in drawn" :key="`${row.of} ${row.shape ?? ''} ${row.number}`">
        <text :x="0" :y="row.y + row.tall / 2 + 5" :class="['name', { strong: row.of === 'person' }]">{{ row.name }}</text>
        <line :x1="NAME" :x2="width - 8" :y1="row.y + row.tall" :y2="row.y + row.tall" class="rule" />
        <template v-for="(b, i) in row.blocks" :key="i">
          <rect
            :x="xOf(b.from)" :y="row.y" :width="wide(b)" :height="row.tall" rx="2"
            :class="['block', b.what, { past: isPast(b), next: isNext(row, b) }]" />
          <text
            v-if="wide(b) > 17 && (b.what === 'fill' || b.what === 'in-use') && row.of !== 'mould'"
            :x="xOf(b.from) + wide(b) / 2" :y="row.y + row.tall / 2 + 5" text-anchor="middle" class="num small on">{{ numberOf(b) }}</text>
        </template>
      </g>
      <line v-if="now > span.from && now < span.to" :x1="x(now)" :x2="x(now)" :y1="HEAD - 6" :y2="height" class="now" />
    </svg>
    <p class="key small" aria-hidden="true">
      <span v-for="what in KEY" :key="what"><i :class="['block', what]" />{{ BLOCK_WORDS[what] }}</span>
    </p>
    <ul class="sr-only">
      <li v-for="row in drawn" :key="row.name">{{ row.says }}</li>
    </ul>
  </div>
</template>

<style scoped>
.day { overflow-x: clip; }
.name { font-size: 0.84rem; }
.name.strong { font-size: 0.95rem; }
.hour { stroke: var(--line); }
.rule { stroke: var(--line); }
.now { stroke: var(--ink); stroke-width: 2; stroke-dasharray: 4 3; }
.block { stroke: none; }
.block.weigh { fill: var(--mix-soft); background: var(--mix-soft); }
.block.sift { fill: var(--powder-mid); background: var(--powder-mid); }
.block.fill { fill: var(--powder); background: var(--powder); }
.block.clean { fill: var(--water-soft); background: var(--water-soft); }
.block.open { fill: var(--set); background: var(--set); }
.block.set { fill: var(--set-soft); background: var(--set-soft); }
.block.in-use { fill: var(--line-strong); }
.block.past { opacity: 0.4; }
.block.next { fill: var(--now); stroke: var(--ink); stroke-width: 2; }
svg text.on { fill: var(--ground); font-weight: 700; }
.key { display: flex; flex-wrap: wrap; gap: 4px 16px; padding-top: 8px; }
.key i { display: inline-block; width: 22px; height: 12px; border-radius: 2px; margin-right: 6px; vertical-align: -1px; }
</style>
