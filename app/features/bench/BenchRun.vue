<script setup lang="ts">
import { stepName, stepWords } from '~core/plan/step-words'
import { useFullscreen, useLocalStorage, useWakeLock } from '@vueuse/core'
import { formatDuration, formatTemperature } from '~core/units/format'
import type { LeftoverPlace } from '~core/pour/events'
import { pouringEnds, type CueKind } from '~core/bench/cues'
import { cueAhead, cueShort } from '~core/bench/cue-words'
import { unmeantFor } from '~core/bench/guard'
import { tapeOf } from '~core/pour/tape'
import { readinessOf } from '~core/mould/readiness'
import { readyWords } from '~core/mould/words'
import { cautionsFor } from '~core/plan/cautions'
import { counting, timeOfDay, windowOf } from '~/ui/when'
import CautionLines from '~/ui/CautionLines.vue'
import HoldButton from '~/ui/HoldButton.vue'
import QuantityField from '~/ui/QuantityField.vue'
import TimeTape from '~/ui/TimeTape.vue'
import { useLive } from '~/sync/live'
import { useRecords } from '~/sync/records'
import TermText from '~/ui/TermText.vue'
import BenchDrawing from './BenchDrawing.vue'
import BenchGround from './BenchGround.vue'
import { STAGE_GLYPHS } from '~/ui/act-glyphs'
import HouseGlyph from '~/ui/HouseGlyph.vue'
import { useLook } from '~/ui/look'
import BenchSetUp from './BenchSetUp.vue'
import { openedLater } from '~/ui/controls'
import CoatPanel from './CoatPanel.vue'
import AddedPanel from './AddedPanel.vue'
import BenchLate from './BenchLate.vue'
import JugPanel from './JugPanel.vue'
import FillPanel from './FillPanel.vue'
import RescuePanel from './RescuePanel.vue'
import SoftPanel from './SoftPanel.vue'
import ScalePanel from './ScalePanel.vue'
import WeighPanel from './WeighPanel.vue'
import { useRoom, useThermometer } from '~/sync/climate'
import { useScale } from '~/features/bench/scale'
import { useWeighing } from './useWeighing'
import { useBenchKeys } from './keys'
import { useListening } from './listening'
import { useNewerModel } from './newer-model'
import { useProbe } from './useProbe'
import { TELLINGS, useTelling } from './telling'
import { useBench } from './useBench'

const bench = useBench()
const {
  store,
  clock,
  session,
  run,
  state,
  step,
  nextStep,
  batch,
  milestones,
  cues,
  wetFor,
  stirredFor,
  inStep,
  place,
  expected,
  openWindow,
  offered,
  given,
  over,
  late,
  next,
  back,
  sign,
  leftover,
  temperature,
  forecastWords,
  batchTabs,
  beside,
  coat,
  inHand,
  take,
  SIGNS,
} = bench
const BenchSpread = openedLater(() => import('./BenchSpread.vue'), 'open')
const worded = computed(() => stepWords(step.value))
const live = useLive(), records = useRecords(), { hand } = useLook()
const { newer, heard } = useNewerModel(computed(() => store.id), run)
const bright = useLocalStorage('bench-bright', false)
const keysOn = useLocalStorage('bench-keys', true)
const { telling, muted, lead, words, flashing } = useTelling(() => cues.value, () => clock.now)
// On the root element, so that every token of the page turns with it.
useHead({ htmlAttrs: { class: () => bright.value ? 'bench bright' : 'bench' } })
const devices = [useScale(), useThermometer(), useRoom()], thermometer = useThermometer()
for (const d of devices) d.listen()
onBeforeUnmount(() => devices.forEach(d => d.stop()))
const { probe } = useProbe()
const settingUp = ref(false)
const weighing = useWeighing(() => step.value.batch, () => step.value.stage === 'weigh')
const { press: weighingPress, applies: scaleApplies, part: weighingPart, ready: scaleReady } = weighing
const root = ref<HTMLElement>()
const { isSupported: canFill, isFullscreen, toggle: toggleFull } = useFullscreen(root)
const { isSupported: canWake, request, release } = useWakeLock()
const locked = ref(false)
const said = ref('')

onMounted(() => void request('screen').catch(() => {}))
onBeforeUnmount(() => void release().catch(() => {}))

/**
 * A press by hand gives the keys back to the bench, so that the pedal means “next” again; a control reached by Tab
 * keeps them.
 */
function giveKeysBack(event: MouseEvent) {
  if (event.detail > 0 && document.activeElement instanceof HTMLButtonElement) document.activeElement.blur()
}
/** What becomes of what is told, in a word or two. */
const sendingWords = computed(() => {
  if (session.isGuest) return 'on this device'
  if (live.signedOut || records.halted === 'signed-out') return 'signed out, kept here'
  return live.connected && !records.halted
    ? 'sending'
    : `last heard ${timeOfDay(clock.at(live.heardAt))}, kept here`
})
/** Just after the step, or what the press would do, changed, a press is taken as the one that changed it. */
const settled = ref(true)
let settling: ReturnType<typeof setTimeout> | undefined
watch(() => `${inHand.value} ${step.value.stage}`, () => {
  words.value = '' // a cue for the step before is over
  settle(true)
}, { flush: 'sync' })
watch(() => `${weighingPart.value} ${scaleReady.value}`, () => {
  if (settled.value) settle(false)
}, { flush: 'sync' })
function settle(began: boolean) {
  settled.value = false
  clearTimeout(settling)
  settling = setTimeout(() => {
    settled.value = true
  }, unmeantFor(began, expected.value))
}
onBeforeUnmount(() => clearTimeout(settling))
const wrong = ref(false), unfolded = ref(false)
/** What the batch in hand goes into; of several coats, all of them. */
const castsHere = computed(() =>
  state.value.casts.filter(c => run.value.plan.coats || c.cast.batch === step.value.batch))
const ahead = computed(() => wetFor.value === undefined ? undefined : cues.value.find(c => c.at > clock.now))
const tape = computed(() =>
  tapeOf(milestones.value, run.value.plan.school, pouringEnds(store.runFor(step.value.batch), step.value.batch)))
/** What is due beside the acts that stand on the tape. */
const marks = computed(() => {
  const wet = batch.value.wetAt
  if (wet === undefined) return []
  return cues.value.filter(c => c.batch === step.value.batch && MARKED.has(c.kind))
    .map(c => ({ at: (c.at - wet) / 1000, words: cueShort(c) }))
})
const testing = ref(false)
/** A mix that is stirred and still runs, of a bag that is known here; with anything added it would tell of that. */
const mayTest = computed(() => {
  const { world, plan } = run.value, wet = wetFor.value ?? 0
  return world.bag !== undefined && plan.additions.length === 0 && session.mayWrite
    && step.value.stage === 'fill' && wet > 60 && wet < 900
})
const isLast = computed(() => nextStep.value === undefined)
async function forward() {
  if (!settled.value) return
  if (over.value || isLast.value) {
    await navigateTo('/shelf')
    return
  }
  if (await weighing.advance()) return
  await next()
  said.value = `${worded.value.instruction}. ${worded.value.detail}`
}
async function goBack() {
  await back()
  said.value = `Back: ${worded.value.instruction}.`
}
const { possible: canListen, listening, toggle: listen } = useListening((command) => {
  if (over.value || wrong.value) return
  if (command.do === 'next') void forward()
  else if (command.do === 'back') void goBack()
  else if (command.do === 'mute') muted.value = !muted.value
  else if (command.do === 'help') wrong.value = true
  else if (command.do === 'sign') void sign(SIGNS.find(s => s.id === command.sign)!)
})
useBenchKeys(() => keysOn.value && !over.value && !wrong.value, {
  next: () => void forward(), back: () => void goBack(), mute: () => {
    muted.value = !muted.value
  }, sign: (n) => {
    const s = SIGNS[n - 1]
    if (s) void sign(s)
  }, help: () => {
    wrong.value = true
  },
})
const share = computed(() => expected.value ? Math.min(1, inStep.value / expected.value) : 0)
const readings = computed(() => batch.value.temperatures.length)
function read(celsius: number) {
  void temperature(celsius)
  said.value = 'Temperature noted.'
}
const LATE = [0, 1, 2, 5] as const, MARKED = new Set<CueKind>(['late', 'tap', 'table', 'mix', 'stands', 'bond', 'warm'])
const places = computed<readonly { id: LeftoverPlace, word: string }[]>(() => [
  {
    id: 'overflow',
    word: run.value.plan.overflow ? `Into ${run.value.plan.overflow.toLowerCase()}` : 'Into the overflow mould',
  },
  { id: 'bin', word: 'Set, then the bin' },
  { id: 'none', word: 'Nothing was left' },
])
const caution = computed(() =>
  cautionsFor(run.value.plan, run.value.world).filter(c =>
    step.value.stage === 'ready' || step.value.stage === 'weigh' || step.value.stage === 'sift'
      ? c.code !== 'sheet'
      : c.code === 'skin' || c.code === 'drain',
  ),
)
/** Each kind of mould of this pour with its own short list, before anything is wet. */
const readiness = computed(() =>
  step.value.stage !== 'ready'
    ? []
    : [...new Map(run.value.batches.flatMap(b => b.fills.map(f => [f.mould.id, f.mould] as const))).values()].map(
        m => ({ name: m.name, list: readinessOf(m, run.value.plan).map(readyWords) }),
      ),
)
/** Once it is stirred, and as long as the bucket is in hand. */
const readsJug = computed(() =>
  run.value.plan.school === 'powder-first' && ['stir', 'fill', 'clean-up'].includes(step.value.stage))
const showsPowder = computed(() => step.value.stage === 'soak' && run.value.plan.school === 'saturation')
</script>

<template>
  <main ref="root" class="face" @click="giveKeysBack">
    <div v-if="flashing > 0" :key="flashing" class="flash" aria-hidden="true" />
    <header>
      <div class="name">
        <h1>{{ run.plan.name }}</h1>
        <span v-if="batchTabs.length > 0" class="tabs" role="group" aria-label="Buckets of this pour">
          <button
            v-for="t in batchTabs"
            :key="t.b"
            :aria-pressed="t.here"
            :disabled="!t.begun && (!t.mayBegin || !session.mayWrite)"
            @click="take(t.b)">
            {{ t.begun ? t.name : t.mayBegin ? `Begin ${t.name.toLowerCase()}` : t.name
            }}<span v-if="t.begun" class="small"> {{ t.words }}</span>
          </button>
        </span>
        <span v-if="!live.connected || records.unsent > 0" class="kept" role="status"
        >{{ sendingWords }}{{ records.unsent > 0 && !session.isGuest ? ` (${records.unsent})` : '' }}</span
        >
      </div>
      <div class="tools">
        <span class="num clock">{{ timeOfDay(clock.now) }}</span>
        <button class="fold" :aria-expanded="unfolded" aria-label="Sound, light and other switches" @click="unfolded = !unfolded">
          <HouseGlyph id="more" :size="22" />
        </button>
        <span :class="['switches', { unfolded }]">
        <span class="tellings" role="group" aria-label="How cues are told">
          <button v-for="t in TELLINGS" :key="t.id" :aria-pressed="telling === t.id" @click="telling = t.id">
            {{ t.word }}
          </button>
        </span>
        <button :aria-pressed="bright" @click="bright = !bright">Bright</button>
        <button :aria-expanded="settingUp" @click="settingUp = !settingUp">Set up</button>
        <button v-if="canFill" :aria-pressed="isFullscreen" @click="toggleFull">Full screen</button>
        <button @click="locked = true">Lock</button>
        <button :aria-pressed="muted" @click="muted = !muted">{{ muted ? 'Muted' : 'Mute' }}</button>
        <NuxtLink to="/">Leave</NuxtLink>
        </span>
      </div>
    </header>
    <BenchSetUp
      v-if="settingUp"
      v-model:keys="keysOn"
      v-model:lead="lead"
      :can-listen="canListen"
      :listening="listening"
      @listen="listen" />
    <p class="sr-only" role="status">{{ said }}</p>
    <div class="body">
      <div class="left">
        <BenchDrawing
          v-if="!over"
          class="drawn"
          v-bind="{ run, batch: step.batch, stage: step.stage, share, wetFor, milestones }"
          :casts="castsHere" />
      <div class="chart">
        <p v-if="newer" class="shift newer" role="status">
          Planned with an earlier model of setting. What the plan says stays; what is still to come is foretold with the
          one of today. <button @click="heard">All right</button>
        </p>
        <p v-if="forecastWords.shift" class="shift" role="status">
          <BenchGround ground="gloss" :run="run" :batch="batch">It sets {{ forecastWords.shift }}.</BenchGround>
        </p>
        <p v-if="forecastWords.torn" class="shift torn" role="status">
          {{ forecastWords.torn }} does not fit with the other signs: the times are less sure until one is taken back or
          more is seen.
        </p>
        <p v-if="thermometer.wanted && wetFor !== undefined" class="probe">
          <template v-if="thermometer.here">
            <span class="num">{{ formatTemperature(thermometer.celsius!, session.units) }}</span> in the cast<template
              v-if="probe.peak && probe.peaked"
            >; warmest <span class="num">{{ formatTemperature(probe.peak.celsius, session.units) }}</span></template
            >
          </template>
          <template v-else>The thermometer is not heard.</template>
        </p>
        <p v-if="!canWake" class="small soft">
          This browser cannot keep the screen awake here; set it so in the device.
        </p>
      </div>
      </div>
      <div class="work">
        <p class="stage">
          <HouseGlyph :id="STAGE_GLYPHS[step.stage]" :size="22" class="sign" />
          <template v-if="step.stage !== 'clean-up'">{{ place.number }} of {{ place.of }} · </template
          >{{ stepName(step) }}
        </p>
        <h2>{{ over ? 'This pour has left the bench' : worded.instruction }}</h2>
        <p class="detail"><TermText :text="over ? 'Its casts are on the shelf.' : worded.detail" /></p>
        <p v-if="words" class="cue" role="alert">{{ words }}</p>
        <div v-if="expected !== undefined" class="elapsed">
          <p>
            <span class="num now">{{ counting(inStep) }}</span>{{ ' ' }}
            <span class="soft">of about {{ formatDuration(Math.round(expected / 5) * 5) }}</span>
          </p>
          <div class="track" aria-hidden="true"><span :style="{ width: `${share * 100}%` }" /></div>
        </div>
        <CoatPanel v-if="coat" :coat="coat" />
        <SoftPanel v-if="batch.filledAt !== undefined && !coat" :batch="step.batch" />
        <p v-if="beside" class="beside" role="note">
          <template v-if="beside.hands === 1">While it soaks: sift bucket {{ inHand + 2 }}.</template>
          <template v-else
          >Two of you: the second begins bucket {{ inHand + 2 }}
            {{ beside.at > clock.now ? `at ${timeOfDay(beside.at)}` : 'now' }}.</template
          >
          <template v-if="beside.saves > 45">
            Saves about {{ formatDuration(Math.round(beside.saves / 60) * 60) }}.</template
          >
        </p>
        <ScalePanel v-if="scaleApplies" :weighing="weighing" />
        <WeighPanel
          v-if="step.stage === 'weigh' || showsPowder"
          :key="`${step.batch}-${step.stage}`"
          :batch="step.batch"
          :powder-only="showsPowder"
          :by-scale="scaleReady && weighingPart !== undefined"
        />
        <BenchLate v-if="step.batch === 0 && (step.stage === 'ready' || step.stage === 'weigh')" :run="run" />
        <AddedPanel :batch="step.batch" :stage="step.stage" />
        <JugPanel v-if="readsJug" :key="`jug-${step.batch}`" :batch="step.batch" />
        <FillPanel v-if="step.stage === 'fill'" :batch="step.batch" />
        <div v-if="step.stage === 'clean-up'" class="leftover" role="group" aria-label="Where the leftover went">
          <button
            v-for="p in places"
            :key="p.id"
            :aria-pressed="batch.leftover === p.id"
            :disabled="!session.mayWrite"
            @click="leftover(p.id)">
            {{ p.word }}
          </button>
        </div>
        <p v-if="(step.stage === 'set' || step.stage === 'clean-up') && openWindow" class="open">
          <BenchGround ground="open" :run="run" :batch="batch"
          >Open the moulds <span class="num">{{ windowOf(openWindow.from, openWindow.to, clock.now) }}</span></BenchGround
          ><template
            v-if="openWindow.from > clock.now"
          >, in <span class="num">{{ formatDuration((openWindow.from - clock.now) / 1000) }}</span></template
          >
        </p>
        <div v-for="r in readiness" :key="r.name" class="ready-list">
          <h3>{{ r.name }}</h3>
          <ol><li v-for="line in r.list" :key="line">{{ line }}</li></ol>
        </div>
        <CautionLines
          v-if="['ready', 'weigh', 'sift', 'clean-up', 'set'].includes(step.stage)"
          :cautions="caution"
          :units="session.units" />
        <div v-if="!over" class="strip">
          <p v-if="ahead" class="next">
            {{ cueAhead(ahead) }} in <span class="num">{{ formatDuration((ahead.at - clock.now) / 1000) }}</span>
          </p>
          <TimeTape :tape="tape" :now="wetFor" :marks="marks" />
        </div>
        <p v-if="wetFor !== undefined" class="both">
          <span
          ><span class="num">{{ counting(wetFor) }}</span> since powder met water</span
          >
          <span v-if="stirredFor !== undefined"
          >since stirring began <span class="num">{{ counting(stirredFor) }}</span></span
          >
        </p>
      </div>
    </div>
    <section v-if="!over" class="signs" aria-label="I can see">
      <div class="signs-head">
        <span>I can see</span>
        <button v-if="mayTest" class="flow" title="Half a minute with a ring on wet glass" @click="testing = true">
          How does it flow?
        </button>
        <div
          v-if="wetFor !== undefined && ['fill', 'clean-up', 'set'].includes(step.stage) && session.mayWrite"
          class="reading">
          <QuantityField
            :key="readings"
            kind="temperature"
            label="A thermometer in the cast reads"
            :check="v => (v > -20 && v < 110 ? undefined : 'A mix does not get that warm or cold.')"
            @settled="read($event)" />
        </div>
        <span class="late" role="group" aria-label="When the next entry happened">
          <button v-for="m in LATE" :key="m" :aria-pressed="late === m" @click="late = m">
            {{ m === 0 ? 'just now' : `${m} min ago` }}
          </button>
        </span>
      </div>
      <div class="sign-row">
        <button
          v-for="(s, i) in SIGNS"
          :key="s.id"
          :disabled="!offered.has(s.id) || !session.mayWrite"
          :class="{ given: given.has(s.id) }"
          :title="s.meaning"
          @click="sign(s)"
        >
          <span class="num key" aria-hidden="true">{{ i + 1 }}</span>{{ s.words }}{{ given.has(s.id) ? ' ✓' : '' }}
        </button>
      </div>
    </section>
    <footer :class="{ 'left-hand': hand === 'left' }">
      <button class="go" :data-settled="settled" :disabled="!session.mayWrite && !over" @click="forward">
        {{ over ? 'To the shelf' : weighingPress ?? worded.done }}
      </button>
      <button v-if="!over" class="side wrong" @click="wrong = true">
        <HouseGlyph id="wrong" :size="24" /> Something is wrong <span class="num" aria-hidden="true">0</span>
      </button>
      <HoldButton
        class="side"
        :disabled="!session.mayWrite"
        aria-label="Back: hold to take back the last entry"
        @held="goBack">
        Back <span class="small">hold</span>
      </HoldButton>
    </footer>
    <RescuePanel v-model:open="wrong" :batch="step.batch" />
    <BenchSpread :open="testing" :run="run" :batch="batch" :wet-for="wetFor ?? 0" @closed="testing = false" />
    <div v-if="locked" class="lock">
      <p>Locked against drips. Keys and pedal still work.</p>
      <HoldButton @held="locked = false">Hold to unlock</HoldButton>
    </div>
    <p v-if="store.trouble" class="sr-only" role="status">{{ store.trouble }} {{ state.status }}</p>
  </main>
</template>

<style scoped src="./bench.css"></style>
