<script setup lang="ts">
import { GAUGE_PROBLEM_WORDS, SCALE_PROBLEM_WORDS } from '~core/mould/words'
import { format, parseISO } from 'date-fns'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { gaugeRange, gaugeResult } from '~core/mould/gauge/gauge'
import { crossesItself } from '~core/mould/gauge/shapes'
import { formatArea, formatLength, formatPosition, formatVolume } from '~core/units/format'
import PhotoMarks, { type MarkGroup } from '~/features/moulds/PhotoMarks.vue'
import EmptyPicture from '~/ui/EmptyPicture.vue'
import FileButton from '~/ui/FileButton.vue'
import QuantityField from '~/ui/QuantityField.vue'
import { useLibrary } from '~/sync/library'
import { usePrint } from '~/features/moulds/print'
import { useSession } from '~/sync/session'

/** A print in the ground by photo: its scale, its measures, and what is known of it, kept as a mould to be poured. */
const print = usePrint(), library = useLibrary(), session = useSession()
await library.load()
const asked = useRoute().query.mould
if (typeof asked === 'string') await print.open(asked)
else if (!print.picture || print.item) print.clear()
const units = computed(() => session.units)
const chosen = ref<number>()
const WAYS = [{ id: 'ruler', name: 'A ruler' }, { id: 'rectangle', name: 'Four corners of a rectangle' }] as const
const groups = computed<MarkGroup[]>(() => [
  ...(print.scale
    ? [{
        id: -1,
        name: print.scale.how === 'ruler' ? 'Ruler' : 'Rectangle',
        points: print.scale.how === 'ruler' ? print.scale.ends : print.scale.corners,
        closed: print.scale.how === 'rectangle',
        scale: true,
      }]
    : []),
  ...print.marks.map((m, i) => ({ id: i, name: m.name, points: m.points, closed: m.what === 'outline', scale: false })),
])
const positive = (v: number) => v > 0 ? undefined : 'More than nothing.'
const write = (i: number) => {
  const m = print.measured[i], how = print.marks[i]!.what === 'length' ? formatLength : formatArea
  return m && { value: how(m.value, units.value), range: `${how(m.low, units.value)} to ${how(m.high, units.value)}` }
}
const crossed = (i: number) => print.marks[i]!.what === 'outline' && crossesItself(print.marks[i]!.points)
const SHAPE_CROSSES = GAUGE_PROBLEM_WORDS['outline-crosses']
const volume = computed(() => print.gauge && gaugeRange(gaugeResult(print.gauge)))
const beside = computed(() =>
  [print.taken.on && format(parseISO(print.taken.on), 'd MMM yyyy'), print.taken.at && formatPosition(print.taken.at)]
    .filter(Boolean).join(', '),
)
async function sample() {
  await print.take(await (await fetch('/samples/print.jpg')).blob())
}
const rename = (i: number, name: string | undefined) => print.change(i, { name: name ?? '' })
function addMark(what: Parameters<typeof print.add>[0]) {
  print.add(what)
  chosen.value = print.marks.length - 1
}
</script>

<template>
  <div>
    <header>
      <h1>A print by photo</h1>
      <NuxtLink to="/moulds">All moulds</NuxtLink>
      <FileButton
        class="file"
        :label="print.picture ? 'Another photo' : 'Take or choose a photo'"
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        :disabled="print.busy"
        @file="print.take" />
    </header>
    <p v-if="print.trouble" class="problem" role="alert">{{ print.trouble }}</p>
    <div v-if="!print.picture" class="empty">
      <EmptyPicture :forms="['print']" />
      <p>
        Before plaster goes in: photograph the print from straight above, with a ruler, or anything rectangular whose
        size you know, lying beside it at the height of its floor. The photo gives its measures with their ranges, and
        how much plaster it will take; they stay with it.
      </p>
      <p>
        Or try <button class="link" @click="sample">a boot print beside a card and a ruler</button>: the card is 148 by
        105 mm, the long marks of the ruler 200 mm apart.
      </p>
    </div>
    <div v-else class="two">
      <div class="column">
        <PhotoMarks
          :src="print.picture.url"
          :width="print.picture.width"
          :height="print.picture.height"
          :groups="groups"
          :chosen="chosen"
          @move="print.move"
          @corner="print.addCorner"
          @choose="chosen = $event" />
        <p class="small soft">
          Drag the marks, or move them with the arrow keys; the loupe shows the one in hand. Double-click beside a
          chosen outline for one more corner.
        </p>
      </div>
      <div class="column">
        <section class="column" aria-labelledby="scale-head">
          <h2 id="scale-head">What gives the scale</h2>
          <SelectButton
            :model-value="print.scale?.how"
            :options="[...WAYS]"
            option-label="name"
            option-value="id"
            :allow-empty="false"
            aria-label="What gives the scale"
            @update:model-value="print.setScale" />
          <template v-if="print.scale?.how === 'ruler'">
            <QuantityField
              kind="length"
              label="Between its two marks"
              :model-value="print.scale.length"
              :check="positive"
              @amount="print.setScaleSize({ length: $event })" />
            <p class="small soft">
              A ruler cannot tell how the camera leaned: hold it square. A rectangle straightens the view.
            </p>
          </template>
          <template v-else-if="print.scale?.how === 'rectangle'">
            <QuantityField
              kind="length"
              label="Its upper side in the photo"
              :model-value="print.scale.width"
              :check="positive"
              @amount="print.setScaleSize({ width: $event })" />
            <QuantityField
              kind="length"
              label="Its right side in the photo"
              :model-value="print.scale.length"
              :check="positive"
              @amount="print.setScaleSize({ length: $event })" />
          </template>
          <p v-if="print.standing && !print.standing.ok" class="problem">{{ SCALE_PROBLEM_WORDS[print.standing.code] }}</p>
          <QuantityField
            kind="length"
            label="The print’s floor lies deeper by"
            :model-value="print.camera.deeper"
            :check="v => (Math.abs(v) <= 2 ? undefined : 'That is out of reason here.')"
            @given="print.camera = { ...print.camera, deeper: $event }" />
          <QuantityField
            v-if="print.camera.deeper !== 0"
            kind="length"
            label="with the camera above it by"
            :model-value="print.camera.distance"
            :check="positive"
            @amount="print.camera = { ...print.camera, distance: $event }" />
        </section>
        <section class="column" aria-labelledby="measures-head">
          <h2 id="measures-head">Measures</h2>
          <ul class="ruled">
            <li v-for="(m, i) in print.marks" :key="i" class="measure" :class="{ chosen: chosen === i }">
              <InputText
                :model-value="m.name"
                maxlength="60"
                :aria-label="`Name of measure ${i + 1}`"
                @update:model-value="rename(i, $event)"
                @focus="chosen = i" />
              <span v-if="write(i)" class="value" :aria-label="m.name"
              ><span class="num strong">{{ write(i)!.value }}</span
              ><br /><span class="num small soft">{{ write(i)!.range }}</span></span
              >
              <span v-else class="soft">—</span>
              <p v-if="crossed(i)" class="crossed small" role="alert">{{ SHAPE_CROSSES }}</p>
              <button class="drop" :aria-label="`Take away ${m.name}`" @click="print.drop(i)">×</button>
              <Button
                v-if="m.what === 'outline' && chosen === i"
                label="One more corner"
                severity="secondary"
                size="small"
                class="corner"
                @click="print.addCorner(i)" />
            </li>
          </ul>
          <div class="pair">
            <Button
              label="Measure a length"
              severity="secondary"
              size="small"
              @click="addMark('length')" />
            <Button
              label="Trace an outline"
              severity="secondary"
              size="small"
              @click="addMark('outline')" />
          </div>
          <template v-if="volume">
            <QuantityField
              kind="length"
              label="Print, depth"
              :model-value="print.depth"
              :check="positive"
              @amount="print.depth = $event" />
            <QuantityField
              kind="length"
              label="Plaster above the ground"
              :model-value="print.cover"
              :check="positive"
              :problem="print.cover < 0.013 ? 'Thinner than 13 mm it breaks as it is lifted; 25 mm is better.' : ''"
              @amount="print.cover = $event" />
            <p>
              It takes <span class="num strong">{{ formatVolume(volume.value, units) }}</span>, in eight of ten
              <span class="num">{{ formatVolume(volume.low, units) }}</span> to
              <span class="num">{{ formatVolume(volume.high, units) }}</span>.
              <span class="small soft"
              >Trace a second outline for the ring; without one, it stands 40 mm around the print.</span
              >
            </p>
          </template>
          <p v-else class="small soft">Trace the print’s outline, and this says how much plaster it takes.</p>
        </section>
        <section v-if="session.mayWrite" class="column" aria-labelledby="known-head">
          <h2 id="known-head">What is known of it</h2>
          <div class="field">
            <label for="print-name">Name</label
            ><InputText id="print-name" v-model="print.facts.name" maxlength="80" fluid />
          </div>
          <div class="field">
            <label for="print-place">Where</label
            ><InputText id="print-place" v-model="print.facts.place" maxlength="200" fluid />
          </div>
          <div class="field">
            <label for="print-on">On the day</label
            ><InputText id="print-on" v-model="print.facts.on" type="date" fluid />
          </div>
          <template v-if="beside">
            <Button
              :label="`Take over from the photo: ${beside}`"
              severity="secondary"
              size="small"
              @click="print.takeOver()" />
            <p class="small soft">The camera wrote this beside the picture. Unless you take it over, it is not kept.</p>
          </template>
          <div class="field">
            <label for="print-by">Probably left by</label
            ><InputText id="print-by" v-model="print.facts.believed" maxlength="200" fluid />
          </div>
          <div class="field">
            <label for="print-faced">Which way it pointed</label
            ><InputText id="print-faced" v-model="print.facts.faced" maxlength="60" placeholder="north-east, or 40°" fluid />
          </div>
          <Button
            :label="print.busy ? 'Keeping it …' : 'Keep it as a mould'"
            :disabled="print.busy"
            @click="print.save()" />
          <p v-if="print.kept" role="status">
            Kept. <NuxtLink :to="`/moulds/${print.kept}`">Go to it</NuxtLink>, and plan its pour from there.
          </p>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.file {
  margin-left: auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  margin-bottom: 14px;
}
.link {
  border: 0;
  background: none;
  color: var(--action);
  text-decoration: underline;
  padding: 2px 4px;
  min-height: 28px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
  gap: 26px;
  align-items: start;
}
.two > :first-child {
  position: sticky;
  top: 12px;
}
.column {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
}
section {
  border-bottom: 1px solid var(--line);
  padding-bottom: 14px;
}
.measure {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 32px;
  gap: 4px 10px;
  align-items: center;
  padding: 6px 0;
}
.measure .crossed { grid-column: 1 / -1; color: var(--warn); }
.measure .corner {
  grid-column: 1 / -1;
  justify-self: start;
}
.value {
  text-align: right;
  line-height: 1.2;
}
.drop {
  border: 0;
  background: none;
  font-size: 1.1rem;
  min-height: 32px;
  color: var(--soft);
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .two > :first-child {
    position: static;
  }
}
</style>
