<script setup lang="ts">
import { onMounted } from 'vue'
import DoorPage from '~/features/door/DoorPage.vue'
import { useStrangers } from '~/features/door/strangers'

/** The door as it stands by itself, before anybody signs in: the application comes after it. */
const { kept, trouble, mix, keep, go, forget } = useStrangers()
/** Once the page is there: bench and all, for when there is no network. */
onMounted(() => {
  const keepHere = () => navigator.serviceWorker?.register('/sw.js').catch(() => {})
  if (typeof requestIdleCallback === 'function') requestIdleCallback(keepHere, { timeout: 4000 })
  else setTimeout(keepHere, 1500)
})
</script>

<template>
  <main><DoorPage :kept="kept" :trouble="trouble" @mix="mix" @keep="keep" @go="go" @forget="forget" /></main>
</template>
