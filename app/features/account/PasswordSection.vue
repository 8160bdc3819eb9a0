<script setup lang="ts">
import Button from 'primevue/button'
import { ask } from '~/sync/api'
import { useAttempt } from '~/ui/attempt'
import TextField from '~/ui/TextField.vue'

/** One's own password. */
const emit = defineEmits<{ changed: [] }>()
const { trouble, says, busy, attempt } = useAttempt()
const form = reactive({ old: '', password: '' }), done = ref(false)
const change = () => attempt(async () => {
  done.value = false
  await ask('PUT account/password', { body: { ...form } })
  Object.assign(form, { old: '', password: '' })
  done.value = true
  emit('changed')
})
</script>

<template>
  <section aria-labelledby="password-head">
    <div class="group-head"><h2 id="password-head">Password</h2></div>
    <form novalidate @submit.prevent="change">
      <TextField id="old" v-model="form.old" label="As it is now" type="password" autocomplete="current-password" :wrong="says('old')" />
      <TextField
        id="new"
        v-model="form.password"
        label="The new one, ten characters or more"
        type="password"
        autocomplete="new-password"
        :wrong="says('password')"
      />
      <Button type="submit" label="Change it" severity="secondary" :disabled="busy" />
      <p v-if="trouble && !trouble.field" class="problem" role="alert">{{ trouble.sentence }}</p>
      <p role="status" class="soft">{{ done ? 'Changed. Wherever else you were signed in, that has ended.' : '' }}</p>
    </form>
  </section>
</template>

<style scoped>
form { display: grid; grid-template-columns: 1fr 1fr; gap: 12px 18px; padding-top: 14px; align-items: start; }
form > :nth-child(n + 3) { grid-column: 1 / -1; justify-self: start; }
@media (max-width: 720px) { form { grid-template-columns: 1fr; } }
</style>
