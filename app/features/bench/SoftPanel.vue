<script setup lang="ts">
import { softWindows } from '~core/bench/soft'
import { SOFT_WORDS } from '~core/bench/words'
import { formatDuration } from '~core/units/format'
import { timeOfDay } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { useRun } from '~/sync/run'
import TermText from '~/ui/TermText.vue'

/** What hands can still do to a batch that is filled, from when to when; it moves as marks are made. */
const { batch } = defineProps<{ batch: number }>()
const store = useRun(), clock = useClock()
const windows = computed(() =>
  softWindows(store.runFor(batch), store.state!, batch, clock.beat).filter(w => w.state !== 'over'))
/** The one to work in now, or else the next. */
const loudest = computed(() => windows.value.find(w => w.state === 'now') ?? windows.value[0])
const left = (to: number) => formatDuration(Math.max(0, Math.round((to - clock.beat) / 10_000) * 10))
</script>

<template>
  <section v-if="loudest" aria-labelledby="soft-head" class="soft-panel">
    <h3 id="soft-head">While it is soft</h3>
    <ol>
      <li v-for="w in windows" :key="w.id" :class="{ loudest: w === loudest }">
        <p class="when">
          <span class="num">{{ timeOfDay(w.from) }}–{{ timeOfDay(w.to) }}</span> {{ SOFT_WORDS[w.id].name }}
          <span v-if="w.state === 'now'" class="left">{{ left(w.to) }} left</span>
        </p>
        <p v-if="w === loudest" class="how"><TermText :text="SOFT_WORDS[w.id].how" /></p>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.soft-panel { display: grid; gap: 6px; padding: 10px 16px; border-left: 6px solid var(--set); background: var(--sheet); border-radius: 10px; }
h3 { font-size: 1rem; font-weight: 650; }
ol { display: grid; gap: 4px; list-style: none; padding: 0; margin: 0; }
.when { font-size: 1.05rem; }
.loudest .when { font-size: clamp(1.2rem, 2vw, 1.5rem); font-weight: 680; color: var(--set); }
.left { font-weight: 500; padding-left: 6px; }
.how { font-size: 1.05rem; max-width: 92ch; }
</style>
