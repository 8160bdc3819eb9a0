<script setup lang="ts">
import Button from 'primevue/button'
import type { PasskeyRow } from '~contract/account'
import { ask } from '~/sync/api'
import { useAttempt } from '~/ui/attempt'
import TextField from '~/ui/TextField.vue'
import { dayAndTime } from '~/ui/when'
import { hasName, knowsPasskeys, makePasskey } from './passkeys'

/** Keys that a phone or computer holds, opened by finger, face or its own code: no password is typed. */
const { passkeys } = defineProps<{ passkeys: readonly PasskeyRow[] }>()
const emit = defineEmits<{ changed: [] }>()
const { trouble, says, busy, attempt } = useAttempt()
const form = reactive({ password: '', name: '' })
const can = knowsPasskeys(), named = hasName()
const told = (words: string) => words || 'A passkey without a name'

const add = () => attempt(async () => {
  await makePasskey(form.password, form.name)
  form.password = form.name = ''
  emit('changed')
})
const remove = (id: string) => attempt(async () => {
  await ask('DELETE account/passkeys/:id', { params: { id } })
  emit('changed')
})
</script>

<template>
  <section aria-labelledby="passkeys-head">
    <div class="group-head">
      <h2 id="passkeys-head">Passkeys</h2>
      <span class="small soft">sign in with a finger, a face or the device’s own code</span>
    </div>
    <ul v-if="passkeys.length > 0" class="ruled">
      <li v-for="p in passkeys" :key="p.id">
        <span>
          <span class="strong">{{ told(p.name) }}</span><br>
          <span class="small soft">
            for {{ p.host }}, made {{ dayAndTime(p.madeAt, Date.now()) }},
            {{ p.usedAt ? `last used ${dayAndTime(p.usedAt, Date.now())}` : 'not used yet' }}
          </span>
        </span>
        <Button label="Remove" severity="secondary" size="small" :aria-label="`Remove ${told(p.name)}`" @click="remove(p.id)" />
      </li>
    </ul>
    <form v-if="can && named" class="ask" novalidate @submit.prevent="add">
      <TextField id="passkey-name" v-model="form.name" label="A name for it, such as “my phone”" :wrong="says('name')" />
      <TextField
        id="passkey-password"
        v-model="form.password"
        label="Your password, to add one"
        type="password"
        autocomplete="current-password"
        :wrong="says('password')"
      />
      <Button type="submit" label="Add a passkey" severity="secondary" :disabled="busy" />
    </form>
    <p v-else class="soft">
      {{
        can
          ? 'A passkey belongs to a name. Open this page by the server’s name instead of its number, and you can add one here.'
          : 'This browser can make no passkey here.'
      }}
    </p>
    <p v-if="trouble && !trouble.field" class="problem" role="alert">{{ trouble.sentence }}</p>
  </section>
</template>

<style scoped>
li { display: flex; justify-content: space-between; align-items: center; gap: 14px; padding: 8px 0; }
.ask { display: flex; flex-wrap: wrap; gap: 12px 20px; padding-top: 14px; align-items: end; }
</style>
