<script setup lang="ts">
/** A small count with big enough buttons. */
const { label, min = 0, max = 400, step = 1, unit = '' } = defineProps<
  { label: string, min?: number, max?: number, step?: number, unit?: string }
>()
const model = defineModel<number>({ required: true })
const put = (value: number) => {
  if (Number.isFinite(value))
    model.value = Math.min(max, Math.max(min, Number((Math.round(value / step) * step).toFixed(4))))
}
function type(event: Event) {
  const box = event.target as HTMLInputElement
  const digits = box.value.replace(/[^\d.,-]/g, '').replace(',', '.')
  if (digits !== '') put(Number(digits))
  // What will not do is put back at once: the value may not have changed, and then nothing draws the box anew.
  box.value = `${model.value}${unit}`
}
/** Half steps need the keys for a fraction, which a phone shows only when asked. */
const keys = computed(() => Number.isInteger(step) ? 'numeric' : 'decimal')
</script>

<template>
  <span class="stepper" role="group" :aria-label="label">
    <button :aria-label="`One less: ${label}`" :disabled="model <= min" @click="put(model - step)">−</button>
    <input
      class="num"
      :inputmode="keys"
      :aria-label="label"
      :value="`${model}${unit}`"
      @change="type"
    >
    <button :aria-label="`One more: ${label}`" :disabled="model >= max" @click="put(model + step)">+</button>
  </span>
</template>

<style scoped>
.stepper {
  display: inline-grid;
  grid-template-columns: 30px 3.6em 30px;
  align-items: stretch;
  border: 1px solid var(--line-strong);
  border-radius: 9px;
  background: var(--sheet);
  overflow: hidden;
}
button {
  border: 0;
  background: none;
  min-height: 32px;
  font-size: 1.1rem;
}
button:disabled {
  color: var(--line-strong);
  cursor: default;
}
button:not(:disabled):hover {
  background: var(--action-soft);
}
input {
  border: 0;
  background: none;
  text-align: center;
  width: 100%;
  font-size: 0.92rem;
  padding: 0;
}
button:focus-visible,
input:focus-visible {
  outline-offset: -3px;
}
</style>
