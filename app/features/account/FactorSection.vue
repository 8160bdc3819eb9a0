<script setup lang="ts">
import Button from 'primevue/button'
import { ask } from '~/sync/api'
import { useAttempt } from '~/ui/attempt'
import { offerFile } from '~/ui/files'
import QrPicture from '~/ui/QrPicture.vue'
import TextField from '~/ui/TextField.vue'

/** A second thing that signing in asks for: six digits that a phone shows, a new six each half minute. */
const { on, recoveryLeft } = defineProps<{ on: boolean, recoveryLeft: number }>()
const emit = defineEmits<{ changed: [] }>()
const { trouble, says, busy, attempt } = useAttempt()
const form = reactive({ password: '', code: '' })
const offered = ref<{ readonly secret: string, readonly uri: string }>(), recovery = ref<readonly string[]>()

const begin = () => attempt(async () => {
  offered.value = await ask('POST account/second-factor', { body: { password: form.password } })
  form.password = ''
})
const confirm = () => attempt(async () => {
  recovery.value = (await ask('PUT account/second-factor', { body: { code: form.code } })).recovery
  offered.value = undefined
  form.code = ''
  emit('changed')
})
const switchOff = () => attempt(async () => {
  await ask('POST account/second-factor/off', { body: { password: form.password } })
  form.password = ''
  recovery.value = undefined
  emit('changed')
})
const beginOrEnd = () => on ? switchOff() : begin()
const save = () => offerFile('nine-ripples-recovery-codes.txt', `${recovery.value?.join('\n')}\n`, 'text/plain')
</script>

<template>
  <section aria-labelledby="factor-head">
    <div class="group-head">
      <h2 id="factor-head">A code besides the password</h2>
      <span class="small soft">{{ on ? `on, with ${recoveryLeft} recovery codes left` : 'off' }}</span>
    </div>
    <div v-if="recovery" class="codes" role="status">
      <p>
        Keep these where you keep keys. Each signs you in once, if the phone is lost. They are not shown again.
      </p>
      <ul><li v-for="r in recovery" :key="r">{{ r }}</li></ul>
      <Button label="Save as a file" severity="secondary" size="small" @click="save" />
    </div>
    <form v-if="offered" class="offered" novalidate @submit.prevent="confirm">
      <QrPicture :text="offered.uri" label="The secret, for the phone’s authenticator to scan" />
      <div>
        <p>Scan this with an authenticator on your phone, or type this into it: <code>{{ offered.secret }}</code></p>
        <TextField id="factor-code" v-model="form.code" label="The six digits it shows" autocomplete="one-time-code" :wrong="says('code')" />
        <Button type="submit" label="Switch it on" :disabled="busy" />
      </div>
    </form>
    <form v-else class="ask" novalidate @submit.prevent="beginOrEnd">
      <TextField
        id="factor-password"
        v-model="form.password"
        :label="on ? 'Your password, to switch it off' : 'Your password, to begin'"
        type="password"
        autocomplete="current-password"
        :wrong="says('password')"
      />
      <Button type="submit" :label="on ? 'Switch it off' : 'Begin'" severity="secondary" :disabled="busy" />
    </form>
    <p v-if="trouble && !trouble.field" class="problem" role="alert">{{ trouble.sentence }}</p>
  </section>
</template>

<style scoped>
.codes { display: grid; gap: 10px; justify-items: start; padding: 14px 0; }
.codes ul {
  columns: 2; column-gap: 32px; list-style: none; margin: 0; padding: 12px 16px; font-family: var(--numbers); font-weight: 600;
  background: var(--sheet); border: 1px solid var(--line); border-radius: 8px;
}
.offered, .ask { display: flex; flex-wrap: wrap; gap: 12px 20px; padding-top: 14px; align-items: end; }
.offered { align-items: start; }
.offered > div { flex: 1 1 260px; display: grid; gap: 12px; justify-items: start; }
code { overflow-wrap: anywhere; font-weight: 600; }
</style>
