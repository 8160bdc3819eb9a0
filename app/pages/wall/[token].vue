<script setup lang="ts">
import WallJob from '~/features/wall/WallJob.vue'
import WallPour from '~/features/wall/WallPour.vue'
import { timeOfDay } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { useWall } from '~/features/wall/wall'

definePageMeta({ layout: 'bench', plain: true })
const wall = useWall(), clock = useClock(), route = useRoute()
/** One line of them: what is poured comes first in the room. */
const MOST_JOBS = 3
onMounted(() => wall.start(String(route.params.token)))
onBeforeUnmount(() => wall.stop())
useHead({
  title: () => `${wall.answer?.workshop ?? 'Workshop'}, on the wall`,
  htmlAttrs: { class: 'bench' },
  meta: [{ name: 'referrer', content: 'no-referrer' }, { name: 'robots', content: 'noindex' }],
})
</script>

<template>
  <main class="wall">
    <header>
      <h1>{{ wall.answer?.workshop ?? 'Wall display' }}</h1>
      <p v-if="wall.answer && !wall.connected" class="gone" role="status">
        {{ wall.heardAt ? `last heard ${timeOfDay(clock.at(wall.heardAt))}; this is as it was then` : 'no connection' }}
      </p>
      <p class="num time">{{ timeOfDay(clock.now) }}</p>
    </header>
    <p v-if="wall.refused" class="none">{{ wall.refused }}</p>
    <p v-else-if="!wall.answer" class="none">Looking for the workshop …</p>
    <p v-else-if="wall.pours.length === 0 && wall.answer.jobs.length === 0" class="none">
      Nothing is poured just now. A pour appears here as soon as it is taken to the bench.
    </p>
    <section v-if="wall.answer && wall.answer.jobs.length > 0" class="jobs" aria-label="Jobs">
      <WallJob v-for="j in wall.answer.jobs.slice(0, MOST_JOBS)" :key="j.id" :job="j" />
    </section>
    <div v-if="wall.pours.length > 0" :class="['pours', { many: wall.pours.length > 1 }]">
      <WallPour
        v-for="p in wall.pours"
        :key="p.id"
        :run="p.run"
        :state="p.state"
        :run-for="p.runFor"
        :large="wall.pours.length === 1" />
    </div>
  </main>
</template>

<style scoped>
.wall {
  min-height: 100dvh;
  background: var(--ground);
  color: var(--ink);
  padding: 20px 30px;
  display: grid;
  gap: 14px;
  align-content: start;
}
header {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 20px;
}
h1 {
  font-size: 1.5rem;
  color: var(--soft);
}
.time {
  font-size: clamp(1.8rem, 4vw, 3.4rem);
  font-weight: 700;
}
.gone {
  color: var(--warn);
  font-weight: 600;
}
.none {
  font-size: clamp(1.4rem, 2.6vw, 2.2rem);
  max-width: 34ch;
}
.jobs { display: grid; grid-template-columns: repeat(auto-fit, minmax(min(380px, 100%), 1fr)); gap: 0 34px; }
.pours {
  display: grid;
  gap: 10px 34px;
  align-content: start;
}
.pours.many {
  grid-template-columns: repeat(auto-fit, minmax(min(540px, 100%), 1fr));
}
</style>
