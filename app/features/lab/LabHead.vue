<script setup lang="ts">
/** The Lab's three rooms. */
const route = useRoute()
</script>

<template>
  <header>
    <h1>Lab</h1>
    <nav aria-label="Lab">
      <NuxtLink to="/lab" :aria-current="route.path === '/lab' ? 'page' : undefined">Mixes side by side</NuxtLink>
      <NuxtLink to="/lab/sayings" :aria-current="route.path === '/lab/sayings' ? 'page' : undefined"
      >Sayings of the trade</NuxtLink
      >
      <NuxtLink to="/lab/model" :aria-current="route.path === '/lab/model' ? 'page' : undefined"
      >How it is worked out</NuxtLink
      >
    </nav>
    <slot />
  </header>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  margin-bottom: 16px;
}
nav {
  display: flex;
  gap: 4px;
}
a {
  color: var(--ink);
  text-decoration: none;
  padding: 7px 12px;
  border-radius: 9px;
  font-weight: 600;
  font-size: 0.93rem;
}
a:hover {
  background: var(--action-soft);
}
a[aria-current='page'] {
  background: var(--ink);
  color: var(--sheet);
}
</style>
