<script setup lang="ts">
import Select from 'primevue/select'
import { END_USES, endUse } from '~core/gypsum/end-use'
import { MOULD_MATERIALS } from '~core/setting/body'
import { formatVolume } from '~core/units/format'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import { steadyList } from '~/ui/steady'
import Stepper from '~/ui/Stepper.vue'
import { useLibrary } from '~/sync/library'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'
import { reAdvised } from '~core/plan/advised'

const uses = [...END_USES], nameOf = (item: { readonly body: { readonly name: string } }) => item.body.name
const planning = usePlanning(), library = useLibrary(), session = useSession()
const plan = computed(() => planning.plan)
const use = computed(() => endUse(plan.value.endUse))
const rows = computed(() => plan.value.fills.flatMap((f) => {
  const item = library.items.mould.find(m => m.id === f.mould)
  return item ? [{ ...f, item }] : []
}))
// The same list while it is: what chooses from it is not drawn again at each stroke.
const unused = steadyList(() => library.items.mould.filter(m => !plan.value.fills.some(f => f.mould === m.id)))
const toMoulds = computed(() => ({ path: '/moulds', query: { make: 'mould', for: planning.id } }))
const problems = computed(() => planning.result.problems.filter(p => p.field === 'fills' || p.field === 'endUse'))

function setCount(mould: string, count: number) {
  planning.change({
    fills: count === 0
      ? plan.value.fills.filter(f => f.mould !== mould)
      : plan.value.fills.map(f => f.mould === mould ? { mould, count } : f),
  })
}
function add(mould: string | null) {
  if (mould) planning.change({ fills: [...plan.value.fills, { mould, count: 1 }] })
}
</script>

<template>
  <section aria-labelledby="fills-head">
    <div class="field">
      <label id="use-label" for="end-use">What is the piece for?</label>
      <Select
        label-id="end-use"
        :model-value="plan.endUse"
        :options="uses"
        option-label="name"
        option-value="id"
        aria-labelledby="use-label"
        fluid
        @update:model-value="planning.change(reAdvised(plan, { endUse: $event }, planning.world.bag?.printed?.ratio))"
      />
      <p class="small soft">{{ use.wants }}</p>
    </div>
    <h2 id="fills-head" class="eyebrow">What you are filling</h2>
    <ul class="ruled">
      <li v-for="r in rows" :key="r.mould" class="fill">
        <MouldDrawing :mould="r.item.body" view="above" :width="44" :height="40" />
        <span>
          <span class="strong">{{ r.item.body.name }}</span><br />
          <span class="small soft"
          >{{ MOULD_MATERIALS[r.item.body.material].name.toLowerCase() }},
            <span class="num">{{ formatVolume(r.item.body.volume.value, session.units) }}</span></span
          >
        </span>
        <Stepper
          :label="`How many: ${r.item.body.name}`"
          :model-value="r.count"
          @update:model-value="setCount(r.mould, $event)" />
      </li>
    </ul>
    <p v-for="p in problems" :key="p.code" :class="['problem', { warn: p.severity === 'warn' }]" role="status">
      {{ planning.say(p) }}
    </p>
    <Select
      v-if="unused.length > 0"
      :model-value="null"
      :options="unused"
      :option-label="nameOf"
      option-value="id"
      placeholder="Add a mould"
      aria-label="Add a mould"
      :filter="unused.length > 8"
      fluid
      @update:model-value="add"
    />
    <p class="small">
      <template v-if="library.items.mould.length === 0">No moulds yet. </template>
      <NuxtLink :to="toMoulds">Make a mould for it</NuxtLink>
    </p>
  </section>
</template>

<style scoped>
section { display: grid; gap: 10px; }
.fill { display: grid; grid-template-columns: auto 1fr auto; gap: 10px; align-items: center; padding: 7px 0; }
</style>
