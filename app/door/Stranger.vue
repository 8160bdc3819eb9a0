<script setup lang="ts">
import { onMounted, ref } from 'vue'
import DoorPage from '~/features/door/DoorPage.vue'
import { whenIdle } from '~/features/door/idle'
import { useStrangers } from '~/features/door/strangers'
import { rememberWorkshop } from '~/sync/guest'
import { holdsAnswers } from '~/sync/kept'

/** The door as it stands by itself, before anybody signs in: the application comes after it. */
const { kept, trouble, mix, keep, go, forget } = useStrangers()
/** Sent here by the first page, but somebody of a workshop all the same: it remembers only since there is a door. */
async function lookForWorkshop() {
  if (location.search !== '?first') return
  history.replaceState(history.state, '', '/door')
  if (!await holdsAnswers()) return
  rememberWorkshop(true)
  location.replace('/')
}
/** Once the page is there: bench and all, for when there is no network. */
const missing = ref(false)
onMounted(() => {
  missing.value = !window.isSecureContext
  void lookForWorkshop()
  whenIdle(() => void navigator.serviceWorker?.register('/sw.js').catch(() => {}), 4000)
})
</script>

<template>
  <main>
    <DoorPage :kept="kept" :trouble="trouble" @mix="mix" @keep="keep" @go="go" @forget="forget" />
    <p v-if="missing" class="missing">
      At this address the screen may go dark by itself, and the page cannot open while the network is away.
      <a href="/install">How this phone gets all of it</a>
    </p>
  </main>
</template>

<style scoped>
.missing { padding: 10px 32px 120px; color: var(--soft); font-size: 0.92rem; }
</style>
