<script setup lang="ts">
import { tapeScale } from '~core/drawing/tape'
import { tapeOfPlan } from '~core/plan/tape'
import { formatDuration, formatTemperature } from '~core/units/format'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'
import TimeTape from '~/ui/TimeTape.vue'
import { useWidth } from '~/ui/width'

/** Core temperature and thickening over the whole set, standing on the tape of time. */
const planning = usePlanning(), session = useSession()
const box = ref<HTMLElement>()
const measured = useWidth(box)
const width = computed(() => Math.max(320, measured.value))
const TOP = 24, BASE = 132, LEFT = 14

const curve = computed(() => planning.curve)
const until = computed(() => curve.value?.time.at(-1) ?? 3600)
const place = computed(() => tapeScale(until.value, width.value - 2 * LEFT))
const x = (t: number) => LEFT + place.value(t)
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
/** What may be too late is hatched from its early side on. */
const early = computed(() => planning.late !== undefined && !planning.late.custom)
const tape = computed(() => tapeOfPlan(planning.plan.school, planning.result, planning.moments, early.value))
const warm = computed(() =>
  curve.value && `hands off, warmest ${formatTemperature(curve.value.temperature[hottest.value] ?? 20, session.units)}`)
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
      :viewBox="`0 0 ${width} ${BASE}`"
      :height="BASE"
      :width="width"
      role="img"
      :aria-label="spoken">
      <path :d="stiff" class="stiff" />
      <path :d="line" class="heat" />
      <text
        :x="Math.min(width - 70, x(curve.time[hottest] ?? 0))"
        :y="scale(curve.temperature[hottest] ?? 20) - 7"
        text-anchor="middle"
        class="num peak"
      >{{ formatTemperature(curve.temperature[hottest] ?? 20, session.units) }}</text>
      <line :x1="LEFT" :x2="width - LEFT" :y1="BASE - 1" :y2="BASE - 1" class="axis" />
    </svg>
    <TimeTape v-if="tape" class="along" :tape="tape" :until="until" :warm="warm" />
    <p class="small soft key">The line is how warm the middle gets; the shade is how thick the mix is.</p>
  </div>
</template>

<style scoped>
.curve { padding: 12px 0 10px; min-height: 250px; overflow: hidden; }
svg { display: block; }
.along { margin: -14px 14px 0; }
.stiff { fill: var(--mix); opacity: 0.2; }
.heat { fill: none; stroke: var(--heat); stroke-width: 2.6; stroke-linejoin: round; }
.peak { fill: var(--heat); font-size: 13px; font-weight: 700; }
.axis { stroke: var(--line-strong); }
.key { padding: 4px 14px 0; }
</style>
