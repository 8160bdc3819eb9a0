<script setup lang="ts">
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { MOULD_MATERIALS } from '~core/setting/body'
import { gaugeBasisWords, releaseSentence } from '~core/mould/words'
import { evenDepth } from '~core/mould/gauge/vessel'
import { formatLength, formatVolume } from '~core/units/format'
import type { MouldBody } from '~contract/library'
import { newId } from '~/sync/api'
import EditDialog from '~/features/library/EditDialog.vue'
import { useEditing } from '~/features/library/useEditing'
import FileButton from '~/ui/FileButton.vue'
import GroundButton from '~/ui/GroundButton.vue'
import LongList from '~/ui/LongList.vue'
import MouldPicture from '~/ui/MouldPicture.vue'
import QuantityField from '~/ui/QuantityField.vue'
import PlainButton from '~/ui/PlainButton.vue'
import Stepper from '~/ui/Stepper.vue'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'
import { offerFile, readJson } from '~/ui/files'

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
const gaugedWords = ({ gauges }: MouldBody) => gauges?.length ? gauges.map(gaugeBasisWords).join('; ') : undefined
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
      <span class="ways">
        <Button label="A print by photo" severity="secondary" @click="navigateTo('/moulds/print')" />
        <Button label="From a model" severity="secondary" @click="navigateTo('/moulds/model')" />
        <Button v-if="library.items.mould.length > 0" label="Save as a file" severity="secondary" @click="saveFile" />
        <template v-if="session.mayWrite">
          <Button label="Bring in a table" severity="secondary" @click="navigateTo('/logbook/table?of=moulds')" />
          <FileButton label="Bring in a file" accept=".json,application/json" :disabled="reading" @file="bringIn" />
          <Button label="Add a mould" @click="edit()" />
        </template>
      </span>
    </header>
    <p v-if="library.trouble" class="problem" role="alert">{{ library.trouble }}</p>
    <p v-if="brought" :class="{ problem: failed }" role="status">{{ brought }}</p>
    <LongList
      v-if="library.items.mould.length > 0"
      v-slot="{ item: m }"
      :items="library.items.mould"
      :key-of="m => m.id"
      :row-height="72"
      class="moulds">
      <MouldPicture :mouth="m.body.mouth" :volume="m.body.volume.value" :size="52" />
      <span
      ><NuxtLink :to="`/moulds/${m.id}`" class="row-link strong">{{ m.body.name }}</NuxtLink
      ><br /><span class="small soft"
      >{{ MOULD_MATERIALS[m.body.material].name
      }}<template v-if="m.body.note">. {{ m.body.note }}</template></span
      ></span
      >
      <span
      ><span class="num strong">{{ formatVolume(m.body.volume.value, units) }}</span
      ><br /><span class="num small soft"
      ><GroundButton :ground="m.body.gauges?.length ? 'gauged' : 'told'" :basis="gaugedWords(m.body)"
      >{{ formatVolume(m.body.volume.low, units) }} to {{ formatVolume(m.body.volume.high, units) }}</GroundButton
      ></span
      ></span
      >
      <span class="small release">{{ releaseSentence(m.body.material) }}</span>
      <span class="small soft uses"><span class="num">{{ m.uses ?? 0 }}</span> casts so far</span>
      <span class="ways">
        <PlainButton
          label="Gauge"
          small
          :aria-label="`Gauge ${m.body.name}`"
          @click="navigateTo(`/moulds/${m.id}`)" />
        <PlainButton
          v-if="session.mayWrite"
          label="Change"
          small
          :aria-label="`Change ${m.body.name}`"
          @click="edit(m)" />
      </span>
    </LongList>
    <div v-else-if="library.loaded" class="empty">
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
      <QuantityField
        kind="volume"
        field="holds"
        label="It holds"
        :model-value="item.body.volume.value"
        :check="v => v > 0 ? undefined : 'A mould holds more than nothing.'"
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
        <MouldPicture :mouth="item.body.mouth" :volume="item.body.volume.value" :size="60" /> If its walls were straight
        it would be {{ formatLength(evenDepth(item.body.mouth, item.body.volume.value), units) }} deep.
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
  --columns: 60px minmax(0, 1.3fr) 150px minmax(0, 1.2fr) 110px auto;
  --row-gap: 16px;
}
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
@media (max-width: 720px) {
  .moulds {
    --columns: 56px 1fr auto;
  }
  .moulds .ways {
    grid-column: 2 / -1;
  }
  .release,
  .uses {
    display: none;
  }
}
</style>
