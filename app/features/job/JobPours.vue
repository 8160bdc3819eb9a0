<script setup lang="ts">
import { nameOfStep } from '~core/job/words'
import type { JobStep } from '~core/job/types'
import { statusWords } from '~core/logbook/words'
import { usePours } from '~/sync/pours'

/** What became of a job: its pours, their pieces and what they cost, as one piece of work. */
const { steps } = defineProps<{ steps: readonly JobStep[] }>()
const pours = usePours()
const rows = computed(() => steps.flatMap((step) => {
  const row = pours.rows.find(p => p.id === step.pour)
  return row ? [{ id: row.id, name: nameOfStep(step), summary: row.summary }] : []
}))
const costs = computed(() => rows.value.flatMap(r => r.summary.cost?.total ?? []))
const good = computed(() => rows.value.reduce((n, r) => n + r.summary.verdicts.good, 0))
</script>

<template>
  <section v-if="rows.length > 0" aria-labelledby="pours-head">
    <h3 id="pours-head">What became of it</h3>
    <ul class="ruled">
      <li v-for="r in rows" :key="r.id">
        <NuxtLink :to="`/pour/${r.id}`" class="row-link">{{ r.name }}</NuxtLink>
        <span class="small soft">{{ statusWords(r.summary.status) }}</span>
      </li>
    </ul>
    <p v-if="costs.length > 0 || good > 0" class="small">
      <template v-if="good > 0">{{ good }} good. </template>
      <template v-if="costs.length === rows.length && costs.length > 0">Powder and wear <span class="num">{{ costs.reduce((a, b) => a + b, 0).toFixed(2) }}</span>.</template>
    </p>
  </section>
</template>

<style scoped>
li { display: flex; justify-content: space-between; gap: 12px; padding: 6px 0; }
ul { list-style: none; margin: 0; padding: 0; }
</style>
