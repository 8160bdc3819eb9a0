<script setup lang="ts">
import { formatConsistency } from '~core/units/format'
import TermWord from '~/ui/TermWord.vue'
import RatioField from '~/ui/RatioField.vue'
import PlanGround from './PlanGround.vue'
import { usePlanning } from '~/features/plan/planning'

/**
 * Water per 100 powder, on a track that shows where this powder works. Where the ratio follows from scoops or islands
 * it is shown, not set.
 */
const planning = usePlanning()
const plan = computed(() => planning.plan)
const ratio = computed(() => planning.ratio)
const range = computed(() => planning.powder.ratio)
const settable = computed(() => plan.value.school !== 'scoops' && plan.value.school !== 'saturation')
const span = computed(() => {
  const margin = (range.value.high - range.value.low) * 0.6
  return {
    low: Math.max(0.15, Math.min(range.value.low - margin, ratio.value.value - 0.01)),
    high: Math.max(range.value.high + margin, ratio.value.value + 0.01),
  }
})
const at = (x: number) => `${100 * (x - span.value.low) / (span.value.high - span.value.low)}%`
const track = computed(() =>
  `linear-gradient(to right, var(--heat-soft) 0 ${at(range.value.low)}, var(--set-soft) ${at(range.value.low)} ${
    at(range.value.high)
  }, var(--warn-soft) ${at(range.value.high)})`,
)
const problems = computed(() => planning.problems.filter(p => p.field === 'ratio'))
function slide(event: Event) {
  planning.change({ ratio: Number((event.target as HTMLInputElement).value) })
}
</script>

<template>
  <div class="ratio">
    <RatioField
      v-if="settable"
      :model-value="plan.ratio"
      label="Water per 100 powder, by weight"
      :powder="planning.powder"
      :filling="plan.scoop.filling"
      :bulk="planning.bag?.bulk"
      :temperature="plan.waterTemperature"
      @update:model-value="planning.change({ ratio: $event })" />
    <div v-else class="head">
      <span class="strong">Water per 100 powder, by weight</span>
      <TermWord id="consistency" class="small soft">consistency</TermWord>
      <span class="num value">{{ formatConsistency(ratio.value) }}</span>
    </div>
    <input
      v-if="settable"
      type="range"
      :min="span.low"
      :max="span.high"
      step="0.01"
      :value="plan.ratio"
      :style="{ background: track }"
      aria-label="Water per 100 powder, by weight"
      :aria-valuetext="`${formatConsistency(plan.ratio)} parts of water to 100 of powder`"
      @input="slide"
    >
    <div v-else class="shown" :style="{ background: track }" aria-hidden="true">
      <span
        class="reach"
        :style="{
          left: at(Math.max(span.low, ratio.low)),
          right: `calc(100% - ${at(Math.min(span.high, ratio.high))})`,
        }" />
    </div>
    <div class="ends small soft"><span>stiff, traps air</span><span>weak, slow to dry</span></div>
    <p class="small soft">
      Expect <span class="num">{{ formatConsistency(ratio.low) }}–{{ formatConsistency(ratio.high) }}</span> in eight
      pours out of ten: <PlanGround ground="ratio">{{ ratio.basis.note }}</PlanGround>.
    </p>
    <p v-for="p in problems" :key="p.code" :class="['problem', { warn: p.severity === 'warn' }]" role="status">
      {{ planning.say(p) }}
    </p>
  </div>
</template>

<style scoped>
.ratio {
  display: grid;
  gap: 4px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}
.value {
  width: 4.4em;
  text-align: right;
  font-weight: 700;
  font-size: 1.05rem;
}
input[type='range'] {
  appearance: none;
  width: 100%;
  height: 10px;
  border-radius: 5px;
  margin: 8px 0;
  border: 1px solid var(--line);
}
input[type='range']::-webkit-slider-thumb {
  appearance: none;
  width: 26px;
  height: 26px;
  border-radius: 50%;
  background: var(--ink);
  border: 3px solid var(--sheet);
  cursor: grab;
}
input[type='range']::-moz-range-thumb {
  width: 22px;
  height: 22px;
  border-radius: 50%;
  background: var(--ink);
  border: 3px solid var(--sheet);
}
.shown {
  position: relative;
  height: 12px;
  border-radius: 6px;
  margin: 7px 0;
  border: 1px solid var(--line);
}
.reach {
  position: absolute;
  top: -4px;
  bottom: -4px;
  border-radius: 6px;
  border: 2px solid var(--ink);
}
.ends {
  display: flex;
  justify-content: space-between;
}
</style>
