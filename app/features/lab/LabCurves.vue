<script setup lang="ts">
import type { SettingCurve } from '~core/setting/hydration'
import { GLOSS_YIELD } from '~core/setting/flow'
import { formatDuration, formatStrength, formatTemperature } from '~core/units/format'
import { useLab } from '~/features/lab/lab'
import { useSession } from '~/sync/session'
import { VARIANTS } from './showing'
import { useWidth } from '~/ui/width'

/** Temperature, thickening and strength of every variant on one scale of time. */
const lab = useLab(), session = useSession()
const box = ref<HTMLElement>()
const measured = useWidth(box)
const width = computed(() => Math.max(320, measured.value))
const LEFT = 58, RIGHT = 30, TOP = 24, HEAT = 150, STIFF = 118, GAP = 34, AXIS = 26
const UNTIL = 3 * 3600, KNEE = 120
const x = (t: number) => LEFT + (width.value - LEFT - RIGHT) * Math.log1p(t / KNEE) / Math.log1p(UNTIL / KNEE)
const drawn = computed(() =>
  lab.results.flatMap((r, i) =>
    r.curve && r.centre ? [{ ...VARIANTS[i]!, index: i, curve: r.curve, centre: r.centre }] : [],
  ),
)
const scale = computed(() => {
  const all = drawn.value.flatMap(d => [Math.min(...d.curve.temperature), Math.max(...d.curve.temperature)])
  const low = Math.floor((Math.min(20, ...all) - 2) / 10) * 10, high = Math.ceil((Math.max(40, ...all) + 3) / 10) * 10
  return { low, high, y: (t: number) => TOP + HEAT * (1 - (t - low) / (high - low)) }
})
const strongest = computed(() => Math.max(5, ...drawn.value.map(d => d.centre.wetStrength)) * 1.05)
const lower = TOP + HEAT + GAP
/**
 * Yield stress on a logarithmic scale, from half a pascal to lost gloss; strength beyond, linear, shares the panel's
 * height.
 */
const yStiff = (pa: number) => lower + STIFF * (1 - Math.log10(Math.max(0.5, pa) / 0.5) / Math.log10(GLOSS_YIELD / 0.5))
const yStrength = (mpa: number) => lower + STIFF * (1 - mpa / strongest.value)
const line = (c: SettingCurve, y: (i: number) => number, use: (i: number) => boolean = () => true) => {
  let pen = 'M'
  return c.time.map((t, i) => {
    if (!use(i)) return ''
    const step = `${pen}${x(t).toFixed(1)} ${y(i).toFixed(1)}`
    pen = 'L'
    return step
  }).join('')
}
const temperatures = computed(() =>
  Array.from({ length: Math.floor((scale.value.high - scale.value.low) / 10) + 1 }, (_, i) => scale.value.low + 10 * i)
    .filter((_, i, a) => a.length < 7 || i % 2 === 0),
)
const ticks = computed(() => width.value < 560 ? [60, 300, 1200, 3600, 7200] : [60, 300, 600, 1200, 1800, 3600, 7200])
/** A letter stands on its peak, or under it where a hotter curve passes close above. */
const peaks = computed(() =>
  drawn.value.map((d) => {
    const px = x(Math.min(UNTIL, d.centre.warmest)), top = scale.value.y(d.centre.warmestTemperature)
    const under = drawn.value.some(o =>
      o !== d && o.centre.warmestTemperature >= d.centre.warmestTemperature
      && (o.centre.warmestTemperature > d.centre.warmestTemperature || o.index < d.index)
      && top - scale.value.y(o.centre.warmestTemperature) < 24
      && Math.abs(x(Math.min(UNTIL, o.centre.warmest)) - px) < 120,
    )
    return { ...d, px, py: under ? top + 17 : top - 6 }
  }),
)
const spoken = computed(() =>
  `Core temperature, thickening and strength over three hours. ${
    drawn.value.map(d =>
      `${d.letter}: warmest ${formatTemperature(d.centre.warmestTemperature, session.units)} after ${
        formatDuration(d.centre.warmest, 'minute')
      }, gloss gone after ${formatDuration(d.centre.glossGone, 'minute')}`,
    ).join('; ')
  }.`,
)
</script>

<template>
  <div ref="box" class="sheet curves">
    <svg
      :viewBox="`0 0 ${width} ${lower + STIFF + AXIS}`"
      :width="width"
      :height="lower + STIFF + AXIS"
      role="img"
      :aria-label="spoken">
      <text :x="LEFT" y="13" class="head">core temperature</text>
      <g v-for="t in temperatures" :key="t">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="scale.y(t)" :y2="scale.y(t)" class="grid" />
        <text :x="LEFT - 7" :y="scale.y(t) + 4" text-anchor="end" class="num tick">
          {{ formatTemperature(t, session.units) }}
        </text>
      </g>
      <text :x="LEFT" :y="lower - 9" class="head">thickening, then wet strength</text>
      <g v-for="s in [{ pa: 25, word: 'pours' }, { pa: 80, word: 'webs' }, { pa: 20000, word: 'gloss' }]" :key="s.word">
        <line :x1="LEFT" :x2="width - RIGHT" :y1="yStiff(s.pa)" :y2="yStiff(s.pa)" class="grid" />
        <text :x="LEFT - 7" :y="yStiff(s.pa) + 4" text-anchor="end" class="tick">{{ s.word }}</text>
      </g>
      <text :x="width - RIGHT" :y="lower - 9" text-anchor="end" class="num tick">
        {{ formatStrength(strongest, session.units) }}{{ width < 560 ? '' : ' at the top' }}
      </text>
      <g v-for="d in drawn" :key="d.letter" :style="{ '--tone': d.colour }" :class="{ chosen: d.index === lab.chosen }">
        <path :d="line(d.curve, i => scale.y(d.curve.temperature[i]!))" class="line" :stroke-dasharray="d.dash" />
        <path
          :d="
            line(
              d.curve,
              i => yStiff(d.curve.stiffness[i]!),
              i => (d.curve.stiffness[i - 1] ?? 0) < GLOSS_YIELD,
            )
          "
          class="line"
          :stroke-dasharray="d.dash" />
        <path
          :d="
            line(
              d.curve,
              i => yStrength(d.curve.strength[i]!),
              i => d.curve.strength[i]! > 0,
            )
          "
          class="line"
          :stroke-dasharray="d.dash" />
      </g>
      <g v-for="p in peaks" :key="p.letter">
        <text :x="p.px" :y="p.py" text-anchor="middle" class="letter" :style="{ fill: p.colour }">{{ p.letter }}</text>
      </g>
      <line :x1="LEFT" :x2="width - RIGHT" :y1="lower + STIFF" :y2="lower + STIFF" class="axis" />
      <g v-for="t in ticks" :key="t">
        <line :x1="x(t)" :x2="x(t)" :y1="lower + STIFF" :y2="lower + STIFF + 5" class="axis" />
        <text :x="x(t)" :y="lower + STIFF + 19" text-anchor="middle" class="num tick">
          {{ formatDuration(t, 'minute') }}
        </text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.curves { padding: 12px 4px 4px 0; overflow: hidden; }
svg { display: block; }
.line { fill: none; stroke: var(--tone); stroke-width: 1.8; stroke-linejoin: round; }
.chosen .line { stroke-width: 3; }
.grid { stroke: var(--line); }
.axis { stroke: var(--line-strong); }
.tick { font-size: 11px; fill: var(--soft); }
.head { font-size: 12px; font-weight: 600; fill: var(--soft); }
.letter { font-size: 14px; font-weight: 750; }
</style>
