<script setup lang="ts">
/** A quantity that is moved by hand: its field in the slot, and a track that shows where the model was checked. */
const { label, min, max, step, checked, say } = defineProps<
  {
    label: string
    min: number
    max: number
    step: number
    checked?: readonly [number, number] /** The value as a screen reader says it. */
    say: string
  }
>()
const model = defineModel<number>({ required: true })
const at = (x: number) => `${100 * Math.max(0, Math.min(1, (x - min) / (max - min)))}%`
const track = computed(() =>
  checked
    ? `linear-gradient(to right, var(--warn-soft) 0 ${at(checked[0])}, var(--set-soft) ${at(checked[0])} ${
      at(checked[1])
    }, var(--warn-soft) ${at(checked[1])})`
    : 'var(--mix-soft)',
)
</script>

<template>
  <div class="lever">
    <slot />
    <input
      type="range"
      :min="min"
      :max="max"
      :step="step"
      :value="model"
      :style="{ background: track }"
      :aria-label="label"
      :aria-valuetext="say"
      @input="model = Number(($event.target as HTMLInputElement).value)"
    >
  </div>
</template>

<style scoped>
.lever {
  display: grid;
  gap: 2px;
}
input {
  appearance: none;
  width: 100%;
  height: 10px;
  border-radius: 5px;
  margin: 7px 0 5px;
  border: 1px solid var(--line);
}
input::-webkit-slider-thumb {
  appearance: none;
  width: 24px;
  height: 24px;
  border-radius: 50%;
  background: var(--ink);
  border: 3px solid var(--sheet);
  cursor: grab;
}
input::-moz-range-thumb {
  width: 20px;
  height: 20px;
  border-radius: 50%;
  background: var(--ink);
  border: 3px solid var(--sheet);
}
</style>
