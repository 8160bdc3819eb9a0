<script setup lang="ts">
import type { Page } from '~core/lessons/page'
import { LESSON_IDS } from '~core/lessons/types'
import { LESSON_WORDS } from '~core/lessons/words'
import { SCENARIO_IDS } from '~core/practice/scenarios'
import { SCENARIO_WORDS } from '~core/practice/words'
import type { Task } from '~contract/classroom'
import PlainButton from '~/ui/PlainButton.vue'

/** What the class is given to do: a bucket that all have alike, a lesson, a test, the kits, or to look up. */
const { task, hasKits, busy, pages } = defineProps<{
  task: Task
  hasKits: boolean
  busy: boolean /** The workshop’s own. */
  pages: readonly { readonly id: string, readonly body: Page }[]
}>()
const emit = defineEmits<{ give: [task: Task] }>()
const scenario = ref(SCENARIO_IDS[0]!), lesson = ref(LESSON_IDS[0]), questions = ref(10)
const newSeed = () => 1 + Math.floor(Math.random() * 1e6)
const giveScenario = () => emit('give', { kind: 'scenario', id: scenario.value, seed: newSeed() })
const giveLesson = () => emit('give', { kind: 'lesson', id: lesson.value })
const pageId = ref<string>(), page = computed(() => (pages.find(p => p.id === pageId.value) ?? pages[0])?.body)
function givePage(test: boolean) {
  if (page.value) emit('give', { kind: 'page', page: page.value, seed: newSeed(), test })
}
const choosePage = (event: Event) => {
  pageId.value = (event.target as HTMLSelectElement).value
}
const giveTest = () => emit('give', { kind: 'test', seed: newSeed(), questions: questions.value })
</script>

<template>
  <div class="tasks" role="group" aria-label="What the class does">
    <div>
      <label for="scenario">A bucket, the same for all</label>
      <select id="scenario" v-model="scenario">
        <option v-for="s in SCENARIO_IDS" :key="s" :value="s">{{ SCENARIO_WORDS[s].name }}: {{ SCENARIO_WORDS[s].teaches }}</option>
      </select>
      <PlainButton label="Practise this" small :disabled="busy" @click="giveScenario" />
    </div>
    <div>
      <label for="lesson">A lesson</label>
      <select id="lesson" v-model="lesson">
        <option v-for="l in LESSON_IDS" :key="l" :value="l">{{ LESSON_WORDS[l].title }}</option>
      </select>
      <PlainButton label="Read this" small :disabled="busy" @click="giveLesson" />
    </div>
    <div>
      <label for="questions">A test, so many questions</label>
      <select id="questions" v-model.number="questions">
        <option v-for="n in [5, 10, 15, 20]" :key="n" :value="n">{{ n }}</option>
      </select>
      <PlainButton label="Set the test" small :disabled="busy" @click="giveTest" />
    </div>
    <div v-if="page">
      <label for="page">A page of your own</label>
      <select id="page" :value="pageId ?? pages[0]?.id" @change="choosePage">
        <option v-for="p in pages" :key="p.id" :value="p.id">{{ p.body.name }}</option>
      </select>
      <PlainButton label="Give them this page" small :disabled="busy" @click="givePage(false)" />
      <PlainButton v-if="page.questions.length > 0" label="Test them on it" small :disabled="busy" @click="givePage(true)" />
    </div>
    <div>
      <PlainButton v-if="hasKits" label="Pour the kits" small :disabled="busy" @click="emit('give', { kind: 'kits' })" />
      <PlainButton v-if="task.kind !== 'none'" label="Look up, all of you" small :disabled="busy" @click="emit('give', { kind: 'none' })" />
    </div>
  </div>
</template>

<style scoped>
.tasks { display: grid; grid-template-columns: repeat(auto-fit, minmax(230px, 1fr)); gap: 14px 26px; align-items: end; }
.tasks > div { display: flex; flex-wrap: wrap; gap: 6px 8px; align-items: center; min-width: 0; }
label { flex-basis: 100%; font-weight: 600; }
select { font: inherit; padding: 8px 10px; border: 1.5px solid var(--line-strong); border-radius: 10px; background: var(--sheet); color: var(--ink); width: 100%; min-height: 40px; }
</style>
