<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { MOULD_MATERIALS } from '~core/setting/body'
import { GAUGE_WAYS, gaugeProblem, gaugeRange, gaugeResult, type Gauge, type GaugeHow } from '~core/mould/gauge/gauge'
import { photoArea, photoLength } from '~core/mould/photo/photo'
import { readinessOf, USUAL_LIFE } from '~core/mould/readiness'
import {
  disagreeWords,
  GAUGE_PROBLEM_WORDS,
  GAUGE_WORDS,
  gaugeBasisWords,
  readyWords,
  releaseSentence,
} from '~core/mould/words'
import { profileOf } from '~core/drawing/profile'
import { formatArea, formatLength, formatPercent, formatVolume, roundTo } from '~core/units/format'
import { Z80 } from '~core/units/quantity'
import type { MouldBody } from '~contract/library'
import { BLANK_GAUGES } from '~/features/moulds/blanks'
import GaugeFields from '~/features/moulds/GaugeFields.vue'
import { useMould } from '~/features/moulds/useMould'
import PhotoStrip from '~/features/moulds/PhotoStrip.vue'
import GroundButton from '~/ui/GroundButton.vue'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import QuantityField from '~/ui/QuantityField.vue'
import RangeAxis from '~/ui/RangeAxis.vue'
import Stepper from '~/ui/Stepper.vue'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'
import ConflictChoice from '~/features/waiting/ConflictChoice.vue'
import { SAVING } from '~/ui/saving'

const library = useLibrary(), session = useSession(), planning = usePlanning(), clock = useClock()
const id = String(useRoute().params.id)
await library.load()
const item = library.items.mould.find(m => m.id === id)
if (!item)
  throw createError({ statusCode: 404, statusMessage: 'This mould is not in the library any more.', fatal: true })
const mould = useMould(item)
const { body, gauges, withPours, gauged, saving, trouble, waiting } = mould
onBeforeRouteLeave(() => mould.save())
useEventListener(window, 'pagehide', () => void mould.save())

const units = computed(() => session.units)
const WAYS = GAUGE_WAYS.map(how => ({ how, name: GAUGE_WORDS[how].name }))
const chosen = ref<number>()
const inHand = computed(() => chosen.value === undefined ? undefined : gauges.value[chosen.value])
const way = computed(() => inHand.value && GAUGE_WORDS[inHand.value.how])
function add(how: GaugeHow) {
  mould.setGauges([...gauges.value, BLANK_GAUGES[how as keyof typeof BLANK_GAUGES]])
  chosen.value = gauges.value.length - 1
}
function drop(i: number) {
  mould.setGauges(gauges.value.filter((_, j) => j !== i))
  chosen.value = undefined
}
const replace = (g: Gauge) => mould.setGauges(gauges.value.map((x, i) => i === chosen.value ? g : x))

const rows = computed(() => withPours.value.map((g, i) => {
  const problem = gaugeProblem(g)
  return { g, i, problem, result: problem ? undefined : gaugeResult(g) }
}))
const bars = computed(() => [
  ...rows.value.flatMap(({ g, i, result }) =>
    result ? [{ id: `${i}`, label: GAUGE_WORDS[g.how].name, ...gaugeRange(result) }] : [],
  ),
  ...(gauged.value ? [{ id: 'all', label: 'Together', ...gauged.value, strong: true }] : []),
])
const span = computed(() => {
  const low = Math.min(...bars.value.map(b => b.low)), high = Math.max(...bars.value.map(b => b.high))
  return { from: low / 1.08, to: high * 1.08 }
})
const ticks = computed(() => {
  const { from, to } = span.value
  const rough = (to - from) / 5,
    power = 10 ** Math.floor(Math.log10(rough)),
    step = [1, 2, 5, 10].map(s => s * power).find(s => s >= rough)!
  return Array.from({ length: 12 }, (_, i) => Math.ceil(from / step) * step + i * step).filter(t => t < to)
})
const volume = (v: number) => formatVolume(v, units.value)

const materials = Object.entries(MOULD_MATERIALS).map(([key, m]) => ({ id: key, name: m.name }))
const KINDS: readonly { readonly id: NonNullable<MouldBody['kind']>, readonly name: string }[] = [
  { id: 'block', name: 'Block' },
  { id: 'skin', name: 'Skin in a jacket' },
  { id: 'parts', name: 'Parts that key together' },
  { id: 'open', name: 'Open face' },
  { id: 'press', name: 'Hump, slump or press mould' },
  { id: 'waste', name: 'Waste mould, broken off once' },
  { id: 'impression', name: 'Soft impression, used once' },
  { id: 'print', name: 'Print in the ground' },
]
const SHAPES = [{ id: 'round', name: 'Round opening' }, { id: 'rectangular', name: 'Rectangular' }]
const positive = (v: number) => v > 0 ? undefined : 'More than nothing.'
const ready = computed(() => readinessOf({ ...body.value, uses: item.uses }, { additions: [] }).map(readyWords))
const measures = computed(() => {
  const photo = body.value.impression?.photo
  return (photo?.marks ?? []).map((m) => {
    const size = m.what === 'length'
      ? photoLength(photo!.scale, m.points[0]!, m.points[1]!, photo!.camera)
      : photoArea(photo!.scale, m.points, photo!.camera)
    return `${m.name} ${size ? (m.what === 'length' ? formatLength : formatArea)(size.value, units.value) : '—'}`
  })
})
const life = computed(() => body.value.life ?? USUAL_LIFE[body.value.material])
const usesEach = computed(() => (item.uses ?? 0) / (body.value.copies ?? 1))
const wearNote = ref('')
const wearTear = ref(false)
function addWear() {
  const note = wearNote.value.trim()
  if (!note) return
  mould.change({
    wear: [
      { on: new Date(clock.now).toISOString().slice(0, 10), note, tear: wearTear.value },
      ...(body.value.wear ?? []),
    ],
  })
  wearNote.value = ''
  wearTear.value = false
}
async function plan() {
  await mould.save()
  planning.open(undefined)
  planning.change({ name: body.value.name, fills: [{ mould: id, count: body.value.copies ?? 1 }] })
  await planning.save()
  await navigateTo(`/plan/${planning.id}`)
}
function toggle(i: number | undefined) {
  chosen.value = chosen.value === i ? undefined : i
}
function setCost(event: Event) {
  mould.change({ cost: Number((event.target as HTMLInputElement).value.replace(',', '.')) || undefined })
}
const setNote = (note: string | undefined) => mould.change({ note: note ?? '' })
</script>

<template>
  <div>
    <header>
      <div class="title">
        <h1 class="sr-only">{{ body.name }}</h1>
        <input
          class="name"
          aria-label="Name of the mould"
          maxlength="80"
          :value="body.name"
          :readonly="!session.mayWrite"
          @input="mould.change({ name: ($event.target as HTMLInputElement).value })" />
        <p class="small soft" role="status">
          <span v-if="saving === 'failed'" class="problem">{{ trouble }}</span>
          <template v-else
          >{{ MOULD_MATERIALS[body.material].name }} · {{ item.uses ?? 0 }} casts so far ·
            {{ SAVING[saving] }}</template
          >
        </p>
      </div>
      <Button v-if="session.mayWrite" label="Plan a pour with it" @click="plan" />
    </header>
    <ConflictChoice
      v-if="waiting?.conflict"
      :change="waiting"
      :chosen="(how, copy) => how !== 'mine' && reloadNuxtApp({ path: `/moulds/${copy ?? id}` })" />
    <div class="three">
      <section aria-labelledby="gauge-head" class="column">
        <h2 id="gauge-head" class="eyebrow">How it was measured</h2>
        <ul class="ruled">
          <li v-for="r in rows" :key="r.i">
            <button
              v-if="r.g.how !== 'pours'"
              class="gauge"
              :aria-pressed="chosen === r.i"
              @click="toggle(r.i)">
              <span class="strong">{{ GAUGE_WORDS[r.g.how].name }}</span>
              <span class="num"
              >{{ r.result ? volume(r.result.volume) : '—' }}
                <span class="soft small">{{
                  r.result ? `± ${formatPercent(Math.round(Z80 * r.result.doubt * 1000) / 1000)}` : ''
                }}</span></span
              >
            </button>
            <div v-else class="gauge">
              <span class="strong">{{ GAUGE_WORDS.pours.name }}</span><span class="num"
              >{{ volume(r.result!.volume) }}
                <span class="soft small"
                >± {{ formatPercent(Math.round(Z80 * r.result!.doubt * 1000) / 1000) }}</span
                ></span
              >
              <span class="soft small">{{ gaugeBasisWords(r.g) }}</span>
            </div>
            <p v-if="r.problem" class="problem">{{ GAUGE_PROBLEM_WORDS[r.problem] }}</p>
          </li>
        </ul>
        <NuxtLink v-if="gauges.some(g => g.how === 'mesh')" :to="`/moulds/model?mould=${id}`"
        >Its model in three dimensions</NuxtLink
        >
        <Button
          v-if="inHand?.how === 'mesh'"
          label="Take this one away"
          severity="secondary"
          size="small"
          :disabled="gauges.length < 2"
          @click="drop(chosen!)" />
        <template v-else-if="inHand">
          <p class="small soft">{{ way?.tells }}</p>
          <GaugeFields :key="chosen" :gauge="inHand" @change="replace" />
          <Button
            label="Take this one away"
            severity="secondary"
            size="small"
            :disabled="gauges.length < 2"
            @click="drop(chosen!)" />
        </template>
        <Select
          v-if="session.mayWrite"
          :key="gauges.length"
          :model-value="null"
          :options="WAYS"
          option-label="name"
          option-value="how"
          placeholder="Measure it another way"
          aria-label="Measure it another way"
          fluid
          @update:model-value="add"
        />
      </section>
      <section aria-labelledby="holds-head" class="column">
        <div class="sheet holds">
          <h2 id="holds-head">
            It holds <span class="num big">{{ volume(body.volume.value) }}</span>
          </h2>
          <p class="soft">
            <GroundButton :ground="body.gauges?.length ? 'gauged' : 'told'"
            ><span class="num">{{ volume(body.volume.low) }} to {{ volume(body.volume.high) }}</span> in eight of ten, ±
              {{ formatPercent(Math.round(500 * Math.log(body.volume.high / body.volume.low)) / 1000) }}</GroundButton>
          </p>
          <p v-if="session.mayWrite && gauged && volume(gauged.value) !== volume(body.volume.value)" class="refine">
            With what its pours took, {{ volume(gauged.value) }} ({{ volume(gauged.low) }} to
            {{ volume(gauged.high) }}).
            <Button label="Take it over" severity="secondary" size="small" @click="mould.setGauges(gauges)" />
          </p>
          <p v-if="gauged?.disagree" class="problem warn" role="status">{{ disagreeWords(gauged.disagree, units) }}</p>
          <RangeAxis
            title="Volume by each gauge."
            :bars="bars"
            :bands="[]"
            :from="span.from"
            :to="span.to"
            :ticks="ticks"
            :write="volume" />
          <p class="small soft">
            {{
              inHand
                ? gaugeBasisWords(inHand)
                : 'The most precise measurement counts most; where they contradict each other, the range widens.'
            }}
          </p>
        </div>
        <div class="sheet holds drawn">
          <MouldDrawing :mould="body" view="above" :width="150" :height="150" />
          <MouldDrawing :mould="body" view="cut" :width="190" :height="150" :filled="1" :warmth="8" />
          <p class="small soft">
            {{ formatLength(profileOf(body).depth, units) }} deep as it is drawn, and holding what it says. Dashed sides are a guess.
          </p>
        </div>
        <section v-if="body.impression" aria-labelledby="print-head" class="column">
          <h2 id="print-head" class="eyebrow">The print</h2>
          <p>
            {{ [body.impression.place, body.impression.on].filter(Boolean).join(', ')
            }}<template v-if="body.impression.believed"
            >. Probably left by {{ body.impression.believed }}{{ body.impression.faced ? `, pointing ${body.impression.faced}` : '' }}</template
            >.
          </p>
          <p v-if="measures.length > 0" class="num small">{{ measures.join(' · ') }}</p>
          <NuxtLink :to="`/moulds/print?mould=${id}`">Its photo and measures</NuxtLink>
        </section>
        <PhotoStrip :mould="id" :name="body.name" />
        <section aria-labelledby="ready-head" class="column">
          <h2 id="ready-head" class="eyebrow">Before it is poured</h2>
          <ol class="ready"><li v-for="r in ready" :key="r">{{ r }}</li></ol>
          <p class="small soft">{{ releaseSentence(body.material) }}</p>
        </section>
      </section>
      <section aria-labelledby="facts-head" class="column">
        <h2 id="facts-head" class="eyebrow">The mould itself</h2>
        <div class="field">
          <span id="made-of" class="small strong">Made of</span
          ><Select
            :model-value="body.material"
            :options="materials"
            option-label="name"
            option-value="id"
            aria-labelledby="made-of"
            fluid
            @update:model-value="mould.change({ material: $event })" />
        </div>
        <div class="field">
          <span id="kind-of" class="small strong">Kind</span
          ><Select
            :model-value="body.kind ?? null"
            :options="[...KINDS]"
            option-label="name"
            option-value="id"
            placeholder="Not said"
            aria-labelledby="kind-of"
            fluid
            @update:model-value="mould.change({ kind: $event })" />
        </div>
        <SelectButton
          :model-value="body.mouth.shape"
          :options="SHAPES"
          option-label="name"
          option-value="id"
          :allow-empty="false"
          aria-label="Shape of the opening"
          @update:model-value="mould.change({ mouth: { ...body.mouth, shape: $event } })" />
        <QuantityField
          kind="length"
          :label="body.mouth.shape === 'round' ? 'Across the opening' : 'Opening, width'"
          :model-value="body.mouth.width"
          :check="positive"
          @amount="mould.change({ mouth: { ...body.mouth, width: $event } })" />
        <QuantityField
          v-if="body.mouth.shape === 'rectangular'"
          kind="length"
          label="Opening, length"
          :model-value="body.mouth.length"
          :check="positive"
          @amount="mould.change({ mouth: { ...body.mouth, length: $event } })" />
        <QuantityField
          kind="length"
          label="Its wall"
          :model-value="body.wall"
          :check="positive"
          @amount="mould.change({ wall: $event })" />
        <QuantityField
          kind="length"
          field="size"
          label="Thickest part of the cast"
          :model-value="body.section"
          :check="positive"
          @amount="mould.change({ section: $event })" />
        <QuantityField
          kind="length"
          clearable
          label="Pour hole, if it is closed"
          :model-value="body.pourHole"
          @update:model-value="mould.change({ pourHole: $event })" />
        <label class="check"
        ><Checkbox
          :model-value="body.fragile"
          binary
          input-id="fragile"
          @update:model-value="mould.change({ fragile: $event })" />
          Thin or undercut parts</label
        >
        <label class="check"
        ><Checkbox
          :model-value="body.cradle ?? false"
          binary
          input-id="cradle"
          @update:model-value="mould.change({ cradle: $event })" />
          Sits in a cradle</label
        >
        <div class="pair">
          <span class="strong">Parts</span
          ><Stepper
            label="Parts of the mould"
            :min="1"
            :max="20"
            :model-value="body.halves ?? 1"
            @update:model-value="mould.change({ halves: $event })" />
        </div>
        <div v-if="(body.halves ?? 1) > 1 || body.straps" class="pair">
          <span class="strong">Straps or bands</span
          ><Stepper
            label="Straps or bands that hold it"
            :min="0"
            :max="40"
            :model-value="body.straps ?? 0"
            @update:model-value="mould.change({ straps: $event })" />
        </div>
        <div class="pair">
          <span class="strong">Copies of it</span
          ><Stepper
            label="Copies of the mould"
            :min="1"
            :max="1000"
            :model-value="body.copies ?? 1"
            @update:model-value="mould.change({ copies: $event })" />
        </div>
        <div class="pair">
          <span class="strong">Lasts about</span
          ><Stepper
            label="Expected life, pours"
            :min="1"
            :max="100000"
            :model-value="life ?? 50"
            @update:model-value="mould.change({ life: $event })" />
        </div>
        <p class="small soft">
          {{ roundTo(usesEach, 1) }} of about {{ life ?? '?' }} pours each{{
            body.life ? '' : ', as is usual for this material'
          }}<template v-if="body.cost && life">; {{ roundTo(body.cost / life, 0.01) }} a pour</template>.
        </p>
        <div class="pair">
          <label for="cost" class="strong">It cost</label
          ><input
            id="cost"
            class="num typed"
            inputmode="decimal"
            :value.attr="body.cost ?? ''"
            @change="setCost" />
        </div>
        <h2 class="eyebrow">Wear and tears</h2>
        <div v-if="session.mayWrite" class="wear">
          <InputText
            v-model="wearNote"
            maxlength="300"
            placeholder="What you saw"
            aria-label="Wear that you saw"
            fluid
            @keydown.enter="addWear" />
          <label class="check"><Checkbox v-model="wearTear" binary input-id="tear" /> a tear</label>
          <Button label="Note it" severity="secondary" size="small" @click="addWear" />
        </div>
        <ul class="ruled small">
          <li v-for="(w, i) in body.wear ?? []" :key="i" class="noted">
            <span class="num soft">{{ w.on }}</span> {{ w.tear ? 'Tear: ' : '' }}{{ w.note }}
          </li>
        </ul>
        <div class="field">
          <label for="note" class="small strong">Note</label
          ><InputText
            id="note"
            :model-value="body.note"
            maxlength="2000"
            fluid
            @update:model-value="setNote" />
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 16px;
  margin-bottom: 16px;
}
.title {
  flex: 1;
  min-width: 0;
}
.name {
  width: 100%;
  border: 0;
  border-bottom: 1.5px solid transparent;
  background: none;
  padding: 0 0 2px;
  font-size: 1.85rem;
  font-weight: 720;
}
.name:hover,
.name:focus {
  border-bottom-color: var(--line-strong);
}
.three {
  display: grid;
  grid-template-columns: 312px minmax(0, 1fr) 280px;
  gap: 24px;
  align-items: start;
}
.column {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
}
.gauge {
  width: 100%;
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: baseline;
  border: 0;
  background: none;
  padding: 9px 6px;
  text-align: left;
  border-radius: 8px;
  flex-wrap: wrap;
}
button.gauge:hover {
  background: var(--action-soft);
}
.gauge[aria-pressed='true'] {
  background: var(--action-soft);
}
.holds {
  padding: 16px 18px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
.big {
  font-size: 1.7rem;
  font-weight: 700;
}
.drawn {
  grid-template-columns: repeat(2, minmax(0, max-content));
  justify-content: space-evenly;
  gap: 18px;
  align-items: end;
}
.drawn p {
  grid-column: 1 / -1;
}
.ready {
  list-style: decimal;
  padding-left: 22px;
  display: grid;
  gap: 4px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 8px;
}
.check {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 30px;
}
.typed {
  width: 6em;
  text-align: right;
  border: 1px solid var(--line-strong);
  border-radius: 9px;
  background: var(--sheet);
  padding: 0.35rem 0.6rem;
}
.wear {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
  align-items: center;
}
.noted {
  padding: 5px 0;
}
@media (max-width: 1080px) {
  .three {
    grid-template-columns: 300px minmax(0, 1fr);
  }
  .three > :last-child {
    grid-column: 1 / -1;
  }
}
@media (max-width: 720px) {
  .three {
    grid-template-columns: minmax(0, 1fr);
  }
  header {
    flex-wrap: wrap;
  }
}
</style>
