<script setup lang="ts">
import { endUse } from '~core/gypsum/end-use'
import { adviceFor, byNeed, groupCasts } from '~/features/shelf/groups'
import NeedWords from '~/features/shelf/NeedWords.vue'
import StillThere from '~/features/bench/StillThere.vue'
import LiveCard from '~/features/today/LiveCard.vue'
import { nextMoment } from '~/features/today/next'
import PlainButton from '~/ui/PlainButton.vue'
import { dayAndTime, timeOfDay } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { usePours } from '~/sync/pours'
import { useSession } from '~/sync/session'
import { ask } from '~/sync/api'
import type { SavedPlan } from '~contract/plan'
import { format } from 'date-fns'

definePageMeta({ plain: true })
const pours = usePours(), clock = useClock(), session = useSession()
const plans = ref<SavedPlan[]>([])
await Promise.all([pours.load(), ask('GET plans').then((list) => {
  plans.value = list.slice(0, 4)
}).catch(() => {})])

const groups = computed(() => groupCasts(pours.needs.filter(r => r.need !== 'none')).sort(byNeed))
const due = computed(() =>
  groups.value.filter(g =>
    ['open-late', 'open-now', 'judge', 'ready-now'].includes(g.need) || adviceFor(g, clock.halfHour) !== undefined,
  ),
)
/** As many of each as Today shows; the rest are on the bench and on the shelf. */
const MOST_FORGOTTEN = 2, MOST_LIVE = 6, MOST_DUE = 10, MOST_COMING = 5
const coming = computed(() =>
  groups.value.filter(g => g.need === 'setting' || g.need === 'drying').slice(0, MOST_COMING),
)
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
      <PlainButton
        v-if="session.mayWrite"
        label="Plan a pour"
        strong
        large
        @click="navigateTo('/plan')" />
    </header>
    <p v-if="pours.trouble" class="problem" role="alert">{{ pours.trouble }}</p>
    <section v-if="live.length > 0" aria-labelledby="live-head">
      <div class="group-head">
        <h2 id="live-head">Now</h2>
        <NuxtLink v-if="live.length > MOST_LIVE" to="/bench" class="small">
          and {{ live.length - MOST_LIVE }} more on the bench
        </NuxtLink>
      </div>
      <ul class="live">
        <LiveCard v-for="p in live.slice(0, MOST_LIVE)" :key="p.id" :pour="p" />
      </ul>
    </section>
    <div class="two">
      <section aria-labelledby="due-head">
        <div class="group-head">
          <h2 id="due-head">Needs a hand</h2>
          <span v-if="due.length === 0" class="small soft">nothing just now</span>
          <NuxtLink v-if="due.length > MOST_DUE" to="/shelf" class="small">
            and {{ due.length - MOST_DUE }} more on the shelf
          </NuxtLink>
        </div>
        <ul class="ruled">
          <li v-for="g in due.slice(0, MOST_DUE)" :key="g.key" class="line">
            <NuxtLink to="/shelf" class="row-link"
            ><span class="strong"
            ><template v-if="adviceFor(g, clock.halfHour)">{{ adviceFor(g, clock.halfHour) }}</template
            ><NeedWords v-else :group="g" part="what" />: {{ g.label }}</span
            ><br /><NeedWords
              :group="g"
              part="when"
              :class="['small', g.need === 'open-late' ? 'late' : 'soft']"
            /></NuxtLink>
          </li>
        </ul>
        <StillThere :pours="pours.forgotten.slice(0, MOST_FORGOTTEN)" />
        <NuxtLink v-if="pours.forgotten.length > MOST_FORGOTTEN" to="/bench" class="small">
          and {{ pours.forgotten.length - MOST_FORGOTTEN }} more on the bench
        </NuxtLink>
        <div class="group-head">
          <h2>Coming</h2><span
            v-if="more > 0"
            class="small soft"
          >and {{ more }} more on the shelf</span>
        </div>
        <ul class="ruled">
          <li v-for="g in coming" :key="g.key" class="line split">
            <span>{{ g.label }}<br><NeedWords :group="g" part="when" class="small soft" /></span>
            <NeedWords :group="g" part="what" :class="['strong', { num: g.need === 'setting' }]" />
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
