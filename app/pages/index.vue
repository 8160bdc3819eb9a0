<script setup lang="ts">
import Button from 'primevue/button'
import { endUse } from '~core/gypsum/end-use'
import { formatDuration } from '~core/units/format'
import { adviceFor, byNeed, groupCasts, needWords } from '~/features/shelf/groups'
import { nextMoment } from '~/features/today/next'
import { dayAndTime, timeOfDay } from '~/ui/when'
import RippleGlyph from '~/ui/RippleGlyph.vue'
import { useClock } from '~/sync/clock'
import { usePours } from '~/sync/pours'
import { useSession } from '~/sync/session'
import { ask } from '~/sync/api'
import type { SavedPlan } from '~contract/plan'
import { format } from 'date-fns'

const pours = usePours(), clock = useClock(), session = useSession()
const plans = ref<SavedPlan[]>([])
await Promise.all([pours.load(), ask('GET plans').then((list) => {
  plans.value = list.slice(0, 4)
}).catch(() => {})])

const groups = computed(() => groupCasts(pours.needs.filter(r => r.need !== 'none')).sort(byNeed))
const halfHour = computed(() => Math.floor(clock.beat / 1_800_000) * 1_800_000)
const due = computed(() =>
  groups.value.filter(g =>
    ['open-late', 'open-now', 'judge', 'ready-now'].includes(g.need) || adviceFor(g, halfHour.value) !== undefined,
  ),
)
const coming = computed(() => groups.value.filter(g => g.need === 'setting' || g.need === 'drying').slice(0, 5))
function castCount(p: SavedPlan): string {
  const n = p.plan.fills.reduce((sum, f) => sum + f.count, 0)
  return n === 1 ? '1 cast' : `${n} casts`
}
const live = computed(() => pours.live.filter(p => p.summary.status !== 'setting' || nextMoment(p.summary, clock.beat)))
const more = computed(() =>
  groups.value.filter(g => g.need === 'setting' || g.need === 'drying').length - coming.value.length,
)
</script>

<template>
  <div class="today">
    <header>
      <div>
        <h1>{{ format(clock.beat, 'EEEE d MMMM') }}</h1>
        <p class="soft">{{ session.facts?.workshop?.name }}, <span class="num">{{ timeOfDay(clock.beat) }}</span></p>
      </div>
      <Button v-if="session.mayWrite" label="Plan a pour" size="large" @click="navigateTo('/plan')" />
    </header>
    <p v-if="pours.trouble" class="problem" role="alert">{{ pours.trouble }}</p>
    <section v-if="live.length > 0" aria-labelledby="live-head">
      <div class="group-head"><h2 id="live-head">Now</h2></div>
      <ul class="live">
        <li v-for="p in live" :key="p.id" class="sheet">
          <RippleGlyph
            :marks="p.summary.glyph"
            :now="p.summary.wetAt ? (clock.beat - p.summary.wetAt) / 1000 : undefined"
            :size="86" />
          <div class="what">
            <NuxtLink :to="`/bench/${p.id}`" class="row-link"><h3>{{ p.summary.name }}</h3></NuxtLink>
            <p class="small soft">
              {{ p.summary.powder
              }}{{
                p.summary.wetAt ? `, wet ${formatDuration((clock.beat - p.summary.wetAt) / 1000, 'minute')} ago` : ''
              }}
            </p>
            <p class="next">
              <template v-if="nextMoment(p.summary, clock.beat)">
                <span class="num strong">{{ nextMoment(p.summary, clock.beat)!.in }}</span>
                {{ nextMoment(p.summary, clock.beat)!.words }}
              </template>
              <template v-else>{{ p.summary.step.instruction }}</template>
            </p>
          </div>
          <Button
            label="Bench"
            severity="secondary"
            :aria-label="`Open ${p.summary.name} on the bench`"
            @click="navigateTo(`/bench/${p.id}`)" />
        </li>
      </ul>
    </section>
    <div class="two">
      <section aria-labelledby="due-head">
        <div class="group-head">
          <h2 id="due-head">Needs a hand</h2>
          <span class="small soft">{{ due.length === 0 ? 'nothing just now' : '' }}</span>
        </div>
        <ul class="ruled">
          <li v-for="g in due" :key="g.key" class="line">
            <NuxtLink to="/shelf" class="row-link"
            ><span class="strong">{{ adviceFor(g, halfHour) ?? needWords(g, clock.beat).what }}: {{ g.label }}</span
            ><br /><span :class="['small', g.need === 'open-late' ? 'late' : 'soft']">{{
              needWords(g, clock.beat).when
            }}</span></NuxtLink
            >
          </li>
        </ul>
        <div class="group-head">
          <h2>Coming</h2><span
            v-if="more > 0"
            class="small soft"
          >and {{ more }} more on the shelf</span>
        </div>
        <ul class="ruled">
          <li v-for="g in coming" :key="g.key" class="line split">
            <span>{{ g.label }}<br><span class="small soft">{{ needWords(g, clock.beat).when }}</span></span>
            <span :class="['strong', { num: g.need === 'setting' }]">{{ needWords(g, clock.beat).what }}</span>
          </li>
        </ul>
      </section>
      <section aria-labelledby="planned-head">
        <div class="group-head"><h2 id="planned-head">Planned</h2></div>
        <ul v-if="plans.length > 0" class="ruled">
          <li v-for="p in plans" :key="p.id" class="line">
            <NuxtLink :to="`/plan/${p.id}`" class="row-link"
            ><span class="strong">{{ p.plan.name || 'Plan without a name' }}</span
            ><br /><span class="small soft"
            >{{ castCount(p) }}, {{ endUse(p.plan.endUse).name.toLowerCase() }}, changed
              {{ dayAndTime(p.updatedAt, Date.now()) }}</span
            ></NuxtLink
            >
          </li>
        </ul>
        <p v-else class="soft line">No plans yet. Start with what you want to fill; the rest is worked out.</p>
      </section>
    </div>
  </div>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 16px;
}
.live {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(390px, 1fr));
  gap: 12px;
  padding-top: 12px;
}
.live li {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 18px;
  align-items: center;
  padding: 16px 18px;
}
.next {
  margin-top: 6px;
  font-size: 1.12rem;
}
.next .num {
  font-size: 1.15rem;
  color: var(--action);
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr);
  gap: 36px;
}
.line {
  padding: 10px 0;
}
.split {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  text-align: left;
}
.split > :last-child {
  text-align: right;
}
.late {
  color: var(--warn);
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 0;
  }
  .live {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
