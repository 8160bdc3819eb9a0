<script setup lang="ts">
import { onBeforeUnmount } from 'vue'
import { useClock } from '~/sync/clock'
import { PAGE_TITLES } from '~/ui/titles'

const route = useRoute()
useHead({ title: () => PAGE_TITLES[String(route.name)], titleTemplate: page => page ? `${page} · Nine Ripples` : 'Nine Ripples' })
const stop = useClock().start()
// Keeps the application itself in this browser. Where the page came over plain http from another machine, browsers do
// not offer that.
onMounted(() => {
  // It is made by the build; while the application is worked on there is none.
  if (!import.meta.dev && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js').catch(() => {})
})
onBeforeUnmount(stop)
</script>

<template>
  <NuxtLoadingIndicator color="#5fb7ad" />
  <NuxtLayout><NuxtPage /></NuxtLayout>
</template>
