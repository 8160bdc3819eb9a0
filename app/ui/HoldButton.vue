<script setup lang="ts">
import { onBeforeUnmount } from 'vue'

/**
 * A button that a drip or a sleeve cannot press: a pointer must hold it. A key or an assistive press is meant when it
 * is
 * made, so one is enough.
 */
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
/**
 * A press without a pointer comes as a click that no pointer began: Enter, the space bar, a screen reader, a switch.
 */
function click(event: MouseEvent) {
  const noPointer = event.detail === 0 || ('pointerType' in event && event.pointerType === '')
  if (noPointer) emit('held')
}
/** A key that is held down is one press, not many. */
function key(event: KeyboardEvent) {
  if (event.repeat) event.preventDefault()
}
onBeforeUnmount(release)
</script>

<template>
  <button
    type="button"
    @pointerdown="press"
    @pointerup="release"
    @pointerleave="release"
    @pointercancel="release"
    @contextmenu.prevent
    @keydown="key"
    @click="click">
    <slot />
  </button>
</template>
