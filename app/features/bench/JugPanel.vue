<script setup lang="ts">
import Button from 'primevue/button'
import { jugOf } from '~core/gypsum/schools'
import { formatConsistency, formatMass } from '~core/units/format'
import QuantityField from '~/ui/QuantityField.vue'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'

/** Water was let in by feel: what is left in the jug tells how much went in, and so what the mix is. */
const { batch } = defineProps<{ batch: number }>()
const store = useRun(), session = useSession()
const run = computed(() => store.run!), state = computed(() => store.state!.batches[batch]!)
const planned = computed(() => run.value.batches[batch]!.mix)
/** Filled as it was asked for, where nobody said otherwise. */
const before = computed(() => state.value.jug.before ?? jugOf(planned.value.water).full)
const mass = (kg: number) => formatMass(kg, session.units)
const check = (v: number) => v >= 0 && v < before.value ? undefined : `There were ${mass(before.value)} in the jug.`
async function left(after: number) {
  if (state.value.jug.before === undefined)
    await store.record({ kind: 'jug', data: { when: 'before', mass: before.value } }, batch)
  await store.record({ kind: 'jug', data: { when: 'after', mass: after } }, batch)
}
const powderAsPlanned = () =>
  store.record({ kind: 'weighed', data: { what: 'powder', mass: planned.value.powder, how: 'scale' } }, batch)
const told = computed(() => {
  const { jug, ratio, weighed } = state.value, aimed = run.value.ratio.value
  if (jug.after === undefined || weighed.water === undefined) return ''
  const went = `${mass(weighed.water)} of water went in`
  if (ratio === undefined) return `${went}.`
  const off = ratio / aimed - 1, said = `${went}: ${formatConsistency(ratio)} to 100 powder`
  if (Math.abs(off) < 0.03) return `${said}, as you aimed.`
  return `${said}, ${off > 0 ? 'thinner' : 'thicker'} than the ${formatConsistency(aimed)} you aimed at.`
})
</script>

<template>
  <div class="jug">
    <div class="left">
      <QuantityField
        kind="mass"
        field="batch"
        label="Left in the jug"
        :model-value="state.jug.after"
        :check="check"
        @settled="left" />
      <Button
        v-if="state.jug.after === undefined"
        label="Nothing"
        severity="secondary"
        aria-label="Nothing is left in the jug"
        @click="left(0)" />
    </div>
    <p class="small soft">Of {{ mass(before) }}. Weigh it, or read the jug: a millilitre is a gram.</p>
    <p v-if="told" class="told" role="status">{{ told }}</p>
    <p v-if="state.jug.after !== undefined && !state.weighed.powder" class="left">
      What powder was it?
      <Button :label="`${mass(planned.powder)}, as planned`" severity="secondary" @click="powderAsPlanned" />
    </p>
  </div>
</template>

<style scoped>
.jug {
  display: grid;
  gap: 8px;
  padding: 14px 18px;
  border-radius: 12px;
  background: var(--sheet);
  border-left: 6px solid var(--water);
}
.left {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.told {
  font-size: 1.1rem;
  font-weight: 600;
}
</style>
