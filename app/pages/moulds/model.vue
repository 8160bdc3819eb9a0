<script setup lang="ts">
import { modelRemarkWords, pullWords } from '~core/mould/words'
import Button from 'primevue/button'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import { sideThatGoesDown } from '~core/mould/mesh/fill-moves'
import { combineGauges } from '~core/mould/gauge/gauge'
import { FILE_UNITS, type FileUnit } from '~core/mould/mesh/mesh'
import { dot, type Vector } from '~core/mould/mesh/spans'
import { pullVerdict } from '~core/mould/mesh/undercut'
import { formatLength, formatPercent, formatVolume, roundTo } from '~core/units/format'
import type { MouldBody } from '~contract/library'
import { newId } from '~/sync/api'
import JacketSection from '~/features/moulds/JacketSection.vue'
import MeshView from '~/features/moulds/MeshView.vue'
import { gaugesOf } from '~/features/moulds/useMould'
import EmptyPicture from '~/ui/EmptyPicture.vue'
import FileButton from '~/ui/FileButton.vue'
import GroundButton from '~/ui/GroundButton.vue'
import QuantityField from '~/ui/QuantityField.vue'
import Stepper from '~/ui/Stepper.vue'
import { useLibrary } from '~/sync/library'
import { BEST, SIDES, useModel } from '~/features/moulds/model'
import { useSession } from '~/sync/session'

/** A modelled or scanned piece: how much it takes, whether it lets go, where air stays. */
const model = useModel(), library = useLibrary(), session = useSession()
if (!library.loaded) await library.load()
onBeforeUnmount(() => model.cancel())
const units = computed(() => session.units)
const cut = ref(0), level = ref(0)
const way = ref<'one' | 'two'>('one')
const WAYS = [{ id: 'one', name: 'One piece' }, { id: 'two', name: 'Two halves' }]
const stiff = ref<'flexible' | 'rigid'>('flexible')
const STIFF = [{ id: 'flexible', name: 'Flexible mould' }, { id: 'rigid', name: 'Rigid mould' }]
const vent = ref(0.003), hole = ref(0.006)

const k = computed(() => model.metres ?? 1e-3)
const inFile = (metres: number) => metres / k.value
const volume = (v: number) => formatVolume(v * k.value ** 3, units.value)
const size = computed(() =>
  model.mesh && model.metres
    ? ([0, 1, 2] as const).map(i =>
        formatLength((model.mesh!.measures.high[i] - model.mesh!.measures.low[i]) * k.value, units.value),
      ).join(' × ')
    : '',
)
const locked = computed(() => model.locked?.[way.value])
const PULLS = [
  { id: BEST, name: 'The best way' },
  ...SIDES.map(s => ({ id: s.id, name: `Along ${s.id.replace('-', '−')}` })),
]
/** What a double click on the piece puts there. */
const puts = ref<'hole' | 'vent'>('hole')
const PUTS = [{ id: 'hole', name: 'pours here' }, { id: 'vent', name: 'vents here' }]
function put(at: Vector, out: Vector) {
  if (puts.value === 'vent') void model.setVents([...model.vents, { at, out, radius: inFile(vent.value) }])
  else void model.setPour([{ at, out, radius: inFile(hole.value) }])
}
const shown = computed(
  () => [...model.pour.map(o => ({ ...o, vent: false })), ...model.vents.map(o => ({ ...o, vent: true }))],
)
const air = computed(() => model.air)
const share = (part: number, of: number) =>
  part / of < 0.001 ? 'none worth naming' : formatPercent(Math.round(1000 * part / of) / 1000)
/** Below a thousandth of the piece a pocket is the raster's own, or froth that tapping drives out. */
const pockets = computed(() => air.value?.pockets.filter(p => p.volume > 0.0005 * air.value!.volume).slice(0, 8) ?? [])
const degrees = computed(() => model.tilt ? Math.round(model.tilt.angle * 180 / Math.PI) : 0)
/** Where something lies, in words, seen from above the piece. */
function where(at: Vector): string {
  const { low, high } = model.mesh!.measures
  const part = (i: 0 | 1 | 2) => (at[i] - low[i]) / Math.max(1e-9, high[i] - low[i])
  const height = (() => {
    const span = [0, 1, 2, 3, 4, 5, 6, 7].map(i =>
      dot([i & 1 ? high[0] : low[0], i & 2 ? high[1] : low[1], i & 4 ? high[2] : low[2]], model.up),
    )
    return (dot(at, model.up) - Math.min(...span)) / (Math.max(...span) - Math.min(...span))
  })()
  return `${roundTo(height * 100, 1)} % of the way up; x ${roundTo(part(0) * 100, 1)} %, y ${
    roundTo(part(1) * 100, 1)
  } %, z ${roundTo(part(2) * 100, 1)} % across`
}
/** A hole is shut with a hand; a mould that is open on top, with a board. */
const shutWith = computed(() =>
  model.pour.every(o => o.reach === 0)
    ? 'with a board held on it'
    : model.vents.length > 0
      ? 'with the hole and the vents held shut'
      : 'with the hole held shut',
)
const tips = computed(() =>
  model.moves?.moves.map(m => ({
    ...m,
    degrees: Math.round(m.angle * 36 / Math.PI) * 5,
    side: sideThatGoesDown(model.up, m.up),
  })) ?? [],
)
let filling = 0
/** Lets the level rise; all at once where motion is not wanted. */
function watchItFill() {
  cancelAnimationFrame(filling)
  if (matchMedia('(prefers-reduced-motion: reduce)').matches) {
    level.value = 1
    return
  }
  if (cut.value === 0) cut.value = 0.5
  const began = performance.now()
  const step = (now: number) => {
    level.value = Math.min(1, (now - began) / 5000)
    if (level.value < 1) filling = requestAnimationFrame(step)
  }
  filling = requestAnimationFrame(step)
}
onBeforeUnmount(() => cancelAnimationFrame(filling))
async function sample(name: string) {
  const answer = await fetch(`/samples/${name}.stl`)
  await model.read(new File([await answer.arrayBuffer()], `${name}.stl`))
}
function useVent() {
  if (model.vented) void model.setVents([...model.vents, model.vented.vent])
}
const NEW = 'new'
const forMould = ref<string | null>(null)
const owners = computed(
  () => [{ id: NEW, name: 'A new mould' }, ...library.items.mould.map(m => ({ id: m.id, name: m.body.name }))],
)
const taken = ref<{ readonly id?: string, readonly words: string }>()
/** The model goes with the mould, and its volume among the mould's gauges. */
async function take() {
  if (!model.volume || !forMould.value) return
  taken.value = undefined
  try {
    const gauge = {
      how: 'mesh' as const,
      volume: model.volume,
      trusted: model.mesh!.trusted,
      surface: model.mesh!.measures.area * (model.metres ?? 1e-3) ** 2,
    }
    const item = library.items.mould.find(m => m.id === forMould.value)
    const id = item?.id ?? newId()
    const gauges = [...(item ? gaugesOf(item.body) : []).filter(g => g.how !== 'mesh'), gauge]
    const { value, low, high } = combineGauges(gauges)
    // What somebody chose to have it drawn as gives way to how it is.
    const drawn = { form: undefined, looks: await model.likeness() }
    await library.save('mould', id, { ...(item?.body ?? newMould()), ...drawn, gauges, volume: { value, low, high } }, item)
    forMould.value = id
    await model.keepWith(id)
    taken.value = { id, words: `${item?.body.name ?? newMould().name} keeps this model and is gauged by it now.` }
  }
  catch (error) {
    taken.value = { words: (error as Error).message }
  }
}
/** A mould around this piece, as far as its box tells; the rest waits on the mould's own page. */
function newMould(): MouldBody {
  const { low, high } = model.mesh!.measures
  const sides = ([0, 1, 2] as const).map(i => Math.min(5, (high[i] - low[i]) * k.value)),
    flat = sides.filter((_, i) => Math.abs(model.up[i]!) < 0.5)
  return {
    name: model.name.replace(/\.stl$/i, '').slice(0, 80) || 'From a model',
    material: 'silicone',
    volume: { value: 1, low: 1, high: 1 },
    mouth: { shape: 'rectangular', width: Math.min(...flat), length: Math.max(...flat) },
    wall: 0.008,
    section: Math.min(1, Math.cbrt(model.volume!)),
    fragile: false,
    note: '',
  }
}
const asked = useRoute().query.mould
if (typeof asked === 'string' && library.items.mould.some(m => m.id === asked)) {
  forMould.value = asked
  await model.load(asked)
}
</script>

<template>
  <div>
    <header>
      <h1>From a model</h1>
      <NuxtLink to="/moulds">All moulds</NuxtLink>
      <FileButton class="file" label="Import an STL file" accept=".stl,model/stl" @file="model.read" />
    </header>
    <p v-if="model.trouble" class="problem" role="alert">{{ model.trouble }}</p>
    <p v-if="model.working" class="working" role="status">
      {{ model.working.what }} … <progress :value="model.working.share" max="1" />{{ ' ' }}
      <button @click="model.cancel()">Stop</button>
    </p>
    <div v-if="!model.mesh" class="empty">
      <EmptyPicture :forms="['baluster', 'rosette']" />
      <p>
        Import the piece as a closed model, as it will be cast: from a scanner or a modelling program, up to five
        million triangles. It stays on this device until you keep it with a mould. You learn how much it takes, whether
        a rigid or a flexible mould lets it go, and where air would stay when it is poured.
      </p>
      <p>
        Or try <button class="link" @click="sample('bell-pull')">a bell-pull</button> or
        <button class="link" @click="sample('rosette')">a rosette</button>, each with a fault to find.
      </p>
    </div>
    <div v-else class="two">
      <div class="column">
        <MeshView
          :positions="model.mesh.positions"
          :up="model.up"
          :pull="locked?.pull"
          :draft="model.draft"
          :openings="shown"
          :pockets="pockets"
          :cut="cut"
          :level="level"
          @pick="put" />
        <div class="sliders">
          <label>Cut open <input v-model.number="cut" type="range" min="0" max="0.98" step="0.01" /></label>
          <label>Filled to <input v-model.number="level" type="range" min="0" max="1" step="0.01" /></label>
          <Button label="Watch it fill" severity="secondary" size="small" @click="watchItFill" />
        </div>
        <div class="pair">
          <span class="small strong">A double click</span
          ><SelectButton
            v-model="puts"
            :options="PUTS"
            option-label="name"
            option-value="id"
            :allow-empty="false"
            aria-label="What a double click on the piece puts there" />
        </div>
        <p class="small soft">
          Blue: where it is poured. Violet: air, and vents. Amber: less than {{ model.draft }}° of draft along the way
          it is pulled.
        </p>
      </div>
      <div class="column">
        <section aria-labelledby="size-head" class="column">
          <h2 id="size-head">{{ model.name }}</h2>
          <div v-if="!model.unit" class="ask">
            <p class="strong">What unit is it in? The file does not say.</p>
            <button
              v-for="c in model.choices"
              :key="c.unit"
              :class="{ far: !c.plausible }"
              @click="model.unit = c.unit">
              {{ FILE_UNITS[c.unit].name }}: <span class="num">{{ formatLength(c.across, units) }}</span> across,
              <span class="num">{{ formatVolume(c.volume, units) }}</span>
            </button>
          </div>
          <template v-else>
            <p>
              <GroundButton ground="mesh"><span class="num big">{{ formatVolume(model.volume!, units) }}</span></GroundButton> · {{ size }} ·
              {{ roundTo(model.mesh.measures.triangles, 1) }} triangles
            </p>
            <div class="pair">
              <span id="unit-label" class="small strong">Read in</span
              ><Select
                :model-value="model.unit"
                :options="Object.entries(FILE_UNITS).map(([id, u]) => ({ id: id as FileUnit, name: u.name }))"
                option-label="name"
                option-value="id"
                aria-labelledby="unit-label"
                @update:model-value="model.unit = $event" />
            </div>
          </template>
          <p v-for="r in model.mesh.remarks" :key="r.code" class="problem warn">{{ modelRemarkWords(r) }}</p>
          <div v-if="session.mayWrite && model.volume" class="pair">
            <Select
              v-model="forMould"
              :options="owners"
              option-label="name"
              option-value="id"
              placeholder="Whose model is it?"
              aria-label="The mould it belongs to" />
            <Button
              label="Keep it with this mould"
              severity="secondary"
              size="small"
              :disabled="!forMould"
              @click="take" />
          </div>
          <p v-if="taken" class="small" role="status">
            {{ taken.words }} <NuxtLink v-if="taken.id" :to="`/moulds/${taken.id}`">Go to it</NuxtLink>
          </p>
        </section>
        <section v-if="model.unit" aria-labelledby="pull-head" class="column">
          <h2 id="pull-head">Will it release?</h2>
          <Button
            v-if="!model.pull"
            label="Find the best way to pull"
            severity="secondary"
            :disabled="!!model.working"
            @click="model.lookForPull()" />
          <template v-else-if="locked">
            <div class="pair">
              <SelectButton
                v-model="way"
                :options="WAYS"
                option-label="name"
                option-value="id"
                :allow-empty="false"
                aria-label="Parts of the mould" /><SelectButton
                  v-model="stiff"
                  :options="STIFF"
                  option-label="name"
                  option-value="id"
                  :allow-empty="false"
                  aria-label="How stiff the mould is" />
            </div>
            <div class="pair">
              <Select
                v-model="model.pulledBy"
                :options="PULLS"
                option-label="name"
                option-value="id"
                aria-label="Which way it is pulled"
                @update:model-value="model.lookAlong()" /><span class="small strong">Draft wanted</span
                ><Stepper
                v-model="model.draft"
                label="Draft wanted, degrees"
                unit="°"
                :min="0"
                :max="15"
                @update:model-value="model.lookAlong()" />
            </div>
            <p role="status">{{ pullWords(pullVerdict(locked, stiff === 'flexible')) }}</p>
            <dl class="facts">
              <dt>Pulled along</dt>
              <dd class="num">{{ locked.pull.map(v => roundTo(v, 0.01)).join(', ') }}</dd>
              <dt><GroundButton ground="locked">Locked in one piece</GroundButton></dt>
              <dd class="num">{{ share(locked.onePiece, locked.volume) }}</dd>
              <dt>Locked in two halves</dt>
              <dd class="num">{{ share(locked.twoPart, locked.volume) }}</dd>
              <dt>Under {{ model.draft }}° of draft</dt>
              <dd class="num">
                {{
                  formatPercent(Math.round(100 * (way === 'one' ? locked.lowDraft : locked.lowDraftTwoPart)) / 100)
                }}
                of its skin
              </dd>
            </dl>
          </template>
        </section>
        <section v-if="model.unit" aria-labelledby="air-head" class="column">
          <h2 id="air-head">Where does air stay?</h2>
          <div class="pair">
            <span id="side-label" class="small strong">Poured with</span
            ><Select
              :model-value="model.side"
              :options="[...SIDES]"
              option-label="name"
              option-value="id"
              aria-labelledby="side-label"
              @update:model-value="model.turn" />
          </div>
          <div class="pair">
            <Button label="Open on top" severity="secondary" size="small" @click="model.openTop()" />
            <Button
              label="A hole at the highest place"
              severity="secondary"
              size="small"
              @click="model.holeOnTop(inFile(hole))" />
          </div>
          <QuantityField
            kind="length"
            label="Radius of the hole"
            :model-value="hole"
            :check="v => (v > 0 ? undefined : 'More than nothing.')"
            @amount="hole = $event" />
          <template v-if="air">
            <p role="status">
              <span class="strong">{{
                share(air.trapped, air.volume) === 'none worth naming'
                  ? 'No air stays that is worth naming.'
                  : `${volume(air.trapped)} of air stays, ${share(air.trapped, air.volume)} of the piece.`
              }}</span>{{ ' ' }}
              <span v-if="air.trapped > 0.001 * air.volume" class="soft"
              >± {{ air.doubt * k ** 3 < 5e-8 ? 'less than 0.1 ml' : volume(air.doubt) }}</span
              >
            </p>
            <ol v-if="pockets.length > 0" class="ruled">
              <li v-for="(p, i) in pockets" :key="i" class="pocket">
                <GroundButton ground="pocket"><span class="num strong">{{ volume(p.volume) }}</span></GroundButton>{{ ' ' }}
                <span class="small soft"
                >like a ball of {{ formatLength(p.across * k, units) }}; {{ where(p.middle) }}</span
                >
              </li>
            </ol>
            <p v-if="air.badColumns > 0" class="small problem warn">
              The model has holes: {{ air.badColumns }} columns could not be followed.
            </p>
            <div v-if="pockets.length > 0" class="pair">
              <Button
                label="Try tilting it"
                severity="secondary"
                :disabled="!!model.working"
                @click="model.lookForTilt()" />
              <Button
                label="Try covering and tipping it"
                severity="secondary"
                :disabled="!!model.working"
                @click="model.lookForMoves()" />
              <Button
                label="Best place for a vent"
                severity="secondary"
                :disabled="!!model.working"
                @click="model.lookForVent(inFile(vent))" />
            </div>
            <p v-if="model.tilt" role="status">
              <template v-if="degrees < 3">No tilt helps: it is best as it stands.</template>
              <template v-else
              >Lean it {{ degrees }}°, its {{ sideThatGoesDown(model.up, model.tilt.best.up) }} side down, while it
                fills: {{ volume(model.tilt.best.trapped) }} of air stays instead of
                {{ volume(model.tilt.upright.trapped) }}. Then bring it back and top it up.</template
              >
            </p>
            <div v-if="model.moves" role="status">
              <p v-if="tips.length === 0">No tipping frees a fifth of it. A vent does.</p>
              <template v-else>
                <ol class="moves">
                  <li>
                    Fill it as it stands: {{ volume(model.moves.filled) }} of air stays, ±
                    {{ model.moves.doubt * k ** 3 < 5e-8 ? 'less than 0.1 ml' : volume(model.moves.doubt) }}.
                  </li>
                  <li v-for="(t, i) in tips" :key="i">
                    {{ shutWith.charAt(0).toUpperCase() + shutWith.slice(1) }}, tip it {{ t.degrees }}°<template
                      v-if="t.side"
                    >, its {{ t.side }} side down</template
                    >. Bring it back, open it, top it up:
                    {{ t.left < 0.0005 * model.moves.volume ? 'nothing worth naming' : volume(t.left) }} stays.
                  </li>
                </ol>
                <p class="small soft">
                  While the mix is thin: in a creamy one, bubbles under some 4 mm stay where they are. Tap those out.
                </p>
              </template>
            </div>
            <div v-if="model.vented" class="column">
              <p role="status">
                A vent {{ where(model.vented.vent.at) }} leaves {{ volume(model.vented.after.trapped) }} of air.
              </p>
              <Button label="Put it there" severity="secondary" size="small" @click="useVent" />
            </div>
            <Button
              v-if="model.vents.length > 0"
              :label="`Take the ${model.vents.length === 1 ? 'vent' : 'vents'} away`"
              severity="secondary"
              size="small"
              @click="model.setVents([])" />
          </template>
          <p class="small soft">
            Worked out for a mix that rises evenly and lets no bubble through: tapping and brushing do better, a stiff
            mix does worse. Walls thinner than a ninetieth of the piece are not seen.
          </p>
        </section>
        <JacketSection v-if="model.unit && model.mesh?.trusted" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.file {
  margin-left: auto;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  margin-bottom: 14px;
}
.working {
  display: flex;
  gap: 12px;
  align-items: center;
}
.working button,
.link {
  border: 0;
  background: none;
  color: var(--action);
  text-decoration: underline;
  padding: 2px 4px;
  min-height: 28px;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
  gap: 26px;
  align-items: start;
}
.two > :first-child {
  position: sticky;
  top: 12px;
}
.column {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
}
section {
  border-bottom: 1px solid var(--line);
  padding-bottom: 14px;
}
.sliders {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 18px;
  align-items: end;
}
.sliders label {
  display: grid;
  gap: 2px;
  font-weight: 600;
  font-size: 0.9rem;
}
.big {
  font-size: 1.5rem;
  font-weight: 700;
}
.ask {
  display: grid;
  gap: 6px;
}
.ask button {
  text-align: left;
  border: 1.5px solid var(--line-strong);
  border-radius: 9px;
  background: var(--sheet);
  padding: 8px 12px;
}
.ask .far {
  color: var(--soft);
  border-style: dashed;
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 14px;
  align-items: baseline;
  font-size: 0.93rem;
}
.facts dt {
  color: var(--soft);
}
.pocket {
  padding: 6px 0;
}
.moves {
  list-style: decimal;
  padding-left: 22px;
  display: grid;
  gap: 4px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .two > :first-child {
    position: static;
  }
}
</style>
