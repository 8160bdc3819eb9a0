<script setup lang="ts">
import { BASIS_KIND_WORDS } from '~core/units/words'
import { format, parseISO } from 'date-fns'
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { classesBeside, OFFERED_CLASSES, powderClass } from '~core/gypsum/powders'
import { safeHeight, vesselVolume } from '~core/mould/gauge/vessel'
import { STORAGE_WORDS } from '~core/gypsum/words'
import { agedBag, monthsOpen, pastItsTime, STORAGE } from '~core/gypsum/bag-age'
import { bagShift, taughtBag } from '~core/forecast/observations'
import { bagShiftWords, nextPourWords } from '~core/forecast/words'
import { formatConsistency, formatLength, formatMass, formatRoughMass, formatTemperature, formatVolume, roundTo } from '~core/units/format'
import type { BagBody, BucketBody, LibraryItem } from '~contract/library'
import BagTests from '~/features/powders/BagTests.vue'
import BucketDrawing from '~/ui/BucketDrawing.vue'
import TermWord from '~/ui/TermWord.vue'
import SackDrawing from '~/ui/SackDrawing.vue'
import EditDialog from '~/features/library/EditDialog.vue'
import { useEditing } from '~/features/library/useEditing'
import GroundButton from '~/ui/GroundButton.vue'
import LongList from '~/ui/LongList.vue'
import QuantityField from '~/ui/QuantityField.vue'
import RatioField from '~/ui/RatioField.vue'
import PlainButton from '~/ui/PlainButton.vue'
import { addressOf } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import { useClock } from '~/sync/clock'
import { useSession } from '~/sync/session'

const library = useLibrary(), session = useSession(), clock = useClock()
await library.load()
const units = computed(() => session.units)
const KEPT = STORAGE.map(id => ({ id, words: STORAGE_WORDS[id] }))
const known = (b: LibraryItem<'bag'>) => taughtBag(agedBag({ ...b.body, id: b.id }, clock.halfHour), b.taught ?? [])
function learntOf(b: LibraryItem<'bag'>): string | undefined {
  const shift = bagShift(known(b))
  return shift && bagShiftWords(shift)
}
const nextOf = (b: LibraryItem<'bag'>) => nextPourWords(known(b).rate)
const bag = useEditing('bag', (): BagBody => ({ name: '', classId: 'casting-plaster', uncertain: false, note: '' }))
const bucket = useEditing('bucket', (): BucketBody => ({ name: '', vessel: { bottom: 0.2, top: 0.25, height: 0.24 } }))
/** Mass of one litre of powder as the person scoops it; kept as a bulk density with a twentieth either way. */
const litre = computed({
  get: () => bag.item.body.bulk && (bag.item.body.bulk.low + bag.item.body.bulk.high) / 2000,
  set: (kg: number | undefined) => {
    bag.item.body.bulk = kg ? { low: kg * 950, high: kg * 1050 } : undefined
  },
})
/** Buckets side by side, to one scale, each filled as far as there is room to stir. */
const tallest = computed(() => Math.max(...library.items.bucket.map(b => b.body.vessel.height)))
const widest = computed(() => Math.max(...library.items.bucket.map(b => Math.max(b.body.vessel.top, b.body.vessel.bottom))))
const DRAWN = 76
function standing(vessel: BucketBody['vessel']) {
  const scale = DRAWN / Math.max(tallest.value, widest.value), water = vesselVolume(vessel, safeHeight(vessel))
  return {
    vessel, water, mix: water, settled: 0.5, sifted: 0, label: '',
    width: DRAWN + 8, height: Math.round(vessel.height * scale) + 8,
  }
}
/** What is left by now, and how many pours like the last one that is. */
function leftOf({ body, used }: LibraryItem<'bag'>) {
  if (body.left === undefined) return undefined
  const kg = Math.max(0, body.left - (body.leftAt === undefined ? 0 : used?.since ?? 0)),
    pours = used && used.last > 0 ? Math.floor(kg / used.last) : undefined
  return {
    words: body.leftAt === undefined
      ? `${formatMass(kg, units.value)} left`
      : `about ${formatRoughMass(kg, units.value)} left`,
    low: pours !== undefined && pours < 2,
    pours,
    kg,
  }
}
/** As it lies in its sack: as it was scooped here, else as its class is. */
function bulkOf({ bulk, classId }: BagBody) {
  const { low, high } = bulk ?? powderClass(classId).bulkLoose
  return (low + high) / 2
}
function sayLeft(kg: number | undefined) {
  bag.item.body.left = kg
  bag.item.body.leftAt = kg === undefined ? undefined : Math.round(clock.read())
}
const measuring = ref<LibraryItem<'bag'>>()
const positive = (v: number) => v > 0 ? undefined : 'Enter more than zero.'
/** What the pack says; nothing of it is nothing printed. */
function setPrinted(part: NonNullable<BagBody['printed']>) {
  const said = Object.entries({ ...bag.item.body.printed, ...part }).filter(([, value]) => value !== undefined)
  bag.item.body.printed = said.length > 0 ? Object.fromEntries(said) : undefined
}
function setPrice(typed: string | undefined) {
  bag.item.body.price = typed?.trim() ? Number(typed.replace(',', '.')) : undefined
}
function setOpened(event: Event) {
  bag.item.body.opened = (event.target as HTMLInputElement).value || undefined
}
</script>

<template>
  <div>
    <header>
      <h1>Powders</h1><Button
        v-if="session.mayWrite"
        label="Add a bag"
        @click="bag.edit()"
      />
    </header>
    <p v-if="library.trouble" class="problem" role="alert">{{ library.trouble }}</p>
    <p class="small ways">
      <a v-if="library.items.bag.length > 0" :href="addressOf('GET labels/bags')" target="_blank">Labels for the bags, to print</a
      ><NuxtLink v-if="session.mayWrite" to="/logbook/table?of=bags">Import a table</NuxtLink>
    </p>
    <LongList v-slot="{ item: b }" :items="library.items.bag" :key-of="b => b.id" class="bags">
      <SackDrawing :left="leftOf(b)?.kg" :bulk="bulkOf(b.body)" />
      <span
      ><span class="strong">{{ b.body.name }}</span
      ><br /><span class="small soft"
      >{{ powderClass(b.body.classId).name
      }}<template v-if="b.body.opened">, opened {{ format(parseISO(b.body.opened), 'd MMM yyyy') }}</template
      >{{
        b.body.uncertain
          ? ', set time uncertain'
          : pastItsTime(b.body, clock.halfHour)
            ? `, open for ${monthsOpen(b.body.opened, clock.halfHour)} months: its set is less certain. Try a cup`
            : ''
      }}</span
      ><template v-if="learntOf(b)"><br /><span class="small soft"
      ><GroundButton ground="bag-speed" :basis="nextOf(b)">{{ learntOf(b) }}</GroundButton></span
      ></template></span
      >
      <span class="small"
      >{{ leftOf(b)?.words
      }}<template v-if="leftOf(b)?.low"
      ><br /><span class="low">{{
        leftOf(b)!.pours === 0 ? 'not enough for a pour like the last' : 'enough for one more like the last'
      }}</span></template
      ></span
      >
      <span class="small soft wide"
      ><GroundButton v-if="b.body.bulk" ground="bulk"
      >a litre weighs {{ roundTo(b.body.bulk.low, 10) }} to {{ roundTo(b.body.bulk.high, 10) }} g as scooped
        here</GroundButton
      ><template v-else>bulk density not measured</template></span
      >
      <span v-if="session.mayWrite" class="ways"
      ><PlainButton
        label="Test this bag"
        severity="secondary"
        small
        :aria-label="`Test ${b.body.name}`"
        @click="measuring = b" /><PlainButton
          label="Change"
          small
          :aria-label="`Change ${b.body.name}`"
          @click="bag.edit(b)"
        /></span>
    </LongList>
    <p v-if="library.loaded && library.items.bag.length === 0" class="empty with-picture">
      <SackDrawing :left="undefined" :bulk="1" />No bags yet. You can plan with a class of powder alone; a bag of your own makes scoops and times truer.
    </p>
    <div class="group-head">
      <h2>Buckets</h2><Button
        v-if="session.mayWrite"
        label="Add a bucket"
        severity="secondary"
        size="small"
        class="right"
        @click="bucket.edit()"
      />
    </div>
    <LongList v-slot="{ item: b }" :items="library.items.bucket" :key-of="b => b.id" class="bags buckets">
      <BucketDrawing v-bind="standing(b.body.vessel)" />
      <span class="strong">{{ b.body.name }}</span>
      <span class="small"
      ><GroundButton ground="holds"
      ><span class="num">{{ formatVolume(vesselVolume(b.body.vessel, safeHeight(b.body.vessel)), units) }}</span>
        with room to stir</GroundButton
      ></span
      >
      <span class="small soft wide"
      >{{ formatLength(b.body.vessel.bottom, units) }} across below,
        {{ formatLength(b.body.vessel.top, units) }} above, {{ formatLength(b.body.vessel.height, units) }} high</span
      >
      <PlainButton
        v-if="session.mayWrite"
        label="Change"
        severity="secondary"
        small
        :aria-label="`Change ${b.body.name}`"
        @click="bucket.edit(b)"
      />
    </LongList>
    <p v-if="library.loaded && library.items.bucket.length === 0" class="empty with-picture">
      <BucketDrawing v-bind="standing({ bottom: 0.2, top: 0.25, height: 0.24 })" />No buckets yet. Three inside measures are enough for the water line in millimetres.
    </p>
    <div class="group-head">
      <h2><TermWord id="class">Classes</TermWord></h2>
      <span class="small soft">water per 100 powder; set time at {{ formatTemperature(21, units) }}, hand stirred</span>
    </div>
    <div class="scroll" tabindex="0" role="region" aria-label="Classes of powder">
      <table>
        <thead>
          <tr>
            <th scope="col">Class</th><th scope="col">
              usual
            </th><th scope="col">
              usable
            </th><th scope="col">
              gloss goes
            </th><th scope="col">
              a loose litre weighs
            </th><th scope="col">
              from
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in OFFERED_CLASSES" :key="p.id">
            <th scope="row">{{ p.name }}</th>
            <td class="num">{{ formatConsistency(p.ratio.recommended) }}</td>
            <td class="num">{{ formatConsistency(p.ratio.low) }}–{{ formatConsistency(p.ratio.high) }}</td>
            <td class="num">{{ p.nominalSet.minutes }} min</td>
            <td class="num">{{ roundTo(p.bulkLoose.low, 10) }}–{{ roundTo(p.bulkLoose.high, 10) }} g</td>
            <td class="small soft">{{ BASIS_KIND_WORDS[p.nominalSet.basis.kind] }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <BagTests :bag="measuring" @closed="measuring = undefined" />
    <EditDialog
      v-model:open="bag.open.value"
      :title="bag.item.from ? bag.item.body.name || 'Bag' : 'A new bag'"
      :trouble="bag.trouble.value"
      :busy="bag.busy.value"
      :existing="bag.item.from !== undefined"
      @save="bag.save"
      @put-away="bag.putAway"
    >
      <div class="field">
        <label for="bag-name">Name</label><InputText
          id="bag-name"
          v-model="bag.item.body.name"
          maxlength="80"
        />
      </div>
      <div class="field">
        <span id="class-label" class="strong small">Class of powder</span><Select
          v-model="bag.item.body.classId"
          :options="[...classesBeside(bag.item.body.classId)]"
          option-label="name"
          option-value="id"
          aria-labelledby="class-label"
        />
      </div>
      <fieldset class="printed">
        <legend class="strong small">Printed on it</legend>
        <RatioField
          :model-value="bag.item.body.printed?.ratio"
          label="Water per 100 powder"
          :powder="powderClass(bag.item.body.classId)"
          @update:model-value="setPrinted({ ratio: $event })"
          @emptied="setPrinted({ ratio: undefined })" />
        <QuantityField
          kind="time"
          clearable
          label="Can be poured for"
          :model-value="bag.item.body.printed?.working"
          @update:model-value="setPrinted({ working: $event })" />
        <QuantityField
          kind="time"
          clearable
          label="Has set after"
          :model-value="bag.item.body.printed?.sets"
          @update:model-value="setPrinted({ sets: $event })" />
        <p class="small soft">The pack outranks the class, until this bag’s own pours say more.</p>
      </fieldset>
      <QuantityField
        :model-value="bag.item.body.left"
        kind="mass"
        clearable
        label="Left in it now"
        @update:model-value="sayLeft($event)" />
      <div class="field">
        <label for="bag-price">Price per kilogram</label
        ><InputText
          id="bag-price"
          inputmode="decimal"
          :model-value="bag.item.body.price === undefined ? '' : String(bag.item.body.price)"
          @update:model-value="setPrice" />
      </div>
      <QuantityField
        v-model="litre"
        kind="mass"
        label="A level litre, scooped your way, weighs"
        :check="v => v > 0.2 && v < 2.5 ? undefined : 'A litre of powder weighs between 200 g and 2 500 g.'"
      />
      <label class="check"><Checkbox
        v-model="bag.item.body.uncertain"
        binary
      /> Old, damp or from an unknown source: its set time is less certain</label>
      <div class="field">
        <span id="storage-label" class="strong small">How it is kept</span><Select
          v-model="bag.item.body.storage"
          :options="KEPT"
          option-label="words"
          option-value="id"
          placeholder="Not said"
          aria-labelledby="storage-label"
        />
      </div>
      <div class="field">
        <label for="bag-opened">Opened on</label><input
          id="bag-opened"
          type="date"
          class="date"
          :value="bag.item.body.opened"
          @change="setOpened"
        >
      </div>
    </EditDialog>
    <EditDialog
      v-model:open="bucket.open.value"
      :title="bucket.item.from ? bucket.item.body.name || 'Bucket' : 'A new bucket'"
      :trouble="bucket.trouble.value"
      :busy="bucket.busy.value"
      :existing="bucket.item.from !== undefined"
      @save="bucket.save"
      @put-away="bucket.putAway"
    >
      <div class="field">
        <label for="bucket-name">Name</label><InputText
          id="bucket-name"
          v-model="bucket.item.body.name"
          maxlength="80"
        />
      </div>
      <QuantityField
        v-model="bucket.item.body.vessel.bottom"
        kind="length"
        label="Inside, across the bottom"
        :check="positive" />
      <QuantityField
        v-model="bucket.item.body.vessel.top"
        kind="length"
        label="Inside, across the top"
        :check="positive" />
      <QuantityField v-model="bucket.item.body.vessel.height" kind="length" label="Inside height" :check="positive" />
      <p class="small soft">
        It holds {{ formatVolume(vesselVolume(bucket.item.body.vessel), units) }} to the rim,
        {{ formatVolume(vesselVolume(bucket.item.body.vessel, safeHeight(bucket.item.body.vessel)), units) }} with room
        to stir.
      </p>
    </EditDialog>
  </div>
</template>

<style scoped>
.printed { display: grid; gap: 8px; border: 0; border-left: 3px solid var(--line); padding: 0 0 0 12px; margin: 0; }
.ways {
  display: flex;
  gap: 18px;
}
p.ways {
  margin-bottom: 6px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 10px;
}
.bags {
  --columns: 52px minmax(0, 1.3fr) minmax(0, 0.8fr) minmax(0, 1.4fr) auto;
  --row-gap: 16px;
}
.low {
  color: var(--warn);
  font-weight: 620;
}
/* What could stand here, beside the sentence. */
.with-picture { display: flex; gap: 16px; align-items: center; text-align: left; }
.with-picture svg { flex: none; opacity: 0.6; }
.right {
  margin-left: auto;
}
.check {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 32px;
}
.buckets {
  --columns: 88px 1.5fr 1.3fr 2fr auto;
}
.date {
  border: 1px solid var(--line-strong);
  border-radius: 9px;
  padding: 0.45rem 0.6rem;
  background: var(--sheet);
  max-width: 200px;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 6px;
}
th,
td {
  text-align: left;
  padding: 7px 14px 7px 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
  white-space: nowrap;
}
thead th {
  font-size: 0.84rem;
  color: var(--soft);
}
th[scope='row'] {
  font-weight: 600;
}
@media (max-width: 720px) {
  .bags {
    --columns: 52px minmax(0, 1fr) minmax(0, 0.6fr);
  }
  .bags .ways {
    grid-column: 1 / -1;
  }
  .bags .ways > * {
    white-space: nowrap;
  }
  .buckets {
    --columns: 88px 1fr auto;
  }
  .wide {
    display: none;
  }
}
</style>
