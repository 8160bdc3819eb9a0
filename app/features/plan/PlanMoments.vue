<script setup lang="ts">
import { lateWords, packWords, remedyWords } from '~core/plan/words'
import CautionLines from '~/ui/CautionLines.vue'
import { endUse } from '~core/gypsum/end-use'
import PlanGround from './PlanGround.vue'
import PlanMoment from './PlanMoment.vue'
import PlanDrinks from './PlanDrinks.vue'
import { dryLine, momentLines, workLines } from './moment-lines'
import { usePlanning } from '~/features/plan/planning'
import { useSession } from '~/sync/session'
import { steadyEach } from '~/ui/steady'

/** What to expect, counted from the moment powder meets water. Centre values at once, ranges a moment later. */
const planning = usePlanning(), session = useSession()
const batch = computed(() => planning.result.batches[0])
const use = computed(() => endUse(planning.plan.endUse))
const lines = steadyEach(() => {
  const { plan, centre, governing, moments, outlook } = planning
  if (!batch.value || !centre) return []
  return [
    ...workLines(plan, batch.value),
    ...momentLines({ centre, moments, bubble: outlook?.outcome.bubble, way: plan.bubbles }, session.units),
    ...use.value.dryTo !== undefined && governing ? [dryLine(plan, batch.value, governing, planning.world.day)] : [],
  ]
})
/** What the bag itself says, for whoever wants to hold the two against each other. */
const pack = computed(() => planning.world.bag?.printed ? packWords(planning.world.bag.printed) : '')
</script>

<template>
  <section aria-labelledby="moments-head">
    <h2 id="moments-head" class="eyebrow">What to expect, after powder meets water</h2>
    <dl v-if="lines.length > 0">
      <PlanMoment v-for="(l, i) in lines" :key="`${l.ground} ${i}`" :line="l" />
    </dl>
    <p v-else class="soft small">Choose what you fill and how; the moments follow from it.</p>
    <p v-if="pack" class="small">{{ pack }}</p>
    <p v-if="planning.moments" class="small soft">
      Ranges hold eight pours of ten. From {{ planning.moments.glossGone.basis.note }}.
    </p>
    <div v-if="planning.late" :class="['late', { warned: planning.late.warned }]">
      <p role="status"><PlanGround ground="late">{{ lateWords(planning.late, session.units) }}</PlanGround></p>
      <ul v-if="planning.late.remedies.length > 0" aria-label="What would help">
        <li v-for="r in planning.late.remedies" :key="r.code">
          <button class="take" @click="planning.change(r.change)">{{ remedyWords(r, session.units) }}</button>
        </li>
      </ul>
    </div>
    <PlanDrinks v-if="planning.plan.endUse === 'absorbent'" />
    <CautionLines :cautions="planning.cautions" :units="session.units" />
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 12px;
  align-content: start;
}
.late {
  display: grid;
  gap: 8px;
  border-left: 3px solid var(--line-strong);
  padding: 2px 0 2px 12px;
  font-size: 0.9rem;
}
.late.warned {
  border-color: var(--warn);
}
.late ul {
  display: grid;
  gap: 6px;
  list-style: none;
  padding: 0;
  margin: 0;
}
.take {
  border: 1px solid var(--line-strong);
  border-radius: 9px;
  background: var(--sheet);
  padding: 6px 12px;
  min-height: 36px;
  font-weight: 600;
  text-align: left;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 9px 12px;
  align-items: start;
}
</style>
