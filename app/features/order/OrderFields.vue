<script setup lang="ts">
import Select from 'primevue/select'
import { format } from 'date-fns'
import type { OrderBody } from '~contract/order'
import { shareOf } from '~core/logbook/control-chart'
import { rejectsOf } from '~core/schedule/piece'
import { useLibrary } from '~/sync/library'
import { usePours } from '~/sync/pours'
import MouldPicture from '~/features/library/MouldPicture.vue'
import PlainButton from '~/ui/PlainButton.vue'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'

/** What is wanted, by when, and who is there for it. */
const { body, change } = defineProps<{ body: OrderBody, change: (part: Partial<OrderBody>) => void }>()
const library = useLibrary()
/** What was waste of these moulds before, and what is made over for it, in whole percent. */
const pours = usePours()
const rejects = computed(() => {
  const own = pours.rows.filter(p => p.summary.moulds.some(m => body.lines.some(l => l.mould === m.id)))
  const found = rejectsOf(own.map(p => p.summary.verdicts))
  return found && { ...found, take: Math.ceil(100 * found.spare - 1e-9) }
})
const rejectRange = computed(() => {
  const share = rejects.value && shareOf(rejects.value.waste, rejects.value.of)
  return share ? `${Math.round(100 * share.low)} to ${Math.round(100 * share.high)} % is likely` : ''
})
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const lines = computed(() => body.lines.map(line => ({ ...line, item: library.items.mould.find(m => m.id === line.mould) })))
const others = computed(() => library.items.mould.filter(m => !body.lines.some(l => l.mould === m.id)))
const nameOf = (item: { readonly body: { readonly name: string } }) => item.body.name
function add(mould: string) {
  const copies = library.items.mould.find(m => m.id === mould)?.body.copies ?? 1
  change({ lines: [...body.lines, { mould, pieces: 10, copies }] })
}
const setLine = (i: number, part: Partial<OrderBody['lines'][number]>) =>
  change({ lines: body.lines.map((l, k) => k === i ? { ...l, ...part } : l) })
const without = (i: number) => change({ lines: body.lines.filter((_, k) => k !== i) })
const dueText = computed(() => format(body.due, 'yyyy-MM-dd\'T\'HH:mm'))
function setDue(event: Event) {
  const at = new Date((event.target as HTMLInputElement).value).getTime()
  if (Number.isFinite(at)) change({ due: at })
}
const clockText = (minutes: number) => `${String(Math.floor(minutes / 60) % 24).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
function minutesOf(event: Event): number | undefined {
  const [h, m] = (event.target as HTMLInputElement).value.split(':').map(Number)
  return Number.isFinite(h) && Number.isFinite(m) ? h! * 60 + m! : undefined
}
const setPerson = (i: number, part: Partial<OrderBody['people'][number]>) =>
  change({ people: body.people.map((p, k) => k === i ? { ...p, ...part } : p) })
function setHour(i: number, which: 'from' | 'to', event: Event) {
  const minutes = minutesOf(event)
  if (minutes !== undefined) setPerson(i, { [which]: minutes })
}
function toggleDay(i: number, day: number) {
  const { days } = body.people[i]!
  setPerson(i, { days: days.includes(day) ? days.filter(d => d !== day) : [...days, day].sort() })
}
const addPerson = () => change({ people: [...body.people, { ...body.people[0]!, days: [...body.people[0]!.days], name: '' }] })
const lessPerson = () => change({ people: body.people.slice(0, -1) })
const hasPause = computed(() => body.pause !== undefined)
const setPause = () => change({ pause: hasPause.value ? undefined : { from: 12 * 60 + 30, to: 13 * 60 } })
function setPauseHour(which: 'from' | 'to', event: Event) {
  const minutes = minutesOf(event)
  if (minutes !== undefined && body.pause) change({ pause: { ...body.pause, [which]: minutes } })
}
</script>

<template>
  <div class="fields">
    <section aria-labelledby="what-head">
      <h2 id="what-head" class="eyebrow">What is wanted</h2>
      <div v-for="(l, i) in lines" :key="l.mould" class="line">
        <MouldPicture :mould="l.mould" :size="44" />
        <div class="of">
          <p class="strong">{{ l.item?.body.name ?? 'A mould that was put away' }}</p>
          <div class="pair">
            <span class="small">Pieces</span>
            <Stepper :label="`Pieces: ${l.item?.body.name ?? ''}`" :min="1" :max="2000" :model-value="l.pieces" @update:model-value="setLine(i, { pieces: $event })" />
          </div>
          <div class="pair">
            <span class="small">Moulds there are</span>
            <Stepper :label="`Moulds there are: ${l.item?.body.name ?? ''}`" :min="1" :max="200" :model-value="l.copies" @update:model-value="setLine(i, { copies: $event })" />
          </div>
          <button class="less small" @click="without(i)">Take it out</button>
        </div>
      </div>
      <Select
        v-if="others.length > 0"
        :model-value="null" :options="others" :option-label="nameOf" option-value="id"
        placeholder="Add a shape" aria-label="Add a shape" class="wide" @update:model-value="add" />
      <div class="field">
        <label for="due">All out by</label>
        <input id="due" type="datetime-local" class="when" :value="dueText" @change="setDue">
      </div>
      <div class="pair">
        <span class="strong">Spare for breakage</span>
        <Stepper label="Spare for breakage, percent" unit=" %" :max="50" :model-value="Math.round(body.spare * 100)" @update:model-value="change({ spare: $event / 100 })" />
      </div>
      <p v-if="rejects" class="small soft">
        {{ rejects.waste }} of {{ rejects.of }} of these were waste here ({{ rejectRange }}).
        <button v-if="rejects.take !== Math.round(body.spare * 100)" type="button" class="link" @click="change({ spare: rejects.take / 100 })">Take {{ rejects.take }} % over</button>
      </p>
    </section>
    <section aria-labelledby="who-head">
      <h2 id="who-head" class="eyebrow">Who is there</h2>
      <div v-for="(p, i) in body.people" :key="i" class="person">
        <div class="hours">
          <span class="small strong">{{ body.people.length === 1 ? 'You' : `Person ${i + 1}` }}</span>
          <input type="time" class="when" :aria-label="`Person ${i + 1}, from`" :value="clockText(p.from)" @change="setHour(i, 'from', $event)">
          <span>to</span>
          <input type="time" class="when" :aria-label="`Person ${i + 1}, to`" :value="clockText(p.to)" @change="setHour(i, 'to', $event)">
        </div>
        <div class="days" role="group" :aria-label="`Days of person ${i + 1}`">
          <button v-for="(name, d) in DAYS" :key="name" :aria-pressed="p.days.includes(d + 1)" @click="toggleDay(i, d + 1)">{{ name }}</button>
        </div>
      </div>
      <div class="acts">
        <PlainButton v-if="body.people.length < 6" label="One more person" small @click="addPerson" />
        <PlainButton v-if="body.people.length > 1" label="One fewer" small @click="lessPerson" />
        <PlainButton :label="hasPause ? 'No break' : 'A midday break'" small @click="setPause" />
      </div>
      <div v-if="body.pause" class="hours">
        <span class="small strong">Break</span>
        <input type="time" class="when" aria-label="Break, from" :value="clockText(body.pause.from)" @change="setPauseHour('from', $event)">
        <span>to</span>
        <input type="time" class="when" aria-label="Break, to" :value="clockText(body.pause.to)" @change="setPauseHour('to', $event)">
      </div>
    </section>
    <section aria-labelledby="with-head">
      <h2 id="with-head" class="eyebrow">With what</h2>
      <div class="pair">
        <span class="strong">Buckets alike</span>
        <Stepper label="Buckets alike" :min="1" :max="20" :model-value="body.buckets" @update:model-value="change({ buckets: $event })" />
      </div>
      <QuantityField kind="time" field="minutes" label="Opening one and making it ready again" :model-value="body.opening" :check="v => v >= 10 && v <= 7200 ? undefined : 'From ten seconds to two hours.'" @given="change({ opening: $event })" />
      <QuantityField kind="time" field="minutes" label="Finishing one back while it is soft" :model-value="body.finishing" :check="v => v <= 3600 ? undefined : 'An hour at most.'" @given="change({ finishing: $event })" />
      <div class="pair">
        <span class="strong">Room for filled moulds</span>
        <Stepper label="Room for filled moulds; 0 is as many as there are" :max="2000" :model-value="body.shelf ?? 0" @update:model-value="change({ shelf: $event > 0 ? $event : undefined })" />
      </div>
      <p class="small soft">0 is room for all of them. Powder, ratio and bucket are those of the plan it was made from.</p>
    </section>
  </div>
</template>

<style scoped>
.link { border: 0; background: none; padding: 0; color: inherit; text-decoration: underline; min-height: 28px; }
.fields, section { display: grid; gap: 12px; align-content: start; }
.fields { gap: 22px; }
.line { display: grid; grid-template-columns: 44px 1fr; gap: 10px; border-bottom: 1px solid var(--line); padding-bottom: 10px; }
.of { display: grid; gap: 6px; min-width: 0; }
.pair { display: flex; justify-content: space-between; align-items: center; gap: 10px; }
.less { border: 0; background: none; padding: 4px 0; text-decoration: underline; justify-self: start; min-height: 24px; color: inherit; }
.wide { width: 100%; }
.when { border: 1px solid var(--line-strong); border-radius: 9px; background: var(--sheet); color: var(--ink); padding: 7px 10px; min-height: 38px; font: inherit; }
.hours .when { width: 6.9em; padding: 7px 6px; }
.person { display: grid; gap: 6px; }
.hours { display: flex; align-items: center; gap: 8px; flex-wrap: wrap; }
.days { display: flex; gap: 4px; flex-wrap: wrap; }
.days button { border: 1px solid var(--line-strong); border-radius: 8px; background: none; color: var(--ink); padding: 4px 7px; min-height: 32px; font-size: 0.84rem; }
.days button[aria-pressed='true'] { background: var(--action); color: var(--action-ink); }
.acts { display: flex; flex-wrap: wrap; gap: 8px; }
</style>
