<script setup lang="ts">
import Button from 'primevue/button'
import { listed } from '~core/units/sentences'
import { useChanges } from '~/sync/changes'
import type { Change } from '~/sync/kept-changes'
import { differenceWords, nameWords, type Choice } from './words'

/** One thing in two versions: somebody says which one stands. Until then both are kept. */
/** @param chosen is told how, and the id where mine became a thing of its own: also when this is gone by then */
const { change, chosen = () => {} } = defineProps<{ change: Change, chosen?: (how: Choice, id?: string) => unknown }>()
const changes = useChanges(), busy = ref(false)
const theirs = computed(() => change.conflict?.theirs)
const differs = computed(() => differenceWords(change))
const name = computed(() => nameWords(change))
/** @param work gives back the id of what became a thing of its own */
async function choose(how: Choice, work: () => Promise<string | undefined>) {
  const tell = chosen
  busy.value = true
  try {
    await tell(how, await work())
  }
  finally {
    busy.value = false
  }
}
const both = () => choose('both', () => changes.keepBoth(change, ', second version'))
const mine = () => theirs.value
  ? choose('mine', () => changes.keepMine(change))
  : choose('both', () => changes.keepBoth(change, ''))
const other = () => choose('theirs', () => changes.drop(change))
</script>

<template>
  <section class="choice" :aria-label="`Two versions of ${name}`">
    <p class="strong">
      {{ theirs ? 'This was changed on another device meanwhile.' : 'This was put away on another device meanwhile.' }}
    </p>
    <p class="small">
      <template v-if="theirs && differs.length > 0">The two versions differ in {{ listed(differs) }}.{{ ' ' }}</template>
      <template v-if="theirs">Yours is kept in this browser until you choose.</template>
      <template v-else>What you changed is kept in this browser until you choose.</template>
    </p>
    <div class="ways">
      <Button v-if="theirs" label="Keep both" size="small" :disabled="busy" @click="both" />
      <Button
        :label="theirs ? 'Use mine' : 'Keep mine as a new one'"
        severity="secondary"
        size="small"
        :disabled="busy"
        @click="mine" />
      <Button
        :label="theirs ? 'Use the other' : 'Leave it put away'"
        severity="secondary"
        size="small"
        :disabled="busy"
        @click="other" />
    </div>
  </section>
</template>

<style scoped>
.choice {
  border-left: 4px solid var(--warn);
  background: var(--warn-soft);
  color: #4d3000;
  padding: 10px 14px;
  border-radius: 6px;
  margin-bottom: 14px;
}
.choice p { margin: 0 0 6px; }
.ways { display: flex; flex-wrap: wrap; gap: 8px; }
</style>
