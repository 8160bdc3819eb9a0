<script setup lang="ts">
import { endUse } from '~core/gypsum/end-use'
import { adviceFor, byNeed, groupCasts } from '~/features/shelf/groups'
import NeedTime from '~/features/shelf/NeedTime.vue'
import NeedWords from '~/features/shelf/NeedWords.vue'
import StillThere from '~/features/bench/StillThere.vue'
import LiveCard from '~/features/today/LiveCard.vue'
import { nextMoment } from '~/features/today/next'
import PlainButton from '~/ui/PlainButton.vue'
import { dayAndTime } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { usePours } from '~/sync/pours'
import { usePlans } from '~/sync/plans'
import { useSession } from '~/sync/session'
import { newId } from '~/sync/api'
import type { SavedPlan } from '~contract/plan'
import NextBand from '~/features/today/NextBand.vue'
import ShelfPicture from '~/features/today/ShelfPicture.vue'
import TablePicture from '~/features/today/TablePicture.vue'
import { nextThing, onShelf, onTable } from '~/features/today/picture'
import { useLibrary } from '~/sync/library'
import { useStorage } from '@vueuse/core'

definePageMeta({ plain: true })
/** With what works out its windows: the page is there before it. */
const JobList = defineAsyncComponent(() => import('~/features/job/JobList.vue'))
const pours = usePours(), clock = useClock(), session = useSession()
const MOST_PLANS = 4
const kept = usePlans(), plans = computed(() => kept.saved.slice(0, MOST_PLANS))
const library = useLibrary()
await Promise.all([pours.load(), library.load().catch(() => {}), kept.load()])

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
/** As a list for who would rather read, for print, and for who hears it read out. */
const listed = useStorage('today-as-list', false)
const mouldOf = (id: string) => library.items.mould.find(m => m.id === id)
const table = computed(() => onTable(live.value, pours.casts))
const standing = computed(() => onShelf(groups.value))
const opening = computed(() => due.value.filter(g => g.need === 'open-late' || g.need === 'open-now'))
const next = computed(() => nextThing(live.value, due.value))
/** Moments ahead that are told by the hour: what can be opened, soonest first. */
const MOST_THEN = 4
const then = computed(() => [
  ...live.value.flatMap(({ id, summary }) => {
    const { name, wetAt, glyph } = summary
    const open = glyph.find(m => m.id === 'open')
    return open && wetAt !== undefined && open.actual === undefined
      ? [{ key: id, at: wetAt + 1000 * open.low, words: `Open ${name}`, of: summary }]
      : []
  }),
].filter(t => t.at > clock.beat).sort((a, b) => a.at - b.at).slice(0, MOST_THEN))
const more = computed(() =>
  groups.value.filter(g => g.need === 'setting' || g.need === 'drying').length - coming.value.length,
)
</script>

<template>
  <div class="today">
    <NextBand :next="next" :then="then" class="top">
      <span class="acts">
        <PlainButton v-if="session.mayWrite" label="New pour" small @click="navigateTo('/new')" />
        <PlainButton v-if="session.mayWrite" label="Plan a pour" small @click="navigateTo(`/plan/${newId()}`)" />
        <PlainButton :label="listed ? 'As a picture' : 'As a list'" small @click="listed = !listed" />
      </span>
    </NextBand>
    <JobList v-if="library.items.job.some(j => !j.body.own)" across class="under-way" />
    <p v-if="pours.trouble" class="problem" role="alert">{{ pours.trouble }}</p>
    <StillThere :pours="pours.forgotten.slice(0, MOST_FORGOTTEN)" />
    <NuxtLink v-if="pours.forgotten.length > MOST_FORGOTTEN" to="/bench" class="small">
      and {{ pours.forgotten.length - MOST_FORGOTTEN }} more on the bench
    </NuxtLink>
    <div v-if="!listed" class="picture">
      <ShelfPicture :groups="standing" :mould-of="mouldOf" />
      <TablePicture :table="table" :open="opening" :plan="plans[0]" :mould-of="mouldOf" />
      <p v-if="live.length > MOST_LIVE" class="small">
        <NuxtLink to="/bench">and {{ live.length - MOST_LIVE }} more on the bench</NuxtLink>
      </p>
    </div>
    <section v-if="listed && live.length > 0" aria-labelledby="live-head">
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
    <div :class="['two', { printed: !listed }]">
      <section aria-labelledby="due-head">
        <div class="group-head">
          <h2 id="due-head">To do</h2>
          <span v-if="due.length === 0" class="small soft">nothing right now</span>
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
            ></NuxtLink
            ><br /><NeedTime :group="g" :class="['small', g.need === 'open-late' ? 'late' : 'soft']" />
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
            <span>{{ g.label }}<br><NeedWords :group="g" part="when" class="small soft" /></span>
            <NeedTime :group="g" part="what" :class="['strong', { num: g.need === 'setting' }]" />
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
.under-way { margin: 18px 0 0; }
.top {
  background: var(--band);
  margin: -22px -24px 0;
  padding: 20px 24px;
}
.acts { display: flex; gap: 6px; margin-top: 6px; }
.picture { display: grid; gap: 22px; padding-top: 14px; }
@media (max-width: 720px) {
  .top { margin: -16px -16px 0; padding: 14px 16px; }
}
@media screen {
  .two.printed { display: none; }
}
@media print {
  .picture, .acts { display: none; }
  .two.printed { display: grid; }
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
