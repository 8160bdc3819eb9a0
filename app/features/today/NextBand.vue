<script setup lang="ts">
import { format } from 'date-fns'
import type { Stage } from '~core/plan/stages'
import type { PourSummary } from '~core/pour/projection'
import { formatDuration } from '~core/units/format'
import type { CastGroup } from '~/features/shelf/groups'
import { needWords } from '~/features/shelf/groups'
import { CAST_GLYPHS, STAGE_GLYPHS } from '~/ui/act-glyphs'
import GroundButton from '~/ui/GroundButton.vue'
import { pourFrom } from '~/ui/grounds'
import HouseGlyph from '~/ui/HouseGlyph.vue'
import { timeOfDay } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { useSession } from '~/sync/session'
import { nextMoment } from './next'
import type { Next } from './picture'

/** The loudest thing on the page: what to do next, with the time it has; beside it what comes then, and the clock. */
const { next, then } = defineProps<{
  next: Next
  then: readonly { readonly key: string, readonly at: number, readonly words: string, readonly of: PourSummary }[]
}>()
const clock = useClock(), session = useSession()
function castWords(group: CastGroup, now: number) {
  const { first, label, need } = group, { what, when } = needWords(group, now)
  const opening = need === 'open-now' || need === 'open-late'
  return {
    act: opening ? `Open ${label}` : `${what}: ${label}`, sub: when,
    until: need === 'open-now' ? (first.openTo! - now) / 1000 : undefined,
  }
}
const told = computed(() => {
  const now = clock.beat
  if (next.what === 'pour') {
    const { summary } = next.pour, moment = nextMoment(summary, now)
    return {
      eyebrow: 'Next, at the table', glyph: STAGE_GLYPHS[summary.step.stage as Stage], act: summary.step.instruction, to: `/bench/${next.pour.id}`,
      sub: `${summary.name}. ${summary.powder}`, left: moment?.in, until: moment?.words,
    }
  }
  if (next.what === 'cast') {
    const { act, until, sub } = castWords(next.group, now)
    return {
      eyebrow: 'Next', glyph: CAST_GLYPHS[next.group.need], act, to: '/shelf', sub,
      left: until !== undefined && until > 0 ? formatDuration(until, until > 600 ? 'minute' : 'second') : undefined,
      until: until !== undefined && until > 0 ? 'while it is easiest' : undefined,
    }
  }
  return { eyebrow: 'Nothing is wet', glyph: 'bench' as const, act: 'Mix something', to: '/new', sub: 'Start with what you want to fill.' }
})
const late = computed(() => next.what === 'cast' && next.group.need === 'open-late')
</script>

<template>
  <div class="band">
    <NuxtLink :to="told.to" :class="['next', { quiet: next.what === 'nothing' }]">
      <span class="eyebrow">{{ told.eyebrow }}</span>
      <span class="act"><HouseGlyph :id="told.glyph" :size="40" class="sign" />{{ told.act }}</span>
      <span :class="['sub', { late }]">{{ told.sub }}</span>
      <span v-if="told.left" class="left"><span class="num">{{ told.left }}</span>{{ ' ' }}<small>{{ told.until }}</small></span>
    </NuxtLink>
    <section v-if="then.length > 0" aria-labelledby="then-head" class="then">
      <h2 id="then-head">Then</h2>
      <ol>
        <li v-for="t in then" :key="t.key">
          <span class="num">{{ timeOfDay(t.at) }}</span>
          <GroundButton ground="open" :from="() => pourFrom(t.of, session.units)">{{ t.words }}</GroundButton>
        </li>
      </ol>
    </section>
    <div class="clock">
      <p class="num time">{{ timeOfDay(clock.beat) }}</p>
      <h1>{{ format(clock.beat, 'EEEE d MMMM') }}</h1>
      <p class="small soft">{{ session.facts?.workshop?.name }}</p>
      <slot />
    </div>
  </div>
</template>

<style scoped>
.band { display: grid; grid-template-columns: minmax(0, 1.7fr) minmax(0, 1fr) auto; gap: 28px; align-items: start; }
.next {
  display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 2px 18px; align-items: end; min-height: 138px;
  padding: 14px 22px; border: 3px solid var(--now-ink); border-radius: 16px; background: var(--now); color: var(--now-ink);
  text-decoration: none;
}
.next.quiet { background: var(--sheet); border-color: var(--ink); color: var(--ink); }
.eyebrow { color: inherit; grid-column: 1 / -1; font-size: 1rem; }
.act {
  font-weight: 800; font-stretch: 112%; font-size: clamp(1.7rem, 3.1vw, 2.9rem); line-height: 1.05; letter-spacing: -0.01em;
  overflow-wrap: anywhere;
}
.sign { vertical-align: -0.14em; width: 0.95em; height: 0.95em; margin-right: 0.28em; }
.sub { font-size: 1.05rem; font-weight: 560; align-self: end; }
.left { grid-column: 2; grid-row: 2 / span 2; align-self: center; text-align: right; display: grid; }
.left .num { font-size: clamp(1.5rem, 2.4vw, 2.4rem); font-weight: 700; }
.left small { font-size: 0.95rem; font-weight: 560; }
.then h2 { padding-bottom: 4px; }
.then li { padding: 3px 0; display: grid; grid-template-columns: 64px 1fr; font-weight: 560; }
.then .num { font-weight: 700; }
.clock { text-align: right; display: grid; gap: 2px; justify-items: end; }
.clock .time { font-size: 1.9rem; font-weight: 700; line-height: 1; }
.clock h1 { font-size: 1rem; font-weight: 600; font-stretch: 100%; }
@media (max-width: 980px) {
  .band { grid-template-columns: minmax(0, 1fr) auto; gap: 14px; }
  .next { grid-column: 1 / -1; order: 2; min-height: 112px; }
  .then { order: 3; grid-column: 1 / -1; }
  .clock { grid-column: 1 / -1; display: flex; flex-wrap: wrap; text-align: left; gap: 6px 12px; align-items: baseline; }
  .clock h1 { flex: 1 1 auto; }
  .clock :slotted(*) { white-space: nowrap; }
  .clock > p:nth-of-type(2) { display: none; }
}
@media (max-width: 520px) {
  .next { grid-template-columns: minmax(0, 1fr); padding: 12px 16px; }
  .left { grid-column: 1; grid-row: auto; text-align: left; }
}
</style>
