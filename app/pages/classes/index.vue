<script setup lang="ts">
import type { ClassRow } from '~contract/classroom'
import { ask, newId, Refused } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'
import PlainButton from '~/ui/PlainButton.vue'
import TextField from '~/ui/TextField.vue'
import { useAttempt } from '~/ui/attempt'
import { timeOfDay } from '~/ui/when'

/** Classes: open one and show its code; those that are over stand below until their names are deleted. */
const session = useSession(), { trouble, busy, says, attempt } = useAttempt()
const all = ref<readonly ClassRow[]>([]), missing = ref(''), name = ref(''), hours = ref(3)
const HOURS = [1, 2, 3, 5, 8, 24]
await ask('GET classes').then((rows) => {
  all.value = rows
}, (error: unknown) => {
  missing.value = error instanceof Refused ? error.sentence : 'The classes could not be read.'
})
const open = () => attempt(async () => {
  const { id } = await ask('POST classes', { body: { name: name.value, hours: hours.value } })
  await navigateTo(`/classes/${id}`)
})
const when = (row: ClassRow) => row.over
  ? `over since ${timeOfDay(row.endsAt)}, ${new Date(row.endsAt).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}`
  : `open until ${timeOfDay(row.endsAt)}`
const library = useLibrary()
if (!library.loaded) void library.load()
const writePage = () => navigateTo(`/classes/page/${newId()}`)
const questionsWords = (n: number) => n === 0 ? 'nothing asked' : n === 1 ? 'one question' : `${n} questions`
useHead({ title: 'Classes' })
</script>

<template>
  <div>
    <p class="eyebrow"><NuxtLink to="/practice">Practice</NuxtLink></p>
    <h1>Classes</h1>
    <p class="lead">A code, a first name, and a room full of people practises at once: on buckets that spoil nothing, on questions, on real kits.</p>
    <p v-if="missing" class="problem" role="alert">{{ missing }}</p>
    <form v-if="session.mayWrite" class="open" novalidate @submit.prevent="open">
      <TextField id="class-name" v-model="name" label="Name of the class" :wrong="says('name')" />
      <fieldset>
        <legend>Open for</legend>
        <label v-for="h in HOURS" :key="h" :class="{ on: hours === h }"><input v-model="hours" type="radio" name="hours" :value="h">{{ h }} h</label>
      </fieldset>
      <PlainButton label="Open it and show the code" strong :disabled="busy" @click="open" />
      <p v-if="trouble && !trouble.field" class="problem" role="alert">{{ trouble.sentence }}</p>
    </form>
    <ul v-if="all.length > 0" class="ruled">
      <li v-for="c in all" :key="c.id">
        <NuxtLink :to="`/classes/${c.id}`" class="strong">{{ c.name }}</NuxtLink>
        <span class="soft">{{ c.seats === 1 ? 'one seat' : `${c.seats} seats` }}, {{ when(c) }}</span>
      </li>
    </ul>
    <section class="own" aria-labelledby="own-head">
      <h2 id="own-head">Pages of your own</h2>
      <p class="soft">What your pupils should read, and what you ask about it.</p>
      <ul v-if="library.items.page.length > 0" class="ruled">
        <li v-for="p in library.items.page" :key="p.id">
          <NuxtLink :to="`/classes/page/${p.id}`" class="strong">{{ p.body.name }}</NuxtLink>
          <span class="soft">{{ questionsWords(p.body.questions.length) }}</span>
        </li>
      </ul>
      <PlainButton v-if="session.mayWrite" label="Write a page" @click="writePage" />
    </section>
  </div>
</template>

<style scoped>
h1 { margin-bottom: 6px; }
.lead { max-width: 62ch; }
.open { display: flex; flex-wrap: wrap; gap: 14px 22px; align-items: end; padding: 20px 0; }
fieldset { border: 0; padding: 0; margin: 0; display: flex; gap: 6px; flex-wrap: wrap; }
legend { padding: 0 0 4px; font-weight: 600; }
fieldset label { border: 1.5px solid var(--line-strong); border-radius: 10px; padding: 8px 14px; cursor: pointer; background: var(--sheet); }
fieldset label.on { background: var(--ink); color: var(--ground); }
fieldset input { position: absolute; opacity: 0; }
fieldset label:focus-within { outline: 3px solid var(--action); outline-offset: 2px; }
.ruled li { display: flex; gap: 14px; padding: 12px 0; flex-wrap: wrap; }
.own { display: grid; gap: 8px; justify-items: start; padding-top: 26px; }
.own ul { width: 100%; }
h2 { font-size: 1.25rem; }
</style>
