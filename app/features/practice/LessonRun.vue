<script setup lang="ts">
import { askQuestion, BANK, drawTest, questionsOf } from '~core/lessons/bank'
import { askPage, paragraphsOf, type Page } from '~core/lessons/page'
import type { LessonId, Question } from '~core/lessons/types'
import { LESSON_WORDS } from '~core/lessons/words'
import { SCENARIO_WORDS } from '~core/practice/words'
import type { ScenarioId } from '~core/practice/scenarios'
import AskedOne from './AskedOne.vue'
import { useRemembering } from './remembering'
import { useSession } from '~/sync/session'
import PlainButton from '~/ui/PlainButton.vue'

/** One lesson and its questions; or what is due again; or a test of ten. */
const { id, page, seed: given, count = 10, shows = true } = defineProps<{
  id: LessonId | 'again' | 'test' | 'page' /** A teacher’s own. */
  page?: Page /** Of a test that everybody has. */
  seed?: number
  count?: number /** Whether the reasons are shown at once: not in a teacher’s test. */
  shows?: boolean
}>()
const emit = defineEmits<{ at: [done: number, of: number], ended: [right: number, of: number, chosen: readonly number[]] }>()
const own = id === 'page' && page ? { title: page.name, lines: paragraphsOf(page), tries: undefined } : undefined
const lesson = own ? shows ? own : undefined : id === 'again' || id === 'test' || id === 'page' ? undefined : LESSON_WORDS[id]
const title = own?.title ?? lesson?.title ?? (id === 'test' ? 'A test of ten' : 'Once more')
const { answered, nextOf } = useRemembering()
const A_LESSON = 5
const seed = given ?? Date.now() % 1_000_000, { units } = useSession()
function asked(): readonly Question[] {
  if (page) return askPage(page, seed)
  if (id === 'test') return drawTest(count, seed, units)
  const from = id === 'again' ? BANK : lesson ? questionsOf(id as LessonId) : []
  return nextOf(from, new Date(), A_LESSON).map((t, i) => askQuestion(t, seed + i, units))
}
const questions = shallowRef<readonly Question[]>([]), at = ref(lesson ? -1 : 0), right = ref(0), done = ref(false)
function begin() {
  at.value = 0
  questions.value = asked()
  if (questions.value.length === 0) end()
}
const question = computed(() => questions.value[at.value])
const isAnswered = ref(false), chosen: number[] = []
if (!lesson) begin()
function told(isRight: boolean, which: number) {
  isAnswered.value = true
  if (isRight) right.value++
  chosen.push(which)
  // What a teacher asks is asked once: only the bank comes again.
  if (!page) answered(question.value!.id, isRight, new Date())
}
watch([at, questions], () => emit('at', Math.max(0, at.value), questions.value.length), { immediate: true })
function next() {
  isAnswered.value = false
  at.value++
  if (at.value >= questions.value.length) end()
}
function end() {
  done.value = true
  emit('ended', right.value, questions.value.length, chosen)
}
const tries = lesson?.tries as ScenarioId | undefined
</script>

<template>
  <div class="lesson">
    <p class="eyebrow"><slot name="over"><NuxtLink to="/practice/course">The course</NuxtLink></slot></p>
    <h1>{{ title }}</h1>
    <template v-if="at < 0 && lesson">
      <p v-for="line in lesson.lines" :key="line" class="line">{{ line }}</p>
      <p v-if="tries && given === undefined" class="line">Try it: <NuxtLink :to="`/practice/${tries}`">{{ SCENARIO_WORDS[tries].name }}</NuxtLink>.</p>
      <PlainButton :label="page?.questions.length === 0 ? 'I have read it' : 'Ask me'" strong large @click="begin" />
    </template>
    <template v-else-if="question && !done">
      <p class="small soft">{{ at + 1 }} of {{ questions.length }}</p>
      <AskedOne v-bind="{ question, shows }" @answered="told" />
      <PlainButton v-if="isAnswered" :label="at + 1 < questions.length ? 'Next' : 'How did it go?'" strong @click="next" />
    </template>
    <section v-else aria-live="polite" class="end">
      <p v-if="!shows" class="line">Handed in. Your teacher sees how it went.</p>
      <p v-else-if="page" class="line">{{ questions.length > 0 ? `${right} of ${questions.length} right.` : 'That is all of it.' }}</p>
      <p v-else-if="questions.length === 0" class="line">Nothing to ask just now: what you know comes again in some days.</p>
      <p v-else class="line">{{ right }} of {{ questions.length }} right.
        {{ right < questions.length ? 'What you missed comes again soon.' : 'It comes again in some days, so that it stays.' }}</p>
      <p v-if="tries && given === undefined" class="line">Now with your hands: <NuxtLink :to="`/practice/${tries}`">{{ SCENARIO_WORDS[tries].name }}</NuxtLink>.</p>
      <NuxtLink v-if="given === undefined" to="/practice/course">The course</NuxtLink>
    </section>
  </div>
</template>

<style scoped>
.lesson { max-width: 820px; margin: 0 auto; padding: 20px 24px 60px; display: grid; gap: 16px; justify-items: start; }
.lesson > * { max-width: 100%; }
.lesson :deep(.asked) { width: 100%; }
h1 { font-size: clamp(1.8rem, 3.6vw, 2.5rem); }
.line { font-size: 1.25rem; line-height: 1.45; max-width: 56ch; }
.end { display: grid; gap: 14px; }
.eyebrow a { display: inline-block; min-height: 26px; }
</style>
