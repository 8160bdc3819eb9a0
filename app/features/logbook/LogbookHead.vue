<script setup lang="ts">
/** The three ways to look at the logbook. */
const ways = [{ to: '/logbook', word: 'Pours' }, { to: '/logbook/charts', word: 'Over time' }, {
  to: '/logbook/trials',
  word: 'What makes the difference',
}]
const route = useRoute()
</script>

<template>
  <header>
    <h1>Logbook</h1>
    <nav aria-label="Logbook">
      <NuxtLink
        v-for="w in ways"
        :key="w.to"
        :to="w.to"
        :class="{ here: route.path === w.to }"
        :aria-current="route.path === w.to ? 'page' : undefined"
      >{{ w.word }}</NuxtLink
      >
    </nav>
    <slot />
  </header>
</template>

<style scoped>
header { display: flex; gap: 10px 18px; align-items: baseline; margin-bottom: 12px; flex-wrap: wrap; }
nav { display: flex; gap: 4px; }
a { color: var(--ink); text-decoration: none; padding: 5px 12px; border-radius: 8px; min-height: 32px; }
a:hover { background: var(--action-soft); }
a.here { background: var(--ink); color: var(--sheet); }
</style>
