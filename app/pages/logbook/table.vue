<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { cellWords, fieldWords } from '~core/formats/words'
import { guessMapping, readTable, TABLE_FIELDS, type Mapping, type TableKind } from '~core/formats/table-in'
import { MOST_ROWS } from '~contract/import'
import FileButton from '~/ui/FileButton.vue'
import LogbookHead from '~/features/logbook/LogbookHead.vue'
import type { ImportJob, ImportRows } from '~contract/import'
import ImportStatus from '~/features/imports/ImportStatus.vue'
import { leftOutWords, TABLE_PROBLEM_WORDS } from '~/features/logbook/words'
import { oneAtATime } from '~/workers/one-at-a-time'
import type { TableWork } from '~/workers/table.worker'
import { ask } from '~/sync/api'
import { useClock } from '~/sync/clock'
import { useImports } from '~/sync/imports'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'

/** Somebody's own table: say which column is what, see what is read and what cannot be, then take it in. */
const library = useLibrary(), session = useSession(), clock = useClock(), route = useRoute()
await library.load()
const KINDS = [{ id: 'pours', word: 'Pours of the past' }, { id: 'moulds', word: 'Moulds' }, {
  id: 'bags',
  word: 'Bags',
}] as const
const DATES = [{ id: true, word: 'day first' }, { id: false, word: 'month first' }]
const kind = ref<TableKind>(KINDS.find(k => k.id === route.query.of)?.id ?? 'pours')
const file = shallowRef<
  { readonly name: string, readonly head: readonly string[], readonly lines: readonly (readonly string[])[] }
>()
const mapping = ref<Record<string, number>>({}),
  dayFirst = ref(true),
  trouble = ref(''),
  sending = ref(false),
  /** What was sent of this table: by its job, the line of each row. */
  sent = shallowRef<{ readonly job: string, readonly lines: readonly number[] }>()
const { jobs, running, trouble: importTrouble, load, giveUp, takeOut }
  = useImports(['pours', 'moulds', 'bags'], ended)
const job = computed(() => jobs.value.find(j => j.id === sent.value?.job) ?? running.value[0])
/** What was brought in lately, and may still be taken out again. */
const earlier = computed(() => jobs.value.filter(j => j.id !== job.value?.id && j.state !== 'refused'))
/** The row that could not be, with its line. */
const refusedLine = computed(() => {
  const place = /^rows\.(\d+)/.exec(job.value?.fault?.field ?? '')
  return place && sent.value?.job === job.value?.id ? sent.value?.lines[Number(place[1])] : undefined
})
const fields = computed(() => TABLE_FIELDS[kind.value])
const columns = computed(
  () => [
    { id: -1, word: '— not in it —' },
    ...(file.value?.head ?? []).map((h, id) => ({ id, word: h.trim() || `column ${id + 1}` })),
  ],
)
const missing = computed(() => fields.value.filter(f => f.required && mapping.value[f.id] === undefined))
const read = computed(() =>
  file.value && missing.value.length === 0
    ? readTable(kind.value, file.value.head, file.value.lines, mapping.value as Mapping, {
        units: session.units,
        dayFirst: dayFirst.value,
        today: new Date(clock.now).toISOString().slice(0, 10),
        known: {
          moulds: library.items.mould.map(m => ({ id: m.id, name: m.body.name })),
          bags: library.items.bag.map(b => ({ id: b.id, name: b.body.name, classId: b.body.classId })),
        },
      })
    : undefined)
const slashes = computed(() => file.value?.lines.some(l => l.some(c => /^\s*\d{1,2}\/\d{1,2}\/\d{4}\s*$/.test(c))))
function forget() {
  trouble.value = ''
  sent.value = undefined
}
watch(kind, () => {
  forget()
  if (file.value) mapping.value = { ...guessMapping(kind.value, file.value.head) }
})
const reader = oneAtATime<TableWork>(
  () => new Worker(new URL('../../workers/table.worker.ts', import.meta.url), { type: 'module' }),
  {
    failed: () => {
      trouble.value = TABLE_PROBLEM_WORDS['no-table']
    },
  },
)
onBeforeUnmount(() => reader.cancel())
async function open(chosen: File) {
  forget()
  if (chosen.size > 2e6) {
    trouble.value = 'A table is at most 2 MB. Cut it in two.'
    return
  }
  const text = await chosen.text(), read = await reader.ask(work => work.read(text))
  if (read?.problem) trouble.value = TABLE_PROBLEM_WORDS[read.problem]
  if (!read?.table) return
  file.value = { name: chosen.name, ...read.table }
  mapping.value = { ...guessMapping(kind.value, read.table.head) }
}
function map(id: string, column: number) {
  forget()
  const rest = Object.entries(mapping.value).filter(([f, c]) => f !== id && c !== column)
  mapping.value = Object.fromEntries(column < 0 ? rest : [...rest, [id, column]])
}
async function takeIn() {
  forget()
  const { rows } = read.value!, name = file.value!.name.slice(0, 200)
  sending.value = true
  try {
    const body = { kind: kind.value, file: name, rows: rows.map(r => r.row) } as ImportRows
    const { id } = await ask('POST import', { body })
    sent.value = { job: id, lines: rows.map(r => r.line) }
    await load()
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  sending.value = false
}
/** What is in by now must not go in twice. */
function ended(now: ImportJob) {
  void library.load()
  if (now.state !== 'done' || now.id !== sent.value?.job || !file.value) return
  const taken = new Set(sent.value.lines)
  file.value = { ...file.value, lines: file.value.lines.map((l, i) => taken.has(i + 2) ? [] : l) }
}
const shownCell = (line: number, id: string) =>
  mapping.value[id] === undefined ? '' : file.value!.lines[line - 2]?.[mapping.value[id]] ?? ''
const preview = computed(() => {
  const lines = [
    ...read.value?.rows.map(r => ({ line: r.line, problem: undefined })) ?? [],
    ...read.value?.problems.map(p => ({ line: p.line, problem: p })) ?? [],
  ]
  // What is wrong comes first: it is what has to be looked at.
  return lines.sort((a, b) => Number(!a.problem) - Number(!b.problem) || a.line - b.line).slice(0, 60)
})
const shownFields = computed(() => fields.value.filter(f => mapping.value[f.id] !== undefined))
</script>

<template>
  <div>
    <LogbookHead />
    <h2 class="what">Import a table</h2>
    <p class="soft intro">
      From a spreadsheet saved as CSV, with the names of the columns in the first line. Nothing is taken in before you
      have seen it.
    </p>
    <div class="first">
      <SelectButton
        v-model="kind"
        :options="[...KINDS]"
        option-label="word"
        option-value="id"
        :allow-empty="false"
        aria-label="What is in the table" />
      <FileButton
        :label="file ? 'Another file' : 'Choose the file'"
        accept=".csv,.tsv,.txt,text/csv"
        :disabled="!session.mayWrite"
        @file="open" />
      <span v-if="file" class="small soft">{{ file.name }}</span>
    </div>
    <p v-if="trouble || importTrouble" class="problem" role="alert">{{ trouble || importTrouble }}</p>
    <p v-if="refusedLine" class="problem">Line {{ refusedLine }} cannot be taken in, so nothing was.</p>
    <ImportStatus v-if="job" :job="job" @give-up="giveUp(job.id)" @take-out="takeOut(job.id)" />
    <p v-if="job?.state === 'done'">
      <span v-if="read && read.problems.length > 0">{{ leftOutWords(read.problems.length) }}</span>{{ ' ' }}
      <NuxtLink :to="kind === 'pours' ? '/logbook' : kind === 'moulds' ? '/moulds' : '/powders'">Look at what came in</NuxtLink>
    </p>
    <template v-if="file">
      <h3>Which column is what</h3>
      <div class="map">
        <div v-for="f in fields" :key="f.id" class="field">
          <span :id="`col-${f.id}`" class="small strong">{{ fieldWords(kind, f.id) }}{{ f.required ? ', needed' : '' }}</span>
          <Select
            :aria-labelledby="`col-${f.id}`"
            :model-value="mapping[f.id] ?? -1"
            :options="columns"
            option-label="word"
            option-value="id"
            size="small"
            @update:model-value="map(f.id, $event)" />
        </div>
        <div v-if="slashes" class="field">
          <span id="dates" class="small strong">Days like 3/11/2026</span
          ><SelectButton
            v-model="dayFirst"
            :options="DATES"
            option-label="word"
            option-value="id"
            :allow-empty="false"
            size="small"
            aria-labelledby="dates" />
        </div>
      </div>
      <p v-if="missing.length > 0" class="problem">
        Say which column holds: {{ missing.map(f => fieldWords(kind, f.id).toLowerCase()).join(', ') }}.
      </p>
      <template v-if="read">
        <div class="take">
          <Button
            v-if="session.mayWrite"
            :label="
              sending
                ? 'Taking it in …'
                : `Take ${read.rows.length} ${read.rows.length === 1 ? 'row' : 'rows'} in${read.problems.length > 0 ? `, leave ${read.problems.length} out` : ''}`
            "
            :disabled="sending || running.length > 0 || read.rows.length === 0 || read.rows.length > MOST_ROWS"
            @click="takeIn" />
          <span v-if="read.rows.length > MOST_ROWS" class="problem"
          >At most {{ MOST_ROWS }} rows at a time; cut the table in two.</span
          >
          <span v-if="kind === 'pours'" class="small soft"
          >Of these pours only the day is known: they count for results and costs, not for times.</span
          >
        </div>
        <div class="scroll" tabindex="0" role="region" aria-label="What was read">
          <table v-if="preview.length > 0">
            <thead>
              <tr>
                <th scope="col">line</th>
                <th scope="col">read as</th>
                <th v-for="f in shownFields" :key="f.id" scope="col">{{ fieldWords(kind, f.id) }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="p in preview" :key="p.line">
                <td class="num">{{ p.line }}</td>
                <td :class="p.problem ? 'wrong' : 'soft'">{{ p.problem ? cellWords(p.problem.why) : 'goes in' }}</td>
                <td v-for="f in shownFields" :key="f.id" :class="{ bad: p.problem?.field === f.id }">
                  {{ shownCell(p.line, f.id) }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="read.rows.length + read.problems.length > preview.length" class="small soft">
          and {{ read.rows.length + read.problems.length - preview.length }} more lines
        </p>
      </template>
    </template>
    <section v-if="earlier.length > 0" class="lately" aria-labelledby="lately">
      <h3 id="lately">Brought in lately</h3>
      <ImportStatus v-for="j in earlier" :key="j.id" :job="j" is-past @give-up="giveUp(j.id)" @take-out="takeOut(j.id)" />
    </section>
  </div>
</template>

<style scoped>
.what {
  padding-top: 4px;
}
.intro {
  max-width: 70ch;
  padding-bottom: 12px;
}
.first {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
}
h3 {
  padding: 16px 0 8px;
}
.map {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 10px 14px;
}
.take {
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: center;
  padding: 16px 0 10px;
}
.lately {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.scroll {
  overflow-x: auto;
  max-height: 480px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  padding: 5px 16px 5px 0;
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
  max-width: 260px;
  overflow: hidden;
  text-overflow: ellipsis;
}
thead th {
  border-bottom: 2px solid var(--ink);
  position: sticky;
  top: 0;
  background: var(--ground);
  font-size: 0.87rem;
}
.bad {
  background: var(--heat-soft);
}
.wrong {
  color: var(--heat);
  white-space: normal;
  max-width: none;
  min-width: 220px;
}
</style>
