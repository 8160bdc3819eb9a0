<script setup lang="ts">
import { LESSON_IDS, type LessonId } from '~core/lessons/types'
import { LESSON_WORDS } from '~core/lessons/words'
import LessonRun from '~/features/practice/LessonRun.vue'

/** One lesson and its questions; or what is due again; or a test of ten. */
definePageMeta({
  layout: 'bare', validate: route => [...LESSON_IDS, 'again', 'test'].includes(String(route.params.id)),
})
const id = useRoute().params.id as LessonId | 'again' | 'test'
useHead({ title: id === 'again' ? 'Once more' : id === 'test' ? 'A test of ten' : LESSON_WORDS[id].title })
</script>

<template>
  <main><LessonRun :id="id" /></main>
</template>
