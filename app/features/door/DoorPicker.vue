<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { OFFERED_CLASSES } from '~core/gypsum/powders'
import { BUCKET_SIZE_IDS, BUCKET_SIZES, DOOR_KINDS, KINDS, SIZES, type DoorKindId, type SizeId } from '~core/door/kinds'
import { BUCKET_WORDS, KIND_WORDS, measureWords, SIZE_WORDS, SKIN, WAY_WORDS } from '~core/door/words'
import { DOOR_WAYS, mouldOf, type DoorWay } from '~core/door/door'
import { formatLength, formatVolume } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import type { Door } from './door'
import DoorField from './DoorField.vue'

const DoorPhoto = defineAsyncComponent(() => import('./DoorPhoto.vue'))

/** What is said at the door: what it is, how big, how many, which powder. Each a press; measures where somebody has them. */
const { door, units } = defineProps<{ door: Door, units: UnitPreferences }>()
const said = door.said
/** A kind as it is drawn on its button. */
const drawnOf = (kind: DoorKindId, size: SizeId = 'middle') => {
  const measures = KINDS[kind].sizes[size], value = KINDS[kind].volume(measures)
  return mouldOf({ kind, amount: { by: 'measures', measures } }, { value, low: value, high: value }, '')
}
const kinds = DOOR_KINDS.map(id => ({ id, words: KIND_WORDS[id].one, drawn: drawnOf(id) }))
const sizes = computed(() => SIZES.map((id) => {
  const of = KINDS[said.kind], m = of.sizes[id]
  return { id, words: SIZE_WORDS[said.kind][id], holds: formatVolume(of.volume(m), units), across: formatLength(Math.max(m.width, m.length), units) }
}))
const asks = computed(() => KINDS[said.kind].asks)
const folds = ref(said.by !== 'measures' || said.size === 'own')
const HOW = [
  { id: 'measures', words: 'By its measures' }, { id: 'volume', words: 'I know what it holds' },
  { id: 'mix', words: 'A mix filled it before' },
] as const
const chosenPowder = computed(() => OFFERED_CLASSES.find(p => p.id === said.classId))
/** As deep as a hand is wide, and no deeper: more than that is not left over. */
const FINGERS = [0.5, 1, 1.5, 2, 3, 4]
const buckets = BUCKET_SIZE_IDS.map(id => ({ id, words: BUCKET_WORDS[id], vessel: BUCKET_SIZES[id] }))
function chooseBucket(event: Event) {
  const { value } = event.target as HTMLSelectElement
  said.bucket = buckets.find(b => b.id === value)?.id
}
const bagSays = ref(Object.values(said.printed).some(v => v !== undefined))
/** Amounts as they stand on the pack give its ratio. */
const pack = ref<{ powder?: number, water?: number }>({})
function putPack(part: { powder?: number, water?: number }) {
  pack.value = { ...pack.value, ...part }
  const { powder, water } = pack.value
  if (powder && water) said.printed = { ...said.printed, ratio: Math.round(1000 * water / powder) / 1000 }
}
const putWorking = (seconds: number) => Object.assign(said.printed, { working: seconds })
const putSets = (seconds: number) => Object.assign(said.printed, { sets: seconds })
const oddRatio = computed(() => {
  const ratio = said.printed.ratio
  return ratio !== undefined && (ratio < 0.15 || ratio > 2)
})
const forgetPack = () => {
  pack.value = {}
  said.printed = {}
}
/** What lies flat shows two of its measures from above. The photo's own code is fetched when it is wanted. */
const photo = ref(false), lies = computed(() => asks.value.includes('length') && said.kind !== 'cup')
/** From a photo; how deep it is no photo from above tells. */
function takeMeasures(width: number, length: number) {
  door.measure('width', width)
  door.measure('length', length)
}
const setWay = (way: DoorWay) => Object.assign(said, { way })
const typeCount = (event: Event) => door.setCount(Number((event.target as HTMLInputElement).value))
</script>

<template>
  <section class="picker" aria-label="What you fill">
    <h1>What are you filling?</h1>
    <div class="kinds" role="group" aria-label="What are you filling?">
      <button
        v-for="k in kinds"
        :key="k.id"
        type="button"
        :aria-pressed="said.kind === k.id"
        class="tile"
        @click="door.chooseKind(k.id)"
      >
        <MouldDrawing :mould="k.drawn" view="above" :width="64" :height="58" />
        <span>{{ k.words }}</span>
      </button>
    </div>
    <div v-if="door.isPerson.value" class="skin" role="group" aria-labelledby="ready-label">
      <p id="ready-label" class="strong">{{ SKIN.asks }}</p>
      <span class="pills">
        <button type="button" :aria-pressed="said.ready === true" @click="said.ready = true">{{ SKIN.yes }}</button>
        <button type="button" :aria-pressed="said.ready === false" @click="said.ready = false">{{ SKIN.no }}</button>
      </span>
      <p v-if="said.ready === false" class="first" role="status">{{ SKIN.first }}</p>
    </div>
    <fieldset>
      <legend>How big is one?</legend>
      <div class="sizes">
        <button
          v-for="s in sizes"
          :key="s.id"
          type="button"
          class="size"
          :aria-pressed="said.size === s.id && said.by === 'measures'"
          @click="door.chooseSize(s.id)"
        >
          <span class="strong">{{ s.words }}</span><span class="num small">{{ s.across }}</span>
        </button>
      </div>
      <details :open="folds">
        <summary>Measure it, or say what it holds</summary>
        <span class="pills">
          <button v-for="h in HOW" :key="h.id" type="button" :aria-pressed="said.by === h.id" @click="said.by = h.id">{{ h.words }}</button>
        </span>
        <div v-if="said.by === 'measures'" class="fields">
          <DoorField
            v-for="m in asks"
            :key="m"
            kind="length"
            field="size"
            :label="measureWords(said.kind, m)"
            :model-value="said.measures[m]"
            :units="units"
            @update:model-value="door.measure(m, $event)" />
        </div>
        <template v-if="said.by === 'measures' && lies">
          <DoorPhoto v-if="photo" :kind="said.kind" :units="units" @measured="takeMeasures" />
          <button v-else type="button" class="link" @click="photo = true">From a photo of it</button>
        </template>
        <div v-if="said.by === 'volume'" class="fields">
          <DoorField v-model="said.volume" kind="volume" field="holds" label="One holds" :units="units" />
        </div>
        <div v-if="said.by === 'mix'" class="fields">
          <DoorField v-model="said.mix.powder" kind="mass" field="batch" label="Powder in that mix" :units="units" />
          <DoorField v-model="said.mix.water" kind="mass" field="batch" label="Water in that mix" :units="units" />
          <DoorField v-if="!said.deep.by" v-model="said.mix.left" kind="mass" label="Left over, if any" :units="units" />
          <div v-else class="of-left wide">
            <label for="door-fingers">Left over, fingers deep</label>
            <span class="pair">
              <select id="door-fingers" v-model.number="said.deep.fingers">
                <option v-for="n in FINGERS" :key="n" :value="n">{{ n }}</option>
              </select>
              <select v-model="said.deep.bucket" aria-label="Left over in which bucket">
                <option v-for="b in buckets" :key="b.id" :value="b.id">{{ b.words }}</option>
              </select>
            </span>
          </div>
          <button type="button" class="link wide" @click="said.deep.by = !said.deep.by">
            {{ said.deep.by ? 'I weighed what was left' : 'Not weighed? Say how deep it stood' }}
          </button>
          <p class="small soft wide">What filled all {{ said.count }} of them together.</p>
        </div>
      </details>
    </fieldset>
    <div class="pair">
      <div>
        <label for="door-count">How many?</label>
        <span class="stepper">
          <button type="button" aria-label="One fewer" :disabled="said.count <= 1" @click="door.setCount(said.count - 1)">−</button>
          <input id="door-count" class="num" inputmode="numeric" :value="said.count" @change="typeCount">
          <button type="button" aria-label="One more" @click="door.setCount(said.count + 1)">+</button>
        </span>
      </div>
      <div>
        <label for="door-powder">Which powder?</label>
        <select id="door-powder" v-model="said.classId">
          <option v-for="p in OFFERED_CLASSES" :key="p.id" :value="p.id">{{ p.name }}</option>
        </select>
      </div>
    </div>
    <p v-if="chosenPowder?.doubt" class="small soft">This kind differs from pack to pack: enter what the bag says.</p>
    <details :open="bagSays">
      <summary>The bag says how much water</summary>
      <div class="fields">
        <DoorField :model-value="pack.powder" kind="mass" field="batch" label="Powder" :units="units" @update:model-value="putPack({ powder: $event })" />
        <DoorField :model-value="pack.water" kind="mass" field="batch" label="to so much water" :units="units" @update:model-value="putPack({ water: $event })" />
        <DoorField :model-value="said.printed.working" kind="time" field="minutes" label="Can be poured for" :units="units" @update:model-value="putWorking($event)" />
        <DoorField :model-value="said.printed.sets" kind="time" field="minutes" label="Sets in" :units="units" @update:model-value="putSets($event)" />
      </div>
      <p v-if="oddRatio" class="why" role="status">No pack says that little or that much water. Check both amounts.</p>
      <button v-if="Object.keys(said.printed).length > 0" type="button" class="link" @click="forgetPack">Leave the bag’s words out</button>
    </details>
    <details>
      <summary>My scale and my bucket</summary>
      <span class="pills">
        <button v-for="w in DOOR_WAYS" :key="w" type="button" :aria-pressed="said.way === w" @click="setWay(w)">{{ WAY_WORDS[w].name }}</button>
      </span>
      <p class="small soft">{{ WAY_WORDS[said.way].how }}</p>
      <label for="door-bucket">Bucket</label>
      <select id="door-bucket" :value="said.bucket ?? ''" @change="chooseBucket">
        <option value="">the smallest that does</option>
        <option v-for="b in buckets" :key="b.id" :value="b.id">{{ b.words }}</option>
      </select>
    </details>
  </section>
</template>

<style scoped>
.picker { display: grid; gap: 12px; align-content: start; }
.kinds { display: grid; grid-template-columns: repeat(3, 1fr); gap: 8px; }
.tile, .size { border: 1.5px solid var(--line); border-radius: 12px; background: var(--sheet); min-width: 0; }
.tile { display: grid; justify-items: center; align-content: space-between; gap: 6px; padding: 10px 4px 8px; font-weight: 650; font-size: 0.92rem; }
.tile[aria-pressed='true'], .size[aria-pressed='true'] { border: 3px solid var(--ink); background: var(--action-soft); }
.tile[aria-pressed='true'] { padding: 8.5px 2.5px 6.5px; }
fieldset { border: 0; padding: 0; margin: 0; display: grid; gap: 8px; }
legend, label { font-weight: 700; padding: 0; margin-bottom: 6px; display: block; }
.sizes { display: grid; grid-template-columns: repeat(3, 1fr); gap: 8px; }
.size { display: grid; gap: 2px; justify-items: start; align-content: start; padding: 9px 10px; text-align: left; min-height: 58px; }
.size[aria-pressed='true'] { padding: 7.5px 8.5px; }
summary { cursor: pointer; font-weight: 600; min-height: 32px; display: list-item; align-content: center; text-decoration: underline; text-underline-offset: 3px; }
.fields { align-items: end; display: grid; grid-template-columns: repeat(auto-fit, minmax(110px, 1fr)); gap: 10px; margin: 8px 0; }
.wide { grid-column: 1 / -1; }
.pills { display: flex; flex-wrap: wrap; gap: 6px; margin: 6px 0; }
.pills button { min-height: 36px; border: 1.5px solid var(--line-strong); border-radius: 18px; background: var(--sheet); padding: 4px 14px; font-weight: 600; }
.pills button[aria-pressed='true'] { background: var(--ink); border-color: var(--ink); color: var(--ground); }
.skin { border-left: 4px solid var(--warn); padding-left: 12px; display: grid; gap: 2px; }
.first { font-weight: 650; color: var(--warn); }
.pair { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr); gap: 10px; }
.stepper { display: grid; grid-template-columns: 48px 1fr 48px; border: 2px solid var(--ink); border-radius: 12px; background: var(--sheet); overflow: hidden; }
.stepper button { border: 0; background: none; font-size: 1.4rem; min-height: 52px; }
.stepper input { border: 0; background: none; text-align: center; width: 100%; font-size: 1.35rem; font-weight: 700; }
select { width: 100%; min-height: 56px; border: 2px solid var(--ink); border-radius: 12px; background: var(--sheet); padding: 4px 10px; font-weight: 650; }
.of-left { display: grid; gap: 3px; align-content: start; }
.of-left label { font-weight: 600; font-size: 0.92rem; }
.of-left select { min-height: 44px; border-width: 1.5px; border-color: var(--line-strong); border-radius: 9px; font-weight: 400; }
.link { border: 0; background: none; padding: 0; text-decoration: underline; min-height: 32px; }
.why { color: var(--heat); font-size: 0.88rem; }
@media (max-width: 860px) {
  h1 { font-size: 1.7rem; }
  .kinds { display: flex; overflow-x: auto; margin: 0 -16px; padding: 0 16px 4px; scrollbar-width: none; }
  .tile { flex: 0 0 86px; }
  .picker { gap: 8px; }
}
</style>
