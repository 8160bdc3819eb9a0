<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import SelectButton from 'primevue/selectbutton'
import { METRIC, US_CUSTOMARY } from '~core/units/units'
import RippleMark from '~/ui/RippleMark.vue'
import { Refused } from '~/sync/api'
import { useSession } from '~/sync/session'

definePageMeta({ layout: 'bare' })
const session = useSession(), route = useRoute()
const first = computed(() => session.facts?.needsOwner === true && !session.facts.demo)
const form = reactive({ workshop: '', name: '', email: '', password: '', units: 'metric' as 'metric' | 'us' })
const busy = ref(false)
const trouble = ref<{ sentence: string, field?: string }>()
const UNIT_CHOICES = [{ id: 'metric', name: 'g, ml, mm, °C' }, { id: 'us', name: 'lb, cups, in, °F' }]

async function go(work: () => Promise<void>) {
  busy.value = true
  trouble.value = undefined
  try {
    await work()
    const to = String(route.query.to ?? '/')
    await navigateTo(to.startsWith('/') && !to.startsWith('//') ? to : '/')
  }
  catch (error) {
    trouble.value = error instanceof Refused
      ? { sentence: error.sentence, field: error.field }
      : { sentence: 'That did not work. Try it again.' }
  }
  finally {
    busy.value = false
  }
}
const enter = () =>
  go(() =>
    first.value
      ? session.createOwner({
          workshop: form.workshop,
          name: form.name,
          email: form.email,
          password: form.password,
          units: form.units === 'us' ? US_CUSTOMARY : METRIC,
        })
      : session.signIn({ email: form.email, password: form.password }),
  )
const says = (field: string) => trouble.value?.field === field ? trouble.value.sentence : undefined
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
        :disabled="busy"
        @click="go(session.enterDemo)" />
      <form v-if="!session.facts?.demo || trouble" novalidate @submit.prevent="enter">
        <template v-if="first">
          <div class="field">
            <label for="workshop">Name of the workshop</label><InputText
              id="workshop"
              v-model="form.workshop"
              autocomplete="organization"
              :invalid="says('workshop') !== undefined"
            />
            <p v-if="says('workshop')" class="problem">{{ says('workshop') }}</p>
          </div>
          <div class="field">
            <label for="name">Your name</label><InputText
              id="name"
              v-model="form.name"
              autocomplete="name"
              :invalid="says('name') !== undefined"
            />
            <p v-if="says('name')" class="problem">{{ says('name') }}</p>
          </div>
        </template>
        <div class="field">
          <label for="email">E-mail address</label><InputText
            id="email"
            v-model="form.email"
            type="email"
            autocomplete="username"
            :invalid="says('email') !== undefined"
          />
          <p v-if="says('email')" class="problem">{{ says('email') }}</p>
        </div>
        <div class="field">
          <label for="password">Password{{ first ? ', ten characters or more' : '' }}</label><InputText
            id="password"
            v-model="form.password"
            type="password"
            :autocomplete="first ? 'new-password' : 'current-password'"
            :invalid="says('password') !== undefined"
          />
          <p v-if="says('password')" class="problem">{{ says('password') }}</p>
        </div>
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
        <Button type="submit" :label="first ? 'Open the workshop' : 'Sign in'" size="large" fluid :disabled="busy" />
      </form>
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
