<script setup lang="ts">
import Button from 'primevue/button'
import SelectButton from 'primevue/selectbutton'
import { METRIC, US_CUSTOMARY } from '~core/units/units'
import RippleMark from '~/ui/RippleMark.vue'
import TextField from '~/ui/TextField.vue'
import { useSession } from '~/sync/session'
import { useAttempt } from '~/ui/attempt'

definePageMeta({ layout: 'bare' })
const session = useSession(), route = useRoute(), { trouble, busy, says, attempt } = useAttempt()
const first = computed(() => session.facts?.needsOwner === true && !session.facts.demo)
const form = reactive({
  workshop: '', name: '', email: '', password: '', code: '', units: 'metric' as 'metric' | 'us',
})
const UNIT_CHOICES = [{ id: 'metric', name: 'g, ml, mm, °C' }, { id: 'us', name: 'lb, cups, in, °F' }]
/** Asked for once the password was right and the account wants a second thing. */
const wantsCode = ref(false)
/** Inside: this page is left as soon as the next one is there, and a second press would end what the first began. */
const inside = ref(false)

async function go(work: () => Promise<void>) {
  inside.value = await attempt(async () => {
    await work()
    const to = String(route.query.to ?? '/')
    await navigateTo(to.startsWith('/') && !to.startsWith('//') ? to : '/')
  })
  wantsCode.value ||= says('code') !== undefined
}
/** The library of keys is fetched with the press: nobody else waits for it. */
const passkey = computed(() => session.facts?.passkeys === true && isSecureContext)
const enterByPasskey = () => go(() => session.signInBy(async () =>
  (await import('~/features/account/passkeys')).usePasskey(),
))
const units = () => form.units === 'us' ? US_CUSTOMARY : METRIC
const enter = () => go(() => {
  const { email, password, code, workshop, name } = form, typed = code === '' ? {} : { code }
  return first.value
    ? session.createOwner({ workshop, name, email, password, units: units(), ...typed })
    : session.signIn({ email, password, ...typed })
})
</script>

<template>
  <main class="door">
    <div class="card sheet">
      <RippleMark class="mark" />
      <h1>Nine Ripples</h1>
      <p class="soft">
        {{
          first
            ? 'This is a new workshop. Make yourself its owner; you can add others later.'
            : 'Plaster, measured and timed.'
        }}
      </p>
      <Button
        v-if="session.facts?.demo"
        label="Enter the demo workshop"
        size="large"
        fluid
        :disabled="busy || inside"
        @click="go(session.enterDemo)" />
      <form v-if="!session.facts?.demo || trouble" novalidate @submit.prevent="enter">
        <template v-if="first">
          <TextField
            v-if="session.facts?.needsCode"
            id="code"
            v-model="form.code"
            label="The code in the window where it was started"
            :wrong="says('code')"
          />
          <TextField id="workshop" v-model="form.workshop" label="Name of the workshop" autocomplete="organization" :wrong="says('workshop')" />
          <TextField id="name" v-model="form.name" label="Your name" autocomplete="name" :wrong="says('name')" />
        </template>
        <TextField id="email" v-model="form.email" label="E-mail address" type="email" autocomplete="username" :wrong="says('email')" />
        <TextField
          id="password"
          v-model="form.password"
          :label="`Password${first ? ', ten characters or more' : ''}`"
          type="password"
          :autocomplete="first ? 'new-password' : 'current-password'"
          :wrong="says('password')"
        />
        <TextField
          v-if="wantsCode && !first"
          id="code"
          v-model="form.code"
          label="Code from your phone"
          autocomplete="one-time-code"
          :wrong="says('code')"
        />
        <div v-if="first" class="field">
          <span id="units-label" class="strong small">Units</span>
          <SelectButton
            v-model="form.units"
            :options="UNIT_CHOICES"
            option-label="name"
            option-value="id"
            :allow-empty="false"
            aria-labelledby="units-label"
          />
        </div>
        <Button type="submit" :label="first ? 'Open the workshop' : 'Sign in'" size="large" fluid :disabled="busy || inside" />
      </form>
      <Button
        v-if="passkey && !first"
        label="Sign in with a passkey"
        severity="secondary"
        fluid
        :disabled="busy || inside"
        @click="enterByPasskey" />
      <p v-if="trouble && !trouble.field" class="problem" role="alert">{{ trouble.sentence }}</p>
    </div>
  </main>
</template>

<style scoped>
.door { min-height: 100dvh; display: grid; place-items: center; padding: 20px; }
.card { width: min(400px, 100%); padding: 30px; display: grid; gap: 14px; }
.mark { width: 46px; background: var(--rail); border-radius: 10px; padding: 6px; }
form { display: grid; gap: 14px; }
</style>
