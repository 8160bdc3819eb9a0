<script setup lang="ts">
import type { Question } from '~core/lessons/types'
import { TAG_WORDS } from '~core/lessons/words'

/** One question: its answers large; once one was chosen, the reason for each. */
const { question, shows = true } = defineProps<{ question: Question, shows?: boolean }>()
const emit = defineEmits<{ answered: [right: boolean, which: number] }>()
const chosen = ref<number>()
watch(() => question, () => {
  chosen.value = undefined
})
function choose(i: number) {
  if (chosen.value !== undefined) return
  chosen.value = i
  emit('answered', question.answers[i]!.right, i)
}
/** Right and wrong are seen once something was chosen; in a teacher’s test, not at all. */
const open = computed(() => shows && chosen.value !== undefined)
const isOpen = (i: number) => chosen.value !== undefined && (i === chosen.value || question.answers[i]!.right)
</script>

<template>
  <section class="asked" aria-labelledby="asks">
    <h2 id="asks">{{ question.asks }}</h2>
    <ol>
      <li v-for="(a, i) in question.answers" :key="a.words">
        <button
          type="button"
          :class="{ right: open && a.right, wrong: open && chosen === i && !a.right, taken: !shows && chosen === i, quiet: open && !isOpen(i) }"
          :aria-disabled="chosen !== undefined"
          @click="choose(i)">
          <span class="words">{{ a.words }}</span>
          <span v-if="open" class="why"><template v-if="a.right">Right. </template><template v-else-if="chosen === i">No. </template>{{ a.why }}</span>
        </button>
      </li>
    </ol>
    <p v-if="open" class="small" role="status">
      {{ question.answers[chosen!]!.right ? 'Right.' : question.tag === 'T' ? 'Not so.' : 'Not so. It comes again soon.' }} From {{ TAG_WORDS[question.tag] }}.
    </p>
  </section>
</template>

<style scoped>
.asked { display: grid; gap: 14px; }
h2 { font-size: clamp(1.3rem, 2.6vw, 1.8rem); line-height: 1.2; max-width: 40ch; }
ol { list-style: none; margin: 0; padding: 0; display: grid; gap: 10px; }
button { width: 100%; text-align: left; border: 2px solid var(--line-strong); border-radius: 14px; background: var(--sheet); color: var(--ink); padding: 14px 18px; min-height: 60px; font: inherit; display: grid; gap: 3px; }
button:hover:not([aria-disabled='true']) { border-color: var(--ink); }
.words { font-weight: 680; font-size: 1.12rem; }
.right { border-color: var(--set); background: var(--set-soft); }
.wrong { border-color: var(--heat); background: var(--heat-soft); }
.taken { border-color: var(--ink); border-width: 3px; }
.quiet { border-color: var(--line); }
</style>
