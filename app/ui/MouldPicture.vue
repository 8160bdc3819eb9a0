<script setup lang="ts">
import { evenDepth, type Mouth } from '~core/mould/gauge/vessel'

/** A mould as a small cross-section; a hundred millimetres wide at least, so that small ones look small. */
const { mouth, volume, size = 44 } = defineProps<{ mouth: Mouth, volume: number, size?: number }>()
const shape = computed(() => {
  const depth = evenDepth(mouth, volume)
  const scale = size / Math.max(0.1, mouth.width, depth)
  return { w: Math.max(4, mouth.width * scale - 4), h: Math.max(4, depth * scale - 3) }
})
</script>

<template>
  <svg :width="size + 4" :height="size" :viewBox="`0 0 ${size + 4} ${size}`" aria-hidden="true">
    <path
      :d="`M${(size + 4 - shape.w) / 2} ${size - 2 - shape.h}v${shape.h}h${shape.w}v${-shape.h}`"
      fill="var(--mix-soft)"
      stroke="var(--ink)"
      stroke-width="2"
      stroke-linejoin="round"
      stroke-linecap="round"
    />
  </svg>
</template>
