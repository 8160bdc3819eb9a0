<script setup lang="ts">
/** An address as a picture that phones read. The library is fetched when there is one to draw. */
const { text, label } = defineProps<{ text: string, label: string }>()
const path = ref(''), size = ref(0)
watch(() => text, async (now) => {
  const { create } = await import('qrcode')
  const { modules } = create(now, { errorCorrectionLevel: 'M' })
  if (now !== text) return
  size.value = modules.size
  path.value = Array.from({ length: modules.size ** 2 }, (_, i) => i).filter(i => modules.data[i])
    .map(i => `M${i % modules.size} ${Math.floor(i / modules.size)}h1v1h-1z`).join('')
}, { immediate: true })
</script>

<template>
  <svg v-if="size > 0" :viewBox="`-3 -3 ${size + 6} ${size + 6}`" role="img" :aria-label="label" shape-rendering="crispEdges">
    <rect x="-3" y="-3" :width="size + 6" :height="size + 6" fill="#fff" />
    <path :d="path" fill="#000" />
  </svg>
</template>

<style scoped>
svg { width: 168px; height: 168px; border-radius: 8px; flex: none; }
</style>
