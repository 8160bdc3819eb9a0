<script setup lang="ts">
import type { LessonId } from '~core/lessons/types'
import type { LeverId } from '~core/practice/levers'
import LessonRun from '~/features/practice/LessonRun.vue'
import PracticeBench from '~/features/practice/PracticeBench.vue'
import { givenOf } from '~/features/practice/where'
import SeatKit from '~/features/seat/SeatKit.vue'
import { useSeat } from '~/features/seat/seat'
import PlainButton from '~/ui/PlainButton.vue'
import type { Told } from '~/workers/practice.worker'

/** A seat in a class: whatever the class was given to do, and where one is in it. */
definePageMeta({ layout: 'bare' })
const seat = useSeat()
const here = computed(() => seat.answer), task = computed(() => seat.task), given = computed(() => here.value?.class.tasks ?? 0)
onMounted(() => {
  seat.start()
  if (!here.value) void seat.load().then(toDoor)
})
onBeforeUnmount(() => seat.stop())
function toDoor() {
  if (!seat.answer) void navigateTo('/join')
}
watch(() => seat.gone, toDoor)
const leave = () => seat.leave().then(toDoor)
function became({ outcome, changes }: Told, minutes: number) {
  const named = (changes[0]?.levers ?? []).slice(0, 2) as LeverId[]
  seat.cameOf({ kind: 'scenario', task: given.value, verdict: outcome.verdict, named, minutes })
}
function ended(right: number, of: number, chosen: readonly number[]) {
  const kind = task.value?.kind
  seat.cameOf(kind === 'test' || kind === 'page'
    ? { kind, task: given.value, chosen: [...chosen] }
    : { kind: 'lesson', task: given.value, right, of })
  seat.isAt({ at: 'done', done: of, of })
}
const asked = (done: number, of: number) => seat.isAt({ at: of > 0 ? 'asked' : 'reads', done, of })
const testSeed = computed(() => (task.value?.kind === 'test' ? task.value.seed : 0) + (here.value?.seat.number ?? 0))
useHead({ title: () => here.value?.class.name ?? 'Your seat', meta: [{ name: 'robots', content: 'noindex' }] })
</script>

<template>
  <main v-if="here" class="seat">
    <header>
      <p><b class="num">{{ here.seat.number }}</b> {{ here.seat.name }}<span class="soft"> · {{ here.class.name }}</span></p>
      <p v-if="!seat.connected" role="status" class="small">No connection; what you do is kept here and sent later.</p>
      <div class="ways">
        <PlainButton
          v-if="!here.class.over"
          :label="seat.help ? 'Your teacher sees it: press when helped' : 'I need help'"
          small
          :strong="seat.help"
          :aria-pressed="seat.help"
          @click="seat.askForHelp(!seat.help)" />
        <PlainButton label="Leave" small @click="leave" />
      </div>
    </header>
    <section v-if="here.class.over && task?.kind !== 'kits'" class="wait">
      <h1>The class is over</h1>
      <p>What you did is with your teacher. <NuxtLink to="/practice">Practise on by yourself</NuxtLink>, whenever you like.</p>
    </section>
    <PracticeBench
      v-else-if="task?.kind === 'scenario'"
      v-bind="givenOf(task.id)"
      :key="given"
      :seed="task.seed"
      :held="here.class.paused"
      :keep-as="`seat-${here.seat.id}-${given}`"
      @at="seat.isAt"
      @told="became"><template #over>For the whole class</template></PracticeBench>
    <LessonRun
      v-else-if="task?.kind === 'lesson'"
      :id="task.id as LessonId"
      :key="given"
      :seed="given + here.seat.number"
      @at="asked"
      @ended="ended"><template #over>For the whole class</template></LessonRun>
    <LessonRun
      v-else-if="task?.kind === 'page'"
      id="page"
      :key="given"
      :page="task.page"
      :seed="task.seed + here.seat.number"
      :shows="!task.test"
      @at="asked"
      @ended="ended"><template #over>{{ task.test ? 'A test: answered once, marked at the end' : 'For the whole class' }}</template></LessonRun>
    <LessonRun
      v-else-if="task?.kind === 'test'"
      id="test"
      :key="given"
      :seed="testSeed"
      :count="task.questions"
      :shows="false"
      @at="asked"
      @ended="ended"><template #over>A test: answered once, marked at the end</template></LessonRun>
    <div v-else-if="task?.kind === 'kits' && here.kit" class="pad"><SeatKit :kit="here.kit" :units="here.units" /></div>
    <section v-else class="wait">
      <h1>You are in</h1>
      <p>Look up: your teacher goes on from here. This page changes by itself.</p>
    </section>
  </main>
  <main v-else class="wait"><p>Looking for your seat …</p></main>
</template>

<style scoped>
.seat { min-height: 100dvh; display: grid; grid-template-rows: auto 1fr; }
header { display: flex; flex-wrap: wrap; gap: 6px 18px; align-items: center; justify-content: space-between; padding: 8px 16px; border-bottom: 1.5px solid var(--line); background: var(--sheet); }
header .num { font-size: 1.3rem; }
.ways { display: flex; gap: 8px; flex-wrap: wrap; }
.pad { padding: 18px 22px; }
.wait { padding: 16vh 8vw; display: grid; gap: 12px; align-content: start; font-size: 1.2rem; }
h1 { font-size: clamp(2rem, 5vw, 3rem); }
</style>
