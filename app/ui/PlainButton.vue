<script setup lang="ts">
/**
 * A button that the browser draws by itself, quiet unless it is what its place is for: there are two in every row of a
 * long list, and Today is there before the library of controls. It looks as the others do.
 */
const { label, strong = false, small = false, large = false }
  = defineProps<{ label: string, strong?: boolean, small?: boolean, large?: boolean }>()
</script>

<template>
  <button type="button" :class="['plain-button', { strong, small, large }]">{{ label }}</button>
</template>

<style scoped>
.plain-button {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  border: 2px solid var(--ink);
  border-radius: 12px;
  background: var(--sheet);
  color: var(--ink);
  font-size: 1rem;
  font-weight: 650;
  line-height: 1.4;
  padding: 0.62rem 1.05rem;
  cursor: pointer;
  user-select: none;
  transition: background 0.12s, border-color 0.12s;
}
.plain-button.small { font-size: 0.875rem; padding: 0.375rem 0.625rem; }
.plain-button.large { font-size: 1.125rem; padding: 0.625rem 0.875rem; }
.plain-button:hover { background: var(--action-soft); border-color: var(--line-strong); }
.plain-button.strong {
  background: var(--action);
  border-color: var(--action);
  color: var(--action-ink);
}
.plain-button:disabled { opacity: 0.6; cursor: default; pointer-events: none; }
</style>
