<script setup lang="ts">
import { EXAMPLES } from '~core/practice/examples'
import { SCENARIOS, type Level } from '~core/practice/scenarios'
import { LEVEL_WORDS, SCENARIO_WORDS } from '~core/practice/words'
import { guestHere, knowsWorkshop } from '~/sync/guest'
import RippleMark from '~/ui/RippleMark.vue'

/** What there is to practise, from the first bowl to the mean ones. Needs nobody, and no network. */
definePageMeta({ layout: 'bare' })
const teaches = knowsWorkshop() && guestHere() === undefined
const levels = ([1, 2, 3] as const).map((level: Level) => ({ level, all: SCENARIOS.filter(s => s.level === level) }))
</script>

<template>
  <main class="practice">
    <header>
      <NuxtLink to="/" class="home" aria-label="To the workshop"><RippleMark /></NuxtLink>
      <div>
        <h1>Practice</h1>
        <p>A bucket that spoils nothing. It sets, clots and holds its air as the forecast says real ones do; no two bags are alike.
          <NuxtLink to="/practice/course">The course</NuxtLink> says why, in eight short lessons.
          <template v-if="teaches">With others in the room: <NuxtLink to="/classes">a class</NuxtLink>.</template></p>
      </div>
    </header>
    <p class="read">Three worth reading first:
      <template v-for="(e, i) in EXAMPLES" :key="e.id">{{ i > 0 ? ', ' : ' ' }}<NuxtLink :to="`/practice/${e.id}?read`">{{ SCENARIO_WORDS[e.id].name.toLowerCase() }}</NuxtLink></template>.</p>
    <section v-for="{ level, all } in levels" :key="level" :aria-labelledby="`level-${level}`">
      <h2 :id="`level-${level}`">{{ LEVEL_WORDS[level] }}</h2>
      <ul>
        <li v-for="s in all" :key="s.id">
          <NuxtLink :to="`/practice/${s.id}`">
            <span class="name">{{ SCENARIO_WORDS[s.id].name }}</span>
            <span>{{ SCENARIO_WORDS[s.id].job }}</span>
            <span class="teaches">{{ SCENARIO_WORDS[s.id].teaches }}</span>
          </NuxtLink>
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.practice { max-width: 1180px; margin: 0 auto; padding: 20px 24px 60px; display: grid; gap: 22px; }
header { display: flex; gap: 18px; align-items: center; }
.home { width: 64px; flex: none; color: var(--ground); background: var(--ink); border-radius: 14px; padding: 8px; }
h1 { font-size: clamp(2rem, 4vw, 2.8rem); }
h2 { font-size: 1.2rem; margin-bottom: 8px; }
ul { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(250px, 1fr)); gap: 12px; }
li a { display: grid; gap: 3px; align-content: start; height: 100%; border: 1.5px solid var(--line-strong); border-radius: 14px; background: var(--sheet); color: var(--ink); padding: 14px 16px; text-decoration: none; }
li a:hover { border-color: var(--ink); }
.name { font-weight: 720; font-size: 1.2rem; }
.teaches { color: var(--soft); }
</style>
