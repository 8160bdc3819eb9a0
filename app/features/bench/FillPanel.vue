<script setup lang="ts">
import { formatDuration } from '~core/units/format'
import { useClock } from '~/sync/clock'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'
import { pouringEnds } from '~core/bench/cues'

/** The moulds of this batch in the order of filling; a press says “filled”, with its minute. */
const { batch } = defineProps<{ batch: number }>()
const store = useRun(), clock = useClock(), session = useSession()
const casts = computed(() => store.state!.casts.filter(c => c.cast.batch === batch))
const wet = computed(() => store.state!.batches[batch]!.wetAt ?? clock.now)
const left = computed(() => pouringEnds(store.runFor(batch), batch) - (clock.now - wet.value) / 1000)
function fill(cast: string) {
  void store.record({ kind: 'filled', data: { cast } }, batch)
}
</script>

<template>
  <div class="fill">
    <p :class="['within', { late: left < 60 }]">
      <template v-if="left > 0">
        Pour it all within <span class="num">{{ formatDuration(Math.round(left / 5) * 5) }}</span>
      </template>
      <template v-else>It should be stiff by now: stop when it no longer levels itself</template>
    </p>
    <ul>
      <li v-for="c in casts" :key="c.cast.id">
        <button
          :disabled="(c.filledAt !== undefined && !c.fillInferred) || !session.mayWrite"
          :class="{ done: c.filledAt !== undefined }"
          @click="fill(c.cast.id)"
        >
          <span class="strong">{{ c.cast.label }}</span>
          <span class="num small">{{
            c.filledAt !== undefined ? `filled at ${formatDuration((c.filledAt - wet) / 1000)}` : 'press when filled'
          }}</span>
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.fill {
  display: grid;
  gap: 12px;
}
.within {
  font-size: clamp(1.4rem, 2.6vw, 2rem);
  font-weight: 650;
}
.within .num {
  color: var(--water);
}
.late {
  color: var(--heat);
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 8px;
  max-height: 190px;
  overflow: auto;
}
button {
  width: 100%;
  min-height: 54px;
  display: grid;
  align-content: center;
  border: 1.5px solid var(--line-strong);
  border-radius: 10px;
  background: none;
  padding: 4px 8px;
}
button.done {
  background: var(--set-soft);
  border-color: var(--set);
  cursor: default;
}
</style>
