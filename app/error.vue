<script setup lang="ts">
import type { NuxtError } from '#app'
import Button from 'primevue/button'

const { error } = defineProps<{ error: NuxtError }>()
const missing = computed(() => error.statusCode === 404)
</script>

<template>
  <main class="fault">
    <h1>{{ missing ? 'There is no such page' : 'The workshop cannot be reached' }}</h1>
    <p>{{ missing ? 'The address may be old, or the thing it named was put away.' : error.message }}</p>
    <div class="ways">
      <Button v-if="!missing" label="Try again" @click="reloadNuxtApp({ force: true })" />
      <Button
        label="Go to Today"
        :severity="missing ? undefined : 'secondary'"
        @click="clearError({ redirect: '/' })" />
    </div>
  </main>
</template>

<style scoped>
.fault { max-width: 46ch; margin: 18vh auto 0; padding: 0 20px; display: grid; gap: 14px; }
.ways { display: flex; gap: 10px; }
</style>
