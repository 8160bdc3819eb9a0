<script setup lang="ts">
import { onBeforeUnmount } from 'vue'

/** A button that a drip or a sleeve cannot press: it must be held. From the keyboard Enter is enough. */
const { ms = 700 } = defineProps<{ ms?: number }>()
const emit = defineEmits<{ held: [] }>()
let timer: ReturnType<typeof setTimeout> | undefined
function press() {
  release()
  timer = setTimeout(() => emit('held'), ms)
}
function release() {
  clearTimeout(timer)
}
onBeforeUnmount(release)
</script>

<template>
  <button
    type="button"
    @pointerdown="press"
    @pointerup="release"
    @pointerleave="release"
    @contextmenu.prevent
    @keydown.enter.prevent="emit('held')">
    <slot />
  </button>
</template>
