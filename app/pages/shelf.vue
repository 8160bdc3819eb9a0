<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { formatConsistency } from '~core/units/format'
import type { Standing } from '~core/drying/places'
import type { Happening, Verdict } from '~core/pour/events'
import type { DefectId } from '~core/pour/defects'
import type { CastSummary } from '~core/pour/projection'
import EmptyPicture from '~/ui/EmptyPicture.vue'
import LongList from '~/ui/LongList.vue'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import { dampOf } from '~/features/today/picture'
import { useLibrary } from '~/sync/library'
import PlainButton from '~/ui/PlainButton.vue'
import CastBar from '~/features/shelf/CastBar.vue'
import NeedTime from '~/features/shelf/NeedTime.vue'
import NeedWords from '~/features/shelf/NeedWords.vue'
import { adviceFor, byNeed, groupCasts, rowKey, type CastGroup } from '~/features/shelf/groups'
import { openedLater } from '~/ui/controls'
import { useClock } from '~/sync/clock'
import { usePours } from '~/sync/pours'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'

definePageMeta({ plain: true })
const HowToOpen = openedLater(() => import('~/features/shelf/HowToOpen.vue'), 'anchor')
const AirDialog = openedLater(() => import('~/features/shelf/AirDialog.vue'), 'open')
const DryDialog = openedLater(() => import('~/features/shelf/DryDialog.vue'), 'group')
const JudgeDialog = openedLater(() => import('~/features/shelf/JudgeDialog.vue'), 'group')
const pours = usePours(), clock = useClock(), records = useRecords(), session = useSession()
const library = useLibrary()
await Promise.all([pours.load(), library.load().catch(() => {})])
const mouldOf = (id: string) => library.items.mould.find(m => m.id === id)?.body
/** In its mould it is seen cut through; outside it stands, as damp as it is foretold to be. */
const lookOf = (cast: CastSummary) => cast.status === 'setting'
  ? { view: 'cut' as const, filled: 1, warmth: 8 as const }
  : { view: 'above' as const, damp: dampOf(cast, clock.halfHour) ?? 1 }
const judging = ref<CastGroup>()
const drying = ref<CastGroup>()
const dries = (g: CastGroup) =>
  g.first.openedAt !== undefined && ['drying', 'ready-now', 'kept-damp', 'judge'].includes(g.need)
/** Kinds of cast that are shown one by one: as some of them are handled, the others stay so. */
const unfolded = ref(new Set<string>())
const said = ref('')

/** One of a group, treated alone. */
const alone = (group: CastGroup, cast: CastSummary): CastGroup => ({
  ...group,
  key: `${group.key}|${cast.id}`,
  label: cast.label,
  first: cast,
  casts: [cast],
})
const kindOf = (g: CastGroup) => `${g.pour}|${g.first.mouldId}`
const isUnfolded = (g: CastGroup) => g.casts.length > 1 && unfolded.value.has(kindOf(g))
function toggle(g: CastGroup) {
  const next = new Set(unfolded.value)
  if (!next.delete(kindOf(g))) next.add(kindOf(g))
  unfolded.value = next
}
/** A group as one row, and each of its casts as one more when they are shown one by one. */
const rowsOf = (group: CastGroup) =>
  [group, ...isUnfolded(group) ? group.casts.map(c => alone(group, c)) : []].map(row => ({ row, group }))

const groups = computed(() => groupCasts(pours.needs.filter(r => r.need !== 'none')).sort(byNeed))
/** Casts that stand and dry somewhere: one look at the air is about all of them in the same place. */
const standing = computed(() =>
  groups.value.flatMap(g =>
    g.casts.filter(c => c.drying && c.finishedAt === undefined).map(c => ({
      pour: g.pour,
      cast: c.id,
      ...c.drying!.standing,
    })),
  ),
)
const airing = ref(false)
async function airAll({ place, air, weather }: Standing) {
  airing.value = false
  const here = standing.value.filter(s => s.place === place)
  for (const pour of new Set(here.map(s => s.pour)))
    await records.recordAll(
      pour,
      here.filter(s => s.pour === pour).map((s): Happening => ({ kind: 'placed', data: { cast: s.cast, place, air, ...weather && { weather } } })),
    )
  said.value = `The air is noted for ${here.length} ${here.length === 1 ? 'cast' : 'casts'}.`
}
const wantsHand = (g: CastGroup) =>
  ['open-late', 'open-now', 'judge', 'ready-now'].includes(g.need) || adviceFor(g, clock.halfHour) !== undefined
const sections = computed(() =>
  [
    { id: 'now', title: 'To do now', hint: '', groups: groups.value.filter(wantsHand) },
    { id: 'setting', title: 'Setting', hint: 'leave alone', groups: groups.value.filter(g => g.need === 'setting') },
    {
      id: 'drying',
      title: 'Drying',
      hint: 'next moment first',
      groups: groups.value.filter(g => ['drying', 'kept-damp'].includes(g.need) && !wantsHand(g)),
    },
  ].filter(s => s.groups.length > 0).map(s => ({ ...s, rows: s.groups.flatMap(rowsOf) })),
)
const count = computed(() => groups.value.reduce((n, g) => n + g.casts.length, 0))

const ACTION: Partial<Record<CastGroup['need'], { word: string, strong: boolean }>> = {
  'open-late': { word: 'Opened', strong: true },
  'open-now': { word: 'Opened', strong: true },
  'setting': { word: 'Opened early', strong: false },
  'judge': { word: 'Inspect', strong: true },
  'ready-now': { word: 'Finished', strong: true },
  'drying': { word: 'Finished', strong: false },
  'kept-damp': { word: 'Finished', strong: false },
}
function recordAll(group: CastGroup, casts: readonly CastSummary[], make: (cast: string) => Happening) {
  return records.recordAll(group.pour, casts.map(c => make(c.id)))
}
/** How the mould of a row is opened, asked for at its words. */
const opening = shallowRef<{ readonly anchor: HTMLElement, readonly mould: string }>()
const TO_OPEN: ReadonlySet<string> = new Set(['open-late', 'open-now', 'setting'])
function askHow(group: CastGroup, event: MouseEvent) {
  opening.value = { anchor: event.currentTarget as HTMLElement, mould: group.first.mouldId }
}
/** The row that was acted on last by keyboard: when it moves or goes, the focus must not be lost with it. */
const lastRow = ref('')
const heading = ref<HTMLElement>()
/** Frames in which a list that has only now come draws its first rows. */
const FRAMES = 6
/** The focus is nowhere, or in a dialog that is on its way out. */
const isLost = () => document.activeElement === document.body || document.activeElement?.closest('[role=dialog]')
/** Unless somebody has gone on by themselves meanwhile. */
async function focusRow() {
  const row = () => document.getElementById(`act-${lastRow.value}`)
  for (let frame = 0; lastRow.value && !row() && frame < FRAMES; frame++)
    await new Promise(requestAnimationFrame)
  if (lastRow.value && isLost()) (row() ?? heading.value)?.focus()
}
useEventListener(document, 'pointerdown', () => {
  lastRow.value = ''
})
watch(sections, () => {
  if (document.activeElement === document.body) void focusRow()
}, { flush: 'post' })
async function act(group: CastGroup, event: MouseEvent) {
  lastRow.value = event.detail === 0 ? rowKey(group.pour, group.first) : ''
  if (group.need === 'judge') {
    judging.value = group
    return
  }
  const kind = ['open-late', 'open-now', 'setting'].includes(group.need) ? 'opened' as const : 'finished' as const
  await recordAll(group, group.casts, cast => ({ kind, data: { cast } }))
  said.value = `${group.label}: ${kind}.`
}
async function judged(verdict: Verdict, defects: DefectId[], note: string) {
  const group = judging.value
  judging.value = undefined
  if (!group) return
  await recordAll(group, group.casts, cast => ({ kind: 'judged', data: { cast, verdict, defects, note } }))
  said.value = `${group.label}: ${verdict}.`
  await nextTick()
  await focusRow()
}
</script>

<template>
  <div>
    <header>
      <h1 ref="heading" tabindex="-1">Shelf</h1>
      <p class="soft">{{ count }} {{ count === 1 ? 'cast' : 'casts' }}</p>
      <PlainButton
        v-if="session.mayWrite && standing.length > 0"
        label="The air here"
        small
        class="air"
        @click="airing = true" />
    </header>
    <p v-if="pours.trouble" class="problem" role="alert">{{ pours.trouble }}</p>
    <p class="sr-only" role="status">{{ said }}</p>
    <section v-for="s in sections" :key="s.id" :aria-labelledby="`shelf-${s.id}`">
      <div class="group-head">
        <h2 :id="`shelf-${s.id}`">{{ s.title }}</h2>
        <span class="small soft">{{ s.hint }}</span>
      </div>
      <LongList
        v-slot="{ item: { row: r, group: g } }"
        :items="s.rows"
        :key-of="({ row }) => row.key"
        :kept="lastRow"
        :row-class="({ row, group }) => ['cast', { part: row !== group, late: row.need === 'open-late' }]"
        class="casts">
        <MouldDrawing
          v-if="r === g && mouldOf(r.first.mouldId)"
          :mould="mouldOf(r.first.mouldId)!"
          v-bind="lookOf(r.first)"
          :width="54"
          :height="46" />
        <span v-else />
        <span class="who">
          <span class="title">
            <NuxtLink :to="`/pour/${r.pour}`" class="row-link strong">{{ r.label }}</NuxtLink>
            <button
              v-if="r === g && g.casts.length > 1"
              class="unfold"
              :aria-expanded="isUnfolded(g)"
              @click="toggle(g)">
              {{ isUnfolded(g) ? 'Show together' : 'Show each' }}
            </button>
          </span>
          <span class="small soft"
          >{{ r.pourName }} · {{ r.first.material.replace('-', ' ') }}, {{ r.first.powder.toLowerCase() }} at
            <span class="num">{{ formatConsistency(r.first.ratio) }}</span></span
          >
        </span>
        <CastBar class="bar" :cast="r.first" />
        <span class="need">
          <NeedWords :group="r" part="what" :class="['strong', { num: r.need === 'setting' }]" /><br>
          <span class="small soft"
          ><NeedTime :group="r" /></span>
          <button v-if="TO_OPEN.has(r.need) && mouldOf(r.first.mouldId)" class="how small" @click="askHow(r, $event)">How to open</button>
          <span v-if="adviceFor(r, clock.halfHour)" class="small advice">{{ adviceFor(r, clock.halfHour, session.units) }}</span>
        </span>
        <PlainButton
          v-if="dries(r)"
          class="look"
          label="Weigh"
          :aria-label="`Weigh or feel: ${r.label}`"
          @click="drying = r" />
        <PlainButton
          v-if="session.mayWrite && ACTION[r.need]"
          :id="`act-${r.key}`"
          class="act"
          :label="ACTION[r.need]!.word"
          :aria-label="`${ACTION[r.need]!.word}: ${r.label}`"
          :strong="ACTION[r.need]!.strong"
          @click="act(r, $event)"
        />
      </LongList>
    </section>
    <HowToOpen :anchor="opening?.anchor" :mould="opening && mouldOf(opening.mould)" @closed="opening = undefined" />
    <div v-if="pours.loaded && groups.length === 0" class="empty">
      <EmptyPicture :forms="['cup', 'tile', 'bowl']" />
      <p>The shelf is empty. Casts appear here as soon as they are poured, and say when they want to be opened.</p>
      <PlainButton label="New pour" strong @click="navigateTo('/new')" />
    </div>
    <AirDialog :open="airing" :standing="standing" @air="airAll" @closed="airing = false" />
    <DryDialog :group="drying" @closed="drying = undefined" />
    <JudgeDialog :group="judging" @judged="judged" @closed="judging = undefined" />
  </div>
</template>

<style scoped>
.how { display: block; border: 0; background: none; padding: 0; text-decoration: underline; min-height: 26px; }
header {
  display: flex;
  gap: 14px;
  align-items: baseline;
}
.air {
  margin-left: auto;
}
.casts {
  --columns: 58px minmax(0, 1.4fr) minmax(120px, 1.2fr) minmax(170px, 1fr) 84px 126px;
}
.casts :deep(.cast) {
  min-height: 62px;
}
.casts :deep(.part) {
  padding-left: 22px;
  min-height: 48px;
}
.late .need .strong {
  color: var(--warn);
}
.title {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  column-gap: 12px;
}
.unfold {
  border: 0;
  background: none;
  color: var(--action);
  font-size: 0.84rem;
  padding: 4px 0;
  text-decoration: underline;
  text-underline-offset: 2px;
}
.act {
  width: 100%;
  grid-column: -2;
}
.look {
  width: 100%;
}
.advice {
  display: block;
  color: var(--warn);
  font-weight: 620;
}
@media (max-width: 720px) {
  .casts { --columns: 54px minmax(0, 1fr) minmax(104px, auto); --row-gap: 4px 10px; }
  .bar { grid-column: 2 / -1; grid-row: 3; }
  .need { grid-column: 2; grid-row: 2; }
  .who { grid-column: 2; }
  .act { grid-column: 3; grid-row: 1; min-height: 44px; }
  .look { grid-column: 3; grid-row: 2; min-height: 44px; }
}
</style>
