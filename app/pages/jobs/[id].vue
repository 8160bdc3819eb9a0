<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { begunAnew } from '~core/job/chains'
import { CHAIN_IDS, JOB_CAUTION_WORDS, jobProblemWords, nameOfStep, type ChainId } from '~core/job/words'
import DipTest from '~/features/job/DipTest.vue'
import JobNext from '~/features/job/JobNext.vue'
import JobPours from '~/features/job/JobPours.vue'
import JobRail from '~/features/job/JobRail.vue'
import StepFields from '~/features/job/StepFields.vue'
import { asOwn, movedStep, withoutStep, withStepAfter } from '~/features/job/editing'
import { jobLike, useWorking } from '~/features/job/working'
import { usePlans } from '~/sync/plans'
import { newId } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import { usePours } from '~/sync/pours'
import { useSession } from '~/sync/session'
import PlainButton from '~/ui/PlainButton.vue'
import { SAVING } from '~/ui/saving'

/** One job: what is next, loud; its chain with every window as times; and what became of it, as one piece of work. */
const library = useLibrary(), plans = usePlans(), pours = usePours(), session = useSession()
const route = useRoute(), id = String(route.params.id)
await Promise.all([library.loaded ? undefined : library.load(), plans.load(), pours.loaded ? undefined : pours.load()])
function made() {
  const like = library.items.job.find(j => j.id === route.query.of)?.body
  const from = CHAIN_IDS.find(c => c === route.query.from) ?? CHAIN_IDS[0] as ChainId
  return jobLike(like ?? from)
}
const { body, change, changeStep, saved, steps, times, begin, end, takeBack, mix, item } = useWorking(id, made)
onBeforeRouteLeave(() => saved.save())
useEventListener(window, 'pagehide', () => void saved.save())
const editing = ref(false), busy = ref(false), trouble = ref('')
const next = computed(() => {
  const step = steps.value.find(s => s.id === times.value.next), at = times.value.steps.find(t => t.id === times.value.next)
  return step && at && { step, at }
})
const problem = computed(() => {
  const of = times.value.problem
  return of && jobProblemWords(of.code, of.steps.map(s => nameOfStep(steps.value.find(t => t.id === s)!)), of.by)
})
async function toBench(which: string) {
  busy.value = true
  trouble.value = ''
  try {
    await navigateTo(`/bench/${await mix(steps.value.find(s => s.id === which)!)}`)
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  busy.value = false
}
async function again() {
  await saved.save()
  await navigateTo({ path: `/jobs/${newId()}`, query: { of: id } })
}
const keptOwn = ref(false)
async function keepAsOwn() {
  trouble.value = ''
  try {
    await library.save('job', newId(), asOwn(body.value, begunAnew(steps.value)))
    keptOwn.value = true
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
}
async function archive() {
  await library.archive('job', id)
  await navigateTo('/jobs')
}
const dips = computed(() => next.value?.step.task === 'dip-test')
useHead({ title: () => body.value.name || 'Job' })
</script>

<template>
  <div class="job">
    <header>
      <div class="title">
        <p class="eyebrow"><NuxtLink to="/jobs">A whole job</NuxtLink></p>
        <input
          v-if="session.mayWrite"
          class="name"
          aria-label="Name of the job"
          maxlength="120"
          :value="body.name"
          @input="change({ name: ($event.target as HTMLInputElement).value })">
        <h1 v-else>{{ body.name }}</h1>
        <p class="small soft" role="status">{{ SAVING[saved.saving.value] ?? '' }} {{ saved.trouble.value }}</p>
      </div>
      <span v-if="session.mayWrite" class="ways">
        <PlainButton v-if="item" label="Make it again" small @click="again" />
        <PlainButton
          :label="editing ? 'Done changing' : 'Change the steps'"
          :aria-pressed="editing"
          small
          @click="editing = !editing" />
        <PlainButton v-if="item" label="Archive" small @click="archive" />
      </span>
    </header>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="problem" class="problem" role="status">{{ problem }}</p>
    <div v-if="!editing" class="both">
      <div class="left">
        <JobNext
          v-if="next"
          :step="next.step"
          :at="next.at"
          :may-write="session.mayWrite"
          :busy="busy"
          @begin="begin(next.step.id)"
          @end="end(next.step.id)"
          @mix="toBench(next.step.id)" />
        <p v-else-if="!problem" class="over">All of it is done.</p>
        <DipTest v-if="dips" />
        <ul v-if="body.cautions.length > 0" class="cautions">
          <li v-for="c in body.cautions" :key="c">{{ JOB_CAUTION_WORDS[c] }}</li>
        </ul>
        <JobPours :steps="steps" />
        <div v-if="session.mayWrite">
          <label for="job-note">Note</label>
          <textarea
            id="job-note"
            rows="2"
            maxlength="4000"
            :value="body.note"
            @input="change({ note: ($event.target as HTMLTextAreaElement).value })" />
        </div>
      </div>
      <JobRail
        :steps="steps"
        :times="times.steps"
        :next="times.next"
        :may-write="session.mayWrite"
        @begin="begin"
        @end="end"
        @back="takeBack"
        @mix="toBench" />
    </div>
    <section v-else aria-label="Steps, to be changed">
      <ol class="edit">
        <StepFields
          v-for="(s, n) in steps"
          :key="s.id"
          :step="s"
          :steps="steps"
          :first="n === 0"
          :last="n === steps.length - 1"
          @change="changeStep(s.id, $event)"
          @remove="change({ steps: withoutStep(steps, s.id) })"
          @add="change({ steps: withStepAfter(steps, s.id) })"
          @move="change({ steps: movedStep(steps, s.id, $event) })" />
      </ol>
      <p class="keep">
        <PlainButton label="Keep it as one of our own" :disabled="keptOwn" @click="keepAsOwn" />
        <span v-if="keptOwn" role="status">Kept: it stands among the jobs to begin from.</span>
      </p>
    </section>
  </div>
</template>

<style scoped>
header { display: flex; flex-wrap: wrap; gap: 10px 20px; justify-content: space-between; align-items: start; margin-bottom: 14px; }
.title { flex: 1 1 320px; min-width: 0; }
.name { font: inherit; font-size: clamp(1.7rem, 3vw, 2.3rem); font-weight: 750; border: 0; border-bottom: 1.5px dashed transparent; background: none; width: 100%; padding: 0; color: inherit; }
.name:hover, .name:focus { border-bottom-color: var(--line-strong); }
.eyebrow a { display: inline-block; min-height: 26px; }
.ways { display: flex; flex-wrap: wrap; gap: 8px; }
.both { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr); gap: 34px; align-items: start; }
.left { display: grid; gap: 16px; }
.over { font-size: 1.4rem; font-weight: 650; }
.cautions { list-style: none; margin: 0; padding: 0 0 0 12px; border-left: 3px solid var(--heat); display: grid; gap: 4px; font-size: 0.95rem; }
.edit { list-style: none; margin: 0; padding: 0; }
.keep { display: flex; gap: 12px; align-items: center; padding-top: 14px; }
textarea { width: 100%; border: 1px solid var(--line-strong); border-radius: 9px; background: var(--sheet); color: var(--ink); padding: 8px 10px; font: inherit; }
label { font-weight: 600; font-size: 0.92rem; display: block; margin-bottom: 4px; }
@media (max-width: 1000px) { .both { grid-template-columns: minmax(0, 1fr); } }
</style>
