<script setup lang="ts">
import { stepsOf } from '~core/plan/run'
import { stepName, stepWords } from '~core/plan/step-words'
import { formatMass } from '~core/units/format'
import type { ClassAnswer } from '~contract/classroom'
import { usePlans } from '~/sync/plans'
import { addressOf, ask } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'
import PlainButton from '~/ui/PlainButton.vue'
import { useAttempt } from '~/ui/attempt'

/** Real kits: a plan for each seat, labels, and all kits without a phone led through the same step. */
const { answer } = defineProps<{ answer: ClassAnswer }>()
const emit = defineEmits<{ changed: [] }>()
const plans = usePlans(), library = useLibrary(), session = useSession(), { trouble, busy, attempt } = useAttempt()
await Promise.all([plans.load(), library.loaded ? undefined : library.load()])
const plan = ref(answer.kit?.plan ?? plans.saved[0]?.id ?? ''), colours = ref('')
const id = () => ({ id: answer.id })
const bag = computed(() => library.items.bag.find(b => b.id === answer.kit?.run.plan.bag))
/** What is left of the bag, where somebody said how much there was. */
const short = computed(() => {
  const left = bag.value?.body.left === undefined ? undefined : bag.value.body.left - (bag.value.used?.since ?? 0)
  return answer.kit && left !== undefined && left < answer.kit.powder ? answer.kit.powder - left : undefined
})
const pack = () => attempt(async () => {
  const list = colours.value.split(',').map(c => c.trim()).filter(Boolean)
  await ask('POST classes/:id/kits', { params: id(), body: { plan: plan.value, colours: list } })
  emit('changed')
})
const steps = computed(() => answer.kit ? stepsOf(answer.kit.run) : [])
const alone = computed(() => answer.all.filter(s => !s.phone).length), at = computed(() => answer.kit?.led ?? -1)
const lead = (step: number) => attempt(async () => {
  await ask('POST classes/:id/lead', { params: id(), body: { step } })
  emit('changed')
})
const labels = addressOf('GET classes/:id/labels', { params: id() })
const casts = computed(() => answer.all.filter(s => s.kit?.begun))
</script>

<template>
  <section aria-labelledby="kits-head" class="kits">
    <h2 id="kits-head">Real kits</h2>
    <div v-if="answer.leads && !answer.over" class="row">
      <label for="kit-plan">One kit is
        <select id="kit-plan" v-model="plan"><option v-for="p in plans.saved" :key="p.id" :value="p.id">{{ p.plan.name }}</option></select>
      </label>
      <label for="kit-colours">Colours, in turn
        <input id="kit-colours" v-model="colours" type="text" maxlength="200" placeholder="white, ochre, slate">
      </label>
      <PlainButton :label="answer.kit ? 'Pack them anew' : 'Pack a kit for each seat'" small :disabled="busy || !plan" @click="pack" />
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble.sentence }}</p>
    <template v-if="answer.kit">
      <p>
        {{ answer.seats }} × {{ answer.kit.run.plan.name }}: {{ formatMass(answer.kit.powder, session.units) }} of powder in all.
        <span v-if="short" class="problem">The bag is short of {{ formatMass(short, session.units) }}.</span>{{ ' ' }}
        <a :href="labels" target="_blank">Labels, one a kit</a> ·
        <a :href="addressOf('GET plans/:id/sheet', { params: { id: answer.kit.plan } })" target="_blank">The sheet, to hang up</a>
      </p>
      <div v-if="answer.leads && alone > 0 && !answer.over" class="lead">
        <p><b>{{ alone === 1 ? 'One kit has no phone' : `${alone} kits have no phone` }}.</b> They go through each step together, when you say so.</p>
        <p v-if="steps[at]" class="now">{{ stepWords(steps[at]!).instruction }}</p>
        <PlainButton
          v-if="steps[at + 1]"
          :label="at < 0 ? 'Begin: all get ready' : `All: ${stepName(steps[at + 1]!).toLowerCase()}`"
          strong
          :disabled="busy"
          @click="lead(at + 1)" />
      </div>
      <table v-if="casts.length > 0">
        <caption>Pieces, with their names</caption>
        <tbody>
          <tr v-for="s in casts" :key="s.id">
            <th scope="row">{{ s.number }} {{ s.name }}</th>
            <td>
              <NuxtLink v-for="c in s.kit!.casts" :key="c.id" :to="`/piece/${s.kit!.pour}/${c.id}`">{{ c.label }}{{ c.verdict ? `: ${c.verdict}` : '' }}</NuxtLink>
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>

<style scoped>
.kits { display: grid; gap: 12px; padding-top: 18px; }
.row { display: flex; flex-wrap: wrap; gap: 10px 18px; align-items: end; }
label { display: grid; gap: 4px; font-weight: 600; }
select, input { font: inherit; padding: 8px 10px; border: 1.5px solid var(--line-strong); border-radius: 10px; background: var(--sheet); color: var(--ink); min-height: 40px; max-width: 260px; }
.lead { background: var(--band); border-radius: 14px; padding: 14px 18px; display: grid; gap: 8px; justify-items: start; }
.now { font-size: clamp(1.4rem, 2.6vw, 2rem); font-weight: 720; }
table { border-collapse: collapse; width: 100%; }
caption { text-align: left; font-weight: 650; padding-bottom: 4px; }
th { text-align: left; font-weight: 600; padding: 7px 14px 7px 0; white-space: nowrap; vertical-align: top; }
td { padding: 7px 0; }
td a { margin-right: 14px; display: inline-block; min-height: 26px; }
tr { border-top: 1px solid var(--line); }
</style>
