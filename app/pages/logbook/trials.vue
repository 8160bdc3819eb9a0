<script setup lang="ts">
import InputNumber from 'primevue/inputnumber'
import Select from 'primevue/select'
import { POWDER_CLASSES } from '~core/gypsum/powders'
import { SCHOOLS } from '~core/gypsum/schools'
import {
  askTrials,
  CHOICE_FACTORS,
  middleOf,
  NUMBER_FACTORS,
  OUTCOMES,
  type ChoiceFactor,
  type NumberFactor,
  type OutcomeId,
  type Split,
  type Trial,
} from '~core/logbook/trial'
import { roundTo } from '~core/units/format'
import LogbookHead from '~/features/logbook/LogbookHead.vue'
import { remembered } from '~/sync/kept'
import { latestOnly } from '~/sync/latest'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'

/** One factor, two sides, one honest answer. */
const session = useSession(), library = useLibrary()
const trials = shallowRef<readonly Trial[]>([]), trouble = ref(''), loaded = ref(false), latest = latestOnly()
const mould = ref<string>(), bag = ref<string>()
async function load() {
  const facts = [...mould.value ? [`mould:${mould.value}`] : [], ...bag.value ? [`bag:${bag.value}`] : []]
  await latest(
    () => remembered(session.key ?? '', 'GET logbook/trials', { query: { facts } }),
    ({ value }) => {
      trials.value = value
      loaded.value = true
      trouble.value = ''
    },
  ).catch((error: Error) => {
    trouble.value = error.message
  })
}
await Promise.all([load(), library.load()])
watch([mould, bag], load)

const FACTORS = [...NUMBER_FACTORS, ...CHOICE_FACTORS]
const by = ref<NumberFactor | ChoiceFactor>('stir'), outcomeId = ref<OutcomeId>('good')
const number = computed(() => NUMBER_FACTORS.find(f => f.id === by.value)),
  outcome = computed(() => OUTCOMES.find(o => o.id === outcomeId.value)!)
/** Where a measured factor is split, in its own unit as shown; undefined: in the middle. */
const wantedAt = ref<number>(), a = ref<string>(), b = ref<string>(), wantedMatters = ref<number>()
watch(by, () => {
  wantedAt.value = a.value = b.value = undefined
})
watch(outcomeId, () => {
  wantedMatters.value = undefined
})
const middle = computed(() => number.value && middleOf(trials.value, number.value.id))
const at = computed({
  get: () =>
    wantedAt.value
    ?? (middle.value === undefined ? undefined : Math.round(10 * middle.value / number.value!.scale) / 10),
  set: (v: number | undefined) => {
    wantedAt.value = v
  },
})
const matters = computed({
  get: () => wantedMatters.value ?? outcome.value.matters / outcome.value.scale,
  set: (v: number | undefined) => {
    wantedMatters.value = v && v > 0 ? v : undefined
  },
})
function nameOf(id: string): string {
  switch (by.value) {
    case 'bag': return library.items.bag.find(x => x.id === id)?.body.name ?? 'a bag no longer kept'
    case 'school': return SCHOOLS.find(s => s.id === id)?.name ?? id
    case 'powder': return POWDER_CLASSES.find(p => p.id === id)?.name ?? id
    default: return id
  }
}
const options = computed(() =>
  number.value
    ? []
    : [...new Set(trials.value.flatMap(t => t.was[by.value as ChoiceFactor] ?? []))].map(id => ({
        id,
        name: nameOf(id),
      })),
)
const split = computed<Split | undefined>(() => {
  if (number.value) {
    const place = wantedAt.value === undefined ? middle.value : wantedAt.value * number.value.scale
    return place === undefined ? undefined : { by: number.value.id, at: place }
  }
  const first = a.value ?? options.value[0]?.id, second = b.value ?? options.value.find(o => o.id !== first)?.id
  return first && second ? { by: by.value as ChoiceFactor, a: first, b: second } : undefined
})
const answer = computed(() =>
  split.value && askTrials(trials.value, split.value, outcomeId.value, matters.value * outcome.value.scale),
)
const sideWords = computed(() => {
  const s = split.value
  if (!s) return ['', '']
  return 'at' in s
    ? ['the others', `${number.value!.above} ${at.value} ${number.value!.unit}`]
    : [nameOf(s.a), nameOf(s.b)]
})
const show = (x: number) =>
  `${roundTo(Math.abs(x) / outcome.value.scale, outcome.value.scale === 1 ? 0.01 : 1)}${
    outcome.value.unit ? ` ${outcome.value.unit}` : ''
  }`
const way = (x: number) => x >= 0 ? outcome.value.more : outcome.value.less
const says = computed(() => {
  const v = answer.value?.verdict
  if (!v) return undefined
  switch (v.says) {
    case 'too-few':
      return {
        word: 'Too few to say',
        text: `At least ${v.more} more ${
          v.more === 1 ? 'pour' : 'pours'
        } on the smaller side before it means anything.`,
      }
    case 'differs':
      return {
        word: 'It differs',
        text: `Pours ${sideWords.value[1]}: ${show(v.difference.value)} ${way(v.difference.value)}. Likely between ${
          show(Math.abs(v.difference.low) < Math.abs(v.difference.high) ? v.difference.low : v.difference.high)
        } and ${
          show(Math.abs(v.difference.low) < Math.abs(v.difference.high) ? v.difference.high : v.difference.low)
        }.`,
      }
    case 'same':
      return {
        word: 'No difference worth having',
        text: `Whatever there is, it is smaller than ${show(matters.value * outcome.value.scale)}.`,
      }
    default:
      return {
        word: 'Cannot tell yet',
        text: `Between ${show(v.difference.low)} ${way(v.difference.low)} and ${show(v.difference.high)} ${
          way(v.difference.high)
        } on the second side. ${
          v.more === undefined
            ? 'So small a difference is out of reach of anybody’s pours; ask for a larger one.'
            : `About ${Number(v.more.toPrecision(2))} more ${
              v.more === 1 ? 'pour' : 'pours'
            } on each side would show a difference of ${
              show(matters.value * outcome.value.scale)
            } in four of five cases.`
        }`,
      }
  }
})
/** The pours as dots: their places on a strip from the least to the most. */
const strip = computed(() => {
  const values = [...answer.value?.a ?? [], ...answer.value?.b ?? []],
    low = Math.min(...values, outcomeId.value === 'good' ? 0 : Infinity),
    high = Math.max(...values, outcomeId.value === 'good' ? 1 : -Infinity),
    span = high - low || 1
  const x = (v: number) => 20 + 560 * (v - low) / span
  return {
    sides: [answer.value?.a ?? [], answer.value?.b ?? []].map((list, i) => ({
      dots: list.slice(0, 200).map((v, k) => ({ x: x(v), y: 34 + 78 * i + 7 * ((k * 7) % 5 - 2) })),
      mean: list.length > 0 ? x(answer.value!.means[i]!) : undefined,
      n: list.length,
      y: 34 + 78 * i,
    })),
    low,
    high,
  }
})
const edge = (v: number) => outcome.value.scale === 1 ? v.toFixed(2) : `${Math.round(100 * v)} %`
</script>

<template>
  <div>
    <LogbookHead />
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div class="two">
      <form class="ask" @submit.prevent>
        <div class="field">
          <span id="t-out" class="small strong">What should be better?</span
          ><Select
            v-model="outcomeId"
            aria-labelledby="t-out"
            :options="[...OUTCOMES]"
            option-label="word"
            option-value="id" />
        </div>
        <div class="field">
          <span id="t-by" class="small strong">What may be behind it?</span
          ><Select v-model="by" aria-labelledby="t-by" :options="FACTORS" option-label="word" option-value="id" />
        </div>
        <div v-if="number" class="field">
          <label for="t-at">Pours {{ number.above }}, in {{ number.unit }}</label>
          <InputNumber v-model="at" input-id="t-at" :max-fraction-digits="1" :disabled="middle === undefined" />
          <p class="small soft">{{ wantedAt === undefined ? 'The middle of what was measured.' : '' }}</p>
        </div>
        <template v-else>
          <div class="field">
            <span id="t-a" class="small strong">First side</span
            ><Select
              :model-value="split && 'a' in split ? split.a : undefined"
              aria-labelledby="t-a"
              :options="options"
              option-label="name"
              option-value="id"
              @update:model-value="a = $event" />
          </div>
          <div class="field">
            <span id="t-b" class="small strong">Second side</span
            ><Select
              :model-value="split && 'b' in split ? split.b : undefined"
              aria-labelledby="t-b"
              :options="options"
              option-label="name"
              option-value="id"
              @update:model-value="b = $event" />
          </div>
        </template>
        <div class="field">
          <label for="t-m">A difference worth having{{ outcome.unit ? `, in ${outcome.unit}` : '' }}</label
          ><InputNumber v-model="matters" input-id="t-m" :min="0" :max-fraction-digits="2" />
        </div>
        <p class="small soft">Only pours</p>
        <div class="pair">
          <Select
            v-model="mould"
            :options="library.items.mould.map(m => ({ id: m.id, name: m.body.name }))"
            option-label="name"
            option-value="id"
            placeholder="of any mould"
            aria-label="Only of this mould"
            show-clear />
          <Select
            v-model="bag"
            :options="library.items.bag.map(m => ({ id: m.id, name: m.body.name }))"
            option-label="name"
            option-value="id"
            placeholder="from any bag"
            aria-label="Only from this bag"
            show-clear />
        </div>
      </form>
      <section class="sheet answer" aria-live="polite">
        <template v-if="says && answer">
          <p class="word">{{ says.word }}</p>
          <p>{{ says.text }}</p>
          <svg
            viewBox="0 0 600 178"
            role="img"
            :aria-label="`${sideWords[0]}: ${answer.a.length} pours. ${sideWords[1]}: ${answer.b.length} pours.`">
            <line x1="20" y1="158" x2="580" y2="158" stroke="var(--line-strong)" />
            <text x="20" y="174" font-size="13">{{ edge(strip.low) }}</text>
            <text x="580" y="174" font-size="13" text-anchor="end">{{ edge(strip.high) }}</text>
            <g v-for="(side, i) in strip.sides" :key="i">
              <text x="20" :y="side.y - 20" font-size="14" font-weight="650">
                {{ sideWords[i] }} · {{ side.n }} {{ side.n === 1 ? 'pour' : 'pours' }}
              </text>
              <circle
                v-for="(d, k) in side.dots"
                :key="k"
                :cx="d.x"
                :cy="d.y + 8"
                r="5"
                :fill="i === 0 ? 'var(--powder-mid)' : 'var(--action)'"
                fill-opacity="0.6" />
              <line
                v-if="side.mean !== undefined"
                :x1="side.mean"
                :x2="side.mean"
                :y1="side.y - 12"
                :y2="side.y + 30"
                stroke="var(--ink)"
                stroke-width="3" />
            </g>
          </svg>
          <p class="small soft">
            A dot is a pour, whole: casts of one bucket are not independent. The line is the mean. Interval 95 %,
            Welch’s t.
          </p>
          <p class="small soft">
            These pours were not drawn by lot: whatever else went with it may be behind it, and who asks many questions
            finds something by chance in one of twenty. To be sure, toss a coin for each next pour and ask again.
          </p>
        </template>
        <p v-else-if="loaded" class="soft">
          {{
            trials.length === 0
              ? 'Nothing has come of a pour yet: look a few casts over on the shelf first.'
              : 'Nobody has measured this yet. Choose another factor.'
          }}
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.two { display: grid; grid-template-columns: minmax(240px, 340px) minmax(0, 1fr); gap: 28px; align-items: start; }
.ask { display: grid; gap: 12px; }
.pair { display: grid; gap: 8px; }
.answer { padding: 18px 22px; display: grid; gap: 10px; min-height: 200px; align-content: start; }
.word { font-size: 1.5rem; font-weight: 720; }
svg { width: 100%; max-width: 640px; height: auto; }
@media (max-width: 800px) { .two { grid-template-columns: minmax(0, 1fr); } }
</style>
