<script setup lang="ts">
import { WARMTH_WORDS } from '~core/drawing/words'
import { formatVolume } from '~core/units/format'
import type { CastSummary } from '~core/pour/projection'
import type { LibraryItem } from '~contract/library'
import type { SavedPlan } from '~contract/plan'
import type { CastGroup } from '~/features/shelf/groups'
import { needWords } from '~/features/shelf/groups'
import BucketDrawing from '~/ui/BucketDrawing.vue'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import PlainButton from '~/ui/PlainButton.vue'
import { useClock } from '~/sync/clock'
import { useSession } from '~/sync/session'
import { nextMoment } from './next'
import { bucketLook, pourWarmth, type OnTable } from './picture'

/** The table: what is in the bucket, what sets and how warm it is, what can be opened, and what is planned next. */
const { table, open, plan, mouldOf } = defineProps<{
  table: readonly OnTable[]
  open: readonly CastGroup[]
  plan?: SavedPlan
  mouldOf: (id: string) => LibraryItem<'mould'> | undefined
}>()
const MOST = 4, MOST_MOULDS = 3
/** How wide a mould is drawn where so many stand side by side. */
const WIDE = [150, 150, 100, 72]
const clock = useClock(), session = useSession()
const bodies = (casts: readonly CastSummary[]) =>
  casts.slice(0, MOST_MOULDS).flatMap(c => mouldOf(c.mouldId)?.body ?? [])
const pours = computed(() => table.slice(0, MOST).map(({ pour, inBucket, casts }) => {
  const { summary } = pour, moment = nextMoment(summary, clock.beat), warmth = pourWarmth(summary, clock.beat)
  return {
    id: pour.id, name: summary.name, inBucket, bucket: summary.bucket, look: bucketLook(summary, clock.beat),
    warmth, bodies: bodies(casts), more: Math.max(0, casts.length - MOST_MOULDS),
    head: inBucket ? 'In the bucket' : 'Setting',
    wet: [
      summary.wetAt === undefined ? 'not wet yet' : `wet ${Math.floor((clock.beat - summary.wetAt) / 60_000)} min`,
      ...inBucket ? [] : [WARMTH_WORDS[warmth]],
    ].join(', '),
    next: moment ? `${moment.words.replace(/^until /, '')} in ${moment.in}` : summary.step.instruction,
  }
}))
const planned = computed(() => {
  const fills = plan?.plan.fills.flatMap(f => mouldOf(f.mould) ? [{ body: mouldOf(f.mould)!.body, count: f.count }] : [])
  return fills?.length ? fills.slice(0, MOST_MOULDS) : undefined
})
const room = computed(() => Math.max(1, MOST - pours.value.length - (planned.value ? 1 : 0)))
const unseen = computed(() => open.length - opening.value.length)
const opening = computed(() => open.slice(0, room.value).map(g => ({
  ...g, bodies: bodies(g.casts), more: Math.max(0, g.casts.length - MOST_MOULDS), words: needWords(g, clock.beat),
})))
const bucketSays = (b: NonNullable<(typeof pours.value)[number]['bucket']>, look: { sifted: number, mixed: boolean }) => {
  const mix = formatVolume(b.mix, session.units)
  if (look.mixed) return `A bucket with ${mix} of mix`
  return look.sifted === 0
    ? `A bucket for ${formatVolume(b.water, session.units)} of water`
    : `A bucket with ${Math.round(100 * look.sifted)} % of the powder in`
}
</script>

<template>
  <section aria-label="On the table" class="table">
    <ul>
      <li v-for="p in pours" :key="p.id">
        <h3>{{ p.head }} <span class="small soft">{{ p.wet }}</span></h3>
        <span class="things">
          <BucketDrawing
            v-if="p.inBucket && p.bucket"
            v-bind="{ ...p.bucket, ...p.look }"
            :width="170"
            :height="132"
            :label="bucketSays(p.bucket, p.look)" />
          <template v-else>
            <MouldDrawing
              v-for="(m, i) in p.bodies" :key="i" :mould="m" view="cut" :width="WIDE[p.bodies.length]!" :height="110" :filled="p.inBucket ? 0 : 1"
              :warmth="p.warmth" />
            <span v-if="p.more > 0" class="num more">+{{ p.more }}</span>
          </template>
        </span>
        <div class="below">
          <NuxtLink :to="`/bench/${p.id}`" class="name"><h2>{{ p.name }}</h2></NuxtLink>
          <p class="small">{{ p.next }}</p>
          <PlainButton
            label="To the bench" :aria-label="`Open ${p.name} on the bench`" @click="navigateTo(`/bench/${p.id}`)" />
        </div>
      </li>
      <li v-for="g in opening" :key="g.key">
        <h3>{{ g.words.what }} <span :class="['small', g.need === 'open-late' ? 'late' : 'soft']">{{ g.words.when }}</span></h3>
        <span class="things">
          <MouldDrawing
            v-for="(m, i) in g.bodies" :key="i" :mould="m" view="cut" :width="WIDE[g.bodies.length]!" :height="110" :filled="1"
            :warmth="8" />
          <span v-if="g.more > 0" class="num more">+{{ g.more }}</span>
        </span>
        <div class="below">
          <h2>{{ g.label }}</h2>
          <p class="small soft">{{ g.pourName }}</p>
          <PlainButton label="To the shelf" :aria-label="`Open ${g.label} on the shelf`" @click="navigateTo('/shelf')" />
        </div>
      </li>
      <li v-if="plan && planned" class="planned">
        <h3>Planned <span class="small soft">not begun</span></h3>
        <span class="things">
          <MouldDrawing v-for="(f, i) in planned" :key="i" :mould="f.body" view="cut" :width="WIDE[planned.length]!" :height="110" />
        </span>
        <div class="below">
          <h2>{{ plan.plan.name || 'Plan without a name' }}</h2>
          <p class="small soft">{{ planned.map(f => `${f.count} × ${f.body.name}`).join(', ') }}</p>
          <PlainButton label="Look at it" :aria-label="`Look at the plan ${plan.plan.name}`" @click="navigateTo(`/plan/${plan.id}`)" />
        </div>
      </li>
      <li v-if="pours.length + opening.length === 0 && !planned" class="bare">
        <span class="things soft">The table is clear.</span>
        <div class="below"><p class="small soft">No plans yet. Start with what you want to fill; the rest is worked out.</p></div>
      </li>
    </ul>
    <p v-if="unseen > 0" class="small">
      <NuxtLink to="/shelf">and {{ unseen }} more to open, on the shelf</NuxtLink>
    </p>
  </section>
</template>

<style scoped>
ul { display: flex; flex-wrap: wrap; }
li { flex: 1 1 220px; min-width: 0; display: grid; grid-template-rows: auto auto 1fr; }
h3 { padding: 0 12px; font-size: 1.2rem; font-weight: 760; font-stretch: 106%; }
h3 .small { font-weight: 500; font-stretch: 100%; display: block; min-height: 1.3em; }
.things { display: flex; gap: 4px; justify-content: center; align-items: end; min-height: 140px; min-width: 0; padding: 6px 4px 0; }
.more { font-weight: 700; align-self: center; }
.below {
  border-top: 3px solid var(--ink); background: linear-gradient(var(--wood) 0 12px, var(--wood-top) 12px);
  padding: 24px 12px 16px; display: grid; gap: 4px; justify-items: center; align-content: start; text-align: center;
}
.below h2 { font-size: 1.05rem; font-weight: 700; font-stretch: 100%; }
.below .plain-button { margin-top: 6px; }
.name { color: inherit; text-decoration: none; }
.late { color: var(--heat); font-weight: 660; }
.planned .things { opacity: 0.75; }
</style>
