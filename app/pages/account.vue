<script setup lang="ts">
import Button from 'primevue/button'
import FactorSection from '~/features/account/FactorSection.vue'
import PasskeySection from '~/features/account/PasskeySection.vue'
import PasswordSection from '~/features/account/PasswordSection.vue'
import SessionsSection from '~/features/account/SessionsSection.vue'
import WorkshopsSection from '~/features/account/WorkshopsSection.vue'
import { waitWords } from '~/features/waiting/words'
import type { AccountFacts } from '~contract/account'
import { ask } from '~/sync/api'
import { useChanges } from '~/sync/changes'
import { useLive } from '~/sync/live'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'
import { useAttempt } from '~/ui/attempt'

const session = useSession(), records = useRecords(), changes = useChanges(), { trouble, attempt } = useAttempt()
const facts = ref<AccountFacts>()
const load = () => attempt(async () => {
  facts.value = await ask('GET account')
})
await load()
async function signOut() {
  useLive().stop()
  await session.signOut()
  await navigateTo('/sign-in')
}
</script>

<template>
  <div class="narrow">
    <header>
      <h1>{{ session.person?.name }}</h1>
      <Button label="Sign out" severity="secondary" @click="signOut" />
    </header>
    <p class="soft">
      You sign in with {{ session.person?.email }} and are {{ session.person?.role }} of
      {{ session.facts?.workshop?.name }}.<template v-if="records.unsent + changes.unsent.length > 0">
        {{ waitWords(records.unsent, changes.unsent.length) }} still to be sent; nothing of it is lost when you sign out.
      </template>
    </p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble.sentence }}</p>
    <template v-if="facts">
      <WorkshopsSection :workshops="facts.workshops" />
      <SessionsSection :sessions="facts.sessions" @changed="load" />
      <template v-if="!session.facts?.demo">
        <PasswordSection @changed="load" />
        <PasskeySection :passkeys="facts.passkeys" @changed="load" />
        <FactorSection :on="facts.secondFactor" :recovery-left="facts.recoveryLeft" @changed="load" />
      </template>
    </template>
  </div>
</template>

<style scoped>
.narrow { max-width: 760px; }
header { display: flex; justify-content: space-between; align-items: center; gap: 14px; }
</style>
