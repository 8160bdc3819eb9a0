<script setup lang="ts">
import Button from 'primevue/button'
import { needsScale } from '~core/gypsum/schools'
import { formatConsistency, formatLength, formatMass, formatScoops, formatVolume } from '~core/units/format'
import { ratioRestored } from '~core/plan/mending'
import QuantityField from '~/ui/QuantityField.vue'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'

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
const weighed = computed(() => store.state!.batches[batch]!.weighed)
const school = computed(() => run.value.plan.school)
const units = computed(() => session.units)
const how = (what: 'water' | 'powder') =>
  school.value === 'scoops'
    ? 'scoops' as const
    : what === 'water' && !needsScale(school.value)
      ? 'jug' as const
      : 'scale' as const
function weigh(what: 'water' | 'powder', mass: number | undefined) {
  if (mass && mass > 0) void store.record({ kind: 'weighed', data: { what, mass, how: how(what) } }, batch)
}
const parts = computed(() => {
  const { mix, scoops, levels } = planned.value
  const mass = (kg: number) => formatMass(kg, units.value)
  return [
    {
      what: 'water' as const,
      big: scoops
        ? formatScoops(scoops.water)
        : school.value === 'bag'
          ? formatVolume(mix.waterVolume, units.value)
          : mass(mix.water),
      small: [
        scoops
          ? mass(mix.water)
          : school.value === 'bag'
            ? mass(mix.water)
            : formatVolume(mix.waterVolume, units.value),
        levels && `to ${formatLength(levels.water, units.value)}`,
      ].filter(Boolean).join(', '),
      planned: mix.water,
    },
    {
      what: 'powder' as const,
      big: scoops ? formatScoops(scoops.powder) : mass(mix.powder),
      small: scoops ? `about ${mass(mix.powder)}` : powderHow(),
      planned: mix.powder,
    },
  ]
})
function powderHow() {
  if (school.value === 'saturation') return 'about this much, until islands stay'
  return school.value === 'bag' ? 'already in the bag' : `at ${formatConsistency(run.value.ratio.value)} water per 100`
}
const restored = computed(() => {
  const { water, powder } = weighed.value
  if (!water || !powder || !needsScale(school.value)) return ''
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
      <span class="what">{{ p.what === 'water' ? 'Water' : 'Powder' }}</span>
      <span class="num target">{{ p.big }}</span>
      <span class="small soft">{{ p.small }}</span>
      <span v-if="session.mayWrite && (!byScale || weighed[p.what])" class="real">
        <Button
          v-if="!weighed[p.what]"
          label="As planned"
          severity="secondary"
          :aria-label="`${p.what === 'water' ? 'Water' : 'Powder'} as planned`"
          @click="weigh(p.what, p.planned)"
        />
        <QuantityField
          kind="mass"
          field="batch"
          :label="weighed[p.what] ? `${p.what === 'water' ? 'Water' : 'Powder'} went in` : `or this much ${p.what}`"
          :model-value="weighed[p.what]"
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
