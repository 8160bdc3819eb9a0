<script setup lang="ts">
import type { PourSummary } from '~core/pour/projection'
import RippleGlyph from '~/ui/RippleGlyph.vue'
import MouldPicture from './MouldPicture.vue'

/** What a pour was for, as its first mould looks; of one whose mould is not here, its ripples. */
const { summary, size = 40 } = defineProps<{ summary: PourSummary, size?: number }>()
</script>

<template>
  <MouldPicture :mould="summary.moulds[0]?.id" :size="size">
    <RippleGlyph :marks="summary.glyph" :wet-at="summary.endedAt ? undefined : summary.wetAt" :size="size" />
  </MouldPicture>
</template>
