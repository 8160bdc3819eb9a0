<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { listed } from '~core/units/sentences'
import { emptyWords, NO_OVERLAP_WORDS } from '~core/plan/words'
import Button from 'primevue/button'
import { formatConsistency, formatDuration, formatMass, formatScoops, formatVolume } from '~core/units/format'
import { alikeBatches } from '~core/plan/batches/batches'
import { overlapOf, type NoOverlap, type Overlap } from '~core/plan/batches/overlap'
import CutDrawing from '~/features/plan/CutDrawing.vue'
import PlanGround from '~/features/plan/PlanGround.vue'
import PlanFills from '~/features/plan/PlanFills.vue'
import PlanMeasures from '~/features/plan/PlanMeasures.vue'
import PlanTour from '~/features/help/PlanTour.vue'
import PlanMoments from '~/features/plan/PlanMoments.vue'
import StageCurve from '~/features/plan/StageCurve.vue'
import { addressOf, newId } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import { usePlanning } from '~/features/plan/planning'
import { usePlans } from '~/sync/plans'
import { useSession } from '~/sync/session'
import ConflictChoice from '~/features/waiting/ConflictChoice.vue'
import type { Choice } from '~/features/waiting/words'
import { SAVING } from '~/ui/saving'
import WeighList from '~/ui/WeighList.vue'
import { fileName, offerFile } from '~/ui/files'
import { recipeOf } from '~contract/recipe'

const planning = usePlanning(), plans = usePlans(), library = useLibrary(), session = useSession()
const route = useRoute()
const id = String(route.params.id)
onBeforeRouteLeave(() => planning.save())
useEventListener(window, 'pagehide', () => void planning.save())
await Promise.all([library.loaded ? undefined : library.load(), plans.load()])
const known = plans.saved.find(p => p.id === id)
if (known) planning.open(known)
else planning.beginNew(id)
/** Made for this plan on another page. */
const { mould, bucket, bag } = route.query as Partial<Record<'mould' | 'bucket' | 'bag', string>>
if (mould || bucket || bag) {
  planning.choose({ mould, bucket, bag })
  history.replaceState(history.state, '', route.path)
}

const result = computed(() => planning.result)
const units = computed(() => session.units)
const refused = computed(() => result.value.problems.find(p => p.severity === 'refuse'))
const starting = ref(false)
const trouble = ref('')
/** Batches that are alike are drawn once. */
const drawn = computed(() =>
  alikeBatches(result.value.batches).map(({ batch, numbers }) => ({
    batch,
    title: batch.coat ? coatTitle(batch.coat.number) : batchTitle(numbers, result.value.batches.length),
  })),
)
const bucketsListed = (numbers: readonly number[]) => {
  const unbroken = numbers.length > 2 && numbers.every((n, i) => i === 0 || n === numbers[i - 1]! + 1)
  return unbroken ? `${numbers[0]}–${numbers.at(-1)}` : listed(numbers.map(String))
}
function batchTitle(numbers: readonly number[], of: number) {
  if (of === 1) return 'One bucket'
  return numbers.length === 1 ? `Bucket ${numbers[0]} of ${of}` : `Buckets ${bucketsListed(numbers)}, all the same`
}
const coatTitle = (n: number) =>
  planning.plan.coats?.way === 'base' ? ['The cast', 'The base'][n - 1]! : `Coat ${n} of ${result.value.batches.length}`
const orderId = newId(), toSayings = computed(() => ({ path: '/lab/sayings', query: { plan: planning.id } }))
const toOrder = computed(() => ({ path: `/orders/${orderId}`, query: { plan: planning.id } }))
/** Whether batches can overlap, for one person and for two. */
const overlaps = computed(() =>
  result.value.batches.length < 2 || planning.plan.coats
    ? []
    : ([1, 2] as const).map(hands =>
        overlapOf(planning.plan, planning.world, result.value.ratio, result.value.batches, 0, hands),
      ),
)
function overlapWords(o: Overlap | NoOverlap): string {
  if (!('siftAt' in o)) return NO_OVERLAP_WORDS[o.why]
  const how = o.hands === 1
    ? 'sift the next bucket while one soaks'
    : `the second begins ${formatDuration(Math.round(o.siftAt / 10) * 10)} after the first, in a second bucket`
  return `${how}${o.saves > 45 ? `; saves about ${formatDuration(Math.round(o.saves / 60) * 60)} a bucket` : ''}.`
}
const total = computed(() =>
  `${formatMass(result.value.total.water, units.value)} water and ${
    formatMass(result.value.total.powder, units.value)
  } powder`,
)

/** Which of two versions stands. */
async function chosen(how: Choice, copy?: string) {
  if (copy) await navigateTo(`/plan/${copy}`)
  else if (how === 'theirs') planning.open(plans.saved.find(p => p.id === id))
}
/** The mix alone, for somebody else's moulds. */
function saveRecipe() {
  offerFile(
    fileName(planning.plan.name || 'recipe', 'recipe.json'),
    JSON.stringify(recipeOf(planning.plan), null, 2),
    'application/json',
  )
}
async function toBench() {
  starting.value = true
  trouble.value = ''
  try {
    await planning.save()
    await navigateTo(
      `/bench/${await planning.toBench({ id: planning.isKept ? planning.id : undefined, plan: planning.plan })}`,
    )
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  finally {
    starting.value = false
  }
}
</script>

<template>
  <div>
    <header>
      <div class="title">
        <h1 class="sr-only">Plan {{ planning.plan.name }}</h1>
        <input
          class="name"
          aria-label="Name of the plan"
          :placeholder="planning.usualName || 'Name this pour'"
          :value="planning.plan.name"
          :readonly="!session.mayWrite"
          maxlength="120"
          @input="planning.change({ name: ($event.target as HTMLInputElement).value })"
        >
        <p class="small soft" role="status">
          <template v-if="planning.saving === 'failed'"
          ><span class="problem">{{ planning.saveTrouble }}</span></template
          >
          <template v-else>
            {{
              result.batches.length > 0
                ? `${result.batches.length === 1 ? '1 bucket' : `${result.batches.length} ${planning.plan.coats ? 'coats' : 'buckets'}`} · ${total}`
                : 'Nothing to pour yet'
            }}
            ·
            {{ planning.saving === 'saved' && !planning.isKept ? 'saved as soon as you change it' : SAVING[planning.saving] }}
          </template>
        </p>
      </div>
      <a
        v-if="planning.onServer && !refused"
        :href="addressOf('GET plans/:id/sheet', { params: { id: planning.id } })"
        target="_blank"
        class="small paper"
      >Bench sheet to print</a
      >
      <a
        v-if="planning.onServer && !refused && planning.plan.school === 'bag'"
        :href="addressOf('GET plans/:id/labels', { params: { id: planning.id } })"
        target="_blank"
        class="small paper"
      >Labels for the bags</a
      >
      <NuxtLink
        v-if="planning.isKept && !refused"
        :to="toSayings"
        class="small paper"
      >What is said of it</NuxtLink>
      <NuxtLink
        v-if="planning.isKept && !refused && !planning.plan.coats"
        :to="toOrder"
        class="small paper"
      >Many of these by a day</NuxtLink>
      <Button v-if="result.batches.length > 0" label="Save as a recipe" severity="secondary" @click="saveRecipe" />
      <Button
        v-if="session.mayWrite"
        label="Take to the bench"
        :disabled="refused !== undefined || starting"
        :aria-describedby="refused ? 'why-not' : undefined"
        @click="toBench"
      />
    </header>
    <p v-if="trouble || library.trouble" class="problem" role="alert">{{ trouble || library.trouble }}</p>
    <ConflictChoice
      v-if="planning.waiting?.conflict"
      :change="planning.waiting"
      :chosen="chosen" />
    <PlanTour />
    <div class="three">
      <div class="left">
        <PlanFills />
        <PlanMeasures />
      </div>
      <div class="middle">
        <div v-if="refused" id="why-not" class="sheet cannot">
          <h2>Still missing</h2>
          <p>{{ planning.say(refused) }}</p>
        </div>
        <!-- Drawn on, whatever its title becomes: made anew at each stroke it costs a millisecond more. -->
        <article v-for="({ batch: b, title }, i) in drawn.slice(0, 6)" :key="i" class="sheet batch">
          <h2>{{ title }}</h2>
          <p class="small soft">
            <PlanGround ground="amounts"
            >makes <span class="num">{{ formatVolume(b.mix.slurry, units) }}</span> at
              <span class="num">{{ formatConsistency(result.ratio.value) }}</span></PlanGround
            >
            <template v-if="b.scoops">
              · about {{ formatMass(b.mix.powder, units) }} powder in {{ formatScoops(b.scoops.powder, 'level ') }}
            </template>
          </p>
          <WeighList v-if="b.mix.additions.length > 0 || result.powder.composition" :plan="planning.plan" :batch="b" class="all" />
          <CutDrawing
            :batch="b"
            :vessel="planning.world.bucket?.vessel"
            :bucket-name="planning.world.bucket?.name"
            :school="planning.plan.school"
            :approximate="planning.plan.school === 'saturation' || planning.plan.school === 'scoops'"
          />
          <p v-if="planning.plan.school === 'bag'" class="bag">
            <span class="num big powder">{{ formatMass(b.mix.powder, units) }}</span> powder in a strong bag, then
            <span class="num big water">{{ formatVolume(b.mix.waterVolume, units) }}</span> water into it
          </p>
        </article>
        <ul v-if="overlaps.length > 0" class="small overlaps">
          <li v-for="o in overlaps" :key="o.hands">
            <span class="strong">{{ o.hands === 1 ? 'Alone: ' : 'Two of you: ' }}</span><PlanGround ground="overlap">{{ overlapWords(o) }}</PlanGround>
          </li>
        </ul>
        <StageCurve v-if="result.batches.length > 0" />
        <p v-if="drawn.length > 6" class="small soft">
          and {{ drawn.length - 6 }} more buckets like these
        </p>
        <p v-if="planning.plan.known.what !== 'moulds' && result.batches.length > 0" class="small">
          {{ emptyWords(result) }}
          <template v-if="result.spare > 5e-6">
            {{ formatVolume(result.spare, units) }} is over{{
              planning.plan.overflow ? `: ${planning.plan.overflow.toLowerCase()}` : ''
            }}.
          </template>
        </p>
      </div>
      <PlanMoments class="right" />
    </div>
  </div>
</template>

<style scoped>
.all { padding: 8px 0 2px; }
.overlaps {
  display: grid;
  gap: 4px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 16px;
  margin-bottom: 16px;
}
.title {
  flex: 1;
  min-width: 0;
}
.paper {
  align-self: center;
}
.name {
  width: 100%;
  border: 0;
  border-bottom: 1.5px solid transparent;
  background: none;
  padding: 0 0 2px;
  font-size: 1.85rem;
  font-weight: 720;
  font-stretch: 104%;
  letter-spacing: -0.01em;
}
.name:hover,
.name:focus {
  border-bottom-color: var(--line-strong);
}
.name::placeholder {
  color: var(--soft);
  opacity: 1;
}
.three {
  display: grid;
  grid-template-columns: 312px minmax(0, 1fr) 262px;
  gap: 22px;
  align-items: start;
}
/* What changes in one column lays out that one. */
.left,
.middle,
.right {
  contain: layout style;
}
.left {
  display: grid;
  gap: 22px;
}
.middle {
  display: grid;
  gap: 12px;
}
.batch {
  padding: 16px 18px 8px;
}
.cannot {
  padding: 16px 18px;
  border-left: 4px solid var(--warn);
  display: grid;
  gap: 6px;
}
.bag {
  padding: 4px 0 12px;
}
.big {
  font-size: 1.25rem;
  font-weight: 700;
}
.big.powder {
  color: var(--powder);
}
.big.water {
  color: var(--water);
}
@media (max-width: 1080px) {
  .three {
    grid-template-columns: 300px minmax(0, 1fr);
  }
  .right {
    grid-column: 1 / -1;
  }
}
@media (max-width: 720px) {
  .three {
    grid-template-columns: minmax(0, 1fr);
  }
  header {
    flex-wrap: wrap;
    gap: 8px 16px;
  }
  .title {
    flex: 1 1 100%;
  }
  .name {
    font-size: 1.5rem;
  }
}
</style>
