<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { useDebounceFn } from '@vueuse/core'
import { DEFECTS, defectWords, type DefectId } from '~core/pour/defects'
import type { FaultMark, Measured, Severity, Verdict } from '~core/pour/events'
import { CHECK_LISTS, expectedExpansion, judgeMeasure, shellList, weightFound } from '~core/logbook/inspection'
import { measureName } from '~core/logbook/words'
import { powderOf } from '~core/plan/run'
import { formatConsistency, formatFine, formatMass, formatVolume } from '~core/units/format'
import type { KeptPhoto } from '~contract/photo'
import BesidePiece from '~/features/logbook/BesidePiece.vue'
import { DEFECT_MARKS } from '~/features/logbook/defect-marks'
import FaceDrawing from '~/features/logbook/FaceDrawing.vue'
import { newId, Refused } from '~/sync/api'
import { dropPhoto, keepPhoto, photoAddress, photosOf, shrunk } from '~/sync/photos'
import { dayAndTime } from '~/ui/when'
import FileButton from '~/ui/FileButton.vue'
import GroundButton from '~/ui/GroundButton.vue'
import QuantityField from '~/ui/QuantityField.vue'
import { useClock } from '~/sync/clock'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'

/** One piece, looked over: its faults where they are, its measures, its weight, and beside another one. */
const store = useRun(), session = useSession(), clock = useClock(), route = useRoute()
const pourId = String(route.params.pour), castId = String(route.params.cast)
await store.load(pourId)
const units = computed(() => session.units), run = computed(() => store.run!), state = computed(() => store.state!)
const cast = computed(() => store.state?.casts.find(c => c.cast.id === castId))
const tell = store.record

// Faults: drawn here first, told a moment later.
const draft = ref<FaultMark[]>(),
  picked = ref<number>(),
  kind = ref<DefectId>('surface-bubbles'),
  severity = ref<Severity>(2)
const SEVERITIES = [{ id: 1, word: 'Hardly seen' }, { id: 2, word: 'Plain' }, { id: 3, word: 'Spoils it' }]
const marks = computed(() => draft.value ?? cast.value?.faults ?? [])
const photos = ref<KeptPhoto[]>([]), trouble = ref(''), busy = ref(false), shown = ref<string>()
const photo = computed(() => photos.value.find(p => p.id === shown.value))
/** Marks on what is looked at: the sketch, or one photo. */
const here = computed(() =>
  marks.value.map((m, i) => ({ m, i })).filter(({ m }) => (m.photo ?? undefined) === photo.value?.id),
)
const tellSoon = useDebounceFn(() => tellFaults(), 700)
async function tellFaults() {
  if (!draft.value) return
  const told = draft.value
  await tell({ kind: 'faults', data: { cast: castId, marks: told } })
  if (draft.value === told) draft.value = undefined
}
onBeforeRouteLeave(() => tellFaults())
/** What is put down is told at once; a mark on its way waits until it rests. */
function change(next: FaultMark[], resting = true) {
  draft.value = next
  void (resting ? tellFaults() : tellSoon())
}
function put(x: number, y: number) {
  if (!session.mayWrite) return
  picked.value = marks.value.length
  change([...marks.value, {
    defect: kind.value,
    severity: severity.value,
    x: round(x),
    y: round(y),
    photo: photo.value?.id,
  }])
}
const round = (v: number) => Math.round(1000 * v) / 1000
const move = (i: number, x: number, y: number) =>
  change(marks.value.map((m, k) => k === i ? { ...m, x: round(x), y: round(y) } : m), false)
const chosen = computed(() => picked.value === undefined ? undefined : marks.value[picked.value])
function alter(part: Partial<FaultMark>) {
  change(marks.value.map((m, k) => k === picked.value ? { ...m, ...part } : m))
}
function remove() {
  change(marks.value.filter((_, k) => k !== picked.value))
  picked.value = undefined
}

async function attempt(work: () => Promise<unknown>) {
  busy.value = true
  trouble.value = ''
  try {
    await work()
    photos.value = await photosOf({ pour: pourId, cast: castId })
  }
  catch (error) {
    trouble.value = error instanceof Refused ? error.sentence : 'The photos could not be reached.'
  }
  busy.value = false
}
await attempt(async () => {})
const addPhoto = (file: File) => attempt(async () => {
  const id = newId()
  await keepPhoto(id, { pour: pourId, cast: castId }, await shrunk(file))
  shown.value = id
})
const takePhotoAway = () => attempt(async () => {
  const id = shown.value!, kept = photos.value.find(p => p.id === id)
  if (kept) await dropPhoto(kept)
  shown.value = undefined
  if (marks.value.some(m => m.photo === id)) change(marks.value.filter(m => m.photo !== id))
})

// Measures
const expansion = computed(() =>
  expectedExpansion(run.value, cast.value ? state.value.batches[cast.value.cast.batch]?.ratio : undefined),
)
const grownFrom = computed(() =>
  `${powderOf(run.value).name} at ${formatConsistency(run.value.ratio.value)}`)
const lists = computed(() => [...CHECK_LISTS, shellList(run.value)].filter(l => l !== undefined))
const listId = ref<string>()
const list = computed(() => lists.value.find(l => l.id === listId.value))
const what = ref(''), value = ref<number>(), nominal = ref<number>()
const measures = computed(() =>
  (cast.value?.measured ?? []).map(m => ({ m, judged: judgeMeasure(m, expansion.value) })),
)
const measure = (m: Measured) => tell({ kind: 'measured', data: { cast: castId, ...m } })
async function addMeasure() {
  if (!what.value.trim() || !value.value) return
  await measure({ what: what.value.trim(), value: value.value, ...nominal.value && { nominal: nominal.value } })
  what.value = ''
  value.value = nominal.value = undefined
}
const positive = (v: number) => v > 0 ? undefined : 'Enter more than zero.'
function wordsOf({ m, judged }: typeof measures.value[number]): string {
  if (!judged) return ''
  const range = judged.low !== undefined && judged.high !== undefined
    ? `${formatFine(judged.low, units.value)} to ${formatFine(judged.high, units.value)}`
    : judged.low !== undefined
      ? `at least ${formatFine(judged.low, units.value)}`
      : `at most ${formatFine(judged.high!, units.value)}`
  return judged.fits
    ? `as it should be, ${range}${m.nominal ? ' with what plaster grows' : ''}`
    : `${formatFine(Math.abs(judged.off), units.value)} too ${judged.off < 0 ? 'small' : 'large'}: ${range} was wanted`
}
const weight = computed(() => cast.value && weightFound(run.value, state.value, cast.value))

const VERDICTS: readonly { id: Verdict, word: string }[] = [{ id: 'good', word: 'Good' }, {
  id: 'second',
  word: 'Second',
}, { id: 'waste', word: 'Waste' }]
async function judge(verdict: Verdict) {
  await tellFaults()
  const seen = new Set([...cast.value!.defects, ...marks.value.map(m => m.defect)])
  await tell({ kind: 'judged', data: { cast: castId, verdict, defects: [...seen], note: cast.value!.note } })
}
</script>

<template>
  <div v-if="store.run && cast">
    <header>
      <div>
        <h1>{{ cast.cast.label }}</h1>
        <p class="soft">
          <NuxtLink :to="`/pour/${pourId}`">{{ run.plan.name }}</NuxtLink
          >{{ cast.filledAt ? `, poured ${dayAndTime(cast.filledAt, clock.halfHour)}` : ''
          }}{{ cast.verdict ? ` · ${cast.verdict}` : '' }}
        </p>
      </div>
      <div
        v-if="session.mayWrite && cast.filledAt !== undefined"
        class="verdicts"
        role="group"
        aria-label="How did it turn out?">
        <Button
          v-for="v in VERDICTS"
          :key="v.id"
          :label="v.word"
          :severity="cast.verdict === v.id ? undefined : 'secondary'"
          :aria-pressed="cast.verdict === v.id"
          @click="judge(v.id)" />
      </div>
    </header>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div class="two">
      <section aria-label="Where it is not right" class="column">
        <div class="views" role="group" aria-label="Drawn on">
          <button :aria-pressed="!photo" @click="shown = undefined">Sketch</button>
          <button v-for="(p, i) in photos" :key="p.id" :aria-pressed="shown === p.id" @click="shown = p.id">
            Photo {{ i + 1 }}
          </button>
          <FileButton
            v-if="session.mayWrite"
            small
            :label="busy ? 'One moment …' : 'Add a photo'"
            accept="image/jpeg,image/png,image/webp"
            :disabled="busy"
            @file="addPhoto" />
          <Button
            v-if="photo && session.mayWrite"
            label="Take this photo away"
            severity="secondary"
            size="small"
            :disabled="busy"
            @click="takePhotoAway" />
        </div>
        <FaceDrawing
          :mould="cast.cast.mould"
          :photo="photo && { address: photoAddress(photo.id), width: photo.width, height: photo.height }"
          :marks="here.map(h => h.m)"
          :readonly="!session.mayWrite"
          :label="`${photo ? 'Photo' : 'Sketch'} of ${cast.cast.label}: press where something is not right`"
          @put="put"
          @move="(i, x, y) => move(here[i]!.i, x, y)"
          @pick="i => (picked = here[i]!.i)" />
        <p class="small soft" role="status">
          {{
            marks.length === 0
              ? 'Choose what you see, then press where it is.'
              : `${marks.length} ${marks.length === 1 ? 'fault' : 'faults'} drawn${draft ? ', being noted' : ''}.`
          }}
        </p>
        <div v-if="chosen && session.mayWrite" class="chosen">
          <span class="strong">{{ defectWords(chosen.defect) }}</span>
          <SelectButton
            :model-value="chosen.severity"
            :options="SEVERITIES"
            option-label="word"
            option-value="id"
            :allow-empty="false"
            size="small"
            aria-label="How bad the chosen one is"
            @update:model-value="alter({ severity: $event })" />
          <Button label="Take it off" severity="secondary" size="small" @click="remove" />
        </div>
        <div v-if="session.mayWrite" class="palette" role="radiogroup" aria-label="What you see">
          <button
            v-for="d in DEFECTS"
            :key="d.id"
            role="radio"
            :aria-checked="kind === d.id"
            :title="d.looks"
            @click="kind = d.id">
            <svg viewBox="0 0 24 24" width="22" height="22" aria-hidden="true">
              <path
                :d="DEFECT_MARKS[d.id]"
                fill="none"
                stroke="currentColor"
                stroke-width="1.7"
                stroke-linecap="round"
                stroke-linejoin="round" /></svg
            >{{ d.words }}
          </button>
        </div>
      </section>
      <div class="column">
        <section aria-labelledby="weight-head">
          <div class="group-head"><h2 id="weight-head">Weight</h2></div>
          <p v-if="!weight" class="small soft">
            Not weighed yet. Weigh it on the shelf soon after opening: what is missing then is a hollow nobody sees.
          </p>
          <p v-else>
            <span class="num strong">{{ formatMass(weight.mass, units) }}</span> at its first weighing;
            <GroundButton ground="weight"
            >{{ formatMass(weight.low, units) }} to {{ formatMass(weight.high, units) }} was expected</GroundButton
            >.
            <span v-if="weight.missing" class="off"
            >{{ Math.round(100 * weight.missing.share) }} % is missing: a hollow of about
              {{ formatVolume(weight.missing.volume, units) }} inside, or a part that did not fill.</span
            >
            <span v-else class="soft">Nothing is missing.</span>
          </p>
        </section>
        <section aria-labelledby="measure-head">
          <div class="group-head">
            <h2 id="measure-head">Measures</h2>
            <Select
              v-if="session.mayWrite"
              v-model="listId"
              :options="lists"
              option-label="name"
              option-value="id"
              placeholder="By a check list"
              aria-label="Check list"
              show-clear
              size="small"
              class="right" />
          </div>
          <ul v-if="measures.length > 0" class="ruled">
            <li v-for="x in measures" :key="x.m.what" class="line">
              <span>{{ measureName(x.m.what) }}</span><span class="num strong">{{ formatFine(x.m.value, units) }}</span
              ><span :class="['small', x.judged && !x.judged.fits ? 'off' : 'soft']">{{ wordsOf(x) }}</span>
            </li>
          </ul>
          <p v-else class="small soft">
            None yet. Against the model it may be
            <GroundButton ground="growth" :from="grownFrom"
            >{{ (100 * expansion.low).toFixed(2) }} to {{ (100 * expansion.high).toFixed(2) }} % larger</GroundButton
            >: plaster grows as it sets.
          </p>
          <template v-if="session.mayWrite">
            <div v-if="list" class="list">
              <p class="small soft">{{ list.name }}; limits: {{ list.source }}.</p>
              <QuantityField
                v-for="item in list.items"
                :key="item.what"
                kind="length"
                :label="`${measureName(item.what)}, ${item.least ? `at least ${formatFine(item.least, units)}` : ''}${item.least && item.most ? ' and ' : ''}${item.most ? `at most ${formatFine(item.most, units)}` : ''}`"
                :model-value="cast.measured.find(m => m.what === item.what)?.value"
                :check="positive"
                @settled="measure({ ...item, value: $event })" />
            </div>
            <form v-else class="add" @submit.prevent="addMeasure">
              <div class="field">
                <label for="m-what">What</label
                ><InputText id="m-what" v-model="what" maxlength="60" placeholder="Across the face" />
              </div>
              <QuantityField v-model="value" kind="length" label="Measured" clearable :check="positive" />
              <QuantityField v-model="nominal" kind="length" label="Of the model" clearable :check="positive" />
              <Button type="submit" label="Note it" severity="secondary" :disabled="!what.trim() || !value" />
            </form>
          </template>
        </section>
        <BesidePiece :pour="pourId" :cast="castId" :mould="cast.cast.mould.id" />
      </div>
    </div>
  </div>
  <div v-else class="empty">
    <h1>{{ store.trouble && !store.missing ? 'This piece cannot be reached just now' : 'There is no such piece' }}</h1>
    <p>{{ store.trouble }}</p>
    <NuxtLink to="/logbook">To the logbook</NuxtLink>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 12px 20px;
  align-items: start;
  margin-bottom: 14px;
}
.verdicts {
  display: flex;
  gap: 8px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 28px;
  align-items: start;
}
.column {
  display: grid;
  gap: 12px;
  grid-template-columns: minmax(0, 1fr);
}
.column > section:first-child > .group-head {
  margin-top: 0;
}
.views {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.views button:not(:deep(.p-button)) {
  min-height: 34px;
}
.views > button[aria-pressed] {
  border: 1px solid var(--line-strong);
  background: var(--sheet);
  border-radius: 8px;
  padding: 5px 12px;
}
.views > button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
.chosen {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
}
.palette {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(165px, 1fr));
  gap: 4px;
}
.palette button {
  display: flex;
  gap: 8px;
  align-items: center;
  border: 1px solid transparent;
  background: none;
  border-radius: 8px;
  padding: 5px 8px;
  min-height: 36px;
  text-align: left;
}
.palette button:hover {
  background: var(--action-soft);
}
.palette button[aria-checked='true'] {
  background: var(--ink);
  color: var(--sheet);
}
.line {
  display: grid;
  grid-template-columns: 1fr auto 1.5fr;
  gap: 12px;
  align-items: baseline;
  padding: 7px 0;
}
.off {
  color: var(--heat);
  font-weight: 600;
}
.right {
  margin-left: auto;
}
.list {
  display: grid;
  gap: 8px;
  padding-top: 10px;
}
.add {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  padding-top: 10px;
  max-width: 340px;
}
.add > :deep(button) {
  justify-self: start;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
