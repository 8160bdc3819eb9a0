<script setup lang="ts">
import { pouredAsPlanned } from '~core/pour/forgotten'
import type { PourRow } from '~contract/pour'
import PourPicture from '~/features/library/PourPicture.vue'
import PlainButton from '~/ui/PlainButton.vue'
import { dayAndTime } from '~/ui/when'
import { useCache } from '~/sync/cache'
import { useClock } from '~/sync/clock'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'
import { openedLater } from '~/ui/controls'

/** Pours of which nothing was told for a day: asked about calmly, and closed with what is known. */
const { pours } = defineProps<{ pours: readonly PourRow[] }>()
const cache = useCache(), clock = useClock(), records = useRecords(), session = useSession()
const asked = ref<PourRow>(), trouble = ref(''), said = ref('')
const EndDialog = openedLater(() => import('./EndDialog.vue'), 'name')

async function attempt(work: (pour: PourRow) => Promise<void>, words: string) {
  const pour = asked.value
  if (!pour) return
  trouble.value = ''
  try {
    await work(pour)
    asked.value = undefined
    said.value = `${pour.summary.name}: ${words}`
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
}
const poured = () => attempt(async ({ id }) => {
  await cache.load(id)
  const { run, state } = cache.pourOf(id)!, { batch, stage, from, at } = pouredAsPlanned(run, state, clock.read())
  await records.record(id, { kind: 'stage', data: { stage, from } }, batch, at)
}, 'its casts are on the shelf.')
const nothing = () => attempt(({ id }) => records.record(id, { kind: 'abandoned', data: { reason: '' } }), 'given up.')
</script>

<template>
  <section v-if="pours.length > 0" aria-labelledby="still-head">
    <div class="group-head">
      <h2 id="still-head">Still at the bench?</h2>
      <span class="small soft">nothing was told for a day</span>
    </div>
    <p class="sr-only" role="status">{{ said }}</p>
    <ul class="ruled">
      <li v-for="p in pours" :key="p.id">
        <PourPicture :summary="p.summary" :size="34" />
        <span
        ><NuxtLink :to="`/bench/${p.id}`" class="row-link strong">{{ p.summary.name }}</NuxtLink
        ><br /><span class="small soft"
        >{{ p.summary.step.instruction }}, last told {{ dayAndTime(p.summary.lastAt!, clock.halfHour) }}</span
        ></span
        >
        <PlainButton
          v-if="session.mayWrite"
          label="Close it"
          :aria-label="`Close ${p.summary.name}`"
          @click="asked = p" />
      </li>
    </ul>
    <EndDialog
      :name="asked?.summary.name"
      :trouble="trouble"
      @poured="poured"
      @nothing="nothing"
      @closed="asked = undefined" />
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 44px 1fr auto;
  gap: 14px;
  align-items: center;
  padding: 9px 0;
}
</style>
