<script setup lang="ts">
import type { GroundId } from '~core/setting/words'
import { openedLater } from './controls'

/** A figure's words as a button that opens what the figure stands on. */
const { ground, from, basis } = defineProps<{
  ground: GroundId
  /** What it was worked out from, in words, once they are wanted. */
  from?: string | (() => string | undefined)
  basis?: string
}>()
const GroundTold = openedLater(() => import('./GroundTold.vue'), 'anchor')
const anchor = shallowRef<HTMLElement>()
const told = computed(() => anchor.value && (typeof from === 'function' ? from() : from))
function toggle(event: Event) {
  anchor.value = anchor.value ? undefined : event.currentTarget as HTMLElement
}
</script>

<template>
  <button class="ground" type="button" aria-haspopup="dialog" @click="toggle"><slot /></button>
  <GroundTold :anchor="anchor" :ground="ground" :from="told" :basis="basis" @closed="anchor = undefined" />
</template>

<style scoped>
.ground {
  border: 0;
  padding: 0;
  background: none;
  font: inherit;
  color: inherit;
  text-align: left;
  text-decoration: underline dotted var(--line-strong);
  text-underline-offset: 4px;
  min-height: 24px;
}
</style>
