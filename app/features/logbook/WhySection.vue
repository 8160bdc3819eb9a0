<script setup lang="ts">
import Button from 'primevue/button'
import { defectWords, type DefectId } from '~core/pour/defects'
import { causeWords, nextTimeWords, type CauseId } from '~core/pour/causes'
import { why, type Confirmed } from '~core/logbook/why'
import { evidenceWords } from '~core/logbook/words'
import { remembered } from '~/sync/kept'
import { useRecords } from '~/sync/records'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'

/**
 * For every defect the likely causes, with what this pour's record says for and against each, and what to do next time.
 */
const store = useRun(), session = useSession(), records = useRecords()
const confirmed = ref<Confirmed>([])
onMounted(() => void remembered(session.key ?? '', 'GET causes').then(({ value }) => {
  confirmed.value = value
}, () => {}))
const MOST = 3
const rows = computed(() => {
  const { run, state } = store
  if (!run || !state) return []
  // Casts of one batch with the same defect and the same answer are told once.
  const groups = new Map<
    string,
    { defect: DefectId, casts: string[], labels: string[], found?: CauseId, likely: ReturnType<typeof why> }
  >()
  for (const c of state.casts) {
    for (const defect of c.defects) {
      const likely = why(run, state, c.cast.id, defect, confirmed.value),
        found = c.causes.find(x => x.defect === defect)?.cause
      const key = [defect, c.cast.batch, found, ...likely.slice(0, MOST).map(l => l.cause)].join()
      const group = groups.get(key) ?? { defect, casts: [], labels: [], found, likely }
      group.casts.push(c.cast.id)
      group.labels.push(c.cast.label)
      groups.set(key, group)
    }
  }
  return [...groups.values()].map(g => ({
    ...g,
    key: `${g.defect} ${g.casts.join()}`,
    words: defectWords(g.defect),
    shown: g.likely.filter((l, i) => i < MOST && (i === 0 || l.share > 0.05)),
  }))
})
/** How sure a share of all causes makes one. */
const SURE = [[0.75, 'very likely'], [0.45, 'likely'], [0.2, 'possible']] as const
const sure = (share: number) => SURE.find(([least]) => share > least)?.[1] ?? 'less likely'
const confirm = (casts: readonly string[], defect: DefectId, cause: CauseId) =>
  records.recordAll(store.id, casts.map(cast => ({ kind: 'cause', data: { cast, defect, cause } })))
</script>

<template>
  <section v-if="rows.length > 0" aria-labelledby="why-head">
    <div class="group-head">
      <h2 id="why-head">Why</h2>
      <span class="small soft"
      >from this pour’s own record; weights are guesses of the trade, and learn from what you confirm</span
      >
    </div>
    <article v-for="r in rows" :key="r.key">
      <h3>
        {{ r.words }} <span class="small soft">{{ r.labels.join(', ') }}</span>
      </h3>
      <p v-if="r.found" class="found">It came of: {{ causeWords(r.found).toLowerCase() }}.</p>
      <ol>
        <li v-for="l in r.shown" :key="l.cause" :class="{ chosen: r.found === l.cause }">
          <p>
            <span class="strong">{{ causeWords(l.cause) }}</span> <span class="sure">{{ sure(l.share) }}</span>
          </p>
          <ul v-if="l.evidence.length > 0" class="evidence">
            <li v-for="e in l.evidence" :key="e.said.code" :class="e.weight > 0 ? 'for' : 'against'">
              <span class="sr-only">{{ e.weight > 0 ? 'for it:' : 'against it:' }}</span
              >{{ evidenceWords(e.said, session.units) }}
            </li>
          </ul>
          <p v-else class="small soft">Nothing in the record speaks for or against it.</p>
          <p class="next"><span class="small strong">Next time</span> {{ nextTimeWords(l.cause, session.units) }}</p>
          <Button
            v-if="session.mayWrite && r.found !== l.cause"
            label="That was it"
            severity="secondary"
            size="small"
            :aria-label="`${causeWords(l.cause)} was behind: ${r.words.toLowerCase()}, ${r.labels.join(', ')}`"
            @click="confirm(r.casts, r.defect, l.cause)" />
        </li>
      </ol>
    </article>
  </section>
</template>

<style scoped>
section {
  padding-top: 18px;
}
article {
  padding: 12px 0;
  border-bottom: 1px solid var(--line);
  display: grid;
  gap: 8px;
}
ol {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(270px, 1fr));
  gap: 12px 28px;
}
ol > li {
  display: grid;
  gap: 5px;
  align-content: start;
  justify-items: start;
  border-left: 4px solid var(--line);
  padding-left: 12px;
}
ol > li:first-child {
  border-color: var(--warn);
}
ol > li.chosen {
  border-color: var(--set);
}
.sure {
  color: var(--soft);
  margin-left: 6px;
}
.evidence {
  display: grid;
  gap: 2px;
}
.for::before {
  content: '+ ';
  color: var(--warn);
  font-weight: 750;
}
.against::before {
  content: '− ';
  color: var(--soft);
  font-weight: 750;
}
.against {
  color: var(--soft);
}
.found {
  color: var(--set);
  font-weight: 650;
}
</style>
