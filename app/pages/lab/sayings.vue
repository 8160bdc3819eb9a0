<script setup lang="ts">
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { OFFERED_CLASSES, powderClass, powderInSentence, type PowderClassId } from '~core/gypsum/powders'
import { readSaying } from '~core/gypsum/saying/read-saying'
import {
  powderOfSaying,
  ratioVerdict,
  readingsOf,
  SAYINGS,
  trueYield,
  yieldVerdict,
  type Reading,
  type SayingId,
} from '~core/gypsum/sayings'
import { readingName, verdictWords } from '~core/gypsum/saying-words'
import { DOINGS, type DoingId } from '~core/gypsum/saying/doing'
import { DOING_WORDS, UNREAD_SAYING_WORDS } from '~core/gypsum/words'
import { judgeDoing, type InHand } from '~core/lab/doing'
import { doingWords, TRUTH_WORDS } from '~core/lab/doing-words'
import { SURE_WORDS } from '~core/setting/words'
import { writingOf } from '~core/units/reading/read-quantity'
import { solveMix } from '~core/gypsum/mix'
import { ratioOf } from '~core/gypsum/schools'
import { capital } from '~core/units/sentences'
import { formatConsistency, formatMass, formatVolume, roundTo } from '~core/units/format'
import { labFacts, type LabFact } from '~core/lab/facts'
import { labInput, usualMix } from '~core/lab/mix'
import { labRemarks } from '~core/lab/remarks'
import { factName, labRefusalWords } from '~core/lab/words'
import { workOutPlan } from '~core/plan/plan'
import { centreMoments } from '~core/setting/moments'
import LabHead from '~/features/lab/LabHead.vue'
import RangeAxis from '~/ui/RangeAxis.vue'
import { differs, showFact } from '~/features/lab/showing'
import QuantityField from '~/ui/QuantityField.vue'
import { usePlans } from '~/sync/plans'
import { useLibrary } from '~/sync/library'
import { useWorlds } from '~/sync/worlds'
import { useSession } from '~/sync/session'

const library = useLibrary(), worldOf = useWorlds(), session = useSession(), plans = usePlans(), route = useRoute()
await Promise.all([library.loaded ? undefined : library.load(), plans.loaded ? undefined : plans.load()])
const units = computed(() => session.units)

const FILLINGS = [{ id: 'loose', name: 'scooped loosely' }, { id: 'tapped', name: 'tapped down' }] as const
const asked = route.query.plan
const chosenPowder = ref(plans.saved.some(p => p.id === asked) ? `plan:${String(asked)}` : 'class:plaster-of-paris')
const filling = ref<'loose' | 'tapped'>('loose')
const mould = ref(1e-3)
const chosen = ref<SayingId | DoingId>('two-to-one-volume')
const typed = ref('')
const powders = computed(() => [
  ...(library.items.bag.length > 0
    ? [{ label: 'Your bags', items: library.items.bag.map(b => ({ value: `bag:${b.id}`, name: b.body.name })) }]
    : []),
  ...(plans.saved.length > 0
    ? [{ label: 'Your plans', items: plans.saved.map(p => ({ value: `plan:${p.id}`, name: p.plan.name || 'Without a name' })) }]
    : []),
  { label: 'By class', items: OFFERED_CLASSES.map(p => ({ value: `class:${p.id}`, name: p.name })) },
])
/** The plan in question, worked out; nothing while it cannot be. */
const plan = computed(() => plans.saved.find(p => `plan:${p.id}` === chosenPowder.value)?.plan)
const worked = computed(() => plan.value && workOutPlan(plan.value, worldOf(plan.value)))
const bag = computed(() =>
  library.items.bag.find(b => `bag:${b.id}` === chosenPowder.value || (plan.value?.bag !== undefined && b.id === plan.value.bag)))
const scooped = computed(() =>
  powderClass(bag.value?.body.classId ?? plan.value?.classId ?? chosenPowder.value.replace(/^class:/, '') as PowderClassId),
)
/** The powder in question: what is scooped, or what the saying itself names. */
const powder = computed(() => picked.value ? powderOfSaying(picked.value, scooped.value) : scooped.value)
const bulk = computed(() => bag.value?.body.bulk)
const understood = computed(() => typed.value.trim()
  ? readSaying(typed.value, {
      // Of three parts nobody need say the powder: plaster and silica are named.
      powder: scooped.value, filling: filling.value, writing: writingOf(units.value), ...bulk.value && { bulk: bulk.value },
    })
  : undefined,
)
const isDoing = (id: SayingId | DoingId): id is DoingId => (DOINGS as readonly string[]).includes(id)
/** The saying about doing that is meant: pressed, or typed. */
const doing = computed<DoingId | undefined>(() => {
  if (understood.value) return understood.value.code === 'doing' ? understood.value.id : undefined
  return isDoing(chosen.value) ? chosen.value : undefined
})
const inHand = computed<InHand>(() => {
  const { setting, batches } = worked.value ?? {}
  return setting && batches
    ? { input: setting.input, powder: Math.max(...batches.map(b => b.mix.powder)) }
    : { input: labInput(usualMix(scooped.value.id)) }
})
const judgedFor = computed(() => {
  const { setting } = worked.value ?? {}
  if (setting && plan.value) return `For the plan “${plan.value.name || 'without a name'}” and its thickest cast, ${setting.mould.name}.`
  const small = `For a small cast 25 mm thick of ${powderInSentence(scooped.value)}.`
  return plan.value ? `The plan “${plan.value.name || 'without a name'}” cannot be worked out yet. ${small}` : small
})
const judged = computed(() => doing.value && judgeDoing(doing.value, inHand.value))
/** The saying of the list that is meant: pressed, or typed. */
const picked = computed<SayingId | undefined>(() => {
  switch (understood.value?.code) {
    case undefined: return isDoing(chosen.value) ? undefined : chosen.value
    case 'saying': return understood.value.id
    case 'names-silica': return 'one-one-one'
    default: return undefined
  }
})
const unread = computed(() => {
  if (!understood.value || picked.value) return ''
  const { code } = understood.value
  return code === 'read' || code === 'school' || code === 'saying' || code === 'doing' ? '' : UNREAD_SAYING_WORDS[code]
})
const readings = computed<readonly Reading[]>(() => {
  if (picked.value) return readingsOf(picked.value, scooped.value, filling.value, bulk.value)
  if (understood.value?.code === 'read') return understood.value.readings
  if (understood.value?.code !== 'school') return []
  const { school } = understood.value, aimed = scooped.value.ratio.recommended
  return [{
    code: school === 'powder-first' ? 'by-feel' : 'to-islands', ratio: ratioOf(school, scooped.value, aimed, 20),
  }]
})
const isYield = computed(() => SAYINGS.find(s => s.id === picked.value)?.about === 'yield')
const verdicts = computed(() =>
  isYield.value
    ? [yieldVerdict(picked.value!, powder.value, mould.value)]
    : readings.value.map(r => ratioVerdict(powder.value, r.ratio)),
)
const said = computed(() => typed.value.trim()
  || (isDoing(chosen.value) ? DOING_WORDS[chosen.value] : SAYINGS.find(s => s.id === chosen.value)!.words))

/** What a reading leads to beside the recommended mix, for a usual small cast. */
const SHOWN = ['pour', 'gloss', 'core', 'open', 'bleed', 'bubble', 'dry', 'paint']
function factsAt(ratio: number): readonly LabFact[] | string {
  const mix = { ...usualMix(powder.value.id), ratio }
  const { refusal } = labRemarks(mix)
  if (refusal) return labRefusalWords(refusal)
  return labFacts(mix, centreMoments(labInput(mix))).filter(f => SHOWN.includes(f.id))
}
const recommended = computed(() => factsAt(powder.value.ratio.recommended))
const columns = computed(() => readings.value.map(r => ({ ...r, facts: factsAt(r.ratio.value) })))
const amounts = (ratio: number) => {
  const mix = solveMix({ powder: powder.value, ratio, waterTemperature: 20 }, { what: 'slurry', amount: mould.value })
  return `${formatMass(mix.water, units.value)} water and ${formatMass(mix.powder, units.value)} powder`
}

const RATIO_SAYINGS = SAYINGS.filter(s => s.about === 'ratio'), YIELD_SAYINGS = SAYINGS.filter(s => s.about === 'yield')
const usable = OFFERED_CLASSES.map(p => ({
  id: p.id,
  label: p.name,
  low: p.ratio.low,
  high: p.ratio.high,
  mark: p.ratio.recommended,
}))
const ownBand = computed(() => usable.filter(b => b.id === powder.value.id))
const readingBars = computed(() =>
  readings.value.map((r, i) => ({
    id: `${i}`,
    label: readingName(r),
    low: r.ratio.low,
    value: r.ratio.value,
    high: r.ratio.high,
    strong: true,
  })),
)
const ratioBars = computed(() =>
  RATIO_SAYINGS.flatMap(s =>
    readingsOf(s.id, scooped.value, filling.value, bulk.value).map((r, i, all) => ({
      id: `${s.id}${i}`,
      label: all.length > 1 ? `${s.short}, ${readingName(r)}` : s.short,
      low: r.ratio.low,
      value: r.ratio.value,
      high: r.ratio.high,
      strong: !typed.value && s.id === chosen.value,
    })),
  ),
)
/** Where each saying about a ratio is right, powder by powder: its own scoop weight decides. */
const rightFor = computed(() =>
  RATIO_SAYINGS.map(s => ({
    words: s.words,
    classes: OFFERED_CLASSES.filter(p =>
      powderOfSaying(s.id, p) === p
      && readingsOf(s.id, p, filling.value, p.id === scooped.value.id ? bulk.value : undefined).some(r =>
        r.ratio.value >= p.ratio.low && r.ratio.value <= p.ratio.high,
      ),
    ).map(powderInSentence),
  })),
)
const yieldBands = OFFERED_CLASSES.filter(p =>
  ['plaster-of-paris', 'pottery-plaster', 'gypsum-cement', 'high-strength-gypsum-cement', 'dental-type-4'].includes(
    p.id,
  ),
).map((p) => {
  const { value, low, high } = trueYield(p, {
    value: p.ratio.recommended,
    low: p.ratio.low,
    high: p.ratio.high,
    basis: { kind: 'physics', note: '' },
  })
  return { id: p.id, label: p.name, low, high, mark: value }
})
const yieldBars = computed(() =>
  YIELD_SAYINGS.map(s => ({
    id: s.id,
    label: s.short,
    low: s.claims!.low,
    value: (s.claims!.low + s.claims!.high) / 2,
    high: s.claims!.high,
    strong: !typed.value && s.id === chosen.value,
  })),
)
const consistency = (r: number) => formatConsistency(r)
const times = (v: number) => roundTo(v, v < 1.995 ? 0.05 : 0.1)
const heading = ref<HTMLElement>()
function pick(id: SayingId | DoingId) {
  chosen.value = id
  typed.value = ''
  // On a narrow screen the answer stands below the list.
  void nextTick(() => heading.value?.scrollIntoView({ block: 'nearest' }))
}
</script>

<template>
  <div>
    <LabHead />
    <div class="two">
      <section class="left" aria-label="What is said, and with what">
        <div class="field">
          <label for="typed">Say it as you know it</label>
          <InputText
            id="typed"
            v-model="typed"
            placeholder="2 to 1, ten pounds to a gallon, …"
            maxlength="120"
            :aria-describedby="unread ? 'not-read' : undefined"
            :invalid="unread !== ''"
            fluid />
          <p v-if="unread" id="not-read" class="problem" role="status">{{ unread }}</p>
        </div>
        <div class="field">
          <span id="saying-powder" class="small strong">With this powder or plan</span>
          <Select
            v-model="chosenPowder"
            :options="powders"
            option-label="name"
            option-value="value"
            option-group-label="label"
            option-group-children="items"
            aria-labelledby="saying-powder"
            fluid />
        </div>
        <SelectButton
          v-model="filling"
          :options="[...FILLINGS]"
          option-label="name"
          option-value="id"
          :allow-empty="false"
          aria-label="How the scoop is filled" />
        <QuantityField
          v-model="mould"
          kind="volume"
          field="holds"
          label="For a mould of"
          :check="v => (v > 0 && v <= 1 ? undefined : 'Between nothing and a cubic metre.')" />
        <ul class="sayings" aria-label="or pick a saying">
          <li v-for="s in SAYINGS" :key="s.id">
            <button
              :aria-pressed="!typed.trim() && s.id === chosen"
              @click="pick(s.id)">
              {{ s.words }}
            </button>
          </li>
          <li v-for="id in DOINGS" :key="id">
            <button :aria-pressed="!typed.trim() && id === chosen" @click="pick(id)">{{ DOING_WORDS[id] }}</button>
          </li>
        </ul>
      </section>
      <section class="answer" aria-labelledby="said">
        <h2 id="said" ref="heading" class="said">“{{ said }}”</h2>
        <p v-for="(v, i) in verdicts" :key="i" :class="['verdict', v.fit]" role="status">
          <span class="fit">{{ { right: 'Right', near: 'Nearly', wrong: 'Not with this powder' }[v.fit] }}</span>
          <span
          ><template v-if="verdicts.length > 1"
          >{{ capital(readingName(readings[i]!)) }}: </template
          >{{ verdictWords(v, units) }}</span
          >
        </p>
        <template v-if="judged">
          <p :class="['verdict', { true: 'right', partly: 'near', not: 'wrong' }[judged.truth]]" role="status">
            <span class="fit">{{ TRUTH_WORDS[judged.truth] }}</span><span>{{ doingWords(judged, units) }}</span>
          </p>
          <p class="small soft">
            {{ judgedFor }} {{ SURE_WORDS[judged.sure] }}
          </p>
        </template>
        <div v-if="readings.length > 0" class="sheet">
          <RangeAxis
            title="Water per 100 powder, by weight."
            :bars="readingBars"
            :bands="ownBand"
            :from="0.18"
            :to="1.7"
            :ticks="[0.2, 0.3, 0.4, 0.5, 0.7, 1, 1.5]"
            :write="consistency" />
        </div>
        <p v-for="r in readings" :key="readingName(r)" class="small soft">
          <span class="strong">{{ formatConsistency(r.ratio.value) }} water per 100 powder by weight</span> ({{
            formatConsistency(r.ratio.low)
          }}–{{ formatConsistency(r.ratio.high) }} in eight of ten), {{ readingName(r) }}: {{ r.ratio.basis.note }}. For
          <span class="num">{{ formatVolume(mould, units) }}</span>: {{ amounts(r.ratio.value) }}.
        </p>
        <div
          v-if="typeof recommended !== 'string' && readings.length > 0"
          class="scroll"
          tabindex="0"
          role="region"
          aria-label="What follows, beside the recommended mix">
          <table>
            <thead>
              <tr>
                <th scope="col">In a small cast 25 mm thick</th>
                <th scope="col">at {{ formatConsistency(powder.ratio.recommended) }}, as recommended</th>
                <th v-for="c in columns" :key="readingName(c)" scope="col">
                  at {{ formatConsistency(c.ratio.value) }}, {{ readingName(c) }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(f, i) in recommended" :key="f.id">
                <th scope="row">{{ factName(f, session.units) }}</th>
                <td class="num">{{ showFact(f, units).value }}</td>
                <template v-for="c in columns" :key="readingName(c)">
                  <td v-if="typeof c.facts !== 'string'" :class="['num', { changed: differs(f, c.facts[i]!, units) }]">
                    {{ showFact(c.facts[i]!, units).value }}
                  </td>
                  <td v-else-if="i === 0" :rowspan="recommended.length" class="refused">{{ c.facts }}</td>
                </template>
              </tr>
            </tbody>
          </table>
        </div>
      </section>
    </div>
    <section aria-labelledby="all-ratios" class="all">
      <h2 id="all-ratios">
        How much powder: all on one axis, with {{ powderInSentence(scooped) }}
        {{ filling === 'loose' ? 'scooped loosely' : 'tapped down' }}
      </h2>
      <div class="sheet">
        <RangeAxis
          title="Water per 100 powder, by weight."
          :bars="ratioBars"
          :bands="usable"
          :from="0.18"
          :to="2"
          :ticks="[0.2, 0.3, 0.4, 0.5, 0.7, 1, 1.5]"
          :write="consistency" />
      </div>
      <ul class="ruled right-for">
        <li v-for="r in rightFor" :key="r.words">
          <span>{{ r.words }}</span
          ><span class="soft">{{
            r.classes.length ? `right for ${r.classes.join('; ')}` : 'right for none of the classes, scooped like this'
          }}</span>
        </li>
      </ul>
    </section>
    <section aria-labelledby="all-yields" class="all">
      <h2 id="all-yields">How much comes of it: mix for one measure of water</h2>
      <div class="sheet">
        <RangeAxis
          title="Volume of mix over volume of water."
          :bars="yieldBars"
          :bands="yieldBands"
          :from="0.95"
          :to="3.2"
          :ticks="[1, 1.25, 1.5, 1.75, 2, 2.5, 3]"
          :write="times" />
      </div>
      <p class="small soft">
        Bars: what is claimed. Green: what the masses and volumes of each powder give over its usable ratios, the stroke
        at the recommended one.
      </p>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 308px minmax(0, 1fr);
  gap: 26px;
  align-items: start;
}
.left,
.answer {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
}
.answer {
  position: sticky;
  top: 12px;
}
.sayings {
  display: grid;
}
.sayings button {
  width: 100%;
  text-align: left;
  border: 0;
  border-bottom: 1px solid var(--line);
  background: none;
  padding: 7px 8px;
  min-height: 36px;
  font-size: 0.93rem;
  border-radius: 0;
}
.sayings button:hover {
  background: var(--action-soft);
}
.sayings button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
  border-radius: 8px;
}
.said {
  font-size: 1.5rem;
  font-weight: 700;
}
.verdict {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 12px;
  align-items: baseline;
}
.fit {
  font-weight: 720;
  padding: 2px 10px;
  border-radius: 7px;
  background: var(--warn-soft);
  color: var(--warn);
}
.verdict.right .fit {
  background: var(--set-soft);
  color: var(--set);
}
.verdict.wrong .fit {
  background: var(--heat-soft);
  color: var(--heat);
}
.sheet {
  padding: 14px 12px 8px;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.9rem;
}
th,
td {
  text-align: left;
  padding: 5px 12px 5px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: baseline;
}
thead th {
  border-bottom: 2px solid var(--ink);
  font-weight: 650;
}
tbody th {
  font-weight: 500;
}
.changed {
  font-weight: 750;
}
.refused {
  color: var(--heat);
  max-width: 26ch;
  vertical-align: top;
}
.all {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  margin-top: 30px;
}
.right-for li {
  display: grid;
  grid-template-columns: minmax(0, 280px) minmax(0, 1fr);
  gap: 14px;
  padding: 6px 0;
  font-size: 0.93rem;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .answer {
    position: static;
  }
  .right-for li {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
}
</style>
