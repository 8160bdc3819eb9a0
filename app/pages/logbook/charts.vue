<script setup lang="ts">
import Select from 'primevue/select'
import { format } from 'date-fns'
import { shareOf } from '~core/logbook/control-chart'
import type { LogbookTallies, SetTime } from '~contract/logbook'
import { costChart, defectsChart, percent, resultsChart, setChart } from '~/features/logbook/charts'
import LogbookHead from '~/features/logbook/LogbookHead.vue'
import GroundButton from '~/ui/GroundButton.vue'
import DataChart from '~/ui/DataChart.vue'
import { remembered } from '~/sync/kept'
import { latestOnly } from '~/sync/latest'
import { useSession } from '~/sync/session'

/** What a season of pours adds up to. */
const session = useSession(), who = () => session.key ?? ''
const SPANS = [{ value: 12, words: 'the last 12 months' }, { value: 36, words: 'the last 3 years' }, {
  value: 0,
  words: 'everything',
}]
const span = ref(12), bag = ref<string>(), trouble = ref('')
const tallies = shallowRef<LogbookTallies>(), times = shallowRef<readonly SetTime[]>([])
const latestCounts = latestOnly(), latestTimes = latestOnly()
async function tried(work: Promise<void>) {
  await work.then(() => {
    trouble.value = ''
  }, (error: Error) => {
    trouble.value = error.message
  })
}
function load() {
  const from = span.value > 0
    ? format(new Date(new Date().getFullYear(), new Date().getMonth() - span.value + 1, 1), 'yyyy-MM')
    : undefined
  return tried(latestCounts(() => remembered(who(), 'GET logbook/tallies', { query: { from } }), ({ value }) => {
    tallies.value = value
  }))
}
function loadTimes() {
  return tried(
    latestTimes(() => remembered(who(), 'GET logbook/set-times', { query: { bag: bag.value } }), ({ value }) => {
      times.value = value
    }),
  )
}
await Promise.all([load(), loadTimes()])
watch(span, load)
watch(bag, loadTimes)

const whole = computed(() =>
  tallies.value?.months.reduce(
    (s, m) => ({
      pours: s.pours + m.counts.pours,
      judged: s.judged + m.counts.judged,
      good: s.good + m.counts.good,
      waste: s.waste + m.counts.waste,
    }),
    { pours: 0, judged: 0, good: 0, waste: 0 },
  ),
)
const good = computed(() => whole.value && shareOf(whole.value.good, whole.value.judged))
const bags = computed(() => tallies.value?.bags.map(b => ({ value: b.key, words: b.name })) ?? [])
const results = computed(() => tallies.value && resultsChart(tallies.value.months)),
  costs = computed(() => tallies.value && costChart(tallies.value.months)),
  defects = computed(() => tallies.value && defectsChart(tallies.value.defects))
const set = computed(() => setChart(times.value, at => format(at, 'd MMM yy')))
const costKnown = computed(() => tallies.value?.months.some(m => m.counts.pieces > 0))
</script>

<template>
  <div>
    <LogbookHead>
      <Select
        v-model="span"
        :options="SPANS"
        option-label="words"
        option-value="value"
        aria-label="Time"
        size="small" />
    </LogbookHead>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <template v-if="tallies && whole">
      <p v-if="whole.pours === 0" class="empty">Nothing was poured in this time.</p>
      <p v-else class="sum">
        <span
        ><strong class="num">{{ whole.pours }}</strong> {{ whole.pours === 1 ? 'pour' : 'pours' }}</span
        >
        <span v-if="good"
        ><strong class="num">{{ Math.round(100 * good.value) }}</strong> % <GroundButton
            ground="good-share"
            :from="`${whole.good} good of ${whole.judged} pieces`">good at the first try</GroundButton
          >{{ ' ' }}<span class="small soft"
          >of {{ whole.judged }} pieces; likely range {{ percent(good.low) }} to {{ percent(good.high) }}</span
          ></span
        >
        <span v-if="whole.judged > 0"
        ><strong class="num">{{ Math.round((100 * whole.waste) / whole.judged) }}</strong> % waste</span
        >
      </p>
      <div v-if="whole.pours > 0" class="charts">
        <section aria-labelledby="c1">
          <h2 id="c1">How pieces came out</h2>
          <p class="small key">
            <span class="good">good</span><span class="second">second</span><span class="waste">waste</span>
          </p>
          <DataChart v-if="results" v-bind="results" />
        </section>
        <section aria-labelledby="c2">
          <div class="row">
            <h2 id="c2">When the gloss went, against the forecast</h2>
            <Select
              v-model="bag"
              :options="bags"
              option-label="words"
              option-value="value"
              placeholder="all bags"
              aria-label="Bag"
              show-clear
              size="small" />
          </div>
          <p class="small soft"><GroundButton ground="chart">{{ set.says }}</GroundButton></p>
          <DataChart v-if="times.length > 0" v-bind="set" />
        </section>
        <section aria-labelledby="c3">
          <h2 id="c3">What was wrong</h2>
          <DataChart v-if="tallies.defects.length > 0 && defects" v-bind="defects" />
          <p v-else class="small soft">Nothing was found wrong in this time.</p>
        </section>
        <section aria-labelledby="c4">
          <h2 id="c4">What a usable piece cost</h2>
          <template v-if="costKnown && costs">
            <p class="small soft"><GroundButton ground="cost">Powder and the wear of moulds</GroundButton></p>
            <DataChart v-bind="costs" />
          </template>
          <p v-else class="small soft">
            Not known yet: it needs the price of the bag and, for the wear, of the moulds.
          </p>
        </section>
        <section aria-labelledby="c5" class="wide">
          <h2 id="c5">Moulds</h2>
          <p class="small soft">
            Casts in this time and how they came out; and how far into its expected life each mould is by all its casts.
          </p>
          <ul class="ruled moulds">
            <li v-for="m in tallies.moulds" :key="m.key">
              <NuxtLink :to="`/moulds/${m.key}`" class="row-link strong">{{ m.name }}</NuxtLink>
              <span class="small"
              ><span class="num">{{ m.counts.casts }}</span> casts</span
              >
              <span class="small">{{
                m.counts.judged > 0
                  ? `${percent(m.counts.good / m.counts.judged)} good, ${percent(m.counts.waste / m.counts.judged)} waste`
                  : 'none looked over'
              }}</span>
              <span v-if="m.lifeCasts && m.lifeCasts > 1" class="life"
              ><meter
                 :value="Math.min(1, (m.ever ?? m.counts.casts) / m.lifeCasts)"
                 :high="0.9"
                 min="0"
                 max="1"
                 :aria-label="`Life of ${m.name}`" />{{ ' ' }}
                <span class="small"
                ><GroundButton
                  ground="wear"
                  :from="`${m.ever ?? m.counts.casts} casts out of ${m.name}`"
                >{{ percent((m.ever ?? m.counts.casts) / m.lifeCasts) }} of about {{ m.lifeCasts }}</GroundButton></span
                ></span
              >
              <span v-else class="small soft">{{ m.lifeCasts ? 'made anew for each cast' : 'no usual life' }}</span>
            </li>
          </ul>
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.sum {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 26px;
  padding-bottom: 14px;
}
.sum .num {
  font-size: 1.35rem;
}
.charts {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 22px 28px;
}
section {
  background: var(--sheet);
  border-radius: 14px;
  padding: 14px 18px;
  min-width: 0;
}
.wide {
  grid-column: 1 / -1;
}
.row {
  display: flex;
  gap: 10px;
  justify-content: space-between;
  align-items: center;
  flex-wrap: wrap;
}
h2 {
  padding-bottom: 6px;
}
.key {
  display: flex;
  gap: 16px;
  padding-bottom: 4px;
}
.key span::before {
  content: '';
  display: inline-block;
  width: 12px;
  height: 12px;
  margin-right: 6px;
  border-radius: 3px;
  vertical-align: -1px;
}
.good::before {
  background: var(--set);
}
.second::before {
  background: var(--powder-mid);
}
.waste::before {
  background: var(--heat);
}
.moulds li {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) 100px minmax(0, 1fr) minmax(0, 1.4fr);
  gap: 14px;
  align-items: center;
  padding: 7px 0;
}
.life {
  display: flex;
  gap: 10px;
  align-items: center;
}
meter {
  width: 120px;
  height: 14px;
}
@media (max-width: 860px) {
  .charts { grid-template-columns: minmax(0, 1fr); }
  .moulds li { grid-template-columns: 1fr auto; }
}
</style>
