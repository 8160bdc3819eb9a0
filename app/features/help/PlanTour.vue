<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import 'driver.js/dist/driver.css'
import { useSession } from '~/sync/session'
import { usePlanning } from '~/features/plan/planning'
import { usePlans } from '~/sync/plans'
import PlainButton from '~/ui/PlainButton.vue'

/** Five steps over somebody's own first plan, offered once and never again by itself. */
const session = useSession(), planning = usePlanning(), plans = usePlans(), seen = useLocalStorage('tour-seen', false)
const offered = computed(() =>
  !seen.value && !session.facts?.demo && session.mayWrite && plans.saved.length <= 1 && planning.result.batches.length > 0)
async function begin() {
  seen.value = true
  const [{ driver }, { TOUR }] = await Promise.all([import('driver.js'), import('./words')])
  const steps = TOUR.filter(t => document.querySelector(t.on))
    .map(t => ({ element: t.on, popover: { title: t.title, description: t.text } }))
  driver({
    steps, showProgress: true, progressText: '{{current}} of {{total}}', doneBtnText: 'Done', nextBtnText: 'Next',
    prevBtnText: 'Back', animate: !matchMedia('(prefers-reduced-motion: reduce)').matches,
  }).drive()
}
</script>

<template>
  <p v-if="offered" class="offer" role="note">
    Your first plan: five short steps show how it reads.
    <PlainButton label="Show me" small strong @click="begin" />
    <PlainButton label="No, thanks" small @click="seen = true" />
  </p>
</template>

<style scoped>
.offer { display: flex; flex-wrap: wrap; gap: 10px; align-items: center; background: var(--band); border-radius: var(--radius); padding: 8px 14px; margin-bottom: 14px; }
</style>
