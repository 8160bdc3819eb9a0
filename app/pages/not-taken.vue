<script setup lang="ts">
import Button from 'primevue/button'
import type { FrozenRun } from '~core/plan/run'
import ConflictChoice from '~/features/waiting/ConflictChoice.vue'
import MendEntry from '~/features/waiting/MendEntry.vue'
import { kindWords, nameWords } from '~/features/waiting/words'
import { entryWords } from '~/features/logbook/record'
import LongList from '~/ui/LongList.vue'
import PlainButton from '~/ui/PlainButton.vue'
import { offerFile } from '~/ui/files'
import { dayAndTime } from '~/ui/when'
import { useChanges } from '~/sync/changes'
import { useClock } from '~/sync/clock'
import { remembered } from '~/sync/kept'
import { putsAway, type Change } from '~/sync/kept-changes'
import type { Waiting } from '~/sync/outbox'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'

/** What the server would not take, each with its reason. Nothing is ever dropped but by hand. */
const records = useRecords(), changes = useChanges(), session = useSession(), clock = useClock()
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
const conflicts = computed(() => changes.refused.filter(c => c.conflict))
const refusedChanges = computed(() => changes.refused.filter(c => !c.conflict))
const some = computed(() => records.refused.length + records.refusedPours.length + changes.refused.length > 0)
async function againAll() {
  for (const change of refusedChanges.value) await changes.sendAgain(change)
  await records.beginAgain(records.refusedPours)
  await again(records.refused)
}
async function changeAgain(change: Change) {
  said.value = 'Sent again.'
  await changes.sendAgain(change)
}
async function leaveOut(change: Change) {
  said.value = `${nameWords(change)} stays as the server has it.`
  await changes.drop(change)
}
/** Where it can be mended. */
function placeOf({ target }: Change): string | undefined {
  if (target.what === 'plan') return `/plan/${target.id}`
  if (target.what !== 'item') return target.what === 'view' ? '/logbook' : undefined
  return target.kind === 'mould' ? `/moulds/${target.id}` : '/powders'
}
/** A photo goes into the file whole. */
async function asData(blob: Blob): Promise<string> {
  const bytes = new Uint8Array(await blob.arrayBuffer())
  return `data:${blob.type};base64,${btoa(Array.from(bytes, b => String.fromCharCode(b)).join(''))}`
}
/** A thing in all its versions. */
async function thingOf({ target, body, picture, refused, conflict }: Change): Promise<object> {
  return {
    target,
    body,
    refused,
    theirs: conflict?.theirs,
    ...conflict?.here && { earlier: await thingOf(conflict.here) },
    ...picture && { picture: await asData(picture.blob), caption: picture.caption },
  }
}
async function again(entries: readonly Waiting[]) {
  said.value = entries.length === 1 ? 'Sent again.' : `${entries.length} entries sent again.`
  await records.sendAgain(entries)
}
async function save() {
  const entries = records.refused.map(({ pour, event, refused }) => ({ pour, refused, event })),
    begun = records.refusedPours.map(({ start, run, refused }) => ({ start, run, refused })),
    things = await Promise.all(changes.refused.map(thingOf))
  offerFile(
    'not-taken.json',
    JSON.stringify({ format: 'nine-ripples not taken', version: 2, entries, begun, things }, null, 2),
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
    <div v-for="c in conflicts" :key="c.name">
      <h2>{{ nameWords(c) }} <span class="small soft">{{ kindWords(c.target) }}</span></h2>
      <ConflictChoice :change="c" />
    </div>
    <ul v-if="refusedChanges.length > 0" class="ruled begun">
      <li v-for="c in refusedChanges" :key="c.name">
        <span>
          <span class="strong">{{ nameWords(c) }}</span><br>
          <span class="small soft">{{ kindWords(c.target) }}{{ putsAway(c) ? ', to be put away' : '' }}</span>
        </span>
        <span class="why">{{ c.refused }}</span>
        <span class="ways">
          <NuxtLink v-if="placeOf(c) && !putsAway(c)" :to="placeOf(c)!">Mend it</NuxtLink>
          <PlainButton label="Send again" small :aria-label="`Send again: ${nameWords(c)}`" @click="changeAgain(c)" />
          <PlainButton label="Leave it out" small :aria-label="`Leave it out: ${nameWords(c)}`" @click="leaveOut(c)" />
        </span>
      </li>
    </ul>
    <ul v-if="records.refusedPours.length > 0" class="ruled begun">
      <li v-for="b in records.refusedPours" :key="b.id">
        <span>
          <span class="strong">{{ b.run.plan.name }}</span><br>
          <span class="small soft">the whole pour, begun here {{ dayAndTime(b.start.startedAt, clock.halfHour) }}</span>
        </span>
        <span class="why">{{ b.refused }}</span>
        <PlainButton
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
        <PlainButton v-if="runOf(w)" label="Mend" small :aria-label="`Mend: ${wordsOf(w)}`" @click="mending = w" />
        <PlainButton label="Send again" small :aria-label="`Send again: ${wordsOf(w)}`" @click="again([w])" />
      </span>
    </LongList>
    <p v-if="!some" class="empty">
      Nothing here. What the server will not take stands here with its reason; all else goes on without it.
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
.ways { display: flex; flex-wrap: wrap; gap: 8px; align-items: center; }
h2 { font-size: 1rem; margin: 12px 0 6px; }
@media (max-width: 720px) {
  .entries { --columns: minmax(0, 1fr); --row-gap: 6px; }
  .begun li { grid-template-columns: minmax(0, 1fr); gap: 6px; }
}
</style>
