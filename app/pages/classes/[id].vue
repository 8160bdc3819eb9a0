<script setup lang="ts">
import { spellCode } from '~contract/class-code'
import type { ChangeClass, SeatFacts, Task } from '~contract/classroom'
import { useClass } from '~/features/classes/class'
import KitsPart from '~/features/classes/KitsPart.vue'
import SeatGrid from '~/features/classes/SeatGrid.vue'
import TaskPicker from '~/features/classes/TaskPicker.vue'
import { KIND_WORDS, namedWords, resultWords, taskWords } from '~/features/classes/words'
import { addressOf, ask } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import PlainButton from '~/ui/PlainButton.vue'
import { useAttempt } from '~/ui/attempt'
import { timeOfDay } from '~/ui/when'

/** A class as its teacher leads it: the code, what they do, where all are, and what came of it. */
const id = String(useRoute().params.id), led = useClass(id), { answer, trouble: missing } = led
const { trouble, busy, attempt } = useAttempt()
const asking = ref<'end' | 'delete'>(), names = ref(''), chosen = ref<SeatFacts>()
await led.load().catch(() => {})
const library = useLibrary()
if (!library.loaded) void library.load()
const change = (body: ChangeClass) => attempt(() => led.change(body))
const give = (task: Task) => attempt(() => led.give(task))
const addSeats = () => attempt(async () => {
  const list = names.value.split(/[,\n]/).map(n => n.trim()).filter(Boolean)
  await ask('POST classes/:id/seats', { params: { id }, body: { names: list } })
  names.value = ''
  await led.load()
})
const sendOut = () => attempt(async () => {
  await ask('DELETE classes/:id/seats/:seat', { params: { id, seat: chosen.value!.id } })
  chosen.value = undefined
  await led.load()
})
const remove = () => attempt(async () => {
  await ask('DELETE classes/:id', { params: { id } })
  await navigateTo('/classes')
})
const end = () => attempt(async () => {
  await led.change({ ended: true })
  asking.value = undefined
})
const results = computed(() => answer.value?.all.flatMap(s => s.results.map(r => ({ s, r }))) ?? [])
useHead({ title: () => answer.value?.name ?? 'Class' })
</script>

<template>
  <div>
    <p class="eyebrow"><NuxtLink to="/classes">Classes</NuxtLink></p>
    <template v-if="answer">
      <header>
        <div>
          <h1>{{ answer.name }}</h1>
          <p class="soft">
            {{ answer.over ? `Over since ${timeOfDay(answer.endsAt)}` : `Open until ${timeOfDay(answer.endsAt)}` }}; led by {{ answer.teacher }}.
            <template v-if="!answer.leads"> Only they or an owner can lead it.</template>
          </p>
          <p class="task">{{ taskWords(answer.task) }}<span v-if="answer.paused" class="held"> · held</span></p>
        </div>
        <NuxtLink v-if="answer.code" :to="`/classes/wall/${id}`" class="code" aria-label="The code, on the big screen">
          <span class="num">{{ spellCode(answer.code) }}</span><span class="small">{{ answer.shut ? 'the door is shut' : 'show it on the big screen' }}</span>
        </NuxtLink>
      </header>
      <p v-if="trouble" class="problem" role="alert">{{ trouble.sentence }}</p>
      <template v-if="answer.leads && !answer.over">
        <TaskPicker :task="answer.task" :has-kits="answer.kit !== undefined" :busy="busy" :pages="library.items.page" @give="give" />
        <div class="ways">
          <PlainButton
            v-if="answer.task.kind === 'scenario'"
            :label="answer.paused ? 'Go on' : 'Hold all practice'"
            small
            strong
            @click="change({ paused: !answer.paused })" />
          <PlainButton :label="answer.shut ? 'Open the door' : 'Shut the door'" small @click="change({ shut: !answer.shut })" />
          <PlainButton label="End the class" small @click="asking = 'end'" />
        </div>
        <p v-if="asking === 'end'" class="ask" role="alertdialog" aria-label="End the class">
          Phones then show that it is over. What was poured can be told for a week.
          <PlainButton label="End it" small strong @click="end" /> <PlainButton label="Not yet" small @click="asking = undefined" />
        </p>
      </template>
      <h2>{{ answer.seats === 1 ? 'One seat' : `${answer.seats} seats` }}</h2>
      <SeatGrid :answer="answer" @chosen="chosen = $event" />
      <p v-if="answer.seats === 0" class="soft">Nobody is in yet. Pupils open the address on the big screen and type the code; or write down those without a phone.</p>
      <p v-if="chosen" class="ask" role="alertdialog" :aria-label="`Seat ${chosen.number}`">
        {{ chosen.name }}, seat {{ chosen.number }}. Sent out, their phone opens this class no more, and their name is deleted.
        <PlainButton label="Send out" small strong @click="sendOut" /> <PlainButton label="Leave them in" small @click="chosen = undefined" />
      </p>
      <form v-if="answer.leads && !answer.over" class="alone" @submit.prevent="addSeats">
        <label for="names">Without a phone: names, one a line or with commas between</label>
        <textarea id="names" v-model="names" rows="2" maxlength="1500" />
        <PlainButton label="Give them seats" small :disabled="busy || !names.trim()" @click="addSeats" />
      </form>
      <KitsPart :answer="answer" @changed="led.load()" />
      <section v-if="results.length > 0" aria-labelledby="results-head" class="results">
        <h2 id="results-head">What came of it</h2>
        <p v-if="answer.leads"><a :href="addressOf('GET classes/:id/results', { params: { id } })">Results as a table (CSV)</a></p>
        <table>
          <tbody>
            <tr v-for="{ s, r } in results" :key="`${s.id} ${r.task}`">
              <th scope="row">{{ s.number }} {{ s.name }}</th><td>{{ KIND_WORDS[r.kind] }}</td>
              <td>{{ resultWords(r) }}</td><td>{{ namedWords(r) }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <footer v-if="answer.leads">
        <p class="small soft">Names are deleted with the class: by you, or by themselves a week after it is over{{ answer.kept ? ' (this one is kept)' : '' }}. From backups they go when those expire. What was poured stays in the logbook, by the number of the seat.</p>
        <PlainButton :label="answer.kept ? 'Let it be deleted after a week' : 'Keep this class'" small @click="change({ kept: !answer.kept })" />
        <PlainButton label="Delete it with all names" small @click="asking = 'delete'" />
        <p v-if="asking === 'delete'" class="ask" role="alertdialog" aria-label="Delete the class">
          Names and results are gone then. <PlainButton label="Delete" small strong @click="remove" /> <PlainButton label="Keep it" small @click="asking = undefined" />
        </p>
      </footer>
      <p v-else-if="!answer.leads" class="small soft">If its teacher is gone, an owner can lead it.</p>
    </template>
    <p v-else class="problem" role="status">{{ missing || 'Looking for the class …' }}</p>
  </div>
</template>

<style scoped>
header { display: flex; flex-wrap: wrap; gap: 14px 30px; justify-content: space-between; align-items: start; margin-bottom: 14px; }
.task { font-size: 1.35rem; font-weight: 700; }
.held { color: var(--heat); }
.code { display: grid; justify-items: center; text-decoration: none; background: var(--now); color: var(--now-ink); border-radius: 14px; padding: 10px 20px; }
.code .num { font-size: clamp(2rem, 4vw, 3rem); font-weight: 750; letter-spacing: 0.04em; line-height: 1.1; }
.ways, footer { display: flex; flex-wrap: wrap; gap: 10px; padding: 14px 0; align-items: center; }
footer p { flex-basis: 100%; max-width: 76ch; }
h2 { margin: 16px 0 8px; font-size: 1.2rem; }
.alone { display: grid; gap: 6px; justify-items: start; padding-top: 14px; max-width: 560px; }
.alone label { font-weight: 600; }
textarea { width: 100%; font: inherit; border: 1.5px solid var(--line-strong); border-radius: 10px; padding: 8px 10px; background: var(--sheet); color: var(--ink); }
.ask { display: flex; flex-wrap: wrap; gap: 10px; align-items: center; background: var(--band); border-radius: 12px; padding: 12px 16px; }
table { border-collapse: collapse; width: 100%; }
th, td { text-align: left; padding: 6px 16px 6px 0; border-top: 1px solid var(--line); vertical-align: top; }
th { font-weight: 600; white-space: nowrap; }
</style>
