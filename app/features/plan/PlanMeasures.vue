<script setup lang="ts">
import { SOAK_ADVICE_WORDS, stirAdviceWords, waterAdviceWords } from '~core/plan/words'
import { SCHOOL_ADVICE_WORDS } from '~core/gypsum/words'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { soakAdvice, stirAdvice, waterAdvice } from '~core/plan/choices'
import { hasPace, STIR_PACES, STIR_TOOLS } from '~core/gypsum/stirring'
import { BUBBLE_WAYS } from '~core/plan/bubbles'
import { classesBeside, type PowderClassId } from '~core/gypsum/powders'
import { schoolAdvice, SCHOOLS, soaksPowder } from '~core/gypsum/schools'
import { bagShift } from '~core/forecast/observations'
import { bagShiftWords } from '~core/forecast/words'
import type { Plan } from '~core/plan/types'
import type { PlanField } from '~core/plan/problems'
import QuantityField from '~/ui/QuantityField.vue'
import AdditionPicker from '~/ui/AdditionPicker.vue'
import Stepper from '~/ui/Stepper.vue'
import { useLibrary } from '~/sync/library'
import { usePlanning } from '~/features/plan/planning'
import { reAdvised } from '~core/plan/advised'
import TermText from '~/ui/TermText.vue'
import PlanCoats from './PlanCoats.vue'
import PlanPlaces from './PlanPlaces.vue'
import PlanScale from './PlanScale.vue'
import RatioSlider from './RatioSlider.vue'
import { useRoom } from '~/sync/climate'
import { formatTemperature } from '~core/units/format'
import { useSession } from '~/sync/session'

const planning = usePlanning(), library = useLibrary(), session = useSession(), room = useRoom()
room.listen()
onBeforeUnmount(() => room.stop())
const plan = computed(() => planning.plan)
const powder = computed(() => planning.powder)
const advice = computed(() => schoolAdvice(plan.value.school, powder.value, plan.value.endUse))
const school = computed(() => SCHOOLS.find(s => s.id === plan.value.school)!)
const at = (...fields: PlanField[]) => planning.problems.filter(p => fields.includes(p.field))
const sentenceAt = (field: PlanField) => at(field).map(planning.say).join(' ')
const refusedAt = (field: PlanField) => at(field).some(p => p.severity === 'refuse')

const powders = computed(() => [
  ...(library.items.bag.length > 0
    ? [{ label: 'Your bags', items: library.items.bag.map(b => ({ value: `bag:${b.id}`, name: b.body.name })) }]
    : []),
  { label: 'By class', items: classesBeside(plan.value.classId).map(p => ({ value: `class:${p.id}`, name: p.name })) },
])
const learnt = computed(() => {
  const shift = planning.bag && bagShift(planning.bag)
  return shift && bagShiftWords(shift)
})
const chosenPowder = computed(() => plan.value.bag ? `bag:${plan.value.bag}` : `class:${plan.value.classId}`)
function choosePowder(value: string) {
  const [kind, id = ''] = value.split(':')
  const bag = kind === 'bag' ? library.items.bag.find(b => b.id === id) : undefined
  const classId = bag ? bag.body.classId : id as PowderClassId
  planning.change({ ...reAdvised(plan.value, { classId }, bag?.body.printed?.ratio), bag: bag?.id })
}
const KNOWN = [{ id: 'moulds', name: 'To fill the moulds' }, { id: 'powder', name: 'I have this much powder left' }, {
  id: 'water',
  name: 'This much water is in the bucket',
}]
const FILLINGS = [{ id: 'loose', name: 'scooped loosely' }, { id: 'tapped', name: 'tapped down' }], schools = [...SCHOOLS]
const nameOf = (item: { readonly body: { readonly name: string } }) => item.body.name
const tools = Object.entries(STIR_TOOLS).map(([id, t]) => ({ id, name: t.name }))
const paces = Object.entries(STIR_PACES).map(([id, p]) => ({ id, name: p.name }))
const ways = Object.entries(BUBBLE_WAYS).map(([id, w]) => ({ id, name: w.name }))
/** What the tool suits, and what a drill costs here. */
const stirring = computed(() => {
  const { setting, ratio } = planning.result
  const input = setting && { ...setting.input, ratio: ratio.value }
  return stirAdviceWords(stirAdvice(plan.value.stir, powder.value, largest.value, input))
})
/** To the half minute: nobody reads it closer. */
const gloss = computed(() => planning.centre && Math.round(planning.centre.glossGone / 30) * 30)
const largest = computed(() => Math.max(0, ...planning.result.batches.map(b => b.mix.powder)))
const waterWords = computed(() => {
  const { waterTemperature: water, roomTemperature: room } = plan.value
  return waterAdviceWords(waterAdvice(water, room, planning.curve?.temperature[0] ?? water), session.units)
})
const outside = computed(() => ['roof', 'sky', 'ground'].includes(plan.value.sets?.place ?? 'room'))
const onGround = computed(() =>
  plan.value.fills.some(f => library.items.mould.find(m => m.id === f.mould)?.body.material === 'ground'),
)
const set = <K extends keyof Plan>(key: K) => (value: Plan[K] | undefined) =>
  value !== undefined && planning.change({ [key]: value })
const setOverflow = (name: string | undefined) => planning.change({ overflow: name || undefined })
const setSoak = (seconds: number) => planning.change({ soakMinutes: seconds / 60 })
const setStirring = (seconds: number) => planning.change({ stir: { ...plan.value.stir, minutes: seconds / 60 } })
/** What is folded away opens when something in it has to be seen; it is folded again only by hand. */
const FOLDED: readonly PlanField[] = ['sets', 'dries', 'stir', 'additions', 'openAfter', 'secondCoatAfter']
const more = useTemplateRef<HTMLDetailsElement>('more')
watch(() => at(...FOLDED).length > 0 && more.value, (box) => {
  if (box) box.open = true
}, { immediate: true, flush: 'post' })
/** The room's own sensor, to the half degree. */
function takeRoom() {
  if (room.celsius !== undefined) planning.change({ roomTemperature: Math.round(room.celsius * 2) / 2 })
}
</script>

<template>
  <section aria-labelledby="measures-head">
    <h2 id="measures-head" class="eyebrow">How you measure and mix</h2>
    <SelectButton
      :model-value="plan.school"
      :options="schools"
      option-label="short"
      option-value="id"
      :allow-empty="false"
      aria-labelledby="measures-head"
      class="schools"
      @update:model-value="set('school')($event)"
    />
    <p class="small soft">
      <span class="strong">{{ school.name }}.</span> <TermText :text="school.how" />{{ ' ' }}
      <span :class="{ against: advice.fit === 'against' }">{{ SCHOOL_ADVICE_WORDS[advice.code] }}</span>
    </p>
    <p v-for="p in at('school')" :key="p.code" :class="['problem', { warn: p.severity === 'warn' }]" role="status">
      {{ planning.say(p) }}
    </p>
    <div class="pair">
      <span id="powder-label" class="strong">Powder</span>
      <Select
        :model-value="chosenPowder"
        :options="powders"
        option-label="name"
        option-value="value"
        option-group-label="label"
        option-group-children="items"
        aria-labelledby="powder-label"
        class="wide"
        @update:model-value="choosePowder"
      />
    </div>
    <p class="small"><NuxtLink :to="{ path: '/powders', query: { make: 'bag', for: planning.id } }">A bag of my own</NuxtLink></p>
    <p v-if="learnt" class="small soft">{{ learnt }} The times here use that.</p>
    <RatioSlider />
    <div v-if="plan.school === 'scoops'" class="pair">
      <span class="strong">Scoops of powder to one of water</span>
      <Stepper
        label="Scoops of powder to one of water"
        :model-value="plan.scoop.perWater"
        :min="0.5"
        :max="6"
        :step="0.5"
        @update:model-value="planning.change({ scoop: { ...plan.scoop, perWater: $event } })"
      />
      <QuantityField
        class="full"
        kind="volume"
        field="holds"
        label="One scoop holds"
        :model-value="plan.scoop.volume"
        :check="v => v > 0 ? undefined : 'Enter more than zero.'"
        @amount="planning.change({ scoop: { ...plan.scoop, volume: $event } })"
      />
      <SelectButton
        :model-value="plan.scoop.filling"
        :options="FILLINGS"
        option-label="name"
        option-value="id"
        :allow-empty="false"
        aria-label="How the scoop is filled"
        @update:model-value="planning.change({ scoop: { ...plan.scoop, filling: $event } })"
      />
    </div>
    <QuantityField
      kind="temperature"
      field="water"
      label="Water temperature"
      :model-value="plan.waterTemperature"
      :problem="sentenceAt('waterTemperature')"
      :invalid="refusedAt('waterTemperature')"
      @update:model-value="set('waterTemperature')($event)"
    />
    <p class="small soft">{{ waterWords }}</p>
    <QuantityField
      v-if="onGround"
      kind="temperature"
      field="air"
      label="Ground"
      :model-value="plan.groundTemperature ?? plan.roomTemperature"
      @update:model-value="set('groundTemperature')($event)"
    />
    <div v-if="plan.school !== 'bag'" class="pair">
      <span id="bucket-label" class="strong">Bucket</span>
      <Select
        :model-value="plan.bucket"
        :options="library.items.bucket"
        :option-label="nameOf"
        option-value="id"
        placeholder="Choose one"
        aria-labelledby="bucket-label"
        class="wide"
        @update:model-value="set('bucket')($event)"
      />
      <p class="small full">
        <NuxtLink :to="{ path: '/powders', query: { make: 'bucket', for: planning.id } }">{{
          library.items.bucket.length === 0 ? 'Measure your first bucket' : 'Another bucket'
        }}</NuxtLink>
      </p>
      <p v-for="p in at('bucket')" :key="p.code" class="problem full" role="status">{{ planning.say(p) }}</p>
    </div>
    <div class="pair">
      <span id="known-label" class="strong">How much</span>
      <Select
        :model-value="plan.known.what"
        :options="KNOWN"
        option-label="name"
        option-value="id"
        aria-labelledby="known-label"
        class="wide"
        @update:model-value="planning.change({ known: { ...plan.known, what: $event } })"
      />
      <QuantityField
        v-if="plan.known.what !== 'moulds'"
        class="full"
        kind="mass"
        field="batch"
        :label="plan.known.what === 'powder' ? 'Powder left' : 'Water in the bucket'"
        :model-value="plan.known.amount || undefined"
        :problem="sentenceAt('known')"
        invalid
        @given="planning.change({ known: { ...plan.known, amount: $event } })"
      />
    </div>
    <PlanCoats />
    <details ref="more">
      <summary>Scale, room and places, soak, stirring, losses, additions, later coats</summary>
      <div class="more">
        <QuantityField
          kind="temperature"
          field="air"
          :label="outside ? 'Air outside' : 'Room'"
          :model-value="plan.roomTemperature"
          @update:model-value="set('roomTemperature')($event)" />
        <p v-if="room.here && Math.abs(room.celsius! - plan.roomTemperature) >= 0.5" class="small">
          The room sensor reads {{ formatTemperature(room.celsius!, session.units) }}.
          <button class="use" @click="takeRoom">
            Plan with that
          </button>
        </p>
        <PlanScale />
        <PlanPlaces />
        <QuantityField
          v-if="soaksPowder(plan.school)"
          kind="time"
          field="minutes"
          label="Soak"
          :model-value="plan.soakMinutes * 60"
          :check="v => v <= 3600 ? undefined : 'An hour is the longest soak.'"
          @given="setSoak"
        />
        <p class="small soft">{{ SOAK_ADVICE_WORDS[soakAdvice(plan.school, powder, plan.soakMinutes)] }}</p>
        <div class="pair">
          <span class="strong">People</span>
          <Stepper
            label="People"
            :min="1"
            :max="2"
            :model-value="plan.hands ?? 1"
            @update:model-value="planning.change({ hands: $event === 2 ? 2 : undefined })"
          />
        </div>
        <div v-if="!plan.coats" class="pair">
          <span class="strong">Buckets, at least</span>
          <Stepper
            label="Buckets, at least"
            :min="1"
            :max="40"
            :model-value="plan.batchesAtLeast ?? 1"
            @update:model-value="planning.change({ batchesAtLeast: $event > 1 ? $event : undefined })"
          />
        </div>
        <QuantityField
          kind="time"
          field="minutes"
          :label="plan.school === 'bag' ? 'Knead' : 'Stir'"
          :model-value="plan.stir.minutes * 60"
          :problem="sentenceAt('stir')"
          :check="v => (v <= 3600 ? undefined : 'An hour is far too long to stir.')"
          @given="setStirring" />
        <div class="pair">
          <span id="tool-label" class="strong">With</span>
          <Select
            :model-value="plan.stir.tool"
            :options="tools"
            option-label="name"
            option-value="id"
            aria-labelledby="tool-label"
            class="wide"
            @update:model-value="planning.change({ stir: { ...plan.stir, tool: $event } })"
          />
        </div>
        <div v-if="hasPace(plan.stir.tool)" class="pair">
          <span id="pace-label" class="strong">How</span>
          <Select
            :model-value="plan.stir.pace ?? 'brisk'"
            :options="paces"
            option-label="name"
            option-value="id"
            aria-labelledby="pace-label"
            class="wide"
            @update:model-value="planning.change({ stir: { ...plan.stir, pace: $event } })"
          />
        </div>
        <p class="small soft">{{ stirring }}</p>
        <div class="pair">
          <span id="bubbles-label" class="strong">Bubbles</span>
          <Select
            :model-value="plan.bubbles ?? 'tap'"
            :options="ways"
            option-label="name"
            option-value="id"
            aria-labelledby="bubbles-label"
            class="wide"
            @update:model-value="planning.change({ bubbles: $event })"
          />
        </div>
        <div class="pair">
          <span class="strong">Spare for losses</span>
          <Stepper
            label="Spare for losses, percent"
            unit=" %"
            :max="50"
            :model-value="Math.round(plan.losses * 100)"
            @update:model-value="planning.change({ losses: $event / 100 })"
          />
        </div>
        <div class="pair">
          <label for="overflow" class="strong">What is left goes into</label>
          <InputText
            id="overflow"
            class="wide"
            maxlength="80"
            placeholder="an overflow mould"
            :model-value="plan.overflow"
            @update:model-value="setOverflow"
          />
        </div>
        <AdditionPicker
          :additions="plan.additions"
          :school="plan.school"
          :gloss="gloss"
          @change="planning.change({ additions: $event })" />
        <p v-for="p in at('additions')" :key="p.code" class="problem">{{ planning.say(p) }}</p>
        <QuantityField
          kind="time"
          label="I mean to open it after"
          clearable
          :model-value="plan.openAfter"
          :problem="sentenceAt('openAfter')"
          :check="v => v <= 604_800 ? undefined : 'A week is the longest.'"
          @update:model-value="planning.change({ openAfter: $event })"
        />
        <QuantityField
          kind="time"
          label="A second coat follows after"
          clearable
          :model-value="plan.secondCoatAfter"
          :problem="sentenceAt('secondCoatAfter')"
          :check="v => v <= 604_800 ? undefined : 'A week is the longest.'"
          @update:model-value="planning.change({ secondCoatAfter: $event })"
        />
      </div>
    </details>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 10px;
}
.schools {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px;
  font-size: 0.86rem;
}
.schools :deep(.p-togglebutton) {
  border-radius: 8px;
  border-width: 1px;
}
.schools :deep(.p-togglebutton-content) {
  padding: 0.5rem 0.2rem;
}
.pair {
  display: grid;
  grid-template-columns: minmax(74px, 1fr) auto;
  gap: 6px 10px;
  align-items: center;
}
.full {
  grid-column: 1 / -1;
}
.wide {
  width: 226px;
}
.use {
  border: 0;
  background: none;
  color: var(--action);
  font-weight: 650;
  text-decoration: underline;
  min-height: 28px;
  padding: 0 4px;
}
.against {
  color: var(--heat);
}
details {
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
summary {
  cursor: pointer;
  font-weight: 600;
  min-height: 26px;
}
.more {
  display: grid;
  gap: 10px;
  padding-top: 10px;
}
</style>
