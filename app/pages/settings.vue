<script setup lang="ts">
import SelectButton from 'primevue/selectbutton'
import { regionOf, type UnitPreferences } from '~core/units/units'
import { addressOf } from '~/sync/api'
import ArchiveSection from '~/features/settings/ArchiveSection.vue'
import AuditSection from '~/features/settings/AuditSection.vue'
import BridgesSection from '~/features/settings/BridgesSection.vue'
import DeviceSection from '~/features/settings/DeviceSection.vue'
import LookSection from '~/features/settings/LookSection.vue'
import LinksSection from '~/features/settings/LinksSection.vue'
import PeopleSection from '~/features/settings/PeopleSection.vue'
import SetAsideSection from '~/features/settings/SetAsideSection.vue'
import ShareSection from '~/features/settings/ShareSection.vue'
import { useSession } from '~/sync/session'
import { useAttempt } from '~/ui/attempt'

const session = useSession(), { trouble, attempt } = useAttempt()
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
/** What is asked of a number or a name that two countries use for two things. */
const REGIONS = [
  { id: 'us', name: 'US' }, { id: 'imperial', name: 'Imperial' }, { id: 'metric', name: 'Metric cups' },
] as const
const DECIMALS = [{ id: '.', name: '1 250' }, { id: ',', name: '1.25' }] as const
const setUnits = (part: Partial<UnitPreferences>) => attempt(() => session.changeUnits(part))
</script>

<template>
  <div class="narrow">
    <header>
      <h1>{{ session.facts?.workshop?.name }}</h1>
    </header>
    <p class="soft">
      You are {{ session.person?.name }}, {{ session.person?.role }}.{{ ' ' }}
      <NuxtLink to="/account">Your account</NuxtLink>: where you are signed in, your password, signing out.
    </p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble.sentence }}</p>
    <div class="group-head">
      <h2>Units</h2>
      <span class="small soft">You can type any unit; these are used for display.</span>
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
    <div class="unit">
      <span id="unit-region" class="strong">Pints and cups</span>
      <SelectButton
        :model-value="regionOf(session.units)"
        :options="[...REGIONS]"
        option-label="name"
        option-value="id"
        :allow-empty="false"
        :disabled="!session.isOwner"
        aria-labelledby="unit-region"
        @update:model-value="setUnits({ region: $event })"
      />
    </div>
    <div class="unit">
      <span id="unit-decimal" class="strong">Typed 1,250 is</span>
      <SelectButton
        :model-value="session.units.decimal ?? '.'"
        :options="[...DECIMALS]"
        option-label="name"
        option-value="id"
        :allow-empty="false"
        :disabled="!session.isOwner"
        aria-labelledby="unit-decimal"
        @update:model-value="setUnits({ decimal: $event })"
      />
    </div>
    <LookSection />
    <DeviceSection />
    <SetAsideSection />
    <PeopleSection />
    <ShareSection />
    <BridgesSection />
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
    <AuditSection v-if="session.isOwner" />
    <ArchiveSection v-if="session.isOwner" />
  </div>
</template>

<style scoped>
.narrow { max-width: 760px; }
.once { padding-top: 8px; }
.unit { display: grid; grid-template-columns: 150px 1fr; align-items: center; padding: 8px 0; }
@media (max-width: 720px) {
  .unit { grid-template-columns: 1fr; gap: 4px; }
}
</style>
