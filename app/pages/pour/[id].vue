<script setup lang="ts">
import { statusWords } from '~core/logbook/words'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { format } from 'date-fns'
import { endUse } from '~core/gypsum/end-use'
import type { SchoolId } from '~core/gypsum/schools'
import { powderOf } from '~core/plan/run'
import { bowlOfPour } from '~core/practice/past-pour'
import { defectWords } from '~core/pour/defects'
import { costOf } from '~core/pour/cost'
import { milestonesOf } from '~core/pour/milestones'
import {
  formatConsistency,
  formatDuration,
  formatDurationRange,
  formatMass,
  formatTemperature,
} from '~core/units/format'
import { entriesOf } from '~/features/logbook/record'
import WhySection from '~/features/logbook/WhySection.vue'
import GroundButton from '~/ui/GroundButton.vue'
import { MOMENT_GROUND } from '~/ui/grounds'
import RippleChart from '~/ui/RippleChart.vue'
import { recordTime } from '~/ui/when'
import { addressOf } from '~/sync/api'
import { useClock } from '~/sync/clock'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'

const store = useRun(), clock = useClock(), session = useSession(), route = useRoute()
await store.load(String(route.params.id))
const shown = ref(0)
const note = ref('')
const reason = ref<string>()
const units = computed(() => session.units)
const run = computed(() => store.run!), state = computed(() => store.state!)
const milestones = computed(() => milestonesOf(store.runFor(shown.value), state.value, shown.value))
const batch = computed(() => state.value.batches[shown.value]!)
const wetFor = computed(() =>
  batch.value.wetAt === undefined || state.value.endedAt ? undefined : (clock.beat - batch.value.wetAt) / 1000,
)
const plannedBatch = computed(() => run.value.batches[shown.value]!)
/** The ratio it is held against: as planned or, where nobody knows that any more, as its powder is used. */
const wanted = computed(() => run.value.daysOnly ? powderOf(run.value).ratio : run.value.ratio)
const entries = computed(() => entriesOf(store.events, run.value, units.value))
const BY: Readonly<Record<SchoolId, string>> = {
  'weighed': 'weighed',
  'saturation': 'sifted to islands',
  'scoops': 'measured in scoops',
  'bag': 'in a bag',
  'dumped': 'all in at once',
  'powder-first': 'water by feel',
}
/** What the time of each moment stands on. */
const mixWords = () =>
  `${powderOf(run.value).name} at ${formatConsistency(run.value.ratio.value)}; water ${
    formatTemperature(run.value.plan.waterTemperature, units.value)}, room ${
    formatTemperature(run.value.plan.roomTemperature, units.value)}`
const cost = computed(() => costOf(run.value, state.value))
const money = (x: number) => x.toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })
const running = computed(() => !['finished', 'abandoned'].includes(state.value.status))
function difference(actual: number, low: number, high: number): { words: string, off: boolean } {
  if (actual >= low && actual <= high) return { words: 'as expected', off: false }
  return actual < low
    ? { words: `${formatDuration(low - actual, low - actual > 600 ? 'minute' : 'second')} sooner`, off: true }
    : { words: `${formatDuration(actual - high, actual - high > 600 ? 'minute' : 'second')} later`, off: true }
}
async function addNote() {
  const text = note.value.trim()
  if (!text) return
  // Emptied before it is kept: what is typed meanwhile is the next note.
  note.value = ''
  await store.record({ kind: 'note', data: { text } })
}
async function giveUp() {
  await store.record({ kind: 'abandoned', data: { reason: reason.value ?? '' } })
  reason.value = undefined
}
</script>

<template>
  <div v-if="store.run && store.state">
    <header>
      <div>
        <h1>{{ run.plan.name }}</h1>
        <p class="soft">
          {{
            state.startedAt
              ? run.daysOnly
                ? format(state.startedAt, 'd MMM yyyy')
                : recordTime(state.startedAt, clock.halfHour)
              : ''
          }}, {{ statusWords(state.status)
          }}{{ run.daysOnly ? '' : ` · ${endUse(run.plan.endUse).name.toLowerCase()} · ${BY[run.plan.school]}` }}
        </p>
      </div>
      <Button
        v-if="running && state.status !== 'drying'"
        label="To the bench"
        @click="navigateTo(`/bench/${store.id}`)" />
      <NuxtLink v-if="bowlOfPour(run, state)" :to="`/practise/${store.id}`" class="practise">Practise this pour</NuxtLink>
    </header>
    <div v-if="run.batches.length > 1" class="batches" role="group" aria-label="Batch">
      <button v-for="(_, i) in run.batches" :key="i" :aria-pressed="shown === i" @click="shown = i">
        Bucket {{ i + 1 }}
      </button>
    </div>
    <div :class="{ two: !run.daysOnly }">
      <div v-if="!run.daysOnly" class="sheet chart">
        <RippleChart :milestones="milestones" :now="wetFor" :size="440" />
      </div>
      <div>
        <table>
          <caption>
            {{
              run.daysOnly
                ? 'What its moulds take of this powder, and what was weighed'
                : 'Planned against what happened, after powder met water'
            }}
          </caption>
          <thead>
            <tr>
              <th scope="col">{{ run.daysOnly ? 'Of the mix' : 'Moment' }}</th><th scope="col">
                {{ run.daysOnly ? 'usual' : 'expected' }}
              </th><th scope="col">
                was
              </th><th scope="col" />
            </tr>
          </thead>
          <tbody>
            <tr v-for="m in run.daysOnly ? [] : milestones" :key="m.id">
              <th scope="row"><GroundButton :ground="MOMENT_GROUND[m.id]" :from="mixWords">{{ m.phrase }}</GroundButton></th>
              <td class="num">{{ formatDurationRange(m.low, m.high) }}</td>
              <td class="num">
                {{ m.actual === undefined ? '—' : formatDuration(m.actual, m.actual > 1200 ? 'minute' : 'second') }}
              </td>
              <td
                :class="['small', m.actual !== undefined && difference(m.actual, m.low, m.high).off ? 'off' : 'soft']">
                {{ m.actual === undefined ? '' : difference(m.actual, m.low, m.high).words }}
              </td>
            </tr>
            <tr>
              <th scope="row"><GroundButton ground="ratio">water per 100 powder</GroundButton></th>
              <td class="num">{{ formatConsistency(wanted.low) }}–{{ formatConsistency(wanted.high) }}</td>
              <td class="num">{{ batch.ratio ? formatConsistency(batch.ratio) : '—' }}</td>
              <td
                :class="[
                  'small',
                  batch.ratio && (batch.ratio < wanted.low || batch.ratio > wanted.high) ? 'off' : 'soft',
                ]">
                {{
                  batch.ratio
                    ? batch.ratio > wanted.high
                      ? `thinner than ${run.daysOnly ? 'usual' : 'planned'}`
                      : batch.ratio < wanted.low
                        ? `thicker than ${run.daysOnly ? 'usual' : 'planned'}`
                        : run.daysOnly
                          ? 'usual for its powder'
                          : 'as planned'
                    : 'not weighed'
                }}
              </td>
            </tr>
            <tr v-for="what in ['water', 'powder'] as const" :key="what">
              <th scope="row"><GroundButton ground="amounts" :from="mixWords">{{ what }}</GroundButton></th>
              <td class="num">{{ formatMass(plannedBatch.mix[what], units) }}</td>
              <td class="num">{{ batch.weighed[what] ? formatMass(batch.weighed[what], units) : '—' }}</td>
              <td />
            </tr>
          </tbody>
        </table>
        <p v-if="cost" class="small basis">
          <GroundButton ground="cost">Cost <span class="num strong">{{ money(cost.total) }}</span></GroundButton
          ><template v-if="cost.each !== undefined"
          >, <span class="num strong">{{ money(cost.each) }}</span> for each of {{ cost.pieces }} usable</template
          ><template v-if="cost.unknown.length > 0"
          >; without the {{ cost.unknown[0] }}, whose price is not known</template
          >.
        </p>
        <p class="small soft basis">
          {{ run.world.bag?.name ?? 'Powder by class'
          }}<template v-if="run.daysOnly"
          >. From a table: only its day is known, so no time counts here, and what was planned then nobody
            knows.</template
          ><template v-else
          >; water {{ formatTemperature(run.plan.waterTemperature, units) }}, room
            {{ formatTemperature(run.plan.roomTemperature, units) }}. Expected by setting model {{ run.modelVersion }},
            frozen when the pour began.</template
          >
        </p>
      </div>
    </div>
    <WhySection />
    <div class="two lower">
      <section aria-labelledby="casts-head">
        <div class="group-head">
          <h2 id="casts-head">Casts</h2>
          <a :href="addressOf('GET pours/:id/labels', { params: { id: store.id } })" target="_blank" class="small">Labels to print</a>
        </div>
        <ul class="ruled">
          <li v-for="c in state.casts" :key="c.cast.id" class="line">
            <NuxtLink :to="`/piece/${store.id}/${c.cast.id}`" class="row-link strong">{{ c.cast.label }}</NuxtLink>
            <span
            >{{ c.verdict ?? c.status
            }}<template v-if="c.defects.length > 0"
            >, {{ c.defects.map(d => defectWords(d).toLowerCase()).join(', ') }}</template
            ><br /><span v-if="c.note" class="small soft">{{ c.note }}</span></span
            >
          </li>
        </ul>
      </section>
      <section aria-labelledby="record-head">
        <div class="group-head">
          <h2 id="record-head">Record</h2>
          <span class="small soft">{{ entries.length }} entries</span>
        </div>
        <ol class="record" tabindex="0" aria-labelledby="record-head">
          <li v-for="e in entries" :key="e.event.id" :class="{ back: e.takenBack }">
            <span class="num small">{{
              run.daysOnly ? format(e.event.happenedAt, 'd MMM yyyy') : recordTime(e.event.happenedAt, clock.halfHour)
            }}</span>
            <span
            >{{ e.words
            }}<span v-if="e.takenBack || e.again || e.late" class="small soft">
              ({{ e.takenBack ? 'taken back' : e.again ? 'told again' : 'told later' }})</span
            ><span v-if="e.doubt !== undefined" class="small soft">
              (the device’s clock was set or it slept: the time may be off by
              {{ formatDuration(e.doubt, e.doubt > 600 ? 'minute' : 'second') }})</span
            ></span
            >
          </li>
        </ol>
        <form v-if="session.mayWrite" class="note" @submit.prevent="addNote">
          <InputText v-model="note" placeholder="Add a note" aria-label="Add a note" maxlength="2000" fluid />
          <Button type="submit" label="Note it" severity="secondary" :disabled="!note.trim()" />
        </form>
        <div v-if="session.mayWrite && running" class="give-up">
          <Button
            v-if="reason === undefined"
            label="Abandon this pour"
            severity="secondary"
            size="small"
            @click="reason = ''" />
          <form v-else class="note" @submit.prevent="giveUp">
            <InputText
              v-model="reason"
              placeholder="Why, in a few words"
              aria-label="Why it is abandoned"
              maxlength="2000"
              fluid />
            <Button type="submit" label="Give it up" />
            <Button label="Keep it" severity="secondary" @click="reason = undefined" />
          </form>
        </div>
      </section>
    </div>
  </div>
  <div v-else class="empty">
    <h1>{{ store.missing ? 'There is no such pour' : 'This pour cannot be reached just now' }}</h1>
    <p>{{ store.trouble }}</p>
    <NuxtLink to="/logbook">To the logbook</NuxtLink>
  </div>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: start;
  margin-bottom: 14px;
}
.batches {
  display: flex;
  gap: 4px;
  margin-bottom: 12px;
}
.batches button {
  border: 1px solid var(--line-strong);
  background: var(--sheet);
  border-radius: 8px;
  padding: 5px 14px;
  min-height: 32px;
}
.batches button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
.two {
  display: grid;
  grid-template-columns: minmax(260px, 420px) minmax(0, 1fr);
  gap: 28px;
  align-items: start;
}
.lower {
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr);
}
.chart {
  padding: 14px;
}
.chart :deep(.plate) {
  fill: var(--sheet);
}
table {
  width: 100%;
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 600;
  color: var(--soft);
  font-size: 0.87rem;
  padding-bottom: 6px;
}
th,
td {
  text-align: right;
  padding: 7px 0 7px 14px;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
  white-space: nowrap;
}
th[scope='row'],
th:first-child {
  text-align: left;
  padding-left: 0;
}
thead th {
  font-size: 0.84rem;
  color: var(--soft);
  border-bottom: 2px solid var(--ink);
}
td.num {
  font-size: 0.9rem;
}
.off {
  color: var(--warn);
  font-weight: 600;
}
.basis {
  padding-top: 10px;
  max-width: 62ch;
}
.line {
  display: grid;
  grid-template-columns: 1fr 1.4fr;
  gap: 12px;
  padding: 8px 0;
}
.record {
  display: grid;
  gap: 5px;
  padding: 10px 0;
  max-height: 420px;
  overflow: auto;
}
.record li {
  display: grid;
  grid-template-columns: 128px 1fr;
  gap: 10px;
}
.back > :last-child {
  color: var(--soft);
  text-decoration: line-through;
}
.note {
  display: flex;
  gap: 8px;
  padding-top: 8px;
}
.give-up {
  padding-top: 18px;
}
@media (max-width: 900px) {
  .two,
  .lower {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 600px) {
  th, td { padding-left: 8px; }
  th[scope=row], td:last-child { white-space: normal; }
  td.num { font-size: 0.82rem; }
}
</style>
