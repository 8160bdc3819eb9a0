<script setup lang="ts">
/** A button that asks for one file; the same file may be chosen again. */
const { label, accept, capture, disabled = false, small = false } = defineProps<
  { label: string, accept: string, capture?: 'environment', disabled?: boolean, small?: boolean }
>()
const emit = defineEmits<{ file: [file: File] }>()
function chosen(event: Event) {
  const field = event.target as HTMLInputElement, file = field.files?.[0]
  field.value = ''
  if (file) emit('file', file)
}
</script>

<template>
  <label class="file" :class="{ small, busy: disabled }"
  >{{ label }}<input type="file" :accept="accept" :capture="capture" :disabled="disabled" @change="chosen"
  /></label>
</template>

<style scoped>
.file {
  position: relative;
  display: inline-block;
  border: 1px solid var(--line);
  background: var(--sheet);
  border-radius: 9px;
  padding: 0.62rem 1.05rem;
  font-weight: 650;
  cursor: pointer;
}
.file.small {
  padding: 0.42rem 0.8rem;
  font-size: 0.9rem;
}
.file:hover {
  background: var(--action-soft);
}
.file:focus-within {
  outline: 2.5px solid var(--focus);
  outline-offset: 2px;
}
.file.busy {
  opacity: 0.6;
  cursor: default;
}
input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: inherit;
}
</style>
