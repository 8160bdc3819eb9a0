<script setup lang="ts">
import DeviceSection from '~/features/settings/DeviceSection.vue'
import SetAsideSection from '~/features/settings/SetAsideSection.vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import SelectButton from 'primevue/selectbutton'
import type { UnitPreferences } from '~core/units/units'
import { ROLES, type PersonFacts, type Role } from '~contract/account'
import type { Given } from '~contract/routes'
import { addressOf, ask, Refused } from '~/sync/api'
import ArchiveSection from '~/features/settings/ArchiveSection.vue'
import LinksSection from '~/features/settings/LinksSection.vue'
import { waitWords } from '~/features/waiting/words'
import { useChanges } from '~/sync/changes'
import { useLive } from '~/sync/live'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'

const session = useSession(), records = useRecords(), changes = useChanges()
const people = ref<PersonFacts[]>([])
const trouble = ref<{ sentence: string, field?: string }>()
const form = reactive({ name: '', email: '', password: '', role: 'member' as Role })
const ROLE_WORDS: Record<Role, string> = {
  owner: 'Owner: everything, and who may come in',
  member: 'Member: plans, pours and keeps the shelf',
  viewer: 'Viewer: looks at everything, changes nothing',
}
const roles = ROLES.map(id => ({ id, name: id.replace(/^./, c => c.toUpperCase()) }))
const CHOICES = {
  mass: [{ id: 'g', name: 'Grams' }, { id: 'lb', name: 'Pounds, ounces' }],
  volume: [{ id: 'ml', name: 'Millilitres' }, { id: 'cup', name: 'Cups, quarts' }],
  length: [{ id: 'mm', name: 'Millimetres' }, { id: 'inch', name: 'Inches' }],
  temperature: [{ id: 'C', name: '°C' }, { id: 'F', name: '°F' }],
} as const
const KINDS = [['mass', 'Weights'], ['volume', 'Volumes'], ['length', 'Lengths'], [
  'temperature',
  'Temperatures',
]] as const

async function attempt(work: () => Promise<unknown>) {
  trouble.value = undefined
  try {
    await work()
  }
  catch (error) {
    trouble.value = error instanceof Refused
      ? { sentence: error.sentence, field: error.field }
      : { sentence: 'That did not work. Try it again.' }
  }
}
async function load() {
  people.value = await ask('GET people')
}
await attempt(load)
const setUnits = (part: Partial<UnitPreferences>) => attempt(() => session.changeUnits(part))
const addPerson = () => attempt(async () => {
  await ask('POST people', { body: { ...form } })
  Object.assign(form, { name: '', email: '', password: '', role: 'member' })
  await load()
})
const change = (id: string, body: Given<'PATCH people/:id'>['body']) => attempt(async () => {
  await ask('PATCH people/:id', { params: { id }, body })
  await load()
})
async function signOut() {
  useLive().stop()
  await session.signOut()
  await navigateTo('/sign-in')
}
</script>

<template>
  <div class="narrow">
    <header>
      <h1>{{ session.facts?.workshop?.name }}</h1>
      <Button label="Sign out" severity="secondary" @click="signOut" />
    </header>
    <p class="soft">
      You are {{ session.person?.name }}, {{ session.person?.role }}.<template v-if="records.unsent + changes.unsent.length > 0">
        {{ waitWords(records.unsent, changes.unsent.length) }} still to be sent; nothing of it is lost when you sign out.
      </template>
    </p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble.sentence }}</p>
    <div class="group-head">
      <h2>Units</h2>
      <span class="small soft">Fields read every unit; these are the ones shown.</span>
    </div>
    <div v-for="[kind, word] in KINDS" :key="kind" class="unit">
      <span :id="`unit-${kind}`" class="strong">{{ word }}</span>
      <SelectButton
        :model-value="session.units[kind]"
        :options="[...CHOICES[kind]]"
        option-label="name"
        option-value="id"
        :allow-empty="false"
        :disabled="!session.isOwner"
        :aria-labelledby="`unit-${kind}`"
        @update:model-value="setUnits({ [kind]: $event })"
      />
    </div>
    <DeviceSection />
    <SetAsideSection />
    <div class="group-head"><h2>People</h2></div>
    <ul class="ruled">
      <li v-for="p in people" :key="p.id">
        <span><span class="strong">{{ p.name }}</span><br><span class="small soft">{{ p.email }}</span></span>
        <Select
          v-if="session.isOwner"
          :model-value="p.role"
          :options="roles"
          option-label="name"
          option-value="id"
          :aria-label="`Role of ${p.name}`"
          @update:model-value="change(p.id, { role: $event })"
        />
        <span v-else>{{ p.role }}</span>
        <Button
          v-if="session.isOwner && p.id !== session.person?.id"
          label="Remove"
          severity="secondary"
          size="small"
          :aria-label="`Remove ${p.name}`"
          @click="change(p.id, { archived: true })"
        />
      </li>
    </ul>
    <form v-if="session.isOwner" novalidate @submit.prevent="addPerson">
      <h3>Add someone</h3>
      <div class="field">
        <label for="new-name">Name</label><InputText
          id="new-name"
          v-model="form.name"
          autocomplete="off"
          :invalid="trouble?.field === 'name'"
        />
      </div>
      <div class="field">
        <label for="new-email">E-mail address</label><InputText
          id="new-email"
          v-model="form.email"
          type="email"
          autocomplete="off"
          :invalid="trouble?.field === 'email'"
        />
      </div>
      <div class="field">
        <label for="new-password">A first password, ten characters or more</label><InputText
          id="new-password"
          v-model="form.password"
          type="password"
          autocomplete="new-password"
          :invalid="trouble?.field === 'password'"
        />
      </div>
      <div class="field">
        <span id="new-role" class="strong small">Role</span><Select
          v-model="form.role"
          :options="roles"
          option-label="name"
          option-value="id"
          aria-labelledby="new-role"
        />
        <p class="small soft">{{ ROLE_WORDS[form.role] }}</p>
      </div>
      <Button type="submit" label="Add" class="add" />
    </form>
    <LinksSection
      v-if="session.mayWrite"
      kind="wall"
      title="Wall displays"
      explained="What is live, for a whole room, without signing in."
      path="/wall/" />
    <LinksSection
      v-if="session.mayWrite"
      kind="calendar"
      title="Calendars"
      explained="When casts want to be opened and will be dry, for a calendar to subscribe to."
      path="/api/calendar/"
      ending=".ics" />
    <p v-if="session.mayWrite" class="small once">
      <a :href="addressOf('GET calendar')" download>Or take the moments to come as a file, once.</a>
    </p>
    <ArchiveSection v-if="session.isOwner" />
  </div>
</template>

<style scoped>
.narrow {
  max-width: 760px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
form .field {
  align-self: start;
}
.once {
  padding-top: 8px;
}
.unit {
  display: grid;
  grid-template-columns: 150px 1fr;
  align-items: center;
  padding: 8px 0;
}
li {
  display: grid;
  grid-template-columns: 1fr 150px 100px;
  gap: 14px;
  align-items: center;
  padding: 9px 0;
}
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px 18px;
  margin-top: 18px;
}
form h3,
.add {
  grid-column: 1 / -1;
}
.add {
  justify-self: start;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  li > :first-child {
    grid-column: 1 / -1;
    overflow-wrap: anywhere;
  }
  form {
    grid-template-columns: 1fr;
  }
  .unit {
    grid-template-columns: 1fr;
    gap: 4px;
  }
}
</style>
