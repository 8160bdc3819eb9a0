<script setup lang="ts">
/**
 * A button of a row in a list: quiet, unless it is what the row is for. Drawn by the browser itself, for there are two
 * in every row of a long list; it looks as the others do.
 */
const { label, strong = false, small = false } = defineProps<{ label: string, strong?: boolean, small?: boolean }>()
</script>

<template>
  <button type="button" :class="['row-button', { strong, small }]">{{ label }}</button>
</template>

<style scoped>
.row-button {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  border: 1px solid var(--line);
  border-radius: 9px;
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
.row-button.small { font-size: 0.875rem; padding: 0.375rem 0.625rem; }
.row-button:hover { background: var(--action-soft); border-color: var(--line-strong); }
.row-button.strong {
  background: var(--action);
  border-color: var(--action);
  color: var(--action-ink);
}
.row-button:disabled { opacity: 0.6; cursor: default; pointer-events: none; }
</style>
