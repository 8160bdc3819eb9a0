<script setup lang="ts">
import { eighths, formatLength, formatMass, formatVolume } from '~core/units/format'
import type { Batch } from '~core/plan/types'
import type { Vessel } from '~core/mould/gauge/vessel'
import type { SchoolId } from '~core/gypsum/schools'
import { useSession } from '~/sync/session'
import { CUT, layoutCut } from './cut'

const { batch, vessel, school, bucketName = 'bucket', approximate = false } = defineProps<
  {
    batch: Batch
    vessel?: Vessel
    school: SchoolId
    bucketName?: string /** The powder follows from the sifting. */
    approximate?: boolean
  }
>()
const units = computed(() => useSession().units)
const cut = computed(() => layoutCut(batch.fills, school === 'bag' ? undefined : vessel, batch.levels))
const about = computed(() => approximate ? 'about ' : '')
const mass = (kg: number) => formatMass(kg, units.value)
const length = (m: number) => formatLength(m, units.value)
const level = (id: 'water' | 'final' | 'safe') => cut.value.bucket?.levels.find(l => l.id === id)
const water = computed(() => level('water')),
  final = computed(() => level('final')),
  safe = computed(() => level('safe'))
const label = computed(() => {
  const b = batch
  const moulds = b.fills.map(f => `${f.copies} × ${f.mould.name}`).join(', ')
  return `To scale. ${mass(b.mix.water)} water${
    b.levels?.water ? `, standing ${length(b.levels.water)} high in the ${bucketName}` : ''
  }; ${about.value}${mass(b.mix.powder)} powder${
    b.levels ? `, then ${length(b.levels.final)} high` : ''
  }. Fills ${moulds}.`
})
/** The inside of a mould as it stands on the table, from its left lip to its right one. */
const insideOf = ({ x, wall, depth, inside }: (typeof cut.value.moulds)[number]) =>
  `M${inside.map(p => `${x + wall + p.x} ${cut.value.table - wall - depth + p.y}`).join('L')}`
const word = computed(() =>
  ({ water: 'Water line', final: water.value ? 'With powder in' : 'Mixed', safe: 'No higher' }) as const)
</script>

<template>
  <svg :viewBox="`0 0 ${CUT.width} ${cut.height}`" role="img" :aria-label="label">
    <line x1="0" :x2="CUT.width" :y1="cut.table + 1.5" :y2="cut.table + 1.5" class="table" />
    <g v-if="cut.bucket && final && safe">
      <path
        :d="`M${cut.bucket.centre - cut.bucket.bottom} ${cut.table}L${cut.bucket.centre - final.half} ${final.y}H${cut.bucket.centre + final.half}L${cut.bucket.centre + cut.bucket.bottom} ${cut.table}Z`"
        class="mix"
      />
      <path
        v-if="water"
        :d="`M${cut.bucket.centre - cut.bucket.bottom} ${cut.table}L${cut.bucket.centre - water.half} ${water.y}H${cut.bucket.centre + water.half}L${cut.bucket.centre + cut.bucket.bottom} ${cut.table}Z`"
        class="water"
      />
      <path
        :d="`M${cut.bucket.centre - cut.bucket.top} ${cut.bucket.rim}L${cut.bucket.centre - cut.bucket.bottom} ${cut.table}H${cut.bucket.centre + cut.bucket.bottom}L${cut.bucket.centre + cut.bucket.top} ${cut.bucket.rim}`"
        class="wall"
      />
      <g v-for="l in cut.bucket.levels" :key="l.id" :class="`level-${l.id}`">
        <polyline
          :points="`${cut.bucket.centre - l.half},${l.y} ${cut.bucket.centre + l.half + 6},${l.y} ${cut.bucket.centre + cut.bucket.top + 14},${l.labelY}`"
          class="mark"
        />
        <text :x="cut.bucket.centre + cut.bucket.top + 19" :y="l.labelY - 3" class="word">{{ word[l.id] }}</text>
        <text :x="cut.bucket.centre + cut.bucket.top + 19" :y="l.labelY + 15" class="num tall">
          {{ length(l.height) }}
        </text>
      </g>
      <g class="level-final">
        <text
          :x="CUT.left - 16"
          :y="Math.min((final.y + (water?.y ?? cut.table)) / 2, cut.table - 70) - 2"
          text-anchor="end"
          class="num big powder"
        >{{ batch.scoops ? eighths(batch.scoops.powder) : mass(batch.mix.powder) }}</text>
        <text
          :x="CUT.left - 16"
          :y="Math.min((final.y + (water?.y ?? cut.table)) / 2, cut.table - 70) + 16"
          text-anchor="end"
          class="word"
        >{{ batch.scoops ? 'scoops powder' : `${about}powder` }}</text>
        <text
          :x="CUT.left - 16"
          :y="Math.min(((water?.y ?? cut.table) + cut.table) / 2, cut.table - 18) - 2"
          text-anchor="end"
          class="num big blue"
        >{{ batch.scoops ? eighths(batch.scoops.water) : mass(batch.mix.water) }}</text>
        <text
          :x="CUT.left - 16"
          :y="Math.min(((water?.y ?? cut.table) + cut.table) / 2, cut.table - 18) + 16"
          text-anchor="end"
          class="word"
        >{{ batch.scoops ? 'scoops water' : water ? 'water first' : 'water by feel' }}</text>
      </g>
    </g>
    <g v-for="m in cut.moulds" :key="m.name">
      <path :d="`${insideOf(m)}Z`" class="mix" />
      <path :d="`${insideOf(m)}H${m.x + m.width + 2 * m.wall}V${cut.table}H${m.x}V${cut.table - m.wall - m.depth}Z`" class="mould" />
      <text :x="m.x + m.width / 2 + m.wall" :y="cut.table + 20" text-anchor="middle" class="name">
        {{ m.count > 1 ? `${m.count} × ` : '' }}{{ m.name }}
      </text>
      <text :x="m.x + m.width / 2 + m.wall" :y="cut.table + 37" text-anchor="middle" class="num word">
        {{
          batch.coat
            ? `takes ${formatVolume(batch.castVolume / batch.fills.reduce((n, f) => n + f.copies, 0), units)}`
            : formatVolume(m.volume, units)
        }}{{ m.count > 1 ? ' each' : '' }}
      </text>
    </g>
    <text v-if="cut.bucket" :x="cut.bucket.centre" :y="cut.table + 20" text-anchor="middle" class="name">
      {{ bucketName }}
    </text>
    <text v-if="cut.hidden > 0" :x="CUT.width" y="14" text-anchor="end" class="word">
      and {{ cut.hidden }} more {{ cut.hidden === 1 ? 'kind' : 'kinds' }}
    </text>
  </svg>
</template>

<style scoped>
svg { display: block; width: 100%; height: auto; }
.table { stroke: var(--line); stroke-width: 1.5; }
.mix { fill: var(--mix-soft); }
.water { fill: var(--water-soft); }
.wall { fill: none; stroke: var(--ink); stroke-width: 3; stroke-linejoin: round; stroke-linecap: round; }
.mould { fill: var(--of-silicone); stroke: var(--ink); stroke-width: 2; stroke-linejoin: round; }
.mark { fill: none; stroke: var(--ink); stroke-width: 1.4; }
.level-water .mark { stroke: var(--water); stroke-width: 2; }
.level-water text { fill: var(--water); }
.level-safe .mark { stroke: var(--heat); stroke-dasharray: 5 4; }
.level-safe text { fill: var(--heat); }
.word { font-size: 13.5px; }
.name { font-size: 14px; font-weight: 640; }
.tall { font-size: 16px; font-weight: 650; }
.big { font-size: 22px; font-weight: 700; }
.big.powder { fill: var(--powder); }
.big.blue { fill: var(--water); }
</style>
