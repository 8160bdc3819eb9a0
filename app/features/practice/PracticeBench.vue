<script setup lang="ts">
import { powderClass, powderInSentence } from '~core/gypsum/powders'
import type { Log } from '~core/practice/types'
import type { Bowl } from '~core/practice/scenarios'
import { FLOW_WORDS, LUMP_WORDS, SENSE_WORDS, SURFACE_WORDS, WARMTH_WORDS } from '~core/practice/words'
import { formatMass, formatTemperature } from '~core/units/format'
import ActBar from './ActBar.vue'
import BucketView from './BucketView.vue'
import DebriefView from './DebriefView.vue'
import type { Told } from '~/workers/practice.worker'
import { PACES, usePractising } from './practising'
import { whereIn, type Where } from './where'
import { useSession } from '~/sync/session'
import PlainButton from '~/ui/PlainButton.vue'
import { counting } from '~/ui/when'

/** One bucket to practise on: seen, felt and worked at as at the bench; then what became of it, and why. */
const { bowl, name, job, seed, held = false, keepAs, log } = defineProps<{
  bowl: Bowl
  name: string
  job: string
  seed?: number
  held?: boolean
  keepAs?: string
  log?: Log
}>()
const emit = defineEmits<{ at: [where: Where], told: [told: Told, minutes: number] }>()
const session = useSession()
const of = usePractising(bowl, {
  ...seed !== undefined && { seed }, held: () => held, ...keepAs && { keepAs }, ...log && { log },
})
const bar = useTemplateRef('bar')
watch(() => whereIn(of), where => emit('at', where), { immediate: true })
watch(of.told, (became) => {
  if (became) emit('told', became, of.run.value.now / 60)
})
const { plan, powder, moulds } = of.setup
const told = computed(() => {
  const { surface, flow, lumps, warmth, crusted, crumbs, streaks, drips } = of.felt.value
  if (of.bucket.value.water === 0) return [SENSE_WORDS.empty, ...crusted ? [SENSE_WORDS.crusted] : []]
  const stirred = [flow && FLOW_WORDS[flow], lumps && LUMP_WORDS[lumps], streaks && SENSE_WORDS.streaks]
  return [
    surface && SURFACE_WORDS[surface], ...of.poured.value ? [] : stirred, !of.poured.value && WARMTH_WORDS[warmth],
    crusted && SENSE_WORDS.crusted, crumbs && !of.isStirred.value && SENSE_WORDS.crumbs, drips.length > 0 && SENSE_WORDS.drips,
  ].filter(line => typeof line === 'string')
})
const MOULD = { waits: 'The mould is not warm yet.', warm: 'The mould is warm to the hand.', cool: 'The mould is cool again.' } as const
const strewAt = (place: { readonly x: number, readonly y: number }) => bar.value?.strewAt(place)
const strewable = computed(() => !of.isStirred.value && of.bucket.value.water > 0)
const pieces = moulds.reduce((n, m) => n + m.count, 0)
</script>

<template>
  <div class="bowl">
    <header>
      <div>
        <p class="eyebrow"><slot name="over"><NuxtLink to="/practice">Practice</NuxtLink></slot></p>
        <h1>{{ name }}</h1>
        <p>{{ job }} {{ formatMass(plan.powder * plan.ratio, session.units) }} of water,
          {{ formatMass(plan.powder, session.units) }} of {{ powderInSentence(powderClass(powder)) }};
          {{ pieces === 1 ? 'one mould' : `${pieces} moulds` }}; {{ formatTemperature(of.setup.room, session.units) }} in the room.
          <template v-if="!keepAs">Nothing here is kept.</template></p>
        <p v-if="held" class="held" role="status">Held by your teacher. It goes on when they say so.</p>
      </div>
      <div class="clock">
        <p class="num" role="timer">{{ counting(of.time.value) }}</p>
        <p class="small">since the first handful</p>
        <div role="group" aria-label="Pace" class="paces">
          <button
            v-for="p in PACES"
            :key="p"
            type="button"
            :aria-pressed="of.pace.value === p"
            @click="of.pace.value = p">{{ p === 0 ? 'hold' : `× ${p}` }}</button>
        </div>
      </div>
    </header>
    <DebriefView
      v-if="of.told.value"
      :alone="keepAs === undefined"
      :mine="log === undefined"
      :told="of.told.value"
      :before="of.before.value"
      :log="of.run.value.log"
      @back="of.goBack"
      @again="of.again" />
    <template v-else>
      <div class="work">
        <BucketView :of="of" :strewable="strewable" @strew="strewAt" />
        <section class="told" aria-labelledby="told-head">
          <h2 id="told-head">What eyes and hands tell</h2>
          <ul aria-live="polite">
            <li v-for="line in told" :key="line">{{ line }}</li>
            <li v-if="of.mould.value">{{ MOULD[of.mould.value] }}</li>
          </ul>
          <PlainButton
            v-if="of.poured.value"
            :label="of.busy.value ? 'Looking at it …' : 'What became of it?'"
            strong
            :disabled="of.busy.value"
            @click="of.finish" />
          <PlainButton label="Begin again" small @click="of.again(true)" />
        </section>
      </div>
      <ActBar ref="bar" :of="of" />
    </template>
  </div>
</template>

<style scoped>
.bowl { min-height: 100dvh; display: grid; grid-template-rows: auto 1fr auto; }
header { background: var(--band); padding: 14px 22px; display: flex; flex-wrap: wrap; justify-content: space-between; gap: 10px 24px; }
header > div:first-child { flex: 1 1 320px; min-width: 0; }
h1 { font-size: clamp(1.6rem, 3vw, 2.3rem); }
.clock { display: grid; justify-items: end; align-content: center; }
.clock .num { font-size: clamp(1.8rem, 4vw, 2.8rem); font-weight: 750; line-height: 1; }
.paces { display: flex; gap: 4px; padding-top: 6px; }
.paces button { border: 1px solid var(--line-strong); background: var(--sheet); color: var(--ink); border-radius: 8px; min-height: 34px; padding: 2px 10px; font: inherit; }
.paces button[aria-pressed='true'] { background: var(--ink); color: var(--ground); }
.work { display: grid; grid-template-columns: minmax(0, 1fr) 300px; gap: 20px; padding: 16px 22px; align-items: center; }
.told { display: grid; gap: 12px; align-content: center; justify-items: start; }
.told ul { list-style: none; margin: 0; padding: 0; display: grid; gap: 8px; font-size: 1.25rem; font-weight: 620; }
.told h2 { font-size: 1.05rem; color: var(--soft); }
.held { font-weight: 700; color: var(--heat); }
.eyebrow a { display: inline-block; min-height: 26px; }
@media (max-width: 900px) { .work { grid-template-columns: minmax(0, 1fr); } .clock { justify-items: start; } }
</style>
