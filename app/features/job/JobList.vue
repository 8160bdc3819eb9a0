<script setup lang="ts">
import { nameOfStep } from '~core/job/words'
import type { JobBody } from '~contract/job'
import { workOutJob } from '~core/job/windows'
import MouldPicture from '~/features/library/MouldPicture.vue'
import HouseGlyph from '~/ui/HouseGlyph.vue'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { usePours } from '~/sync/pours'
import { STEP_GLYPHS, whenWords } from './step-signs'
import { usePourTimes } from './pour-times'

/** Jobs under way, the one whose window closes first above; then those that are done. */
const { across = false } = defineProps<{ /** Beside each other, as many as there is room for. */ across?: boolean }>()
const library = useLibrary(), clock = useClock(), pours = usePours()
interface Row { readonly id: string, readonly body: JobBody, readonly act: string, readonly when: string, readonly glyph: keyof typeof STEP_GLYPHS, readonly closes: number, readonly late: boolean }
const jobs = computed(() => library.items.job.filter(j => !j.body.own))
const timesOf = usePourTimes(() => jobs.value.flatMap(j => j.body.steps.map(s => ({ ...s, id: `${j.id} ${s.id}` }))))
const rows = computed<readonly Row[]>(() => jobs.value.map(({ id, body }) => {
  const own = new Map(body.steps.flatMap((s) => {
    const times = timesOf.value.get(`${id} ${s.id}`)
    return times ? [[s.id, times] as const] : []
  }))
  const { steps, next } = workOutJob(body.steps, own, clock.beat), step = body.steps.find(s => s.id === next)
  const at = steps.find(s => s.id === next)
  if (!step || !at) return { id, body, act: 'All done', when: '', glyph: 'until' as const, closes: Infinity, late: false }
  return {
    id, body, act: nameOfStep(step), when: whenWords(at, clock.beat), glyph: step.kind,
    closes: at.to ?? (at.state === 'ahead' ? at.from : clock.beat + 3_600_000), late: at.state === 'missed',
  }
}).sort((a, b) => a.closes - b.closes))
const mouldOf = (body: JobBody) => {
  const of = body.steps.find(s => s.pour)?.pour
  return pours.rows.find(p => p.id === of)?.summary.moulds[0]?.id
}
</script>

<template>
  <section v-if="rows.length > 0" aria-labelledby="jobs-head" class="jobs">
    <h2 id="jobs-head" class="eyebrow">Jobs</h2>
    <ul :class="['ruled', { across }]">
      <li v-for="r in rows" :key="r.id">
        <MouldPicture v-if="mouldOf(r.body)" :mould="mouldOf(r.body)" />
        <HouseGlyph v-else :id="STEP_GLYPHS[r.glyph]" :size="30" />
        <NuxtLink :to="`/jobs/${r.id}`" class="row-link">
          <span class="strong">{{ r.body.name || 'A job' }}</span><br>
          <span class="small soft">{{ r.act }}</span>
        </NuxtLink>
        <span :class="['small', { late: r.late }]">{{ r.when }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.jobs { margin-bottom: 20px; }
li { display: grid; grid-template-columns: 52px minmax(0, 1fr) auto; gap: 14px; align-items: center; padding: 10px 0; }
.across { display: grid; grid-template-columns: repeat(auto-fit, minmax(300px, 1fr)); gap: 0 32px; }
.across li { align-content: center; }
.late { color: var(--heat); font-weight: 620; }
</style>
