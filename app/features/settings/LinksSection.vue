<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import type { LinkFacts, LinkKind } from '~contract/link'
import { ask, Refused } from '~/sync/api'
import { useSession } from '~/sync/session'
import OnceShown from '~/ui/OnceShown.vue'
import { reachable } from './reach'

/** Links that open one thing to whoever has them; the address is shown once, when it is made. */
const { kind, title, explained, path, ending = '' } = defineProps<
  { kind: LinkKind, title: string, explained: string, path: string, ending?: string }
>()
const session = useSession()
const list = ref<LinkFacts[]>([])
const name = ref('')
const made = ref<{ name: string, address: string }>()
const trouble = ref('')
async function attempt(work: () => Promise<void>) {
  trouble.value = ''
  try {
    await work()
    list.value = (await ask('GET links')).filter(l => l.kind === kind)
  }
  catch (error) {
    trouble.value = error instanceof Refused ? error.sentence : 'That did not work. Try it again.'
  }
}
await attempt(async () => {})
const make = () => attempt(async () => {
  const link = await ask('POST links', { body: { kind, name: name.value } })
  made.value = { name: link.name, address: `${await reachable()}${path}${link.token}${ending}` }
  name.value = ''
})
const drop = (id: string) => attempt(async () => {
  await ask('DELETE links/:id', { params: { id } })
})
</script>

<template>
  <section :aria-labelledby="`links-${kind}`">
    <div class="group-head">
      <h2 :id="`links-${kind}`">{{ title }}</h2>
      <span class="small soft">{{ explained }}</span>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <ul v-if="list.length > 0" class="ruled">
      <li v-for="l in list" :key="l.id">
        <span class="strong">{{ l.name }}</span>
        <Button
          v-if="session.isOwner"
          label="Revoke"
          severity="secondary"
          size="small"
          :aria-label="`Revoke the link ${l.name}`"
          @click="drop(l.id)" />
      </li>
    </ul>
    <OnceShown v-if="made" :address="made.address">
      <span class="strong">{{ made.name }}:</span> this address is shown once. Whoever has it sees that and nothing else.
    </OnceShown>
    <form v-if="session.isOwner" novalidate @submit.prevent="make">
      <label :for="`link-name-${kind}`" class="small strong">What for</label>
      <InputText :id="`link-name-${kind}`" v-model="name" maxlength="60" autocomplete="off" />
      <Button type="submit" label="Make a link" severity="secondary" />
    </form>
  </section>
</template>

<style scoped>
li { display: flex; justify-content: space-between; align-items: center; gap: 14px; padding: 8px 0; }
form { display: flex; flex-wrap: wrap; gap: 8px 10px; align-items: center; padding-top: 12px; }
</style>
