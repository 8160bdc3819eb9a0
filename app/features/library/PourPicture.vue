<script setup lang="ts">
import type { PourSummary } from '~core/pour/projection'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import RippleGlyph from '~/ui/RippleGlyph.vue'
import { useLibrary } from '~/sync/library'

/** What a pour was for, as its first mould looks; of one whose mould is not here, its ripples. */
const { summary, size = 40 } = defineProps<{ summary: PourSummary, size?: number }>()
const library = useLibrary()
const mould = computed(() => {
  const id = summary.moulds[0]?.id
  return id === undefined ? undefined : library.items.mould.find(m => m.id === id)?.body
})
</script>

<template>
  <MouldDrawing v-if="mould" :mould="mould" view="above" :width="size" :height="size" />
  <RippleGlyph
    v-else :marks="summary.glyph" :wet-at="summary.endedAt ? undefined : summary.wetAt" :size="size" />
</template>
