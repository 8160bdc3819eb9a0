<script setup lang="ts">
import { stepsOf } from '~core/plan/run'
import { stepWords } from '~core/plan/step-words'
import { spellCode } from '~contract/class-code'
import { useClass } from '~/features/classes/class'
import SeatGrid from '~/features/classes/SeatGrid.vue'
import { taskWords } from '~/features/classes/words'
import { ask } from '~/sync/api'
import { onOwnMachine } from '~/sync/own-machine'
import { useClock } from '~/sync/clock'
import QrPicture from '~/ui/QrPicture.vue'
import { timeOfDay } from '~/ui/when'

/** The class on the big screen: how one comes in, what is done now, where all are, and the room’s clock. */
definePageMeta({ layout: 'bench' })
const id = String(useRoute().params.id), { answer, trouble, load } = useClass(id), clock = useClock()
await load().catch(() => {})
/** Phones come in over plain http: nobody in a class installs anything. */
const at = ref(location.origin)
if (onOwnMachine()) void ask('GET share').then(({ share }) => {
  if (share) at.value = new URL(share.install).origin
}, () => {})
const join = computed(() => `${at.value}/join`)
const step = computed(() => {
  const { kit, task } = answer.value ?? {}
  return task?.kind === 'kits' && kit && kit.led >= 0 ? stepsOf(kit.run)[kit.led] : undefined
})
const looks = computed(() => answer.value?.all.filter(s => s.doing?.task === answer.value!.tasks && s.doing.look).length ?? 0)
useHead({ title: () => `${answer.value?.name ?? 'Class'}, on the big screen` })
</script>

<template>
  <main v-if="answer" class="wall">
    <header>
      <div>
        <p class="soft"><NuxtLink :to="`/classes/${id}`">{{ answer.name }}</NuxtLink></p>
        <h1>{{ step ? stepWords(step).instruction : answer.over ? 'The class is over' : taskWords(answer.task) }}</h1>
        <p v-if="answer.paused" class="held" role="status">Held: look up, all of you.</p>
      </div>
      <p class="num time">{{ timeOfDay(clock.now) }}</p>
    </header>
    <section v-if="answer.code && !answer.shut" class="door" aria-label="How to come in">
      <QrPicture :text="`${join}?code=${answer.code}`" label="The address of the class, for a phone’s camera" />
      <div>
        <p class="address">{{ join.replace(/^https?:\/\//, '') }}</p>
        <p class="num code">{{ spellCode(answer.code) }}</p>
      </div>
    </section>
    <p class="small counts" role="status">{{ answer.seats === 1 ? 'one seat' : `${answer.seats} seats` }}<template v-if="looks > 0"> · {{ looks === 1 ? 'one needs a look' : `${looks} need a look` }}</template></p>
    <SeatGrid :answer="answer" large />
  </main>
  <main v-else class="wall"><p>{{ trouble || 'Looking for the class …' }}</p></main>
</template>

<style scoped>
.wall { min-height: 100dvh; background: var(--ground); color: var(--ink); padding: 20px 30px; display: grid; gap: 16px; align-content: start; }
header { display: flex; justify-content: space-between; gap: 20px; align-items: start; }
h1 { font-size: clamp(1.9rem, 4.4vw, 3.6rem); line-height: 1.06; }
.time { font-size: clamp(2rem, 5vw, 4rem); font-weight: 750; line-height: 1; }
.held { font-size: 1.6rem; font-weight: 720; color: var(--heat); }
.door { display: flex; gap: 24px; align-items: center; background: var(--band); border-radius: 16px; padding: 16px 22px; flex-wrap: wrap; }
.address { font-size: clamp(1.2rem, 2.2vw, 2rem); overflow-wrap: anywhere; }
.code { font-size: clamp(3rem, 8vw, 6.5rem); font-weight: 780; line-height: 1; letter-spacing: 0.05em; }
.counts { font-size: 1.2rem; }
</style>
