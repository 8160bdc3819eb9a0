<script setup lang="ts">
import MouldDrawing from '~/ui/MouldDrawing.vue'
import { useLibrary } from '~/sync/library'

/** A mould of the workshop as it looks, by its id; what stands in its place where it is not here. */
const { mould, size = 40 } = defineProps<{ mould: string | undefined, size?: number }>()
const library = useLibrary()
const body = computed(() => library.items.mould.find(m => m.id === mould)?.body)
</script>

<template>
  <MouldDrawing v-if="body" :mould="body" view="above" :width="size" :height="size" />
  <slot v-else><span /></slot>
</template>
