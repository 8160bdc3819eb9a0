<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import { pouredAsPlanned } from '~core/pour/forgotten'
import type { PourRow } from '~contract/pour'
import RippleGlyph from '~/ui/RippleGlyph.vue'
import RowButton from '~/ui/RowButton.vue'
import { dayAndTime } from '~/ui/when'
import { useCache } from '~/sync/cache'
import { useClock } from '~/sync/clock'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'

/** Pours of which nothing was told for a day: asked about calmly, and closed with what is known. */
const { pours } = defineProps<{ pours: readonly PourRow[] }>()
const cache = useCache(), clock = useClock(), records = useRecords(), session = useSession()
const asked = ref<PourRow>(), trouble = ref(''), said = ref('')

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
        <RippleGlyph :marks="p.summary.glyph" :wet-at="p.summary.wetAt" :size="34" />
        <span
        ><NuxtLink :to="`/bench/${p.id}`" class="row-link strong">{{ p.summary.name }}</NuxtLink
        ><br /><span class="small soft"
        >{{ p.summary.step.instruction }}, last told {{ dayAndTime(p.summary.lastAt!, clock.halfHour) }}</span
        ></span
        >
        <RowButton
          v-if="session.mayWrite"
          label="Close it"
          :aria-label="`Close ${p.summary.name}`"
          @click="asked = p" />
      </li>
    </ul>
    <Dialog
      :visible="asked !== undefined"
      modal
      :header="asked?.summary.name"
      :style="{ width: 'min(480px, 95vw)' }"
      @update:visible="asked = undefined">
      <p>How did it end? What was told of it stays in the logbook either way.</p>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <div class="ends">
        <Button label="It was poured" @click="poured" />
        <p class="small soft">
          Its casts go to the shelf, filled when the plan would have filled them; open and judge them there.
        </p>
        <Button label="Nothing came of it" severity="secondary" @click="nothing" />
        <p class="small soft">It is given up, and counts for nothing.</p>
      </div>
    </Dialog>
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
.ends {
  display: grid;
  gap: 6px;
  padding-top: 14px;
}
.ends p + button { margin-top: 12px; }
</style>
