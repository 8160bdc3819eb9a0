<script setup lang="ts">
import type { ClassAnswer, SeatFacts } from '~contract/classroom'
import { isAway, lookOf } from './class'
import { LOOK_WORDS, seatWords } from './words'

/** Where all are, one card a seat: who needs a look is first and loudest. */
const { answer, large = false } = defineProps<{ answer: ClassAnswer, large?: boolean }>()
const emit = defineEmits<{ chosen: [seat: SeatFacts] }>()
const all = computed(() => {
  const { all, tasks } = answer
  return [...all].sort((a, b) => Number(Boolean(lookOf(b, tasks))) - Number(Boolean(lookOf(a, tasks))) || a.number - b.number)
})
function choose(seat: SeatFacts) {
  if (answer.leads && !large) emit('chosen', seat)
}
</script>

<template>
  <ul :class="['seats', { large }]">
    <li v-for="s in all" :key="s.id" :class="{ look: lookOf(s, answer.tasks), away: isAway(s, answer.now) }">
      <component :is="answer.leads && !large ? 'button' : 'div'" class="card" @click="choose(s)">
        <span class="num">{{ s.number }}</span>
        <span class="name">{{ s.name }}<span v-if="s.kit?.colour" class="soft"> · {{ s.kit.colour }}</span></span>
        <span class="where">{{ seatWords(s, answer.tasks) }}</span>
        <span v-if="lookOf(s, answer.tasks)" class="why">{{ LOOK_WORDS[lookOf(s, answer.tasks)!] }}</span>
        <span v-else-if="isAway(s, answer.now)" class="why">not heard for a while</span>
      </component>
    </li>
  </ul>
</template>

<style scoped>
.seats { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(190px, 1fr)); gap: 10px; }
.card { width: 100%; height: 100%; display: grid; grid-template-columns: auto 1fr; gap: 2px 10px; align-content: start; text-align: left; border: 2px solid var(--line-strong); border-radius: 12px; background: var(--sheet); color: var(--ink); padding: 10px 12px; font: inherit; }
button.card:hover { border-color: var(--ink); }
.num { grid-row: span 3; font-size: 1.9rem; font-weight: 750; line-height: 1; min-width: 1.3em; }
.name { font-weight: 700; overflow-wrap: anywhere; }
.where { grid-column: 2; }
.why { grid-column: 2; font-weight: 650; }
.look .card { border-color: var(--heat); background: var(--heat-soft); }
.look .why { color: var(--heat); }
.away .card { border-style: dashed; }
.large { grid-template-columns: repeat(auto-fill, minmax(230px, 1fr)); font-size: clamp(1.1rem, 1.6vw, 1.5rem); }
</style>
