<script setup lang="ts">
import Button from 'primevue/button'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import type { Invitation, PersonFacts, Role } from '~contract/account'
import type { Given } from '~contract/routes'
import { ask } from '~/sync/api'
import { useSession } from '~/sync/session'
import { useAttempt } from '~/ui/attempt'
import OnceShown from '~/ui/OnceShown.vue'
import TextField from '~/ui/TextField.vue'
import { dayAndTime } from '~/ui/when'
import { reachable } from './reach'
import { ROLE_CHOICES, ROLE_WORDS } from './words'

/** Who belongs to the workshop, what they may do, and who is invited. */
const session = useSession(), { trouble, says, attempt } = useAttempt()
const people = ref<readonly PersonFacts[]>([]), invitations = ref<readonly Invitation[]>([])
const form = reactive({ name: '', role: 'member' as Role, kind: 'join' as 'join' | 'open' })
const KINDS = [{ id: 'join', name: 'Into this workshop' }, { id: 'open', name: 'To open one of their own' }]
/** Shown once. */
const made = ref<{ readonly words: string, readonly address: string }>()
const enter = async (token: string) => `${await reachable()}/enter/${token}`

async function load() {
  people.value = await ask('GET people')
  if (session.isOwner) invitations.value = await ask('GET invitations')
}
await attempt(load)
const act = (work: () => Promise<unknown>) => attempt(async () => {
  await work()
  await load()
})
const change = (id: string, body: Given<'PATCH people/:id'>['body']) =>
  act(() => ask('PATCH people/:id', { params: { id }, body }))
const invite = () => act(async () => {
  const { token } = await ask('POST invitations', { body: { ...form } })
  made.value = {
    words: `${form.name || 'Whoever you hand it to'} opens this within a week. It works once, and is shown only now.`,
    address: await enter(token),
  }
  form.name = ''
})
const drop = (id: string) => act(() => ask('DELETE invitations/:id', { params: { id } }))
const reset = (p: PersonFacts) => act(async () => {
  const { token } = await ask('POST people/:id/reset', { params: { id: p.id } })
  made.value = {
    words: `${p.name} opens this within the hour and chooses a new password. Wherever they are signed in, that ends.`,
    address: await enter(token),
  }
})
</script>

<template>
  <section aria-labelledby="people-head">
    <div class="group-head"><h2 id="people-head">People</h2></div>
    <p v-if="trouble && !trouble.field" class="problem" role="alert">{{ trouble.sentence }}</p>
    <ul class="ruled">
      <li v-for="p in people" :key="p.id">
        <span class="who"><span class="strong">{{ p.name }}</span><br><span class="small soft">{{ p.email }}</span></span>
        <template v-if="session.isOwner">
          <Select
            :model-value="p.role"
            :options="ROLE_CHOICES"
            option-label="name"
            option-value="id"
            :aria-label="`Role of ${p.name}`"
            @update:model-value="change(p.id, { role: $event })"
          />
          <span class="acts">
            <template v-if="p.id !== session.person?.id">
              <Button
                label="New password"
                severity="secondary"
                size="small"
                :aria-label="`A link to a new password for ${p.name}`"
                @click="reset(p)"
              />
              <Button
                label="Remove"
                severity="secondary"
                size="small"
                :aria-label="`Remove ${p.name}`"
                @click="change(p.id, { archived: true })"
              />
            </template>
          </span>
        </template>
        <span v-else>{{ p.role }}</span>
      </li>
      <li v-for="i in invitations" :key="i.id">
        <span class="who">
          <span class="strong">{{ i.name || 'Somebody' }}</span><br>
          <span class="small soft">
            invited {{ i.kind === 'open' ? 'to open a workshop of their own' : `as ${i.role}` }},
            until {{ dayAndTime(i.endsAt, Date.now()) }}
          </span>
        </span>
        <span />
        <span class="acts">
          <Button
            label="Revoke"
            severity="secondary"
            size="small"
            :aria-label="`Revoke the invitation of ${i.name || 'somebody'}`"
            @click="drop(i.id)"
          />
        </span>
      </li>
    </ul>
    <OnceShown v-if="made" :address="made.address">{{ made.words }}</OnceShown>
    <form v-if="session.isOwner" novalidate @submit.prevent="invite">
      <h3>Invite someone</h3>
      <SelectButton
        v-if="session.facts?.many"
        v-model="form.kind"
        class="whole"
        :options="KINDS"
        option-label="name"
        option-value="id"
        :allow-empty="false"
        aria-label="What the invitation opens"
      />
      <TextField id="new-name" v-model="form.name" label="For whom" :wrong="says('name')" />
      <div v-if="form.kind === 'join'" class="field">
        <span id="new-role" class="strong small">Role</span><Select
          v-model="form.role"
          :options="ROLE_CHOICES"
          option-label="name"
          option-value="id"
          aria-labelledby="new-role"
        />
        <p class="small soft">{{ ROLE_WORDS[form.role] }}</p>
      </div>
      <Button type="submit" label="Make an invitation" class="whole" />
    </form>
  </section>
</template>

<style scoped>
li { display: grid; grid-template-columns: minmax(0, 1fr) 130px auto; gap: 8px 14px; align-items: center; padding: 8px 0; }
.who { overflow-wrap: anywhere; }
.acts { display: flex; gap: 8px; min-width: 190px; justify-content: end; }
form { display: grid; grid-template-columns: 1fr 1fr; gap: 12px 18px; margin-top: 18px; align-items: start; }
form h3, .whole { grid-column: 1 / -1; }
.whole { justify-self: start; }
@media (max-width: 720px) {
  li { grid-template-columns: minmax(0, 1fr) auto; }
  .who { grid-column: 1 / -1; }
  .acts { min-width: 0; }
  form { grid-template-columns: 1fr; }
}
</style>
