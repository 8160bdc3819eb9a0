<script setup lang="ts">
import Button from 'primevue/button'
import type { TicketFacts } from '~contract/account'
import { ask } from '~/sync/api'
import { rememberWorkshop } from '~/sync/guest'
import { useSession } from '~/sync/session'
import { useAttempt } from '~/ui/attempt'
import RippleMark from '~/ui/RippleMark.vue'
import TextField from '~/ui/TextField.vue'

/** Who holds an invitation, or a link to a new password, comes in here. */
definePageMeta({ layout: 'bare' })
const token = String(useRoute().params.token), session = useSession()
const { trouble, says, busy, attempt } = useAttempt()
const ticket = ref<TicketFacts>()
const form = reactive({ workshop: '', name: '', email: '', password: '' })
await attempt(async () => {
  ticket.value = await ask('GET tickets/:token', { params: { token } })
  form.name = ticket.value.name
})
const isReset = computed(() => ticket.value?.kind === 'reset')
/** Whoever is signed in already comes as they are. */
const known = computed(() => !isReset.value && session.person !== undefined)
const use = () => attempt(async () => {
  const { workshop, name, email, password } = form
  const own = known.value ? {} : isReset.value ? { password } : { name, email, password }
  await ask('POST tickets/:token', {
    params: { token }, body: { ...own, ...(ticket.value?.kind === 'open' && { workshop }) },
  })
  rememberWorkshop(true)
  // Somebody else may have been here before: all begins anew.
  location.assign('/')
})
</script>

<template>
  <main class="door">
    <div class="card sheet">
      <RippleMark class="mark" />
      <template v-if="ticket">
        <h1>{{ isReset ? 'Choose a new password' : ticket.workshop ?? 'A workshop of your own' }}</h1>
        <p class="soft">
          <template v-if="isReset">For {{ ticket.email }}. Wherever you are still signed in, that ends.</template>
          <template v-else-if="ticket.workshop">You are invited, as {{ ticket.role }}.</template>
          <template v-else>You are invited to open one on this server. You will be its owner.</template>
        </p>
        <form novalidate @submit.prevent="use">
          <TextField v-if="ticket.kind === 'open'" id="workshop" v-model="form.workshop" label="Name of the workshop" :wrong="says('workshop')" />
          <template v-if="!known && !isReset">
            <TextField id="name" v-model="form.name" label="Your name" autocomplete="name" :wrong="says('name')" />
            <TextField id="email" v-model="form.email" label="E-mail address" type="email" autocomplete="username" :wrong="says('email')" />
          </template>
          <TextField
            v-if="!known"
            id="password"
            v-model="form.password"
            label="A password, ten characters or more"
            type="password"
            autocomplete="new-password"
            :wrong="says('password')"
          />
          <p v-if="known">You are signed in as {{ session.person?.name }}, and come in as that.</p>
          <Button type="submit" :label="isReset ? 'Take this password' : 'Come in'" size="large" fluid :disabled="busy" />
        </form>
        <p v-if="!known && !isReset" class="small">
          You have an account on this server already? <NuxtLink :to="{ path: '/sign-in', query: { to: `/enter/${token}` } }">Sign in first</NuxtLink>, and come in as yourself.
        </p>
      </template>
      <p v-if="trouble && !trouble.field" class="problem" role="alert">{{ trouble.sentence }}</p>
      <p v-if="!ticket"><NuxtLink to="/sign-in">To the entrance</NuxtLink></p>
    </div>
  </main>
</template>

<style scoped>
.door { min-height: 100dvh; display: grid; place-items: center; padding: 20px; }
.card { width: min(400px, 100%); padding: 30px; display: grid; gap: 14px; }
.mark { width: 46px; background: var(--rail); border-radius: 10px; padding: 6px; }
form { display: grid; gap: 14px; }
</style>
