<script setup lang="ts">
import { formatDuration, formatTemperature } from '~core/units/format'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'
import { useWidth } from '~/ui/width'

/** Core temperature and thickening over the whole set, on the ripple chart's own scale of time. */
const planning = usePlanning(), session = useSession()
const box = ref<HTMLElement>()
const measured = useWidth(box)
const width = computed(() => Math.max(320, measured.value))
const HEIGHT = 194, TOP = 26, BASE = 148, LEFT = 14
const knee = 120

const curve = computed(() => planning.curve)
const until = computed(() => curve.value?.time.at(-1) ?? 3600)
const x = (t: number) => LEFT + (width.value - 2 * LEFT) * Math.log1p(t / knee) / Math.log1p(until.value / knee)
const hottest = computed(() =>
  curve.value ? curve.value.temperature.reduce((best, t, i) => t > curve.value!.temperature[best]! ? i : best, 0) : 0,
)
const scale = computed(() => {
  const temperatures = curve.value?.temperature ?? [20, 40]
  const low = Math.min(...temperatures) - 2, high = Math.max(...temperatures) + 4
  return (t: number) => BASE - (BASE - TOP) * (t - low) / (high - low)
})
const line = computed(() =>
  curve.value?.time.map((t, i) =>
    `${i ? 'L' : 'M'}${x(t).toFixed(1)} ${scale.value(curve.value!.temperature[i]!).toFixed(1)}`,
  ).join('') ?? '',
)
const stiff = computed(() =>
  curve.value
    ? `M${x(0)} ${BASE}${
      curve.value.time.map((t, i) =>
        `L${x(t).toFixed(1)} ${
          (BASE - (BASE - TOP) * Math.log10(Math.max(1, curve.value!.stiffness[i]!)) / 4.4).toFixed(1)
        }`,
      ).join('')
    }L${x(until.value)} ${BASE}Z`
    : '',
)
const bands = computed(() => {
  const b = planning.result.batches[0], c = planning.centre, m = planning.moments
  if (!b || !c) return []
  const { sifted, soaked, stirred, poured } = b.steps
  const open = m?.open ?? { from: c.open, to: c.open + 1200 }
  const all = [
    { word: planning.plan.school === 'powder-first' ? 'water in' : 'sift', from: 0, to: sifted.value, tone: 'powder' },
    { word: 'soak', from: sifted.value, to: soaked.value, tone: 'plain' },
    { word: planning.plan.school === 'bag' ? 'knead' : 'stir', from: soaked.value, to: stirred.value, tone: 'mix' },
    { word: 'pour', from: stirred.value, to: poured.value, tone: 'water' },
    { word: 'leave alone', from: poured.value, to: open.from, tone: 'plain' },
    { word: 'open', from: open.from, to: open.to, tone: 'set' },
  ]
  return all.filter(s => s.to > s.from && s.from < until.value).map(s => ({
    ...s,
    x: x(s.from),
    w: x(Math.min(until.value, s.to)) - x(s.from),
  }))
})
const ticks = computed(() => [60, 300, 600, 1200, 1800, 3600, 7200, 14_400].filter(t => t < until.value * 0.96))
const spoken = computed(() =>
  curve.value
    ? `Core temperature over ${formatDuration(until.value, 'minute')}: from ${
      formatTemperature(curve.value.temperature[0]!, session.units)
    } to ${formatTemperature(curve.value.temperature[hottest.value]!, session.units)} after ${
      formatDuration(curve.value.time[hottest.value]!, 'minute')
    }.`
    : '',
)
</script>

<template>
  <div ref="box" class="sheet curve">
    <svg
      v-if="curve"
      :viewBox="`0 0 ${width} ${HEIGHT}`"
      :height="HEIGHT"
      :width="width"
      role="img"
      :aria-label="spoken">
      <g v-for="b in bands" :key="b.word">
        <rect :x="b.x" :y="TOP - 6" :width="Math.max(0, b.w - 1)" :height="BASE - TOP + 6" :class="`band-${b.tone}`" />
        <text v-if="b.w > 8 * b.word.length" :x="b.x + 5" y="14" class="word">{{ b.word }}</text>
      </g>
      <path :d="stiff" class="stiff" />
      <path :d="line" class="heat" />
      <text
        :x="Math.min(width - 70, x(curve.time[hottest] ?? 0))"
        :y="scale(curve.temperature[hottest] ?? 20) - 7"
        text-anchor="middle"
        class="num peak"
      >{{ formatTemperature(curve.temperature[hottest] ?? 20, session.units) }}</text>
      <line :x1="LEFT" :x2="width - LEFT" :y1="BASE" :y2="BASE" class="axis" />
      <g v-for="t in ticks" :key="t">
        <line :x1="x(t)" :x2="x(t)" :y1="BASE" :y2="BASE + 5" class="axis" />
        <text :x="x(t)" :y="BASE + 19" text-anchor="middle" class="num tick">{{ formatDuration(t, 'minute') }}</text>
      </g>
      <text :x="LEFT" :y="HEIGHT - 5" class="key">line: core temperature · shade: thickening</text>
    </svg>
  </div>
</template>

<style scoped>
.curve {
  padding: 12px 0 4px;
  min-height: 208px;
  overflow: hidden;
}
svg {
  display: block;
}
.band-powder {
  fill: var(--powder-soft);
}
.band-plain {
  fill: #f2f5f5;
}
.band-mix {
  fill: var(--mix-soft);
}
.band-water {
  fill: var(--water-soft);
}
.band-set {
  fill: var(--set-soft);
}
.stiff {
  fill: var(--mix);
  opacity: 0.16;
}
.heat {
  fill: none;
  stroke: var(--heat);
  stroke-width: 2.6;
  stroke-linejoin: round;
}
.peak {
  fill: var(--heat);
  font-size: 13px;
  font-weight: 700;
}
.axis {
  stroke: var(--line-strong);
}
.word {
  font-size: 12px;
  fill: var(--soft);
}
.tick {
  font-size: 11px;
  fill: var(--soft);
}
.key {
  font-size: 11.5px;
  fill: var(--soft);
}
</style>
