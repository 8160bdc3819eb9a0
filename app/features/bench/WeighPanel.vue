<script setup lang="ts">
import Button from 'primevue/button'
import { jugOf, needsScale, weighsBoth } from '~core/gypsum/schools'
import { formatConsistency, formatLength, formatMass, formatScoops, formatVolume } from '~core/units/format'
import { ratioRestored } from '~core/plan/mending'
import QuantityField from '~/ui/QuantityField.vue'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'
import { partsOf, wentIn, type Part } from './went-in'

/**
 * What goes in, and what really went in. Nothing has to be typed: “as planned” is one press, and may be left out too.
 */
const { batch, byScale = false } = defineProps<
  {
    batch: number /** While sifting or soaking only the powder is asked for. */
    powderOnly?: boolean /** A scale is at work: typing steps back until something is weighed. */
    byScale?: boolean
  }
>()
const store = useRun(), session = useSession()
const run = computed(() => store.run!)
const planned = computed(() => run.value.batches[batch]!)
const state = computed(() => store.state!.batches[batch]!)
const byFeel = computed(() => school.value === 'powder-first')
const school = computed(() => run.value.plan.school)
const units = computed(() => session.units)
const how = (what: 'water' | 'powder') =>
  school.value === 'scoops'
    ? 'scoops' as const
    : what === 'water' && !needsScale(school.value)
      ? 'jug' as const
      : 'scale' as const
function weigh(what: 'water' | 'powder', mass: number | undefined) {
  if (mass && mass > 0) void store.record(wentIn(school.value, what, mass, how(what)), batch)
}
const mass = (kg: number) => formatMass(kg, units.value)
/** What is told of the water: in large, and beside it. */
function waterWords({ wanted }: Part): { readonly big: string, readonly small: string } {
  const { mix, scoops, levels } = planned.value, volume = formatVolume(mix.waterVolume, units.value)
  if (byFeel.value)
    return { big: mass(wanted), small: `in the jug: ${mass(jugOf(mix.water).first)} first, the rest as you stir` }
  const [big, beside] = scoops
    ? [formatScoops(scoops.water), mass(mix.water)]
    : school.value === 'bag' ? [volume, mass(mix.water)] : [mass(mix.water), volume]
  return { big, small: [beside, levels?.water && `to ${formatLength(levels.water, units.value)}`].filter(Boolean).join(', ') }
}
function powderWords({ wanted }: Part): { readonly big: string, readonly small: string } {
  const { scoops } = planned.value
  return scoops
    ? { big: formatScoops(scoops.powder), small: `about ${mass(wanted)}` }
    : { big: mass(wanted), small: powderHow() }
}
const parts = computed(() => partsOf(run.value, batch, state.value).map(p =>
  ({ ...p, name: p.what === 'water' ? 'Water' : 'Powder', ...p.what === 'water' ? waterWords(p) : powderWords(p) })))
function powderHow() {
  if (school.value === 'saturation') return 'about this much, until islands stay'
  if (byFeel.value) return `for about ${formatConsistency(run.value.ratio.value)} water per 100`
  return school.value === 'bag' ? 'already in the bag' : `at ${formatConsistency(run.value.ratio.value)} water per 100`
}
const restored = computed(() => {
  const { water, powder } = state.value.weighed
  if (!water || !powder || !weighsBoth(school.value)) return ''
  const r = ratioRestored(run.value.ratio.value, water, powder)
  return r.add === 'nothing' || r.mass < 0.002
    ? ''
    : `That is ${formatConsistency(water / powder)}. Add ${
      formatMass(r.mass, units.value)
    } of ${r.add} to come back to ${formatConsistency(run.value.ratio.value)}.`
})
</script>

<template>
  <div class="weigh">
    <div v-for="p in parts.filter(x => !powderOnly || x.what === 'powder')" :key="p.what" :class="['part', p.what]">
      <span class="what">{{ p.name }}</span>
      <span class="num target">{{ p.big }}</span>
      <span class="small soft">{{ p.small }}</span>
      <span v-if="session.mayWrite && (!byScale || p.had)" class="real">
        <Button
          v-if="!p.had"
          label="As planned"
          severity="secondary"
          :aria-label="`${p.name} as planned`"
          @click="weigh(p.what, p.wanted)"
        />
        <QuantityField
          kind="mass"
          field="batch"
          :label="p.had ? `${p.name} ${byFeel && p.what === 'water' ? 'in the jug' : 'went in'}` : `or this much ${p.what}`"
          :model-value="p.had"
          :check="v => v > 0 && v < 5000 ? undefined : 'Type what went in.'"
          @settled="weigh(p.what, $event)"
        />
      </span>
    </div>
    <p v-if="restored" class="restored" role="status">{{ restored }}</p>
  </div>
</template>

<style scoped>
.weigh {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
  gap: 14px;
}
.part {
  display: grid;
  gap: 2px;
  align-content: start;
  padding: 14px 18px;
  border-radius: 12px;
  background: var(--sheet);
  border-left: 6px solid var(--powder-mid);
}
.part.water {
  border-left-color: var(--water);
}
.what {
  font-weight: 650;
}
.target {
  font-size: clamp(1.9rem, 3.6vw, 2.9rem);
  font-weight: 700;
  line-height: 1.15;
}
.water .target {
  color: var(--water);
}
.powder .target {
  color: var(--powder);
}
.real {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  padding-top: 8px;
}
.restored {
  grid-column: 1 / -1;
  color: var(--warn);
  font-size: 1.1rem;
  font-weight: 600;
}
</style>
