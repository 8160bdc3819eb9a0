<script setup lang="ts">
import { onBeforeUnmount } from 'vue'
import { heldByOldTab } from '~/sync/outbox'
import { useClock } from '~/sync/clock'
import { applyLook } from '~/ui/look'
import KeysHelp from '~/ui/KeysHelp.vue'
import { PAGE_TITLES } from '~/ui/titles'

const route = useRoute()
useHead({ title: () => PAGE_TITLES[String(route.name)], titleTemplate: page => page ? `${page} · Nine Ripples` : 'Nine Ripples' })
applyLook()
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
  <NuxtLoadingIndicator color="#ffc531" />
  <p v-if="heldByOldTab" class="old-tab" role="alert">
    Another tab of Nine Ripples is open with an older version. Close it, and this one goes on by itself; what waits there
    is sent from here.
  </p>
  <NuxtLayout><NuxtPage /></NuxtLayout>
  <KeysHelp />
</template>

<style>
.old-tab {
  background: var(--warn-soft);
  color: var(--ink);
  padding: 9px 24px;
}
</style>
