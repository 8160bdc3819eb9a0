<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { format } from 'date-fns'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { DEFECTS, defectWords } from '~core/pour/defects'
import { RATIO_MISSED } from '~core/logbook/tallies'
import { STATUS_WORDS, statusWords } from '~core/logbook/words'
import { formatConsistency } from '~core/units/format'
import { COUNTED_UP_TO, logbookQuerySchema, type LogbookQuery } from '~contract/logbook'
import type { PourRow } from '~contract/pour'
import LogbookHead from '~/features/logbook/LogbookHead.vue'
import EmptyPicture from '~/ui/EmptyPicture.vue'
import LongList from '~/ui/LongList.vue'
import PourPicture from '~/features/library/PourPicture.vue'
import { dayAndTime } from '~/ui/when'
import { addressOf } from '~/sync/api'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { queryWords, useLogbook } from '~/features/logbook/logbook'
import { useSession } from '~/sync/session'

const MOST_COMPARED = 6
const book = useLogbook(),
  clock = useClock(),
  library = useLibrary(),
  session = useSession(),
  route = useRoute(),
  router = useRouter()

/** What the address says is what is looked for, so that it can be linked to and gone back to. */
const sought = computed<LogbookQuery>(() => {
  const { find, facts, from, to } = route.query
  return logbookQuerySchema.safeParse({
    find,
    facts: facts === undefined ? [] : Array.isArray(facts) ? facts : [facts],
    from,
    to,
  }).data ?? { find: '', facts: [] }
})
await Promise.all([book.look(sought.value), book.loadViews(), library.load()])
watch(sought, query => book.look(query))
function seek({ find, facts, from, to }: LogbookQuery) {
  void router.replace({ query: { find: find || undefined, facts: [...facts], from, to } })
}
const typed = ref(sought.value.find)
watch(() => sought.value.find, (find) => {
  if (find !== typed.value.trim()) typed.value = find
})
// Whoever is on the way to another page must not be called back by what was typed just before.
let soon: ReturnType<typeof setTimeout> | undefined
function seekTyped() {
  clearTimeout(soon)
  soon = setTimeout(() => seek({ ...sought.value, find: typed.value.trim() }), 150)
}
onBeforeRouteLeave(() => clearTimeout(soon))

interface Choice {
  readonly value: string
  readonly words: string
}
const named = (
  kind: string,
  items: readonly { readonly id: string, readonly body: { readonly name: string } }[],
): Choice[] => items.map(i => ({ value: `${kind}:${i.id}`, words: i.body.name }))
const filters = computed<
  readonly { readonly kind: string, readonly word: string, readonly choices: readonly Choice[] }[]
>(() => [
  { kind: 'mould', word: 'Mould', choices: named('mould', library.items.mould) },
  { kind: 'bag', word: 'Bag', choices: named('bag', library.items.bag) },
  {
    kind: 'verdict',
    word: 'Result',
    choices: [{ value: 'verdict:good', words: 'some good' }, { value: 'verdict:second', words: 'some seconds' }, {
      value: 'verdict:waste',
      words: 'some waste',
    }],
  },
  { kind: 'defect', word: 'Defect', choices: DEFECTS.map(d => ({ value: `defect:${d.id}`, words: d.words })) },
  {
    kind: 'status',
    word: 'State',
    choices: Object.entries(STATUS_WORDS).map(([id, words]) => ({ value: `status:${id}`, words })),
  },
  {
    kind: 'ratio',
    word: 'Ratio',
    choices: [{ value: 'ratio:missed', words: `more than ${100 * RATIO_MISSED} % off the plan` }],
  },
])
const chosenOf = (kind: string) => sought.value.facts.find(f => f.startsWith(`${kind}:`))
function choose(kind: string, value: string | null) {
  seek({
    ...sought.value,
    facts: [...sought.value.facts.filter(f => !f.startsWith(`${kind}:`)), ...value ? [value] : []],
  })
}
const narrowed = computed(() => queryWords(sought.value) !== '')
const how = computed(() => {
  if (book.trouble && book.count === 0) return ''
  if (book.count > COUNTED_UP_TO) return `more than ${COUNTED_UP_TO} pours`
  return `${book.count} ${book.count === 1 ? 'pour' : 'pours'}`
})

/** On a phone the ways to narrow it wait behind a button. */
const narrowing = ref(sought.value.facts.length > 0)
const phone = useMediaQuery('(max-width: 720px)')
const ways = computed(() => narrowing.value || !phone.value)
const naming = ref<string>(), viewTrouble = ref('')
const view = computed(() => book.views.find(v => queryWords(v.query) === queryWords(sought.value)))
async function tried(work: Promise<void>) {
  viewTrouble.value = ''
  await work.then(() => {
    naming.value = undefined
  }, (error: Error) => {
    viewTrouble.value = error.message
  })
}

const picked = ref<readonly string[]>([])
function pick(id: string) {
  picked.value = picked.value.includes(id) ? picked.value.filter(p => p !== id) : [...picked.value, id]
}
/** Of a pour of the past only the day is known. */
const whenOf = ({ summary: { startedAt, daysOnly } }: PourRow) =>
  startedAt === undefined ? '' : daysOnly ? format(startedAt, 'd MMM yyyy') : dayAndTime(startedAt, clock.halfHour)
const verdict = (p: PourRow) => {
  const { good, second, waste } = p.summary.verdicts
  return [good && `${good} good`, second && `${second} second`, waste && `${waste} waste`].filter(Boolean).join(', ')
}
function seekDay(end: 'from' | 'to', event: Event) {
  seek({ ...sought.value, [end]: (event.target as HTMLInputElement).value || undefined })
}
const comparePicked = () => navigateTo(`/logbook/compare?pours=${picked.value.join(',')}`)
</script>

<template>
  <div>
    <LogbookHead>
      <span class="soft" role="status">{{ how }}</span>
      <span class="small tables"
      ><NuxtLink v-if="session.mayWrite" to="/logbook/table">Import a table</NuxtLink
      ><a v-if="book.loaded" :href="addressOf('GET logbook')" download>Save as a table</a></span
      >
    </LogbookHead>
    <form class="seek" role="search" @submit.prevent="seekTyped">
      <InputText
        v-model="typed"
        class="find"
        placeholder="Find: a mould, a powder, a word of a note"
        aria-label="Find pours"
        @input="seekTyped" />
      <Button
        class="narrow"
        :label="narrowing ? 'Fewer ways' : 'Filter'"
        severity="secondary"
        :aria-expanded="narrowing"
        @click="narrowing = !narrowing" />
      <Select
        v-for="f in ways ? filters : []"
        :key="f.kind"
        :model-value="chosenOf(f.kind) ?? null"
        :options="[...f.choices]"
        option-label="words"
        option-value="value"
        :placeholder="f.word"
        :aria-label="f.word"
        show-clear
        :class="['filter', { on: chosenOf(f.kind) }]"
        @update:model-value="choose(f.kind, $event)" />
      <label v-if="ways" class="small month"
      >from
        <input
          type="month"
          :value="sought.from ?? ''"
          @change="seekDay('from', $event)"
        /></label>
      <label v-if="ways" class="small month"
      >to
        <input
          type="month"
          :value="sought.to ?? ''"
          @change="seekDay('to', $event)"
        /></label>
    </form>
    <div v-if="book.views.length > 0 || narrowed" class="views">
      <span v-if="book.views.length > 0" class="small soft">Kept views</span>
      <button v-for="v in book.views" :key="v.id" class="view" :aria-pressed="view?.id === v.id" @click="seek(v.query)">
        {{ v.name }}
      </button>
      <template v-if="narrowed">
        <Button label="Show all" severity="secondary" size="small" @click="seek({ find: '', facts: [] })" />
        <template v-if="session.mayWrite">
          <Button
            v-if="view"
            label="Take this view away"
            severity="secondary"
            size="small"
            @click="tried(book.dropView(view.id))" />
          <Button
            v-else-if="naming === undefined"
            label="Keep this view"
            severity="secondary"
            size="small"
            @click="naming = ''" />
          <form v-else class="naming" @submit.prevent="tried(book.keepView(naming.trim(), sought))">
            <InputText
              v-model="naming"
              size="small"
              maxlength="60"
              placeholder="Its name"
              aria-label="Name of the view"
              autofocus />
            <Button type="submit" label="Keep" size="small" :disabled="!naming.trim()" />
          </form>
        </template>
      </template>
      <span v-if="viewTrouble" class="problem" role="alert">{{ viewTrouble }}</span>
    </div>
    <p v-if="book.trouble" class="problem" role="alert">{{ book.trouble }}</p>
    <div v-if="picked.length > 0" class="comparing" role="status">
      <span>{{
        picked.length === 1
          ? 'One pour chosen. Choose another to compare it with.'
          : picked.length > MOST_COMPARED
            ? `${MOST_COMPARED} at most; take ${picked.length - MOST_COMPARED} off.`
            : `${picked.length} pours chosen.`
      }}</span>
      <Button
        v-if="picked.length > 1 && picked.length <= MOST_COMPARED"
        label="Compare them"
        @click="comparePicked" />
      <Button label="Choose none" severity="secondary" size="small" @click="picked = []" />
    </div>
    <LongList
      v-if="book.rows.length > 0"
      v-slot="{ item: p }"
      :items="book.rows"
      :key-of="p => p.id"
      :row-class="p => ({ picked: picked.includes(p.id) })"
      class="pours">
      <label class="pick"
      ><input
        type="checkbox"
        :checked="picked.includes(p.id)"
        :aria-label="`Compare ${p.summary.name}${p.summary.startedAt ? `, ${whenOf(p)}` : ''}`"
        @change="pick(p.id)"
      /></label>
      <PourPicture :summary="p.summary" :size="36" />
      <NuxtLink :to="`/pour/${p.id}`" class="row-link"
      ><span class="strong">{{ p.summary.name }}</span
      ><br /><span class="small soft">{{ whenOf(p) }}, {{ statusWords(p.summary.status) }}</span></NuxtLink
      >
      <span class="small moulds"
      >{{ p.summary.moulds.map(m => `${m.count} × ${m.name}`).join(', ') }}<br /><span class="soft">{{
        p.summary.bag ?? p.summary.powder
      }}</span></span
      >
      <span class="small ratio"
      ><template v-if="!p.summary.daysOnly"
      >planned <span class="num">{{ formatConsistency(p.summary.ratio.planned) }}</span><br /></template
      ><span
        v-if="p.summary.ratio.actual"
        :class="
          !p.summary.daysOnly && Math.abs(p.summary.ratio.actual / p.summary.ratio.planned - 1) > RATIO_MISSED
            ? 'off'
            : 'soft'
        "
      >{{ p.summary.daysOnly ? 'weighed' : 'was' }}
        <span class="num">{{ formatConsistency(p.summary.ratio.actual) }}</span></span
      ><span v-else class="soft">not weighed</span></span
      >
      <span class="small result"
      ><span class="strong">{{ verdict(p) || '—' }}</span
      ><br /><span class="soft">{{
        p.summary.defects.map(d => defectWords(d).toLowerCase()).join(', ')
      }}</span></span
      >
    </LongList>
    <Button
      v-if="book.next && book.rows.length > 0"
      label="Show more"
      severity="secondary"
      class="more"
      @click="book.more()" />
    <div v-if="book.loaded && book.rows.length === 0" class="empty">
      <EmptyPicture :forms="['bowl', 'heart', 'tile']" />
      <p>
        {{
          narrowed
            ? 'No pour fits all of this. Take one thing away.'
            : 'The logbook is empty. Every pour you take to the bench is written here by itself.'
        }}
      </p>
      <Button v-if="!narrowed" label="New pour" @click="navigateTo('/new')" />
    </div>
  </div>
</template>

<style scoped>
.tables {
  margin-left: auto;
  display: flex;
  gap: 16px;
}
.seek {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.find {
  width: min(300px, 100%);
}
.narrow {
  display: none;
}
.filter {
  min-width: 110px;
  max-width: 200px;
}
.filter.on {
  border-color: var(--action);
  background: var(--action-soft);
}
.month {
  display: flex;
  gap: 6px;
  align-items: center;
  color: var(--soft);
}
.month input {
  border: 1px solid var(--line-strong);
  border-radius: 8px;
  background: var(--sheet);
  padding: 6px 8px;
  min-height: 36px;
  color: var(--ink);
}
.views {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
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
.naming {
  display: flex;
  gap: 6px;
}
.comparing {
  position: sticky;
  top: 0;
  z-index: 5;
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  background: var(--action-soft);
  border-radius: 10px;
  padding: 8px 14px;
  margin: 4px 0;
}
.pours {
  --columns: 28px 42px minmax(0, 1.3fr) minmax(0, 1.3fr) 120px minmax(0, 1.2fr);
}
.pours :deep(.picked) {
  background: var(--action-soft);
}
.pick {
  display: grid;
  place-items: center;
  min-width: 28px;
  min-height: 36px;
  cursor: pointer;
}
.pick input {
  width: 18px;
  height: 18px;
  accent-color: var(--action);
}
.off {
  color: var(--heat);
  font-weight: 600;
}
.more {
  margin: 14px 0;
}
@media (max-width: 720px) {
  .pours { --columns: 24px 40px 1fr auto; --row-gap: 10px; }
  .moulds, .ratio { display: none; }
  .find { flex: 1; }
  .narrow { display: inline-flex; }
  .filter { flex: 1 1 30%; }
}
</style>
