<script setup lang="ts">
import InputText from 'primevue/inputtext'
import Button from 'primevue/button'
import { DEFECTS } from '~core/pour/defects'
import { formatConsistency } from '~core/units/format'
import RippleGlyph from '~/ui/RippleGlyph.vue'
import { dayAndTime } from '~/lib/when'
import { useClock } from '~/stores/clock'
import { usePours } from '~/stores/pours'
import type { PourRow } from '~shared/pour'

const pours = usePours(), clock = useClock()
await pours.load()
const sought = ref('')
const words = new Map(DEFECTS.map(d => [d.id, d.words.toLowerCase()]))
const STATUS: Record<string, string> = { readying: 'on the bench', pouring: 'on the bench', setting: 'setting', drying: 'drying', finished: 'finished', abandoned: 'given up' }
const textOf = (p: PourRow) => [p.summary.name, p.summary.powder, p.summary.bag, STATUS[p.summary.status], ...p.summary.moulds.map(m => m.name), ...p.summary.defects.map(d => words.get(d))].join(' ').toLowerCase()
const found = computed(() => {
  const wanted = sought.value.toLowerCase().split(/\s+/).filter(Boolean)
  return pours.rows.filter(p => wanted.every(w => textOf(p).includes(w)))
})
const verdict = (p: PourRow) => {
  const { good, second, waste } = p.summary.verdicts
  return [good && `${good} good`, second && `${second} second`, waste && `${waste} waste`].filter(Boolean).join(', ')
}
</script>

<template>
  <div>
    <header>
      <h1>Logbook</h1>
      <span class="soft">{{ found.length }} {{ found.length === 1 ? 'pour' : 'pours' }}</span>
      <InputText v-model="sought" class="find" placeholder="Find: a mould, a powder, a defect" aria-label="Find pours" />
      <a v-if="pours.rows.length > 0" href="/api/logbook" download class="small">Save as a table</a>
    </header>
    <p v-if="pours.trouble" class="problem" role="alert">{{ pours.trouble }}</p>
    <ul v-if="found.length > 0" class="ruled">
      <li v-for="p in found" :key="p.id">
        <RippleGlyph
          :marks="p.summary.glyph"
          :now="p.summary.endedAt ? undefined : p.summary.wetAt ? (clock.now - p.summary.wetAt) / 1000 : undefined"
          :size="36"
        />
        <NuxtLink
          :to="`/pour/${p.id}`"
          class="row-link"
        ><span class="strong">{{ p.summary.name }}</span><br><span class="small soft">{{ p.summary.startedAt ? dayAndTime(p.summary.startedAt, clock.now) : '' }}, {{ STATUS[p.summary.status] }}</span></NuxtLink>
        <span class="small moulds">{{ p.summary.moulds.map(m => `${m.count} × ${m.name}`).join(', ') }}<br><span class="soft">{{ p.summary.bag ?? p.summary.powder }}</span></span>
        <span class="small ratio">planned <span class="num">{{ formatConsistency(p.summary.ratio.planned) }}</span><br><span
          v-if="p.summary.ratio.actual"
          :class="Math.abs(p.summary.ratio.actual / p.summary.ratio.planned - 1) > 0.05 ? 'off' : 'soft'"
        >was <span class="num">{{ formatConsistency(p.summary.ratio.actual) }}</span></span><span
          v-else
          class="soft"
        >not weighed</span></span>
        <span class="small result"><span class="strong">{{ verdict(p) || '—' }}</span><br><span class="soft">{{ p.summary.defects.map(d => words.get(d)).join(', ') }}</span></span>
      </li>
    </ul>
    <div v-else-if="pours.loaded" class="empty">
      <p>{{ sought ? `No pour has “${sought}” in it. Try one word less.` : 'The logbook is empty. Every pour you take to the bench is written here by itself.' }}</p>
      <Button v-if="!sought" label="Plan a pour" @click="navigateTo('/plan')" />
    </div>
  </div>
</template>

<style scoped>
header { display: flex; gap: 14px; align-items: baseline; margin-bottom: 10px; flex-wrap: wrap; }
.find { margin-left: auto; width: min(320px, 100%); }
li { display: grid; grid-template-columns: 42px minmax(0, 1.3fr) minmax(0, 1.3fr) 120px minmax(0, 1.2fr); gap: 16px; align-items: center; padding: 9px 0; }
.off { color: var(--heat); font-weight: 600; }
@media (max-width: 720px) { li { grid-template-columns: 40px 1fr auto; } .moulds, .ratio { display: none; } }
</style>
