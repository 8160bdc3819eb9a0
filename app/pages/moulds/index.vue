<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import Popover from 'primevue/popover'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { MOULD_MATERIALS } from '~core/setting/body'
import { FORM_IDS, type FormId } from '~core/drawing/form-ids'
import { formOf, profileOf } from '~core/drawing/profile'
import { FORM_WORDS, OWN_LOOK } from '~core/drawing/words'
import { releaseSentence } from '~core/mould/words'
import { formatLength } from '~core/units/format'
import type { MouldBody } from '~contract/library'
import { newId } from '~/sync/api'
import EditDialog from '~/features/library/EditDialog.vue'
import { useEditing } from '~/features/library/useEditing'
import EmptyPicture from '~/ui/EmptyPicture.vue'
import FileButton from '~/ui/FileButton.vue'
import LongList from '~/ui/LongList.vue'
import MouldCard from '~/features/moulds/MouldCard.vue'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'
import { offerFile, readJson } from '~/ui/files'
import { useElementSize } from '@vueuse/core'

const library = useLibrary(), session = useSession()
await library.load()
const { open, trouble, busy, item, edit, save, putAway } = useEditing('mould', () => ({
  name: '',
  material: 'silicone',
  volume: { value: 0.0005, low: 0.00048, high: 0.00052 },
  mouth: { shape: 'round', width: 0.1, length: 0.1 },
  wall: 0.008,
  section: 0.03,
  fragile: false,
  note: '',
} satisfies MouldBody))
const reading = ref(false), failed = ref(false), brought = ref('')
/** What a file of moulds is: fetched when there is one, the list opens without it. */
const contract = () => import('~contract/library')
async function saveFile() {
  const { MOULD_FILE } = await contract()
  offerFile(
    'moulds.json',
    JSON.stringify({ format: MOULD_FILE, version: 1, moulds: library.items.mould.map(m => m.body) }, null, 2),
    'application/json',
  )
}
/** Moulds of a file become new ones; those that are here already, name and volume, are left as they are. */
async function bringIn(file: File) {
  reading.value = true
  failed.value = false
  try {
    if (file.size > 5e6) throw new Error('A file of moulds is at most 5 MB.')
    const { mouldFileSchema } = await contract()
    const parsed = mouldFileSchema.safeParse(readJson(await file.text()))
    if (!parsed.success) throw new Error(parsed.error.issues[0]!.message)
    const key = (m: MouldBody) => `${m.name} ${m.volume.value}`
    const here = new Set(library.items.mould.map(m => key(m.body)))
    const fresh = parsed.data.moulds.filter(m => !here.has(key(m)))
    for (const m of fresh) await library.save('mould', newId(), m)
    brought.value = `${fresh.length} brought in${
      fresh.length < parsed.data.moulds.length ? `; ${parsed.data.moulds.length - fresh.length} were here already` : ''
    }.`
  }
  catch (error) {
    failed.value = true
    brought.value = (error as Error).message
  }
  reading.value = false
}
const addWays = ref<InstanceType<typeof Popover>>(), adding = ref(false)
const toggleAdding = (event: Event) => addWays.value?.toggle(event)
function byMeasures() {
  addWays.value?.hide()
  edit()
}
/** As many side by side as there is room for; until the wall is measured, about as many as will be. */
const CARD = 216, wall = useTemplateRef<HTMLElement>('wall'), { width } = useElementSize(wall)
const across = computed(() => Math.max(1, Math.floor((width.value || Math.min(innerWidth, 1100)) / CARD)))
const sought = ref('')
const found = computed(() =>
  library.items.mould.filter(m => m.body.name.toLowerCase().includes(sought.value.trim().toLowerCase())))
const rows = computed(() =>
  Array.from({ length: Math.ceil(found.value.length / across.value) }, (_, k) =>
    found.value.slice(k * across.value, (k + 1) * across.value)))
const forms = FORM_IDS.map(id => ({ id, name: FORM_WORDS[id] }))
/** As its model or the outline in its photo shows it. */
const OWN = 'own', own = { id: OWN, name: OWN_LOOK }
function drawAs(id: FormId | typeof OWN) {
  item.body.form = id === OWN ? undefined : id
}
/** Hatches as the cuts have them. */
const LEGEND = [
  ['Silicone', 'silicone'], ['Rubber', 'rubber'], ['Plastic', 'plastic'], ['Clay', 'clay'], ['Plaster', 'plaster'],
  ['Wood', 'wood'], ['One use', 'once'], ['Ground', 'ground'],
] as const
const hatchOf = (of: string) => ({
  background: `repeating-linear-gradient(45deg, var(--of-${of}) 0 4px, var(--hatch-${of}) 4px 5.5px)`,
})
const materials = Object.entries(MOULD_MATERIALS).map(([id, m]) => ({ id, name: m.name }))
const SHAPES = [{ id: 'round', name: 'Round opening' }, { id: 'rectangular', name: 'Rectangular' }]
const units = computed(() => session.units)
const spread = computed(() => Math.round(50 * (item.body.volume.high - item.body.volume.low) / item.body.volume.value))
function setVolume(value: number | undefined, percent = spread.value) {
  if (!value || value <= 0) return
  item.body.volume = { value, low: value * (1 - percent / 100), high: value * (1 + percent / 100) }
  // Told anew, it stands for itself; what was gauged before no longer decides.
  item.body.gauges = undefined
}
</script>

<template>
  <div>
    <header>
      <h1>Moulds</h1>
      <ul class="legend small" aria-label="What moulds are made of">
        <li v-for="[name, hatch] in LEGEND" :key="hatch"><i :style="hatchOf(hatch)" />{{ name }}</li>
      </ul>
      <span class="ways">
        <InputText v-if="library.items.mould.length > 8" v-model="sought" placeholder="Find a mould" aria-label="Find a mould" />
        <Button
          v-if="session.mayWrite"
          label="Add a mould"
          aria-haspopup="true"
          :aria-expanded="adding"
          @click="toggleAdding" />
        <Button v-else-if="library.items.mould.length > 0" label="Save as a file" severity="secondary" @click="saveFile" />
      </span>
    </header>
    <Popover ref="addWays" @show="adding = true" @hide="adding = false">
      <div class="add">
        <Button label="By its measures" severity="secondary" @click="byMeasures" />
        <Button label="From a model" severity="secondary" @click="navigateTo('/moulds/model')" />
        <Button label="A print by photo" severity="secondary" @click="navigateTo('/moulds/print')" />
        <Button label="Import a table" severity="secondary" @click="navigateTo('/logbook/table?of=moulds')" />
        <FileButton label="Import a file" accept=".json,application/json" :disabled="reading" @file="bringIn" />
        <Button
          v-if="library.items.mould.length > 0"
          label="Save as a file"
          severity="secondary"
          @click="saveFile" />
      </div>
    </Popover>
    <p v-if="library.trouble" class="problem" role="alert">{{ library.trouble }}</p>
    <p v-if="brought" :class="{ problem: failed }" role="status">{{ brought }}</p>
    <div ref="wall" class="wall">
      <LongList
        v-if="rows.length > 0"
        v-slot="{ item: row }"
        :items="rows"
        :key-of="row => row[0]!.id"
        :row-height="330"
        class="moulds"
        :style="{ '--columns': `repeat(${across}, minmax(0, 1fr))` }">
        <MouldCard v-for="m in row" :key="m.id" :item="m" @change="edit(m)" />
      </LongList>
      <p v-else-if="sought" class="soft">No mould is called that.</p>
    </div>
    <div v-if="library.loaded && library.items.mould.length === 0" class="empty">
      <EmptyPicture :forms="['tile', 'bowl', 'heart']" />
      <p>
        No moulds yet. Fill yours with water to where the plaster should stand, pour that into a jug or onto a scale,
        and write it down here once. Then let the mould drain dry.
      </p>
    </div>
    <EditDialog
      v-model:open="open"
      :title="item.from ? item.body.name || 'Mould' : 'A new mould'"
      :trouble="trouble"
      :busy="busy"
      :existing="item.from !== undefined"
      @save="save"
      @put-away="putAway"
    >
      <div class="field">
        <label for="mould-name">Name</label><InputText
          id="mould-name"
          v-model="item.body.name"
          maxlength="80"
        />
      </div>
      <div class="field">
        <span id="material-label" class="strong small">Made of</span><Select
          v-model="item.body.material"
          :options="materials"
          option-label="name"
          option-value="id"
          aria-labelledby="material-label"
        />
        <p class="small soft">{{ releaseSentence(item.body.material) }}</p>
      </div>
      <div class="field">
        <span id="form-label" class="strong small">Drawn as</span><Select
          :model-value="item.body.form ?? (item.body.looks ? OWN : formOf(item.body))"
          :options="item.body.looks ? [own, ...forms] : forms"
          option-label="name"
          option-value="id"
          aria-labelledby="form-label"
          @update:model-value="drawAs($event)"
        />
      </div>
      <QuantityField
        kind="volume"
        field="holds"
        label="It holds"
        :model-value="item.body.volume.value"
        :check="v => v > 0 ? undefined : 'Enter more than zero.'"
        @update:model-value="setVolume($event)"
      />
      <div class="pair">
        <span class="strong">Known to within</span><Stepper
          label="Known to within, percent"
          unit=" %"
          :min="1"
          :max="50"
          :model-value="spread"
          @update:model-value="setVolume(item.body.volume.value, $event)"
        />
      </div>
      <SelectButton
        v-model="item.body.mouth.shape"
        :options="SHAPES"
        option-label="name"
        option-value="id"
        :allow-empty="false"
        aria-label="Shape of the opening"
      />
      <QuantityField
        kind="length"
        :label="item.body.mouth.shape === 'round' ? 'Across the opening' : 'Width of the opening'"
        :model-value="item.body.mouth.width"
        :check="v => v > 0 ? undefined : 'An opening is wider than nothing.'"
        @amount="item.body.mouth.width = $event"
      />
      <QuantityField
        v-if="item.body.mouth.shape === 'rectangular'"
        kind="length"
        label="Length of the opening"
        :model-value="item.body.mouth.length"
        :check="v => v > 0 ? undefined : 'An opening is longer than nothing.'"
        @amount="item.body.mouth.length = $event"
      />
      <QuantityField
        kind="length"
        label="Its wall"
        :model-value="item.body.wall"
        :check="v => v > 0 ? undefined : 'A wall is thicker than nothing.'"
        @amount="item.body.wall = $event"
      />
      <QuantityField
        kind="length"
        field="size"
        label="Thickest part of the cast"
        :model-value="item.body.section"
        :check="v => v > 0 ? undefined : 'The cast is thicker than nothing.'"
        @amount="item.body.section = $event"
      />
      <label class="check"><Checkbox
        v-model="item.body.fragile"
        binary
        input-id="fragile"
      /> Thin or undercut parts that break if it is opened early</label>
      <div class="field">
        <label for="mould-note">Note</label><InputText
          id="mould-note"
          v-model="item.body.note"
          maxlength="2000"
        />
      </div>
      <p class="small soft drawn">
        <MouldDrawing :mould="item.body" view="above" :width="90" :height="70" />
        <MouldDrawing :mould="item.body" view="cut" :width="110" :height="70" :filled="1" :warmth="8" />
        <span>So it would be {{ formatLength(profileOf(item.body).depth, units) }} deep.</span>
      </p>
    </EditDialog>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 10px;
}
.moulds {
  --row-gap: 0;
}
.moulds :deep(li) { align-items: stretch; }
.moulds :deep(.card + .card) { border-left: 1px solid var(--line); }
.legend { display: flex; flex-wrap: wrap; gap: 4px 14px; }
.legend li { display: flex; gap: 6px; align-items: center; }
.legend i { width: 22px; height: 15px; border: 1.5px solid var(--ink); border-radius: 3px; }
.add { display: grid; gap: 8px; min-width: 210px; }
.add :deep(.file) { text-align: center; }
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.pair {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
}
.check {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 32px;
}
.drawn {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
