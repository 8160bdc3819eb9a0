<script setup lang="ts">
import Select from 'primevue/select'
import { COAT_WAYS, coatWay, MOST_COATS, type Area, type Coats, type CoatWay } from '~core/plan/batches/coats'
import { swilledWords } from '~core/plan/words'
import { coatsFor, coatThickness } from '~core/setting/draining'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'
import PlanCloth from '~/features/plan/PlanCloth.vue'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'

/** Whether it is poured at once or built in coats, and for a shell how thick where. */
const planning = usePlanning(), session = useSession()
const coats = computed(() => planning.plan.coats)
const WAYS = [{ id: 'once', name: 'One pour' }, ...COAT_WAYS.map(({ id, name }) => ({ id, name }))]
const set = (value: Coats | undefined) => planning.change({ coats: value })
function choose(id: string) {
  if (id === 'once') set(undefined)
  else if (coatWay(id as CoatWay).hollow) setWall(USUAL_WALL, id as CoatWay)
  else set({ way: id as CoatWay, shares: [...coatWay(id as CoatWay).shares] })
}
/** A hollow cast is told by its wall: as many coats as stay on an upright face. */
const USUAL_WALL = 0.008, USUAL_DENSITY = 1600
const batch = computed(() => planning.result.batches[0])
function setWall(wall: number, way: CoatWay = 'swilled') {
  const each = coatThickness(batch.value?.mix.slurryDensity ?? USUAL_DENSITY)
  const n = Math.max(2, Math.min(MOST_COATS, coatsFor(wall, each)))
  const { cloth } = coats.value ?? {}
  set({
    way, wall, shares: Array.from({ length: n }, () => 1 / n),
    ...cloth && { cloth: { ...cloth, coat: Math.min(n, cloth.coat) } },
  })
}
const hollow = computed(() => {
  const wall = coats.value?.wall, of = batch.value
  return wall && of?.back
    ? swilledWords({ coats: count.value, wall, mixed: of.mix.slurry, back: of.back }, session.units)
    : ''
})
const drinks = computed(() => planning.world.moulds.some(m => m.material === 'plaster'))
const count = computed(() => coats.value?.areas?.[0]?.thickness.length ?? coats.value?.shares.length ?? 0)
function setCount(n: number) {
  const c = coats.value!
  const shares = Array.from({ length: n }, (_, i) => c.shares[i] ?? (coatWay(c.way).hollow ? 0.1 : 1 / n)),
    sum = coatWay(c.way).hollow ? 1 : shares.reduce((a, b) => a + b, 0)
  set({
    ...c,
    cloth: c.cloth && { ...c.cloth, coat: Math.min(n, c.cloth.coat) },
    shares: shares.map(s => s / sum),
    areas: c.areas?.map(a => ({
      ...a,
      thickness: Array.from({ length: n }, (_, i) => a.thickness[i] ?? a.thickness.at(-1) ?? 0.005),
    })),
  })
}
function setShare(k: number, percent: number) {
  const c = coats.value!
  // What stays in a hollow cast is each coat's own; elsewhere the coats share the whole.
  if (coatWay(c.way).hollow) return set({ ...c, shares: c.shares.map((s, i) => i === k ? percent / 100 : s) })
  const others = c.shares.reduce((s, x, i) => i === k ? s : s + x, 0), left = 1 - percent / 100
  set({
    ...c,
    shares: c.shares.map((s, i) =>
      i === k ? percent / 100 : others > 0 ? s / others * left : left / (c.shares.length - 1),
    ),
  })
}
function setAreas(areas: readonly Area[]) {
  set({ ...coats.value!, areas: areas.length > 0 ? areas : undefined })
}
const setArea = (i: number, change: Partial<Area>) =>
  setAreas(coats.value!.areas!.map((a, j) => j === i ? { ...a, ...change } : a))
function addArea() {
  const areas = coats.value!.areas ?? []
  setAreas([...areas, {
    name: `Area ${areas.length + 1}`,
    width: 0.2,
    length: 0.2,
    thickness: Array.from({ length: count.value }, () => 0.005),
  }])
}
const problems = computed(() => planning.problems.filter(p => p.field === 'coats'))
const positive = (v: number) => v > 0 ? undefined : 'More than nothing.'
const round = (v: number) => v >= 0.01 ? undefined : 'A curve tighter than 10 mm is an edge, not an area.'
/** With every letter: a list that is drawn anew in between must not take back what was typed. */
function nameArea(i: number, event: Event) {
  const name = (event.target as HTMLInputElement).value
  if (name.trim()) setArea(i, { name })
}
function setThickness(i: number, k: number, thickness: number) {
  setAreas(coats.value!.areas!.map((a, j) =>
    j === i ? { ...a, thickness: a.thickness.map((t, l) => l === k ? thickness : t) } : a,
  ))
}
</script>

<template>
  <div class="coats">
    <div class="pair">
      <span id="coats-label" class="strong">How it is made</span>
      <Select
        :model-value="coats?.way ?? 'once'"
        :options="WAYS"
        option-label="name"
        option-value="id"
        aria-labelledby="coats-label"
        class="wide"
        @update:model-value="choose($event)" />
    </div>
    <template v-if="coats">
      <p class="small soft">{{ coatWay(coats.way).how }}</p>
      <div v-if="coats.way !== 'base'" class="pair">
        <span class="strong">Coats</span
        ><Stepper label="Coats" :min="2" :max="8" :model-value="count" @update:model-value="setCount($event)" />
      </div>
      <template v-if="coats.wall !== undefined && !coats.areas">
        <QuantityField
          kind="length"
          label="Its wall"
          :model-value="coats.wall"
          :check="v => (v > 0 && v <= 0.2 ? undefined : 'A wall has some thickness, and is no block.')"
          @amount="setWall($event)" />
        <p v-if="hollow" class="small">{{ hollow }}</p>
        <p v-if="drinks" class="small soft">A plaster mould drinks, and adds 1 to 3 mm by itself.</p>
      </template>
      <template v-else-if="!coats.areas">
        <div v-for="(s, k) in coats.shares" :key="k" class="pair">
          <span>{{
            coats.way === 'base'
              ? k === 0
                ? 'The cast takes'
                : 'The base takes'
              : coats.way === 'swilled'
                ? `Of coat ${k + 1} stays, of the mould`
                : `Coat ${k + 1} takes`
          }}</span>
          <Stepper
            :label="`Share of coat ${k + 1}, percent of the whole`"
            unit=" %"
            :min="5"
            :max="95"
            :step="5"
            :model-value="Math.round(s * 100)"
            @update:model-value="setShare(k, $event)" />
        </div>
      </template>
      <fieldset v-for="(a, i) in coats.areas" :key="i" class="area">
        <legend class="sr-only">{{ a.name }}</legend>
        <div class="head">
          <input
            class="area-name"
            :value="a.name"
            maxlength="60"
            :aria-label="`Name of area ${i + 1}`"
            @input="nameArea(i, $event)" />
          <button
            class="drop"
            :aria-label="`Take ${a.name} out`"
            @click="setAreas(coats.areas!.filter((_, j) => j !== i))">
            ×
          </button>
        </div>
        <QuantityField
          kind="length"
          label="Width over the surface"
          :model-value="a.width"
          :check="positive"
          @amount="setArea(i, { width: $event })" />
        <QuantityField
          kind="length"
          label="Length over the surface"
          :model-value="a.length"
          :check="positive"
          @amount="setArea(i, { length: $event })" />
        <QuantityField
          kind="length"
          clearable
          label="Curves with a radius of"
          :model-value="a.radius"
          :check="round"
          @update:model-value="setArea(i, { radius: $event })" />
        <QuantityField
          v-for="(t, k) in a.thickness"
          :key="k"
          kind="length"
          :label="`Coat ${k + 1} is thick`"
          :model-value="t"
          :check="v => (v >= 0 ? undefined : 'Not less than nothing.')"
          @given="setThickness(i, k, $event)" />
      </fieldset>
      <button v-if="coats.way === 'shell' || coats.way === 'swilled'" class="add" @click="addArea">
        {{ coats.areas ? 'One more area' : 'Say how thick where' }}
      </button>
      <PlanCloth v-if="coats.way !== 'base'" :coats="coats" :count="count" />
    </template>
    <p v-for="p in problems" :key="p.code" :class="['problem', { warn: p.severity === 'warn' }]" role="status">
      {{ planning.say(p) }}
    </p>
  </div>
</template>

<style scoped>
.coats {
  display: grid;
  gap: 9px;
}
.pair {
  display: grid;
  grid-template-columns: minmax(74px, 1fr) auto;
  gap: 6px 10px;
  align-items: center;
}
.wide {
  width: 226px;
}
.area {
  display: grid;
  gap: 8px;
  border: 0;
  border-left: 3px solid var(--line);
  padding: 0 0 0 10px;
  margin: 0;
  min-width: 0;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.area-name {
  border: 0;
  border-bottom: 1.5px solid var(--line-strong);
  background: none;
  font-weight: 650;
  min-height: 32px;
  flex: 1;
  min-width: 0;
}
.drop {
  border: 0;
  background: none;
  font-size: 1.1rem;
  min-width: 32px;
  min-height: 32px;
  color: var(--soft);
}
.add {
  justify-self: start;
  border: 1px solid var(--line-strong);
  border-radius: 9px;
  background: none;
  padding: 6px 14px;
  min-height: 36px;
  font-weight: 600;
}
</style>
