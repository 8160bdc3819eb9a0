<script setup lang="ts">
import Select from 'primevue/select'
import { defectWords } from '~core/pour/defects'
import { measureName } from '~core/logbook/words'
import { foldPour } from '~core/pour/fold'
import { formatConsistency, formatFine } from '~core/units/format'
import type { KeptPhoto } from '~contract/photo'
import type { PourAnswer } from '~contract/pour'
import { ask } from '~/sync/api'
import { remembered } from '~/sync/kept'
import { photoAddress, photosOf } from '~/sync/photos'
import { dayAndTime } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { useSession } from '~/sync/session'
import FaceDrawing from './FaceDrawing.vue'

/**
 * Another piece from the same mould, to be seen beside the one in hand: its photo or sketch with its faults, and how it
 * was made.
 */
const { pour, cast, mould } = defineProps<{ pour: string, cast: string, mould: string }>()
const session = useSession(), clock = useClock()
const pours = ref<{ id: string, name: string }[]>([]),
  pourId = ref<string>(),
  castId = ref<string>(),
  other = shallowRef<PourAnswer>(),
  photos = ref<KeptPhoto[]>([]),
  shown = ref<string>(),
  trouble = ref('')
async function attempt(work: () => Promise<void>) {
  trouble.value = ''
  await work().catch((error: Error) => {
    trouble.value = error.message
  })
}
onMounted(() =>
  attempt(async () => {
    const page = await ask('GET logbook/pours', { query: { facts: `mould:${mould}` } })
    pours.value = page.rows.map(r => ({
      id: r.id,
      name: `${r.summary.name}, ${r.summary.startedAt ? dayAndTime(r.summary.startedAt, clock.halfHour) : 'not begun'}${
        r.id === pour ? ' (this pour)' : ''
      }`,
    }))
  }),
)
watch(pourId, id =>
  attempt(async () => {
    castId.value = undefined
    other.value = id ? (await remembered(session.key ?? '', 'GET pours/:id', { params: { id } })).value : undefined
    castId.value = pieces.value.find(c => c.cast.id !== cast || id !== pour)?.cast.id
  }))
const pieces = computed(() =>
  other.value ? foldPour(other.value.run, other.value.events).casts.filter(c => c.cast.mould.id === mould) : [],
)
const piece = computed(() => pieces.value.find(c => c.cast.id === castId.value))
const ratio = computed(() =>
  other.value && piece.value && foldPour(other.value.run, other.value.events).batches[piece.value.cast.batch]?.ratio,
)
watch(piece, p =>
  attempt(async () => {
    photos.value = p && pourId.value ? await photosOf({ pour: pourId.value, cast: p.cast.id }) : []
    shown.value = photos.value[0]?.id
  }))
const photo = computed(() => photos.value.find(p => p.id === shown.value))
</script>

<template>
  <section aria-labelledby="beside-head">
    <div class="group-head"><h2 id="beside-head">Beside another</h2></div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div class="choose">
      <Select
        v-model="pourId"
        :options="pours"
        option-label="name"
        option-value="id"
        placeholder="Of which pour"
        aria-label="Of which pour"
        show-clear
        size="small" />
      <Select
        v-if="pieces.length > 0"
        v-model="castId"
        :options="pieces.map(c => ({ id: c.cast.id, name: c.cast.label }))"
        option-label="name"
        option-value="id"
        placeholder="Which piece"
        aria-label="Which piece"
        size="small" />
    </div>
    <template v-if="piece && other">
      <div v-if="photos.length > 0" class="choose">
        <button :aria-pressed="!photo" class="view" @click="shown = undefined">Sketch</button>
        <button v-for="(p, i) in photos" :key="p.id" :aria-pressed="shown === p.id" class="view" @click="shown = p.id">
          Photo {{ i + 1 }}
        </button>
      </div>
      <FaceDrawing
        :mould="piece.cast.mould"
        :photo="photo && { address: photoAddress(photo.id), width: photo.width, height: photo.height }"
        :marks="piece.faults.filter(m => (m.photo ?? undefined) === photo?.id)"
        readonly
        :label="`${piece.cast.label} of ${other.run.plan.name}, for comparison`" />
      <p class="small">
        <span class="strong">{{ piece.verdict ?? piece.status }}</span
        ><template v-if="piece.defects.length > 0"
        >, {{ piece.defects.map(d => defectWords(d).toLowerCase()).join(', ') }}</template
        >;
        {{
          ratio
            ? `${formatConsistency(ratio)} water to 100 powder as weighed`
            : `${formatConsistency(other.run.ratio.value)} planned`
        }}<template v-for="m in piece.measured" :key="m.what"
        >; {{ measureName(m.what).toLowerCase() }} {{ formatFine(m.value, session.units) }}</template
        >. <NuxtLink :to="`/piece/${pourId}/${piece.cast.id}`">Inspect it</NuxtLink>
      </p>
    </template>
  </section>
</template>

<style scoped>
:deep(.face) {
  max-width: 360px;
}
section {
  display: grid;
  gap: 10px;
  grid-template-columns: minmax(0, 1fr);
}
.choose {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.view {
  border: 1px solid var(--line-strong);
  background: var(--sheet);
  border-radius: 8px;
  padding: 4px 12px;
  min-height: 32px;
}
.view[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
</style>
