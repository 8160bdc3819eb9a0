<script setup lang="ts">
import { timeOfDay } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { useSession } from '~/sync/session'

/** The demo's clock: to watch a two-hour set in two minutes. Not there outside the demo. */
const session = useSession(), clock = useClock()
const time = computed(() => timeOfDay(clock.now))
const trouble = ref('')
async function change(body: { rate?: number, jump?: number }) {
  trouble.value = ''
  try {
    await clock.change(body)
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
}
</script>

<template>
  <div v-if="session.facts?.demo" class="clock-bar">
    <span>Demo clock <span class="num">{{ time }}</span></span>
    <span class="paces" role="group" aria-label="Pace of the demo clock">
      <button
        v-for="r in [1, 10, 60]"
        :key="r"
        :aria-pressed="clock.rate === r"
        @click="change({ rate: r })"
      >{{ r === 1 ? 'real pace' : `× ${r}` }}</button>
      <button @click="change({ jump: 900 })">15 min on</button>
      <button @click="change({ jump: 6 * 3600 })">6 h on</button>
    </span>
    <span v-if="trouble" role="alert">{{ trouble }}</span>
  </div>
</template>

<style scoped>
.clock-bar {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
  padding: 5px 24px;
  font-size: 0.84rem;
  color: var(--soft);
  border-bottom: 1px dashed var(--line);
}
.paces {
  display: flex;
  gap: 2px;
  flex-wrap: wrap;
}
button {
  border: 0;
  background: none;
  padding: 3px 8px;
  border-radius: 6px;
  color: inherit;
  min-height: 24px;
}
button:hover {
  background: var(--action-soft);
}
button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
}
@media (max-width: 720px) {
  .clock-bar {
    padding: 4px 16px;
    gap: 6px;
  }
}
</style>
