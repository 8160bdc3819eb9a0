<script setup lang="ts">
import type { MomentLine } from './moment-lines'
import PlanGround from './PlanGround.vue'

/** One moment to expect. Apart from their list, so that a stroke draws only the times that it changes. */
const { line } = defineProps<{ line: MomentLine }>()
</script>

<template>
  <dt :class="['num', `tone-${line.tone}`]">{{ line.when }}</dt>
  <dd :class="{ strong: line.strong }">
    <PlanGround :ground="line.ground" :basis="line.basis">{{ line.what }}</PlanGround>
  </dd>
</template>

<style scoped>
dt {
  padding-top: 2px;
  text-align: right;
  font-weight: 650;
  white-space: nowrap;
  font-size: 0.88rem;
}
.tone-powder {
  color: var(--powder);
}
.tone-water {
  color: var(--water);
}
.tone-heat {
  color: var(--heat);
}
.tone-set {
  color: var(--set);
}
.tone-mix {
  color: var(--mix);
}
.tone-air {
  color: var(--air);
}
</style>
