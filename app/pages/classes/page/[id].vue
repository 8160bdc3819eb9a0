<script setup lang="ts">
import { usePageInHand } from '~/features/practice/pages'
import PlainButton from '~/ui/PlainButton.vue'
import { SAVING } from '~/ui/saving'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'

/** A page of a teacher's own: its text, and what is asked about it. */
const library = useLibrary(), session = useSession(), id = String(useRoute().params.id)
if (!library.loaded) await library.load()
const { body, whole, saved, change, unfinished, mayAsk, mayMislead, ...acts } = usePageInHand(id)
const asking = ref(false)
const set = (part: 'name' | 'text', event: Event) => change((p) => {
  p[part] = (event.target as HTMLInputElement).value
})
const setAsks = (n: number, event: Event) => change((p) => {
  p.questions[n]!.asks = (event.target as HTMLInputElement).value
})
/** @param i which wrong answer; the right one without it */
const setAnswer = (n: number, i: number | undefined, part: 'words' | 'why', event: Event) => change((p) => {
  const q = p.questions[n]!, answer = i === undefined ? q.right : q.wrong[i]!
  answer[part] = (event.target as HTMLInputElement).value
})
async function archive() {
  await library.archive('page', id)
  await navigateTo('/classes')
}
onBeforeRouteLeave(() => saved.save())
useHead({ title: () => body.value.name || 'A page of your own' })
</script>

<template>
  <div class="page">
    <p class="eyebrow"><NuxtLink to="/classes">Classes</NuxtLink></p>
    <h1>{{ body.name || 'A page of your own' }}</h1>
    <p class="lead">Your pupils read it on their phones, then answer what you ask. Give it to a class, or let people find it in the course.</p>
    <p class="small soft" role="status">{{ SAVING[saved.saving.value] ?? '' }} {{ saved.trouble.value }}</p>
    <fieldset :disabled="!session.mayWrite">
      <label for="page-name">Name</label>
      <input id="page-name" :value="body.name" maxlength="80" @input="set('name', $event)">
      <label for="page-text">What it says</label>
      <textarea id="page-text" :value="body.text" rows="8" maxlength="8000" aria-describedby="page-hint" @input="set('text', $event)" />
      <p id="page-hint" class="small soft">An empty line begins a new paragraph.</p>
      <section v-for="(q, n) in body.questions" :key="n" class="question" :aria-labelledby="`q-${n}`">
        <div class="head">
          <h2 :id="`q-${n}`">Question {{ n + 1 }}</h2>
          <PlainButton label="Take it out" small :aria-label="`Take question ${n + 1} out`" @click="acts.dropQuestion(n)" />
        </div>
        <label :for="`asks-${n}`">It asks</label>
        <input :id="`asks-${n}`" :value="q.asks" maxlength="300" @input="setAsks(n, $event)">
        <div class="answer right">
          <span><label :for="`right-${n}`">Right</label><input :id="`right-${n}`" :value="q.right.words" maxlength="200" @input="setAnswer(n, undefined, 'words', $event)"></span>
          <span><label :for="`right-why-${n}`">because</label><input :id="`right-why-${n}`" :value="q.right.why" maxlength="400" @input="setAnswer(n, undefined, 'why', $event)"></span>
        </div>
        <div v-for="(w, i) in q.wrong" :key="i" class="answer">
          <span><label :for="`wrong-${n}-${i}`">Wrong</label><input :id="`wrong-${n}-${i}`" :value="w.words" maxlength="200" @input="setAnswer(n, i, 'words', $event)"></span>
          <span><label :for="`why-${n}-${i}`">because</label><input :id="`why-${n}-${i}`" :value="w.why" maxlength="400" @input="setAnswer(n, i, 'why', $event)"></span>
          <button v-if="q.wrong.length > 1" type="button" class="drop" :aria-label="`Take wrong answer ${i + 1} of question ${n + 1} out`" @click="acts.dropWrong(n, i)">×</button>
        </div>
        <PlainButton v-if="mayMislead(n)" label="Another wrong answer" small @click="acts.addWrong(n)" />
      </section>
      <PlainButton v-if="mayAsk" :label="body.questions.length > 0 ? 'Another question' : 'Ask something about it'" @click="acts.addQuestion" />
      <p v-if="unfinished > 0" class="small soft" role="status">
        {{ unfinished === 1 ? 'One question is' : `${unfinished} questions are` }} not whole yet, and not saved: each needs its words, a right answer and a wrong one.
      </p>
    </fieldset>
    <div class="ways">
      <NuxtLink v-if="whole.name.trim()" :to="`/practice/page/${id}`" class="strong">Read it as a pupil does</NuxtLink>
      <PlainButton v-if="session.mayWrite" label="Archive" small @click="asking = true" />
    </div>
    <p v-if="asking" class="ask" role="alertdialog" aria-label="Archive this page">
      It is in the course no more. A class that was given it keeps it.
      <PlainButton label="Archive it" small strong @click="archive" /> <PlainButton label="Keep it" small @click="asking = false" />
    </p>
  </div>
</template>

<style scoped>
.page { max-width: 900px; display: grid; gap: 12px; }
.lead { max-width: 62ch; }
fieldset { border: 0; padding: 0; margin: 0; display: grid; gap: 8px; justify-items: start; min-width: 0; }
fieldset > *, .question > * { max-width: 100%; }
label { font-weight: 600; }
input, textarea { width: 100%; font: inherit; border: 1.5px solid var(--line-strong); border-radius: 10px; padding: 9px 12px; background: var(--sheet); color: var(--ink); min-height: 44px; }
textarea { line-height: 1.45; }
.question { width: 100%; border: 1.5px solid var(--line-strong); border-radius: 14px; padding: 14px 18px 16px; display: grid; gap: 8px; justify-items: start; background: var(--band); }
.head { display: flex; justify-content: space-between; width: 100%; align-items: center; gap: 12px; }
h2 { font-size: 1.15rem; }
.answer { width: 100%; display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.4fr) 40px; gap: 10px; align-items: end; border-left: 4px solid var(--line-strong); padding-left: 10px; }
.answer.right { border-color: var(--set); }
.answer span { display: grid; gap: 3px; }
.drop { width: 40px; height: 44px; border: 1.5px solid var(--line-strong); border-radius: 10px; background: none; font-size: 1.2rem; }
.ways { display: flex; flex-wrap: wrap; gap: 18px; align-items: center; padding-top: 8px; }
.ask { display: flex; flex-wrap: wrap; gap: 10px; align-items: center; background: var(--band); border-radius: 12px; padding: 12px 16px; }
@media (max-width: 700px) {
  .answer { grid-template-columns: minmax(0, 1fr) 40px; }
  .answer span { grid-column: 1; }
  .answer .drop { grid-column: 2; grid-row: 1; align-self: end; }
}
</style>
