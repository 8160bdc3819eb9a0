<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { formatDuration, formatMass } from '~core/units/format'
import { UNIT } from '~core/schedule/order'
import { sumOf, type Goal } from '~core/schedule/round'
import { bestOf, type Help } from '~core/schedule/help'
import { costOfPiece, handsPerPiece } from '~core/schedule/piece'
import { BOTTLENECK_WORDS, GOAL_WORDS, helpWords, orderProblemWords } from '~core/schedule/words'
import DayDrawing from '~/features/order/DayDrawing.vue'
import OrderFields from '~/features/order/OrderFields.vue'
import { instantOf } from '~/features/order/hours'
import { actsWords } from '~/features/order/task-words'
import { MORE_MIN, orderOf, useOrdering, wanted } from '~/features/order/ordering'
import { usePlanning } from '~/features/plan/planning'
import { usePlans } from '~/sync/plans'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { usePours } from '~/sync/pours'
import { useSession } from '~/sync/session'
import { fileName, offerFile } from '~/ui/files'
import GroundButton from '~/ui/GroundButton.vue'
import PlainButton from '~/ui/PlainButton.vue'
import { SAVING } from '~/ui/saving'
import { dayAndTime } from '~/ui/when'

const planning = usePlanning(), plans = usePlans(), pours = usePours(), library = useLibrary(), session = useSession(), clock = useClock()
const route = useRoute(), id = String(route.params.id), DAY_MS = 86_400_000, MANY = 10
await Promise.all([library.loaded ? undefined : library.load(), plans.load(), pours.loaded ? undefined : pours.load()])
/** Made from the plan that asked for it, due in three working days at four. */
function made() {
  const plan = plans.saved.find(p => p.id === route.query.plan)?.plan ?? plans.saved[0]?.plan ?? planning.plan
  const copiesOf = (mould: string) => library.items.mould.find(m => m.id === mould)?.body.copies ?? 1
  const order = orderOf(plan, copiesOf, new Date(clock.now + 3 * DAY_MS).setHours(16, 0, 0, 0))
  return { ...order, lines: order.lines.map(l => ({ ...l, pieces: Math.max(l.pieces, MANY) })) }
}
const { body, change, saved, zero, told, goal, setGoal, world, wrong, isKept, followed } = useOrdering(id, made())
onBeforeRouteLeave(() => saved.save())
useEventListener(window, 'pagehide', () => void saved.save())

const shapes = computed(() => body.value.lines.map(l => library.items.mould.find(m => m.id === l.mould)?.body.name ?? 'A mould'))
const usualName = computed(() => body.value.lines.map((l, i) => `${l.pieces} × ${shapes.value[i]}`).join(', ') || 'An order')
const people = computed(() => body.value.people.map(p => p.name))
const at = (unit: number) => dayAndTime(instantOf(zero.value, unit), clock.now)
const overdue = computed(() => body.value.due <= clock.now)
const problems = computed(() => [
  ...wrong.value ? [wrong.value] : [],
  ...overdue.value ? ['That time is over. Choose when all is to be out.'] : [],
  ...(told.value.problems ?? []).map(p =>
    orderProblemWords(p, mould => library.items.mould.find(m => m.id === mould)?.body.name, session.units)),
])
/** The plan that is looked at, and the other one beside it. */
const chosen = ref<Goal>()
const goals = computed<readonly Goal[]>(() => goal.value === 'most' ? ['most'] : ['soonest', 'least work'])
/** Unless somebody chose: with the least work, where that is in time. */
const shown = computed<Goal>(() => {
  const least = told.value.plans['least work'], inTime = least && least.missing === 0 && least.late === 0
  if (chosen.value && goals.value.includes(chosen.value)) return chosen.value
  return goal.value !== 'most' && inTime ? 'least work' : goals.value[0]!
})
const table = computed(() => told.value.plans[shown.value])
const summaries = computed(() => goals.value.flatMap((of) => {
  const plan = told.value.plans[of]
  return plan ? [{ of, buckets: plan.mixings.length, out: plan.missing > 0 ? '' : at(plan.end), missing: plan.missing, late: plan.late }] : []
}))
const inTime = computed(() => table.value ? sumOf(table.value.opened) - table.value.late : 0)
const begun = computed(() => followed.value.begun)
/** How far it is, by what was marked of its own buckets. */
const progress = computed(() => {
  const { out, inMoulds, broken, inHand } = followed.value
  if (!begun.value) return ''
  const all = sumOf(body.value.lines.map(l => wanted(l.pieces, body.value.spare))), lost = sumOf(broken)
  const said = [`${sumOf(out)} of ${all} out`, `${sumOf(inMoulds)} in ${sumOf(inMoulds) === 1 ? 'its mould' : 'their moulds'}`]
  if (lost > 0) said.push(`${lost} broken, and made again`)
  if (inHand > 0) said.push(inHand === 1 ? 'one bucket in hand' : `${inHand} buckets in hand`)
  return `${said.join(', ')}.`
})
const verdict = computed(() => {
  const plan = table.value, pieces = told.value.pieces ?? 0, over = pieces - sumOf(body.value.lines.map(l => l.pieces))
  if (!plan) return ''
  if (goal.value === 'most') return `${sumOf(plan.opened)} of ${pieces} can be out by then.`
  if (plan.missing > 0) return `${sumOf(plan.opened)} of ${pieces} can be out in the days ahead, ${inTime.value} of them in time.`
  const spare = (body.value.due - instantOf(zero.value, plan.end)) / 1000
  return plan.late > 0
    ? `${inTime.value} of ${pieces} in time; the last is out ${at(plan.end)}, ${formatDuration(-spare, 'minute')} late.`
    : `${begun.value ? `The ${pieces} to come` : `All ${pieces}${over > 0 ? ` (${over} spare)` : ''}`} out ${at(plan.end)}, ${formatDuration(spare, 'minute')} before they are due.`
})
const allOut = computed(() => begun.value && body.value.lines.every((l, i) => followed.value.out[i]! >= wanted(l.pieces, body.value.spare)))
const met = computed(() => table.value !== undefined && table.value.missing === 0 && table.value.late === 0)
/** Never called the best: how far it can be from it. */
const gap = computed(() => {
  const plan = table.value, { bound } = told.value
  if (!plan || !bound || plan.missing > 0 || shown.value !== 'soonest' || told.value.done < 1) return ''
  const minutes = Math.round((plan.end - bound.end) * UNIT / 60)
  return minutes < 2
    ? `${BOTTLENECK_WORDS[bound.by]} It cannot be done sooner.`
    : `${BOTTLENECK_WORDS[bound.by]} No plan can be out before ${at(Math.floor(bound.end))}.`
})
/** How sure, to one in ten and ten minutes: no draw is good to more. */
const sure = computed(() => {
  const chance = told.value.chances[shown.value]
  if (!chance) return ''
  const inTen = Math.round(10 * chance.inTime), tenMinutes = 600_000
  const by = Math.ceil(instantOf(zero.value, chance.nineInTen) / tenMinutes) * tenMinutes
  const all = `Nine times in ten all are out by ${dayAndTime(by, clock.now)}`
  return inTen >= 9 ? `${all}.` : `${all}; in time ${inTen === 0 ? 'hardly ever' : inTen === 1 ? 'about once in ten' : `about ${inTen} times in ten`}.`
})
const helps = computed(() => told.value.done < 1 ? [] : bestOf(told.value.helps))
const helpSays = (h: Help) => h.missing > 0
  ? `${h.pieces} more in time`
  : `${h.pieces > 0 ? `${h.pieces} more in time, ` : ''}all out ${at(h.end)}`

/** Powder, and when what is left runs out. */
const powder = computed(() => {
  const plan = table.value, each = told.value.powderEach, bag = library.items.bag.find(b => b.id === body.value.recipe.bag)
  if (!plan || !each) return undefined
  const needs = plan.mixings.map(m => ({ at: m.wet, mass: sumOf(m.counts.map((n, s) => n * each[s]!)) })).sort((a, b) => a.at - b.at)
  const total = sumOf(needs.map(n => n.mass)), left = bag?.body.left === undefined ? undefined : Math.max(0, bag.body.left - (bag.used?.since ?? 0))
  let used = 0
  const short = left === undefined ? undefined : needs.find(n => (used += n.mass) > left + 1e-9)
  return { total, left, short: short && { at: short.at, mass: total - left! } }
})

/** One piece of each shape, in the workshop's money, and the hands' share of the plan. */
const apiece = computed(() => {
  const each = told.value.powderEach, bag = library.items.bag.find(b => b.id === body.value.recipe.bag)
  if (!each || !table.value) return ''
  const costs = body.value.lines.flatMap((l, s) => {
    const mould = library.items.mould.find(m => m.id === l.mould)
    const cost = mould && costOfPiece({ powder: each[s]!, price: bag?.body.price, mould: mould.body })
    return cost === undefined ? [] : [`${shapes.value[s]} ${cost.toFixed(cost < 1 ? 3 : 2)}`]
  })
  const hands = handsPerPiece(table.value, UNIT), minutes = hands === undefined ? '' : formatDuration(hands, hands > 90 ? 'minute' : 'second')
  return [minutes && `About ${minutes} of hands a piece`, costs.length > 0 && `powder and wear: ${costs.join(', ')}`].filter(Boolean).join('; ')
})

/** What hands do next, by the clock. */
const next = computed(() => {
  const plan = table.value
  const ahead = plan ? [...plan.tasks].filter(t => instantOf(zero.value, t.to) > clock.beat).sort((a, b) => a.from - b.from) : []
  const task = ahead[0]
  if (!plan || !task) return undefined
  const who = body.value.people.length > 1 ? `${people.value[task.person] || `Person ${task.person + 1}`}: ` : ''
  return { when: at(task.from), what: `${who}${actsWords(ahead.filter(t => t.person === task.person), plan, shapes.value, body.value.pours.length)}` }
})
/** Days on which something is done, and the one that is drawn. */
const days = computed(() => [...new Set((table.value?.tasks ?? []).map(t => new Date(instantOf(zero.value, t.from)).setHours(0, 0, 0, 0)))].sort())
const day = ref(0)
const drawnDay = computed(() => days.value.includes(day.value) ? day.value : days.value[0] ?? clock.now)
const dayName = (of: number) => of === new Date(clock.now).setHours(0, 0, 0, 0) ? 'Today' : dayAndTime(of + DAY_MS / 2, clock.now).replace(/ \d\d:\d\d$/, '')
const named = computed(() => ({ name: body.value.name || usualName.value, zero: zero.value, people: people.value, shapes: shapes.value }))
async function asTable() {
  const { planTable } = await import('~/features/order/out')
  offerFile(fileName(named.value.name, 'csv'), planTable(table.value!, named.value), 'text/csv')
}
async function asCalendar() {
  const { planCalendar } = await import('~/features/order/out')
  offerFile(fileName(named.value.name, 'ics'), planCalendar(table.value!, id, named.value), 'text/calendar')
}
const trouble = ref('')
/** The next bucket as a pour of its own, with its moulds; what it does from then on moves the rest of the plan. */
async function nextBucket() {
  const [first] = [...table.value!.mixings].sort((a, b) => a.wet - b.wet)
  const fills = body.value.lines.flatMap((l, s) => first!.counts[s] ? [{ mould: l.mould, count: first!.counts[s] }] : [])
  try {
    const name = begun.value ? `${named.value.name}, bucket ${body.value.pours.length + 1}` : named.value.name
    const pour = await planning.toBench({ plan: { ...body.value.recipe, name, fills } })
    change({ pours: [...body.value.pours, pour] })
    await saved.save()
    await navigateTo(`/bench/${pour}`)
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
}
const print = () => window.print()
async function putAway() {
  await library.archive('order', id)
  await navigateTo('/plan')
}
</script>

<template>
  <div class="order">
    <header>
      <div class="title">
        <h1 class="sr-only">Order {{ body.name || usualName }}</h1>
        <input
          class="name" aria-label="Name of the order" maxlength="120" :placeholder="usualName" :value="body.name" :readonly="!session.mayWrite"
          @input="change({ name: ($event.target as HTMLInputElement).value })">
        <p class="small soft" role="status">
          <span v-if="saved.saving.value === 'failed'" class="problem">{{ saved.trouble.value }}</span>
          <template v-else>due {{ dayAndTime(body.due, clock.now) }} · {{ saved.saving.value === 'saved' && !isKept ? 'saved as soon as you change it' : SAVING[saved.saving.value] }}</template>
        </p>
      </div>
      <div class="acts">
        <PlainButton v-if="isKept && session.mayWrite" label="Archive" small @click="putAway" />
        <PlainButton v-if="table" label="Table (CSV)" small @click="asTable" />
        <PlainButton v-if="table" label="Calendar file" small @click="asCalendar" />
        <PlainButton v-if="table" label="Print" small @click="print" />
        <PlainButton v-if="table?.mixings.length && session.mayWrite" :label="begun ? 'Next bucket to the bench' : 'First bucket to the bench'" strong @click="nextBucket" />
      </div>
    </header>
    <p v-if="trouble || library.trouble" class="problem" role="alert">{{ trouble || library.trouble }}</p>
    <div class="two">
      <OrderFields :body="body" :change="change" class="left" />
      <div class="middle">
        <div v-if="problems.length > 0" class="cannot sheet">
          <h2>Still missing</h2>
          <p v-for="p in problems" :key="p">{{ p }}</p>
        </div>
        <template v-else>
          <p v-if="progress" class="progress" role="status">{{ progress }}</p>
          <p v-if="verdict" :class="['verdict', { met }]" role="status"><GroundButton ground="order-out">{{ verdict }}</GroundButton></p>
          <p v-else-if="allOut" class="verdict met" role="status">All of them are out.</p>
          <p v-else class="verdict soft" role="status">Planning …</p>
          <progress v-if="told.done < 1" :value="told.done" max="1" aria-label="Looking for a better plan" />
          <div class="goals" role="group" aria-label="Which plan">
            <button v-for="s in summaries" :key="s.of" :aria-pressed="s.of === shown" @click="chosen = s.of">
              <span class="strong">{{ GOAL_WORDS[s.of].name }}</span>
              <span class="small"><span class="num">{{ s.buckets }}</span> {{ s.buckets === 1 ? 'bucket' : 'buckets' }}{{ s.out ? `, out ${s.out}` : '' }}</span>
            </button>
            <button v-if="goal !== 'most'" class="other" @click="setGoal('most')"><span class="strong">{{ GOAL_WORDS.most.name }}</span><span class="small">by the time it is due</span></button>
            <button v-else class="other" @click="setGoal('soonest')"><span class="strong">All of them</span><span class="small">soonest, or with least work</span></button>
          </div>
          <p v-if="sure"><GroundButton ground="order-sure">{{ sure }}</GroundButton></p>
          <p v-if="gap" class="small soft"><GroundButton ground="order-soonest">{{ gap }}</GroundButton></p>
          <section v-if="table && days.length > 0" aria-labelledby="day-head">
            <div class="group-head">
              <h2 id="day-head">The day</h2>
              <span class="days" role="group" aria-label="Which day">
                <button v-for="d in days" :key="d" :aria-pressed="d === drawnDay" @click="day = d">{{ dayName(d) }}</button>
              </span>
            </div>
            <p v-if="next" class="next"><span class="num strong">{{ next.when }}</span> {{ next.what }}</p>
            <DayDrawing
              :table="table" :zero="zero" :day="drawnDay" :now="clock.beat" :people="people" :shapes="shapes"
              :copies="body.lines.map(l => l.copies)" :buckets="body.buckets" />
          </section>
          <div class="facts">
            <section v-if="helps.length > 0" aria-labelledby="help-head">
              <h2 id="help-head" class="eyebrow">{{ met ? 'What would be sooner still' : 'What would help' }}</h2>
              <ul>
                <li v-for="h in helps" :key="`${h.code} ${h.shape ?? ''}`"><span class="strong">{{ helpWords(h.code, h.shape === undefined ? undefined : shapes[h.shape], MORE_MIN) }}</span>: {{ helpSays(h) }}</li>
              </ul>
            </section>
            <section v-if="powder" aria-labelledby="powder-head">
              <h2 id="powder-head" class="eyebrow">Powder</h2>
              <p><GroundButton ground="amounts"><span class="num">{{ formatMass(powder.total, session.units) }}</span> in all</GroundButton><template v-if="powder.left !== undefined">; {{ world.bag?.name }} has <span class="num">{{ formatMass(powder.left, session.units) }}</span> left</template>.</p>
              <p v-if="apiece"><GroundButton ground="cost">{{ apiece }}</GroundButton>.</p>
              <p v-if="powder.short" class="short">Buy <span class="num strong">{{ formatMass(powder.short.mass, session.units) }}</span> before {{ at(powder.short.at) }}: what is left runs out then.</p>
            </section>
          </div>
        </template>
      </div>
    </div>
  </div>
</template>

<style scoped>
header { display: flex; justify-content: space-between; align-items: start; gap: 16px; margin-bottom: 16px; flex-wrap: wrap; }
.title { flex: 1; min-width: min(100%, 300px); }
.name { width: 100%; border: 0; border-bottom: 1.5px solid transparent; background: none; padding: 0 0 2px; font-size: 1.85rem; font-weight: 720; font-stretch: 104%; letter-spacing: -0.01em; color: var(--ink); }
.name:hover, .name:focus { border-bottom-color: var(--line-strong); }
.name::placeholder { color: var(--soft); opacity: 1; }
.acts { display: flex; flex-wrap: wrap; gap: 8px; }
.two { display: grid; grid-template-columns: 296px minmax(0, 1fr); gap: 28px; align-items: start; }
.left, .middle { contain: layout style; }
.middle { display: grid; gap: 14px; align-content: start; }
.verdict { font-size: 1.5rem; font-weight: 700; line-height: 1.2; font-stretch: 104%; border-left: 6px solid var(--heat); padding: 2px 0 2px 14px; }
.progress { font-size: 1.1rem; font-weight: 620; }
.verdict.met { border-left-color: var(--set); }
.verdict.soft { border-left-color: var(--line); }
progress { width: 100%; height: 6px; accent-color: var(--ink); }
.goals { display: flex; flex-wrap: wrap; gap: 10px; }
.goals button { display: grid; gap: 2px; text-align: left; border: 2px solid var(--line-strong); border-radius: 12px; background: none; color: var(--ink); padding: 8px 14px; min-height: 44px; }
.goals button[aria-pressed='true'] { border-color: var(--ink); background: var(--band); }
.goals .other { border-style: dashed; }
.next { background: var(--now); color: var(--now-ink); border-radius: 10px; padding: 8px 14px; margin: 10px 0; font-weight: 650; }
.days { display: flex; flex-wrap: wrap; gap: 6px; }
.days button { border: 1px solid var(--line-strong); border-radius: 8px; background: none; color: var(--ink); padding: 3px 10px; min-height: 30px; }
.days button[aria-pressed='true'] { background: var(--action); color: var(--action-ink); }
.facts { display: grid; grid-template-columns: repeat(auto-fit, minmax(260px, 1fr)); gap: 20px; }
.facts section { display: grid; gap: 6px; align-content: start; }
.facts ul { display: grid; gap: 4px; list-style: none; padding: 0; margin: 0; }
.short { color: var(--heat); }
.cannot { padding: 16px 18px; border-left: 4px solid var(--warn); display: grid; gap: 6px; }
@media (max-width: 820px) {
  .two { grid-template-columns: minmax(0, 1fr); }
  .middle { order: -1; }
}
@media print {
  .acts, .left, .goals .other, progress { display: none; }
  .two { grid-template-columns: minmax(0, 1fr); }
}
</style>
