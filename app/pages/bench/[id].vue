<script setup lang="ts">
import BenchRun from '~/features/bench/BenchRun.vue'
import AlarmBar from '~/ui/AlarmBar.vue'
import { useAlarms } from '~/sync/alarms'
import { useLibrary } from '~/sync/library'
import { usePlans } from '~/sync/plans'
import { usePours } from '~/sync/pours'
import { useRun } from '~/sync/run'

definePageMeta({ layout: 'bench' })
const store = useRun(), route = useRoute()
await Promise.all([store.load(String(route.params.id)), useLibrary().loaded ? undefined : useLibrary().load()])
// What the other screens ask is fetched now, so that they open as well when the network is gone.
const alarms = useAlarms()
alarms.here = String(route.params.id)
onBeforeUnmount(() => {
  alarms.here = ''
})
onMounted(() => void Promise.all([usePours().load(), usePlans().load()]).then(() => alarms.start()))
useHead({ title: () => `${store.run?.plan.name ?? 'Bench'}, bench` })
</script>

<template>
  <div v-if="store.run && store.state">
    <AlarmBar />
    <BenchRun />
  </div>
  <main v-else class="bench none">
    <h1>{{ store.missing ? 'There is no such pour' : 'This pour cannot be reached just now' }}</h1>
    <p>{{ store.trouble }}</p>
    <p><NuxtLink to="/bench">To the bench</NuxtLink></p>
  </main>
</template>

<style scoped>
.none {
  min-height: 100dvh;
  background: var(--ground);
  color: var(--ink);
  padding: 16vh 8vw;
  display: grid;
  gap: 12px;
  align-content: start;
}
</style>
