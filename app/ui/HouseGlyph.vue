<script setup lang="ts">
import { GLYPHS, type GlyphId } from './glyphs'

/** A sign of the house. The word beside it says the same. */
const { id, size = 24 } = defineProps<{ id: GlyphId, size?: number }>()
const paths = computed<readonly { d: string, solid?: true, width?: number }[]>(() => GLYPHS[id])
</script>

<template>
  <svg :width="size" :height="size" viewBox="0 0 24 24" aria-hidden="true">
    <path
      v-for="p in paths"
      :key="p.d"
      :d="p.d"
      :fill="p.solid ? 'currentColor' : 'none'"
      :stroke="p.solid ? 'none' : 'currentColor'"
      :stroke-width="p.width ?? 2"
      fill-rule="evenodd"
      stroke-linecap="round"
      stroke-linejoin="round"
    />
  </svg>
</template>
