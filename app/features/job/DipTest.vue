<script setup lang="ts">
import { dipVolumes } from '~core/job/dip'
import { DIP_PROBLEM_WORDS } from '~core/job/words'
import { formatVolume } from '~core/units/format'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'
import QuantityField from '~/ui/QuantityField.vue'

/** Water in the container with the hand and without: what the impression takes, and what the plaster. */
const library = useLibrary(), session = useSession()
const bucket = ref(library.items.bucket[0]?.id), without = ref<number>(), within = ref<number>()
const vessel = computed(() => library.items.bucket.find(b => b.id === bucket.value)?.body.vessel)
const found = computed(() => vessel.value && without.value && within.value
  ? dipVolumes(vessel.value, { without: without.value, within: within.value })
  : undefined)
const said = ({ low, value, high }: { low: number, value: number, high: number }) =>
  `${formatVolume(value, session.units)} (${formatVolume(low, session.units)} to ${formatVolume(high, session.units)})`
</script>

<template>
  <section class="dip" aria-labelledby="dip-head">
    <h3 id="dip-head">From the water marks</h3>
    <div class="fields">
      <div>
        <label for="dip-in">Container</label>
        <select id="dip-in" v-model="bucket">
          <option v-for="b in library.items.bucket" :key="b.id" :value="b.id">{{ b.body.name }}</option>
        </select>
      </div>
      <div>
        <span class="label" aria-hidden="true">Height with the hand in</span>
        <QuantityField v-model="within" kind="length" label="Height with the hand in" hide-label clearable />
      </div>
      <div>
        <span class="label" aria-hidden="true">Height without it</span>
        <QuantityField v-model="without" kind="length" label="Height without it" hide-label clearable />
      </div>
    </div>
    <div role="status">
      <p v-if="typeof found === 'string'" class="problem">{{ DIP_PROBLEM_WORDS[found] }}</p>
      <dl v-else-if="found">
        <dt>Impression, as water</dt><dd class="num">{{ said(found.impression) }}</dd>
        <dt>Plaster it will take</dt><dd class="num">{{ said(found.plaster) }}</dd>
      </dl>
    </div>
    <p
      v-if="library.items.bucket.length === 0"
      class="soft">Measure a bucket under Powders first: its shape turns heights into volumes.</p>
  </section>
</template>

<style scoped>
.dip { background: var(--sheet); border-radius: 12px; padding: 12px 16px 14px; display: grid; gap: 8px; }
.fields { display: grid; grid-template-columns: repeat(auto-fit, minmax(150px, 1fr)); gap: 12px; align-items: start; }
label, .label { font-weight: 600; font-size: 0.92rem; display: block; margin-bottom: 4px; }
select { width: 100%; min-height: 42px; border: 1px solid var(--line-strong); border-radius: 9px; background: var(--ground); color: var(--ink); padding: 4px 8px; }
dl { display: grid; grid-template-columns: auto 1fr; gap: 2px 16px; font-size: 1.1rem; }
dd { font-weight: 650; margin: 0; }
</style>
