<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import Select from 'primevue/select'
import { shareLeft, WARM_ENOUGH } from '~core/drying/cast'
import { place as placeOf, type Standing } from '~core/drying/places'
import { scaleTells } from '~core/drying/weighings'
import type { Happening } from '~core/pour/events'
import { notHereWords, STEADY_WORDS, standingWords } from '~core/drying/words'
import { DRY_FOR, missingWeight } from '~core/pour/drying'
import { DRY_FOR_WORDS } from '~core/pour/words'
import { endUse } from '~core/gypsum/end-use'
import { formatMass, formatTemperature } from '~core/units/format'
import { roughRange } from '~/ui/when'
import { useRoom } from '~/sync/climate'
import { useClock } from '~/sync/clock'
import { useDrying } from '~/features/shelf/drying'
import { useRecords } from '~/sync/records'
import { useScale } from '~/features/bench/scale'
import { useSession } from '~/sync/session'
import GroundButton from '~/ui/GroundButton.vue'
import QuantityField from '~/ui/QuantityField.vue'
import StandingFields from './StandingFields.vue'
import { CURVE, layoutCurve } from './curve'
import type { CastGroup } from './groups'

/** A drying cast looked at closely: its curve, when it is dry enough for what, and what can be told of it. */
const { group } = defineProps<{ group: CastGroup | undefined }>()
const emit = defineEmits<{ closed: [] }>()
const drying = useDrying(),
  clock = useClock(),
  records = useRecords(),
  session = useSession(),
  scale = useScale(),
  room = useRoom()
const chosen = ref('')
const said = ref('')
watch(() => group, (g) => {
  if (!g) {
    drying.close()
    // The same cast opened again is looked up again.
    chosen.value = ''
    for (const d of [scale, room]) d.stop()
    return
  }
  chosen.value = g.first.id
  said.value = ''
  for (const d of [scale, room]) d.listen()
}, { immediate: true })
watch(chosen, (cast) => {
  if (group && cast) void drying.look(group.pour, cast)
}, { immediate: true })
onBeforeUnmount(() => {
  drying.close()
  for (const d of [scale, room]) d.stop()
})

const opened = computed(() => drying.castState?.openedAt ?? clock.now)
const now = computed(() => (clock.now - opened.value) / 1000)
const halfMinute = computed(() => Math.floor(now.value / 30) * 30)
const use = computed(() => drying.pour && endUse(drying.pour.run.plan.endUse))
const ready = computed(() =>
  use.value?.dryTo === undefined || drying.known?.notHere ? undefined : drying.known?.forecast.dries(use.value.dryTo),
)
const curve = computed(() =>
  drying.known && layoutCurve(drying.known.record, drying.known.forecast, halfMinute.value, ready.value),
)
const mass = (kg: number) => formatMass(kg, session.units)
const standing = computed(() => drying.known?.record.stays.at(-1))
const between = (low: number, high: number) => {
  const [a, b] = [low, high].map(v => Math.round(100 * v)) as [number, number]
  return a === b ? `${a} %` : `${a}–${b} %`
}
/** What is left of the water in its pores, and the same against its dry weight. */
const holds = computed(() => {
  const k = drying.known
  if (!k) return undefined
  const { low, high } = k.forecast.waterRange(halfMinute.value), { body } = k.forecast.centre
  return {
    left: between(shareLeft(body, low), shareLeft(body, high)),
    ofDry: between(low / body.dryMass, high / body.dryMass),
  }
})
const countedWords = computed(() => {
  const n = weighings.value
  return n > 0 ? `weighed ${n === 1 ? 'once' : `${n} times`}` : 'not weighed yet'
})
const standsWords = () => standing.value && standingWords(standing.value, session.units)
/** A kitchen scale cannot see the last of it. */
const coarse = computed(() => {
  const body = drying.known?.forecast.centre.body, wanted = use.value?.dryTo?.left
  return body && wanted !== undefined && scaleTells(body) > wanted
    ? `It held only ${mass(body.freeWater)} of water in all: a scale to the gram cannot see the rest.`
    : ''
})
const coldWords = computed(() => {
  const k = drying.known
  if (!k || !standing.value || standing.value.place === 'damp' || !inside.value) return ''
  const cooler = standing.value.air.celsius - k.forecast.faceWhileWet
  return cooler > 1
    ? `While it is wet its face stays near ${formatTemperature(k.forecast.faceWhileWet, session.units)} in air of ${
      formatTemperature(standing.value.air.celsius, session.units)
    }: that is why it feels cold.`
    : ''
})
const lines = computed(() =>
  DRY_FOR.map(({ id, to }) => {
    const words = DRY_FOR_WORDS[id]
    const r = drying.known?.forecast.dries(to)
    if (drying.known?.notHere && !(r && r.high < now.value)) return { id, words, when: 'not here', done: false }
    if (!r || !Number.isFinite(r.low)) return { id, words, when: 'not in this air', done: false }
    const when = (t: number) => opened.value + t * 1000
    if (r.high < now.value) return { id, words, when: 'dry enough', done: true }
    return {
      id,
      words,
      when: Number.isFinite(r.high) && r.high < 400 * 86_400
        ? roughRange(Math.max(clock.now, when(r.low)), when(r.high), clock.now)
        : `not before ${roughRange(when(r.low), when(r.low), clock.now)}`,
      done: false,
    }
  }),
)
const spoken = computed(() =>
  drying.known
  && `Predicted weight from ${
    mass(drying.known.forecast.centre.body.dryMass + drying.known.forecast.centre.body.freeWater)
  } when opened down to ${
    mass(drying.known.forecast.centre.body.dryMass)
  } dry; ${drying.known.record.weighed.length} weighings.`,
)

const light = computed(() => drying.known && missingWeight(drying.known.record))
const casts = computed(() => group?.casts ?? [])
const tell = (list: readonly string[], make: (cast: string) => Happening, words: string) => {
  said.value = words
  return group ? records.recordAll(group.pour, list.map(make)) : undefined
}
const all = computed(() => casts.value.map(c => c.id))
const weigh = (kg: number) =>
  tell([chosen.value], cast => ({ kind: 'cast-weighed', data: { cast, mass: kg } }), `${mass(kg)} noted.`)
const feel = (how: 'cold' | 'dry') =>
  tell(
    all.value,
    cast => ({ kind: 'felt', data: { cast, how } }),
    how === 'cold' ? 'Noted: still cold.' : 'Noted: feels dry.',
  )
const wet = () => tell(all.value, cast => ({ kind: 'wetted', data: { cast } }), 'Noted: wetted.')
const put = ({ place, air, weather }: Standing) =>
  tell(
    all.value,
    cast => ({ kind: 'placed', data: { cast, place, air, ...weather && { weather } } }),
    'Noted where it stands.',
  )
const inside = computed(() => standing.value && !placeOf(standing.value.place).outdoors)
/** What the room's sensor reads, for what stands in the room. */
const takeRoom = () =>
  standing.value && put({ ...standing.value, air: { celsius: room.celsius!, humidity: room.humidity! } })
const tooWarm = computed(() => (standing.value?.air.celsius ?? 0) > WARM_ENOUGH)
const weighings = computed(() => drying.known?.record.weighed.length ?? 0)
/** What the scale holds, when it stands still and it could be this cast. */
const onScale = computed(() =>
  scale.here && scale.weighing.steady && scale.weighing.stood > 5 ? scale.weighing.stood / 1000 : undefined,
)
</script>

<template>
  <Dialog
    :visible="group !== undefined"
    modal
    :header="group ? group.label : ''"
    :style="{ width: 'min(1000px, 96vw)' }"
    dismissable-mask
    @update:visible="emit('closed')">
    <p v-if="drying.trouble" class="problem" role="alert">{{ drying.trouble }}</p>
    <div v-if="curve && drying.known" class="two">
      <div class="left">
        <svg :viewBox="`0 0 ${CURVE.width} ${CURVE.height}`" role="img" :aria-label="spoken">
          <rect
            v-if="curve.ready"
            :x="curve.ready.from"
            :y="CURVE.top"
            :width="Math.max(3, curve.ready.to - curve.ready.from)"
            :height="CURVE.height - CURVE.top - CURVE.bottom"
            class="ready" />
          <path :d="curve.band" class="band" />
          <line :x1="CURVE.left" :x2="CURVE.width - CURVE.right" :y1="curve.dryLine" :y2="curve.dryLine" class="dry" />
          <text :x="CURVE.left + 4" :y="curve.dryLine - 5" class="word">no free water</text>
          <path :d="curve.line" class="line" />
          <g v-for="m in curve.masses" :key="m.y">
            <text :x="CURVE.left - 8" :y="m.y + 4" text-anchor="end" class="num small-num">{{ mass(m.mass) }}</text>
          </g>
          <g v-for="d in curve.days" :key="d.x">
            <line
              :x1="d.x"
              :x2="d.x"
              :y1="CURVE.height - CURVE.bottom"
              :y2="CURVE.height - CURVE.bottom + 5"
              class="tick" />
            <text
              :x="d.x"
              :y="CURVE.height - 12"
              :text-anchor="d.label === 'opened' ? 'start' : 'middle'"
              class="num small-num">
              {{ d.label }}
            </text>
          </g>
          <line :x1="curve.now" :x2="curve.now" :y1="CURVE.top" :y2="CURVE.height - CURVE.bottom" class="now" />
          <text :x="curve.now + 5" :y="CURVE.top + 11" class="word">now</text>
          <circle v-for="(d, i) in curve.dots" :key="i" :cx="d.x" :cy="d.y" r="5" class="dot" />
        </svg>
        <p>
          <template v-if="holds"
          ><GroundButton ground="water-left" :basis="countedWords"
          ><span class="num strong">{{ holds.left }}</span> of the water in its pores is left</GroundButton
          >, which is <span class="num">{{ holds.ofDry }}</span> of its dry weight.</template
          >
          {{ coarse }} {{ coldWords }}
        </p>
        <p v-if="drying.known.notHere" class="steady warn">{{ notHereWords(drying.known.notHere, session.units) }}</p>
        <p v-if="light" class="steady warn">
          It weighed {{ Math.round(100 * light) }} % less than was poured into it: look for a hollow inside, or a part
          that did not fill.
        </p>
        <p
          v-if="drying.known.steady"
          :class="[
            'steady',
            { warn: drying.known.steady.steady && !drying.known.steady.dry, losing: !drying.known.steady.steady },
          ]">
          {{ STEADY_WORDS[drying.known.steady.code] }}
        </p>
        <p class="small soft">
          <GroundButton ground="dry" :from="standsWords" :basis="drying.known.forecast.basis.note"
          >From {{ drying.known.forecast.basis.note }}</GroundButton
          >. The band holds eight of ten.
        </p>
        <dl>
          <template v-for="l in lines" :key="l.id"
          ><dt>{{ l.words }}</dt>
            <dd :class="{ done: l.done }">{{ l.when }}</dd></template
          >
        </dl>
      </div>
      <div v-if="session.mayWrite" class="right">
        <div v-if="casts.length > 1" class="field">
          <span id="which" class="small strong">Which one</span>
          <Select
            v-model="chosen"
            :options="[...casts]"
            option-label="label"
            option-value="id"
            aria-labelledby="which" />
        </div>
        <QuantityField
          :key="`${chosen}-${weighings}`"
          kind="mass"
          label="It weighs now"
          :check="v => (v > 0 && v < 5000 ? undefined : 'Enter more than zero.')"
          @settled="weigh($event)" />
        <Button
          v-if="onScale"
          :label="`Take ${mass(onScale)} from the scale`"
          severity="secondary"
          @click="weigh(onScale)" />
        <p class="small soft">
          {{
            weighings === 0 ? 'Not weighed yet.' : `Weighed ${weighings === 1 ? 'once' : `${weighings} times`}.`
          }}
          Without a scale, holding it to your cheek helps too, but counts for less:
        </p>
        <div class="feel">
          <Button label="Still cold" severity="secondary" @click="feel('cold')" />
          <Button label="Feels dry" severity="secondary" @click="feel('dry')" />
          <Button v-if="use?.dryTo === undefined" label="Wetted again" severity="secondary" @click="wet" />
        </div>
        <StandingFields
          v-if="standing"
          :standing="standing"
          :label="`Where ${casts.length > 1 ? 'they stand' : 'it stands'}`"
          @settled="put" />
        <Button
          v-if="room.here && inside"
          :label="`Use the room sensor: ${formatTemperature(room.celsius!, session.units)}, ${Math.round(100 * room.humidity!)} %`"
          severity="secondary"
          @click="takeRoom" />
        <p v-if="tooWarm" class="problem warn">
          Above {{ formatTemperature(WARM_ENOUGH, session.units) }}: while it is wet it stays cool, but edges that are
          dry come to the air’s heat and turn to powder.
        </p>
        <p class="said small" role="status">{{ said }}</p>
      </div>
    </div>
    <p v-else-if="!drying.trouble" class="soft">Loading …</p>
  </Dialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.55fr) minmax(270px, 1fr);
  gap: 28px;
}
.left,
.right {
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}
.field {
  display: grid;
  gap: 4px;
}
.feel {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 6px 16px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
dd {
  font-weight: 620;
  text-align: right;
  margin: 0;
}
.done {
  color: var(--set);
}
.steady {
  color: var(--set);
  font-weight: 620;
}
.steady.warn {
  color: var(--warn);
}
.steady.losing {
  color: var(--soft);
  font-weight: 400;
}
.band {
  fill: var(--water-soft, #cfe3f3);
  opacity: 0.75;
}
.line {
  fill: none;
  stroke: var(--water);
  stroke-width: 2.5;
}
.dry {
  stroke: var(--powder);
  stroke-dasharray: 5 4;
  stroke-width: 1.5;
}
.ready {
  fill: var(--set-soft);
}
.now {
  stroke: var(--ink);
  stroke-width: 2;
}
.dot {
  fill: var(--ink);
  stroke: var(--sheet);
  stroke-width: 2;
}
.tick {
  stroke: var(--line-strong);
}
.word {
  font-size: 12px;
  fill: var(--soft);
}
.small-num {
  font-size: 11.5px;
  fill: var(--soft);
}
.said {
  min-height: 1.4em;
  color: var(--set);
}
@media (max-width: 760px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
