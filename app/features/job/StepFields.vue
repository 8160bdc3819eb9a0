<script setup lang="ts">
import { nameOfStep } from '~core/job/words'
import type { JobStep, Link } from '~core/job/types'
import { usePlans } from '~/sync/plans'
import QuantityField from '~/ui/QuantityField.vue'
import PlainButton from '~/ui/PlainButton.vue'

/** One step of a chain, changed: its name, how long it takes, its plan, and its window after the step before. */
const { step, steps, first, last } = defineProps<{ step: JobStep, steps: readonly JobStep[], first: boolean, last: boolean }>()
const emit = defineEmits<{ change: [part: Partial<JobStep>], remove: [], add: [], move: [by: -1 | 1] }>()
const plans = usePlans()
/** What the window is counted from: the first link has a field of its own, the others are kept as they are. */
const link = computed(() => step.after[0])
const WHEN: Readonly<Record<Link['at'], string>> = {
  start: 'begins', end: 'ends', gloss: 'loses its gloss', warmest: 'is warmest', open: 'can be opened', dry: 'is dry',
}
function setLink(part: Partial<Link>) {
  const [now, ...rest] = step.after
  const next = { ...now ?? { step: steps.find(s => s.id !== step.id)!.id, at: 'end' as const, least: 0 }, ...part }
  emit('change', { after: [next, ...rest] })
}
const minutes = (seconds: number | undefined) => seconds === undefined ? undefined : seconds / 60
const before = computed(() => steps.filter(s => s.id !== step.id).map(s => ({ id: s.id, name: nameOfStep(s), pours: s.kind === 'pour' })))
const signs = computed(() => steps.find(s => s.id === link.value?.step)?.kind === 'pour'
  ? Object.entries(WHEN)
  : Object.entries(WHEN).filter(([id]) => id === 'start' || id === 'end'))
</script>

<template>
  <li class="fields">
    <div class="wide">
      <label :for="`n-${step.id}`">Name</label>
      <input
        :id="`n-${step.id}`"
        :value="nameOfStep(step)"
        maxlength="80"
        @change="emit('change', { name: ($event.target as HTMLInputElement).value.trim() || undefined })">
    </div>
    <div v-if="step.kind !== 'pour'">
      <span class="label" aria-hidden="true">Takes</span>
      <QuantityField
        :model-value="step.minutes * 60"
        kind="time"
        label="Takes"
        hide-label
        @update:model-value="emit('change', { minutes: minutes($event) ?? 0 })" />
    </div>
    <div v-else>
      <label :for="`p-${step.id}`">With the plan</label>
      <select
        :id="`p-${step.id}`"
        :value="step.plan ?? ''"
        :disabled="step.pour !== undefined"
        @change="emit('change', { plan: ($event.target as HTMLSelectElement).value || undefined })">
        <option v-if="step.like" value="">as it stands here</option>
        <option
          v-for="p in plans.saved"
          :key="p.id"
          :value="p.id">{{ p.plan.name || 'Plan without a name' }}</option>
      </select>
    </div>
    <template v-if="before.length > 0">
      <div>
        <label :for="`a-${step.id}`">After</label>
        <select
          :id="`a-${step.id}`"
          :value="link?.step ?? ''"
          @change="setLink({ step: ($event.target as HTMLSelectElement).value, at: 'end' })">
          <option v-if="!link" value="" disabled>nothing</option>
          <option v-for="b in before" :key="b.id" :value="b.id">{{ b.name }}</option>
        </select>
      </div>
      <div v-if="link">
        <label :for="`s-${step.id}`">counted from when it</label>
        <select
          :id="`s-${step.id}`"
          :value="link.at"
          @change="setLink({ at: ($event.target as HTMLSelectElement).value as Link['at'] })">
          <option v-for="[id, words] in signs" :key="id" :value="id">{{ words }}</option>
        </select>
      </div>
      <div v-if="link">
        <span class="label" aria-hidden="true">At least</span>
        <QuantityField
          :model-value="link.least === undefined ? undefined : link.least * 60"
          kind="time"
          label="At least"
          hide-label
          clearable
          @update:model-value="setLink({ least: minutes($event) })" />
      </div>
      <div v-if="link">
        <span class="label" aria-hidden="true">At most</span>
        <QuantityField
          :model-value="link.most === undefined ? undefined : link.most * 60"
          kind="time"
          label="At most"
          hide-label
          clearable
          @update:model-value="setLink({ most: minutes($event) })" />
      </div>
    </template>
    <span class="ways">
      <PlainButton label="Up" small :disabled="first" @click="emit('move', -1)" />
      <PlainButton label="Down" small :disabled="last" @click="emit('move', 1)" />
      <PlainButton label="Add one below" small @click="emit('add')" />
      <PlainButton
        label="Remove"
        small
        :disabled="steps.length < 2"
        :aria-label="`Remove: ${nameOfStep(step)}`"
        @click="emit('remove')" />
    </span>
  </li>
</template>

<style scoped>
.fields { display: grid; grid-template-columns: repeat(auto-fill, minmax(150px, 1fr)); gap: 10px 14px; align-items: start; padding: 14px 0; border-top: 1px solid var(--line); }
.wide { grid-column: span 2; }
label, .label { font-weight: 600; font-size: 0.92rem; display: block; margin-bottom: 4px; }
input, select { width: 100%; min-height: 42px; border: 1px solid var(--line-strong); border-radius: 9px; background: var(--sheet); color: var(--ink); padding: 4px 8px; }
.ways { grid-column: 1 / -1; display: flex; flex-wrap: wrap; gap: 8px; }
</style>
