<script setup lang="ts">
import InputText from 'primevue/inputtext'
import Button from 'primevue/button'
import type { CodeAnswer } from '~contract/label'
import { ask, Refused } from '~/sync/api'

/** Where a label's code leads: straight to its page, or to a choice where two things share it. */
const route = useRoute()
const code = String(route.params.code), typed = ref(code)
const trouble = ref(''), things = ref<CodeAnswer['things']>([])
const pathOf = (t: CodeAnswer['things'][number]) =>
  t.what === 'cast' ? `/piece/${t.id}/${t.cast}` : t.what === 'plan' ? `/plan/${t.id}` : '/powders'
try {
  const answer = await ask('GET labels/:code', { params: { code } })
  if (answer.things.length === 1) await navigateTo(pathOf(answer.things[0]!), { replace: true })
  else things.value = answer.things
}
catch (error) {
  trouble.value = error instanceof Refused ? error.sentence : 'That code could not be looked up.'
}
</script>

<template>
  <div>
    <h1>Label {{ code }}</h1>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <ul v-if="things.length > 1" class="ruled">
      <li v-for="t in things" :key="t.id">
        <NuxtLink :to="pathOf(t)">{{ t.name }}</NuxtLink>
      </li>
    </ul>
    <form @submit.prevent="navigateTo(`/l/${encodeURIComponent(typed.trim())}`)">
      <label for="code" class="strong">Another code</label>{{ ' ' }}
      <InputText id="code" v-model="typed" maxlength="40" autocomplete="off" />{{ ' ' }}
      <Button type="submit" label="Open" severity="secondary" />
    </form>
  </div>
</template>

<style scoped>
form { display: flex; gap: 10px; align-items: center; padding-top: 16px; }
li { padding: 10px 0; }
</style>
