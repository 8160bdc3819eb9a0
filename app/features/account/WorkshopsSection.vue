<script setup lang="ts">
import Button from 'primevue/button'
import type { AccountFacts } from '~contract/account'
import { useSession } from '~/sync/session'
import { useAttempt } from '~/ui/attempt'

/** The workshops one belongs to, where there are several. */
const { workshops } = defineProps<{ workshops: AccountFacts['workshops'] }>()
const session = useSession(), { trouble, attempt } = useAttempt()
/** The whole application begins anew: nothing of one workshop is left in memory in another. */
const go = (id: string) => attempt(async () => {
  await session.goTo(id)
  location.assign('/')
})
</script>

<template>
  <section v-if="workshops.length > 1" aria-labelledby="workshops-head">
    <div class="group-head"><h2 id="workshops-head">Your workshops</h2></div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble.sentence }}</p>
    <ul class="ruled">
      <li v-for="w in workshops" :key="w.id">
        <span><span class="strong">{{ w.name }}</span>, {{ w.role }}</span>
        <span v-if="w.here" class="soft">you are here</span>
        <Button v-else label="Go there" severity="secondary" size="small" :aria-label="`Go to ${w.name}`" @click="go(w.id)" />
      </li>
    </ul>
  </section>
</template>

<style scoped>
li { display: flex; justify-content: space-between; align-items: center; gap: 14px; padding: 8px 0; min-height: 52px; }
</style>
