<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { STIR_TOOLS, type StirTool } from '~core/gypsum/stirring'
import type { Act, Vigour } from '~core/practice/types'
import { clearestPlace } from '~core/practice/wetting'
import { formatMass, formatTemperature } from '~core/units/format'
import { useSession } from '~/sync/session'
import type { GlyphId } from '~/ui/glyphs'
import HouseGlyph from '~/ui/HouseGlyph.vue'
import QuantityField from '~/ui/QuantityField.vue'
import type { Practising, Stroke } from './practising'

/** What hands can do now, as large as at the bench: by touch, by keys 1 to 9, one after the other. */
const { of } = defineProps<{ of: Practising }>()
const session = useSession()
const plan = of.setup.plan, water = reactive({ kg: plan.powder * plan.ratio, celsius: plan.water })
/** What is emptied stays as it was. */
function setWater(kg: number | undefined) {
  water.kg = kg ?? water.kg
}
function setWarmth(celsius: number | undefined) {
  water.celsius = celsius ?? water.celsius
}
const whole = computed(() => of.bucket.value.strewn)
const handful = computed(() => Math.max(0.02, plan.powder / 20))
const sieved = ref(false), tool = ref<StirTool>(of.tool), vigour = ref<Vigour>(1), above = ref(false)
const high = ref(false), many = ref(false), table = ref(false)
const mass = (kg: number) => formatMass(kg, session.units)
function strewAt(place: { readonly x: number, readonly y: number }) {
  of.act({ do: 'strew', ...place, kg: handful.value, how: 'hand', ...sieved.value && { sieved: true } })
}
defineExpose({ strewAt })
const stroke = computed((): Stroke => ({ tool: tool.value, vigour: vigour.value, ...above.value && { above: true } }))
/** From one look to the next the hand goes on. */
function toggleStir() {
  of.stirWith(of.stirring.value ? undefined : stroke.value)
}
watch(stroke, (now) => {
  if (of.stirring.value) of.stirWith(now)
})

interface Button { readonly word: string, readonly small?: string, readonly glyph: GlyphId, readonly does: () => void, readonly on?: boolean }
const act = (what: Act) => () => of.act(what)
const before = computed((): readonly Button[] => [
  ...of.felt.value.crusted ? [{ word: 'Scrub the bucket', small: 'a minute', glyph: 'wash', does: act({ do: 'scrub' }) } as const] : [],
  {
    word: 'Water in', small: `${mass(water.kg)} at ${formatTemperature(water.celsius, session.units)}`, glyph: 'weigh',
    does: act({ do: 'water', kg: water.kg, celsius: water.celsius }),
  },
])
const wetting = computed((): readonly Button[] => [
  {
    word: 'Strew a handful', small: mass(handful.value), glyph: 'sift',
    does: () => strewAt(clearestPlace(of.bucket.value)),
  },
  { word: 'Tip a heap in', small: mass(plan.powder / 4), glyph: 'pour', does: act({ do: 'strew', x: 0.5, y: 0.5, kg: plan.powder / 4, how: 'heap' }) },
  { word: 'All at once', small: mass(plan.powder), glyph: 'crack', does: act({ do: 'strew', x: 0.5, y: 0.5, kg: plan.powder, how: 'whole' }) },
  ...whole.value > 0 ? [{ word: 'Lift some off', small: mass(handful.value), glyph: 'lift', does: act({ do: 'lift', kg: handful.value }) } as const] : [],
  ...whole.value > 0 ? [{ word: 'Stir', glyph: 'stir', does: toggleStir, on: of.stirring.value !== undefined } as const] : [],
])
const WHICH = ['the first ones', 'the others'] as const
const pouring = computed((): readonly Button[] => of.setup.moulds.flatMap(({ id, wall, detail, leak }, n): Button[] => {
  const more = { ...high.value && { high: true }, ...many.value && { many: true } }
  const names = of.setup.moulds.length > 1 ? WHICH : [''], which = names[Math.min(n, names.length - 1)] ?? ''
  if (wall !== undefined) return [{ word: 'Swill it', small: 'pour in, turn, pour out', glyph: 'pour', does: act({ do: 'swill', mould: id }) }]
  return [
    ...detail ? [{ word: 'A little in', small: which, glyph: 'soft', does: act({ do: 'pour', mould: id, to: 0.25, ...more }) } as const] : [],
    ...detail?.hook ? [{ word: 'Tilt it', glyph: 'hand', does: act({ do: 'tilt', mould: id }) } as const] : [],
    { word: 'Brush a coat', small: which, glyph: 'lift', does: act({ do: 'coat', mould: id }) },
    { word: 'Fill', small: which, glyph: 'pour', does: act({ do: 'pour', mould: id, to: 1, ...more }) },
    { word: 'Tap 20 s', small: which, glyph: 'tap', does: act({ do: 'tap', mould: id, seconds: 20, ...table.value && { table: true } }) },
    ...leak ? [{ word: 'Clay on the seam', glyph: 'hand', does: act({ do: 'plug', mould: id }) } as const] : [],
  ]
}))
const stirred = computed((): readonly Button[] => [
  { word: of.stirring.value ? 'Stop stirring' : 'Stir', glyph: 'stir', does: toggleStir, on: of.stirring.value !== undefined },
  { word: 'Tap the bucket', small: '10 s', glyph: 'tap', does: act({ do: 'tap-bucket', seconds: 10 }) },
  ...pouring.value,
  ...of.setup.moulds[0]!.volume > 0.006 ? [{ word: 'Another bucket', glyph: 'powders', does: act({ do: 'next-bucket' }) } as const] : [],
])
const MINUTE = 60, HOUR = 3600, DAY = 86_400
const afterwards: readonly Button[] = [
  { word: 'Four days on', glyph: 'dry', does: () => of.pass(4 * DAY) },
  {
    word: 'Paint it', glyph: 'hand',
    does: () => of.setup.moulds.forEach(m => of.act({ do: 'paint', mould: m.id })),
  },
]
const opening: Button = {
  word: 'Open it', glyph: 'open', does: () => of.setup.moulds.forEach(m => of.act({ do: 'open', mould: m.id })),
}
const passing: readonly Button[] = [
  { word: 'Ten minutes on', glyph: 'wait', does: () => of.pass(10 * MINUTE) },
  { word: 'An hour on', glyph: 'wait', does: () => of.pass(HOUR) },
]
const later = computed((): readonly Button[] => {
  if (!of.poured.value) return []
  return [...passing, ...of.opened.value ? afterwards : [opening]]
})
const buttons = computed(() => {
  if (of.bucket.value.water <= 0 && !of.isStirred.value) return before.value
  if (!of.isStirred.value) return wetting.value
  return [...of.opened.value ? [] : stirred.value, ...later.value]
})
function keyed(event: KeyboardEvent) {
  if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement || event.ctrlKey || event.metaKey) return
  const n = Number(event.key)
  if (n >= 1 && n <= buttons.value.length) buttons.value[n - 1]!.does()
}
useEventListener(window, 'keydown', keyed)
</script>

<template>
  <section class="acts" aria-label="What hands can do">
    <div class="row">
      <button
        v-for="(b, n) in buttons"
        :key="b.word + b.small"
        type="button"
        :class="['act', { on: b.on }]"
        :aria-pressed="b.on"
        @click="b.does()">
        <HouseGlyph :id="b.glyph" :size="34" />
        <span class="word">{{ b.word }}</span>
        <span v-if="b.small" class="small">{{ b.small }}</span>
        <kbd v-if="n < 9" aria-hidden="true">{{ n + 1 }}</kbd>
      </button>
    </div>
    <div class="how">
      <template v-if="buttons === before">
        <QuantityField
          kind="mass"
          label="Water"
          :model-value="water.kg"
          :check="kg => kg > 0 && kg < 30 ? undefined : 'Some water, and less than the bucket holds.'"
          @update:model-value="setWater" />
        <QuantityField
          kind="temperature"
          label="How warm"
          :model-value="water.celsius"
          :check="t => t >= 1 && t <= 90 ? undefined : 'Water is between freezing and boiling.'"
          @update:model-value="setWarmth" />
      </template>
      <label v-else-if="buttons === wetting"><input v-model="sieved" type="checkbox"> Through a sieve</label>
      <template v-if="whole > 0 && !of.opened.value">
        <label>Stir with
          <select v-model="tool"><option v-for="(t, id) in STIR_TOOLS" :key="id" :value="id">{{ t.name }}</option></select>
        </label>
        <label><select v-model.number="vigour" aria-label="How hard">
          <option :value="1">slowly</option><option :value="2">briskly</option><option :value="3">beating</option>
        </select></label>
        <label><input v-model="above" type="checkbox"> above the surface</label>
      </template>
      <template v-if="of.isStirred.value && !of.opened.value">
        <label><input v-model="high" type="checkbox"> Pour from high up</label>
        <label><input v-model="many" type="checkbox"> At many points</label>
        <label><input v-model="table" type="checkbox"> Vibrating table</label>
      </template>
    </div>
  </section>
</template>

<style scoped>
.acts { background: var(--wood-top); border-top: 10px solid var(--wood); padding: 14px 20px 16px; display: grid; gap: 10px; }
:root.dark .acts { background: var(--band); }
.row { display: grid; grid-template-columns: repeat(auto-fit, minmax(132px, 1fr)); gap: 10px; }
.act { position: relative; border: 2px solid var(--ink); border-radius: 14px; background: var(--sheet); color: var(--ink); min-height: 92px; display: grid; justify-items: center; align-content: center; gap: 2px; padding: 8px; font: inherit; }
.act.on { background: var(--now); color: var(--now-ink); }
.word { font-weight: 700; text-align: center; }
kbd { position: absolute; top: 5px; left: 9px; font: inherit; font-size: 0.8rem; color: inherit; opacity: 0.75; }
.how { display: flex; flex-wrap: wrap; gap: 8px 20px; align-items: center; }
.how label { display: inline-flex; gap: 8px; align-items: center; min-height: 32px; }
input, select { font: inherit; border: 1px solid var(--line-strong); border-radius: 8px; background: var(--sheet); color: var(--ink); padding: 4px 8px; min-height: 32px; }
input[type='checkbox'] { width: 22px; min-height: 22px; }
@media (max-width: 720px) { .row { grid-template-columns: repeat(3, minmax(0, 1fr)); } .act { min-height: 84px; padding: 6px 2px; } kbd { display: none; } }
</style>
