<script setup lang="ts">
import Button from 'primevue/button'
import type { FrozenRun } from '~core/plan/run'
import MendEntry from '~/features/waiting/MendEntry.vue'
import { entryWords } from '~/features/logbook/record'
import LongList from '~/ui/LongList.vue'
import RowButton from '~/ui/RowButton.vue'
import { offerFile } from '~/ui/files'
import { dayAndTime } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { remembered } from '~/sync/kept'
import type { Waiting } from '~/sync/outbox'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'

/** Entries that the server would not take, each with its reason. None is ever dropped. */
const records = useRecords(), session = useSession(), clock = useClock()
const runs = ref(new Map<string, FrozenRun>()), mending = shallowRef<Waiting>(), said = ref('')
/** The pours they belong to, for their names; a pour that is not here leaves its entries in plain words. */
watch(() => new Set(records.refused.map(w => w.pour)), async (pours) => {
  for (const id of pours) {
    if (runs.value.has(id)) continue
    const found = await remembered(session.key ?? '', 'GET pours/:id', { params: { id } }).catch(() => undefined)
    if (found) runs.value = new Map(runs.value).set(id, found.value.run)
  }
}, { immediate: true })

const runOf = (w: Waiting) => records.begun.find(b => b.id === w.pour)?.run ?? runs.value.get(w.pour)
function wordsOf(w: Waiting): string {
  const run = runOf(w), event = { ...w.event, pour: w.pour, actor: '' }
  return run ? entryWords(event, run, session.units) : `An entry of the kind “${w.event.kind}”`
}
const some = computed(() => records.refused.length + records.refusedPours.length > 0)
async function againAll() {
  await records.beginAgain(records.refusedPours)
  await again(records.refused)
}
async function again(entries: readonly Waiting[]) {
  said.value = entries.length === 1 ? 'Sent again.' : `${entries.length} entries sent again.`
  await records.sendAgain(entries)
}
function save() {
  const entries = records.refused.map(({ pour, event, refused }) => ({ pour, refused, event })),
    begun = records.refusedPours.map(({ start, run, refused }) => ({ start, run, refused }))
  offerFile(
    'not-taken.json',
    JSON.stringify({ format: 'nine-ripples not taken', version: 1, entries, begun }, null, 2),
    'application/json',
  )
}
async function mend(change: Parameters<typeof records.mend>[1]) {
  const entry = mending.value
  mending.value = undefined
  if (!entry) return
  await records.mend(entry, change)
  said.value = 'Mended and sent.'
}
</script>

<template>
  <div>
    <header>
      <h1>Not taken</h1>
      <template v-if="some">
        <Button label="Send all again" class="right" @click="againAll" />
        <Button label="Save as a file" severity="secondary" @click="save" />
      </template>
    </header>
    <p class="sr-only" role="status">{{ said }}</p>
    <ul v-if="records.refusedPours.length > 0" class="ruled begun">
      <li v-for="b in records.refusedPours" :key="b.id">
        <span>
          <span class="strong">{{ b.run.plan.name }}</span><br>
          <span class="small soft">the whole pour, begun here {{ dayAndTime(b.start.startedAt, clock.halfHour) }}</span>
        </span>
        <span class="why">{{ b.refused }}</span>
        <RowButton
          label="Send again"
          small
          :aria-label="`Send again: ${b.run.plan.name}`"
          @click="records.beginAgain([b])" />
      </li>
    </ul>
    <LongList
      v-if="records.refused.length > 0"
      v-slot="{ item: w }"
      :items="records.refused"
      :key-of="w => w.event.id"
      class="entries">
      <span>
        <span class="strong">{{ wordsOf(w) }}</span><br>
        <span class="small soft">{{ runOf(w)?.plan.name ?? 'A pour that is not here' }},
          {{ dayAndTime(w.event.happenedAt, clock.halfHour) }}</span>
      </span>
      <span class="why">{{ w.refused }}</span>
      <span class="ways">
        <RowButton v-if="runOf(w)" label="Mend" small :aria-label="`Mend: ${wordsOf(w)}`" @click="mending = w" />
        <RowButton label="Send again" small :aria-label="`Send again: ${wordsOf(w)}`" @click="again([w])" />
      </span>
    </LongList>
    <p v-if="!some" class="empty">
      Nothing here. An entry that the server will not take stands here with its reason; the others go on without it.
    </p>
    <MendEntry
      :entry="mending"
      :run="mending && runOf(mending)"
      @mended="mend"
      @closed="mending = undefined" />
  </div>
</template>

<style scoped>
header { display: flex; flex-wrap: wrap; gap: 8px 12px; align-items: center; margin-bottom: 14px; }
.right { margin-left: auto; }
.entries { --columns: minmax(0, 1.2fr) minmax(0, 1fr) auto; }
.begun li {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) auto;
  gap: 14px;
  align-items: center;
  padding: 9px 0;
}
.why { color: var(--warn); }
.ways { display: flex; gap: 8px; }
@media (max-width: 720px) { .entries { --columns: minmax(0, 1fr); --row-gap: 6px; } }
</style>
