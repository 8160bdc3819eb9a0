<script setup lang="ts">
import Button from 'primevue/button'
import StillThere from '~/features/bench/StillThere.vue'
import EmptyPicture from '~/ui/EmptyPicture.vue'
import LongList from '~/ui/LongList.vue'
import MouldPicture from '~/features/library/MouldPicture.vue'
import PourPicture from '~/features/library/PourPicture.vue'
import PlainButton from '~/ui/PlainButton.vue'
import { dayAndTime } from '~/ui/when'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { usePlanning } from '~/features/plan/planning'
import { usePlans } from '~/sync/plans'
import { usePours } from '~/sync/pours'
import { useSession } from '~/sync/session'
import type { SavedPlan } from '~contract/plan'

const pours = usePours(), planning = usePlanning(), plans = usePlans(), clock = useClock(), session = useSession()
await Promise.all([pours.load(), plans.load(), useLibrary().load()])
const trouble = ref('')
const busy = ref(false)
async function start(p: SavedPlan) {
  busy.value = true
  trouble.value = ''
  try {
    await navigateTo(`/bench/${await planning.toBench(p)}`)
  }
  catch (error) {
    trouble.value = `${p.plan.name}: ${(error as Error).message}`
  }
  finally {
    busy.value = false
  }
}
</script>

<template>
  <div>
    <h1>Bench</h1>
    <p v-if="trouble || pours.trouble" class="problem" role="alert">{{ trouble || pours.trouble }}</p>
    <section v-if="pours.live.length > 0" aria-labelledby="in-hand">
      <div class="group-head"><h2 id="in-hand">In hand</h2></div>
      <LongList v-slot="{ item: p }" :items="pours.live" :key-of="p => p.id" class="pours">
        <PourPicture :summary="p.summary" :size="40" />
        <span
        ><span class="strong">{{ p.summary.name }}</span
        ><br /><span class="small soft"
        >{{ p.summary.step.instruction
        }}<template v-if="p.summary.startedAt"
        >, started {{ dayAndTime(p.summary.startedAt, clock.halfHour) }}</template
        ></span
        ></span
        >
        <PlainButton label="Go on" strong :aria-label="`Go on with ${p.summary.name}`" @click="navigateTo(`/bench/${p.id}`)" />
      </LongList>
    </section>
    <StillThere :pours="pours.forgotten" />
    <section v-if="session.mayWrite" aria-labelledby="to-start">
      <div class="group-head"><h2 id="to-start">Start from a plan</h2></div>
      <LongList v-slot="{ item: p }" :items="plans.saved" :key-of="p => p.id" class="pours">
        <MouldPicture :mould="p.plan.fills[0]?.mould" />
        <NuxtLink class="row-link" :to="`/plan/${p.id}`"
        ><span class="strong">{{ p.plan.name || 'Plan without a name' }}</span></NuxtLink
        >
        <PlainButton
          label="Start"
          :disabled="busy"
          :aria-label="`Start ${p.plan.name}`"
          @click="start(p)" />
      </LongList>
      <div v-if="plans.loaded && plans.saved.length === 0" class="empty">
        <EmptyPicture :forms="['tub', 'cup']" />
        <p>Nothing is planned. A pour starts from a plan, so that the bench knows how much, in what order and when.</p>
        <Button label="New pour" @click="navigateTo('/new')" />
      </div>
    </section>
  </div>
</template>

<style scoped>
.pours { --columns: 44px 1fr auto; }
</style>
