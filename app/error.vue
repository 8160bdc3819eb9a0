<script setup lang="ts">
import type { NuxtError } from '#app'
import { Refused } from '~/sync/api'
import PlainButton from '~/ui/PlainButton.vue'

/** What a whole page cannot do: it is not there, the server is not, the server refused it, or the page has a fault. */
const { error } = defineProps<{ error: NuxtError }>()
const told = computed<{ readonly heading: string, readonly words: string }>(() => {
  const refused = error.cause instanceof Refused ? error.cause : undefined
  if (error.statusCode === 404)
    return { heading: 'There is no such page', words: 'The address may be old, or the thing it named was put away.' }
  if (refused && [0, 503].includes(refused.status))
    return { heading: 'The workshop cannot be reached', words: refused.sentence }
  if (refused) return { heading: 'This cannot be shown', words: refused.sentence }
  return {
    heading: 'This page went wrong',
    words: 'That is a fault of the program’s. What you noted is kept. Try again, or go on from another page.',
  }
})
const missing = computed(() => error.statusCode === 404)
</script>

<template>
  <main class="fault">
    <h1>{{ told.heading }}</h1>
    <p>{{ told.words }}</p>
    <div class="ways">
      <PlainButton v-if="!missing" label="Try again" strong @click="reloadNuxtApp({ force: true })" />
      <PlainButton label="Go to Today" :strong="missing" @click="clearError({ redirect: '/' })" />
    </div>
  </main>
</template>

<style scoped>
.fault { max-width: 46ch; margin: 18vh auto 0; padding: 0 20px; display: grid; gap: 14px; }
.ways { display: flex; gap: 10px; }
</style>
