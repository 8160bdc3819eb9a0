<script setup lang="ts">
import { LESSON_IDS } from '~core/lessons/types'
import { LESSON_WORDS } from '~core/lessons/words'
import { useRemembering } from '~/features/practice/remembering'
import { guestHere, knowsWorkshop } from '~/sync/guest'
import { useLibrary } from '~/sync/library'
import PlainButton from '~/ui/PlainButton.vue'

/** The course: eight short lessons, and what is due to be asked again. */
definePageMeta({ layout: 'bare' })
const { standing, due } = useRemembering(), waiting = due(new Date())
/** Whoever belongs to a workshop finds its own pages here; nobody else is asked for any. */
const belongs = knowsWorkshop() && guestHere() === undefined, library = belongs ? useLibrary() : undefined
if (library && !library.loaded) void library.load()
const pages = computed(() => library?.items.page ?? [])
</script>

<template>
  <main class="course">
    <header>
      <p class="eyebrow"><NuxtLink to="/practice">Practice</NuxtLink></p>
      <h1>The course</h1>
      <p>Eight short lessons. Each ends in a few questions, and what you miss comes again, here, in this browser.</p>
    </header>
    <ol>
      <li v-for="id in LESSON_IDS" :key="id">
        <NuxtLink :to="`/practice/course/${id}`">
          <span class="name">{{ LESSON_WORDS[id].title }}</span>
          <span class="small">{{ standing(id).asked === 0 ? 'not begun' : `${standing(id).right} of ${standing(id).of} known` }}</span>
        </NuxtLink>
      </li>
    </ol>
    <section v-if="pages.length > 0" aria-labelledby="own-head">
      <h2 id="own-head">From your workshop</h2>
      <ul>
        <li v-for="p in pages" :key="p.id"><NuxtLink :to="`/practice/page/${p.id}`"><span class="name">{{ p.body.name }}</span></NuxtLink></li>
      </ul>
    </section>
    <p class="ways">
      <PlainButton v-if="waiting > 0" :label="`Ask me again: ${waiting}`" strong @click="navigateTo('/practice/course/again')" />
      <PlainButton label="A test of ten" @click="navigateTo('/practice/course/test')" />
    </p>
  </main>
</template>

<style scoped>
.course { max-width: 820px; margin: 0 auto; padding: 20px 24px 60px; display: grid; gap: 18px; }
h1 { font-size: clamp(2rem, 4vw, 2.8rem); }
ul { margin: 8px 0 0; padding: 0; list-style: none; display: grid; gap: 10px; }
ol { margin: 0; padding: 0; list-style: none; counter-reset: lesson; display: grid; gap: 10px; }
ol li a { counter-increment: lesson; }
li a { display: flex; gap: 16px; align-items: baseline; border: 1.5px solid var(--line-strong); border-radius: 14px; background: var(--sheet); color: var(--ink); padding: 14px 18px; text-decoration: none; }
ol li a::before { content: counter(lesson); font-weight: 750; font-size: 1.3rem; min-width: 1.2em; }
.name { flex: 1; font-weight: 700; font-size: 1.15rem; }
.ways { display: flex; flex-wrap: wrap; gap: 12px; }
.eyebrow a { display: inline-block; min-height: 26px; }
</style>
