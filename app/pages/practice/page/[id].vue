<script setup lang="ts">
import LessonRun from '~/features/practice/LessonRun.vue'
import { useLibrary } from '~/sync/library'

/** A page of the workshop's own, as a pupil reads it. */
definePageMeta({ layout: 'bare' })
const library = useLibrary(), id = String(useRoute().params.id)
if (!library.loaded) await library.load()
const page = library.items.page.find(p => p.id === id)?.body
useHead({ title: page?.name ?? 'A page' })
</script>

<template>
  <main>
    <LessonRun v-if="page" id="page" :page="page" />
    <p v-else class="missing">There is no such page here. <NuxtLink to="/practice/course">The course</NuxtLink></p>
  </main>
</template>

<style scoped>
.missing { padding: 16vh 8vw; font-size: 1.2rem; }
</style>
