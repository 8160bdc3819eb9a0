<script setup lang="ts">
import { bowlOfPour } from '~core/practice/past-pour'
import PracticeBench from '~/features/practice/PracticeBench.vue'
import { useRun } from '~/sync/run'
import { recordTime } from '~/ui/when'
import { useClock } from '~/sync/clock'

/** A pour of the logbook once more, in a bucket that spoils nothing: its bag is the hidden truth. */
definePageMeta({ layout: 'bare' })
const store = useRun(), clock = useClock()
await store.load(String(useRoute().params.id))
const bowl = store.run && store.state && bowlOfPour(store.run, store.state)
const when = store.state?.startedAt ? recordTime(store.state.startedAt, clock.halfHour) : ''
useHead({ title: () => store.run ? `${store.run.plan.name}, once more` : 'Once more' })
</script>

<template>
  <main>
    <PracticeBench v-if="bowl" :bowl="bowl" :name="`${store.run!.plan.name}, once more`" :job="`As it was poured ${when}.`">
      <template #over><NuxtLink :to="`/pour/${store.id}`">The pour</NuxtLink></template>
    </PracticeBench>
    <p v-else class="none">{{ store.trouble || 'This one cannot be practised: it was made in coats, swilled, or only its day is known.' }}
      <NuxtLink to="/practice">Practice</NuxtLink></p>
  </main>
</template>

<style scoped>
.none { padding: 16vh 8vw; font-size: 1.2rem; }
</style>
