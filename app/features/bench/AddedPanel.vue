<script setup lang="ts">
import { additionKind } from '~core/gypsum/additions'
import { byWayIn } from '~core/gypsum/ways-in'
import { WAY_IN_WORDS } from '~core/gypsum/words'
import { formatMass } from '~core/units/format'
import { clothNeeds, CLOTHS } from '~core/plan/batches/cloth'
import { clothAmount } from '~core/plan/cloth-words'
import { powderOf } from '~core/plan/run'
import type { Stage } from '~core/plan/stages'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'
import WeighList from '~/ui/WeighList.vue'

/** What goes in beside powder and water, where and when it does. */
const { batch, stage } = defineProps<{ batch: number, stage: Stage }>()
const store = useRun(), session = useSession()
/** What is folded in waits for the stirring. */
const shown = computed(() => {
  const { plan, batches } = store.run!, late = stage === 'stir'
  return late ? byWayIn(batches[batch]!.mix.additions, plan).filter(({ way }) => way === 'fold') : []
})
/** Where it is weighed, all of it stands in one list; water and powder alone have their own figures. */
const listed = computed(() => {
  const run = store.run!
  return stage === 'weigh' && (run.batches[batch]!.mix.additions.length > 0 || Boolean(powderOf(run).composition))
})
/** Cloth that is dipped into this coat as it is laid. */
const cloth = computed(() => {
  const { plan, batches } = store.run!, of = plan.coats?.cloth, { coat, fills } = batches[batch]!
  if (!of || stage !== 'fill' || coat?.number !== of.coat) return undefined
  return { of, needs: clothNeeds(of, fills.reduce((n, f) => n + f.copies, 0)), kind: CLOTHS.find(c => c.id === of.kind)! }
})
</script>

<template>
  <div v-if="cloth" class="added" role="note">
    <p><span class="strong">{{ cloth.kind.name }}:</span> {{ clothAmount(cloth.of, cloth.needs, session.units) }}</p>
    <p class="small">{{ cloth.kind.how }}</p>
  </div>
  <WeighList v-if="listed" class="added" :plan="store.run!.plan" :batch="store.run!.batches[batch]!" />
  <ul v-if="shown.length > 0" class="added" aria-label="What else goes in">
    <li v-for="w in shown" :key="w.way">
      <span class="strong">{{ WAY_IN_WORDS[w.way].into }}:</span>{{ ' ' }}
      <span v-for="a in w.items" :key="a.id" class="one">
        <span class="num">{{ formatMass(a.mass, session.units) }}</span> {{ additionKind(a.id).name.toLowerCase() }}
      </span>
    </li>
  </ul>
</template>

<style scoped>
.added {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
  font-size: 1.1rem;
}
.one:not(:last-child)::after {
  content: ',';
}
.num {
  font-weight: 700;
}
</style>
