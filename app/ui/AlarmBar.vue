<script setup lang="ts">
import { timeOfDay } from '~/ui/when'
import { useAlarms } from '~/sync/alarms'

/** What a live pour or a job calls for, on whatever screen one is. The bench tells its own pour itself. */
const alarms = useAlarms()
</script>

<template>
  <section v-if="alarms.standing.length > 0" class="alarms" aria-label="Moments of pours and jobs" aria-live="assertive">
    <p v-for="(a, i) in alarms.standing" :key="a.id">
      <span class="num">{{ timeOfDay(a.at) }}</span>
      <span class="what"><span class="strong">{{ a.name }}.</span> {{ a.told }}</span>
      <NuxtLink :to="a.to">{{ a.to.startsWith('/jobs/') ? 'To the job' : 'To the bench' }}</NuxtLink>
      <button @click="alarms.dismiss(a.id)">Seen</button>
      <button v-if="i === 0" :aria-pressed="alarms.quiet" @click="alarms.quiet = !alarms.quiet">
        {{ alarms.quiet ? 'Sound on' : 'No sound here' }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.alarms {
  background: var(--set-soft);
  color: var(--ink);
  border-block: 2px solid var(--set);
}
p {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: center;
  padding: 4px 24px;
}
.num {
  font-weight: 700;
}
.what {
  flex: 1;
  min-width: 12em;
}
a {
  color: inherit;
  font-weight: 650;
}
button {
  border: 1px solid var(--line-strong);
  background: none;
  color: inherit;
  border-radius: 8px;
  padding: 3px 12px;
  min-height: 34px;
}
</style>
