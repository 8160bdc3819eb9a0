<script setup lang="ts">
import type { Entry, Log } from '~core/practice/types'
import { faultsOf, LEVER_WORDS, PRACTICE_VERDICT_WORDS } from '~core/practice/words'
import { formatDuration } from '~core/units/format'
import type { Told } from '~/workers/practice.worker'
import PlainButton from '~/ui/PlainButton.vue'
import type { Before } from './practising'
import { groupsOf, spansOf } from './spans'

/** What became of it, the one thing to change, one's own minutes beside an expert's, and the way back to any of them. */
const { told, log, before, alone = true, mine = true } = defineProps<{
  told: Told
  log: Log
  /** The time before in the same bucket, to be set beside this one. */
  before?: Before
  alone?: boolean
  mine?: boolean
}>()
const emit = defineEmits<{ back: [log: Log], again: [sameBucket: boolean] }>()
const faultsIn = ({ outcome }: Told) => [...new Set(outcome.pieces.flatMap(p => faultsOf(p)))]
const faults = computed(() => faultsIn(told))
const both = computed(() => before ? [{ name: 'The time before', told: before.told }, { name: 'This time', told }] : [])
const count = computed(() => told.outcome.pieces.length)
const first = computed(() => told.changes[0]), also = computed(() => told.changes.slice(1, 3))
const rows = computed(() => [
  ...before ? [{ name: 'You, the time before', spans: spansOf(before.log) }] : [],
  { name: mine ? 'You' : 'As it was done', spans: spansOf(log) },
  { name: 'An expert, in this very bucket', spans: spansOf(told.best.log) },
])
const longest = computed(() => Math.max(60, ...rows.value.flatMap(r => r.spans.map(s => s.to))))
const groups = computed(() => groupsOf(log))
const words = (levers: readonly (keyof typeof LEVER_WORDS)[]) => levers.map(l => LEVER_WORDS[l]).join(' ')
const at = (entry: Entry) => log.slice(0, log.indexOf(entry))
</script>

<template>
  <section class="debrief" aria-labelledby="became">
    <h2 id="became">{{ PRACTICE_VERDICT_WORDS[told.outcome.verdict] }}{{ count > 1 ? `, of ${count}` : '' }}</h2>
    <div v-if="both.length > 0" class="both">
      <section v-for="b in both" :key="b.name" :aria-label="b.name">
        <h3>{{ b.name }}</h3>
        <p class="strong">{{ PRACTICE_VERDICT_WORDS[b.told.outcome.verdict] }}</p>
        <ul v-if="faultsIn(b.told).length > 0"><li v-for="f in faultsIn(b.told)" :key="f">{{ f }}</li></ul>
        <p v-else>Full, sharp, sound.</p>
      </section>
    </div>
    <ul v-else-if="faults.length > 0" class="faults"><li v-for="f in faults" :key="f">{{ f }}</li></ul>
    <p v-else>Full, sharp, sound.</p>
    <div v-if="first" class="one">
      <h3>{{ first.levers.length > 1 ? 'Two things together' : 'The one thing' }}</h3>
      <p class="what">{{ words(first.levers) }}</p>
      <p>With that alone, and all else as it was done: {{ PRACTICE_VERDICT_WORDS[first.outcome.verdict].toLowerCase() }}.</p>
      <p v-if="also.length > 0" class="small">Also: {{ also.map(c => words(c.levers)).join(' ') }}</p>
    </div>
    <p v-else-if="told.outcome.verdict !== 'good'" class="one">Nothing that shows was done wrong: this bag was not an easy one.</p>
    <h3>The minutes</h3>
    <table>
      <tbody>
        <tr v-for="r in rows" :key="r.name">
          <th scope="row">{{ r.name }}</th>
          <td>
            <span
              v-for="s in r.spans"
              :key="s.from"
              :class="['span', s.kind]"
              :style="{ left: `${100 * s.from / longest}%`, width: `${Math.max(0.6, 100 * (s.to - s.from) / longest)}%` }"
              :title="`${s.word}, ${formatDuration(s.to - s.from, 'second')}`"><span class="over">{{ s.word }}</span></span>
          </td>
        </tr>
      </tbody>
    </table>
    <h3>From here the other way</h3>
    <ol class="back">
      <li v-for="g in groups" :key="g.at">
        <span><span class="num">{{ formatDuration(g.at, 'second') }}</span> {{ g.word }}</span>
        <PlainButton label="From here again" small @click="emit('back', at(g.entry))" />
      </li>
    </ol>
    <p class="ways">
      <PlainButton label="The same bucket again" strong @click="emit('again', true)" />
      <template v-if="alone">
        <PlainButton label="Another bag" @click="emit('again', false)" />
        <NuxtLink to="/practice">Something else</NuxtLink>
      </template>
    </p>
  </section>
</template>

<style scoped>
.debrief { padding: 18px 22px 26px; display: grid; gap: 12px; max-width: 1100px; }
h2 { font-size: clamp(1.8rem, 3.4vw, 2.6rem); }
h3 { font-size: 1.1rem; margin-top: 6px; }
.faults { margin: 0; padding-left: 20px; font-size: 1.1rem; }
/* Side by side, the later one where the eye goes first: the strong one. */
.both { display: grid; grid-template-columns: 1fr 1fr; gap: 2px; background: var(--line-strong); border: 2px solid var(--line-strong); }
.both section { background: var(--sheet); padding: 12px 16px; }
.both section:last-child { box-shadow: inset 0 4px 0 var(--ink); }
.both h3 { margin: 0; }
.both ul { margin: 4px 0 0; padding: 0; list-style: none; }
.one { background: var(--now); color: var(--now-ink); border-radius: 14px; padding: 14px 18px; display: grid; gap: 4px; }
.one h3 { margin: 0; }
.what { font-size: clamp(1.3rem, 2.4vw, 1.8rem); font-weight: 700; }
table { width: 100%; border-collapse: collapse; table-layout: fixed; }
th { width: 9.5em; text-align: left; font-weight: 600; padding: 8px 10px 8px 0; vertical-align: middle; }
td { position: relative; height: 44px; background: var(--band); border: 2px solid var(--ground); }
.span { position: absolute; top: 5px; bottom: 5px; border-radius: 5px; background: var(--mix-soft); color: var(--ink); overflow: hidden; border: 1px solid var(--line-strong); }
.span.strew { background: var(--powder-soft); }
.span.stir { background: var(--now-soft); }
.span.pour { background: var(--set-soft); }
.span.tap { background: var(--water-soft); }
.over { padding: 0 5px; font-size: 0.85rem; line-height: 30px; white-space: nowrap; }
.back { list-style: none; margin: 0; padding: 0; display: grid; gap: 4px; }
.back li { display: flex; justify-content: space-between; gap: 12px; align-items: center; border-bottom: 1px solid var(--line); padding: 4px 0; }
.num { font-weight: 700; display: inline-block; min-width: 6.5em; }
.ways { display: flex; flex-wrap: wrap; gap: 12px; align-items: center; }
@media (max-width: 720px) { th { width: 5.4em; font-size: 0.85rem; } }
</style>
