<script setup lang="ts">
import { marked } from 'marked'
import notes from '~~/docs/model.md?raw'
import LabHead from '~/features/lab/LabHead.vue'

/** The model's own notes, the same file that is kept with the code: equations, sources, fits and weaknesses. */
const figures = import.meta.glob<string>('~~/docs/figures/*.svg', { query: '?url', import: 'default', eager: true })
const address = (name: string) => Object.entries(figures).find(([path]) => path.endsWith(name))?.[1] ?? name
// Parsed from this repository's own file: nothing that anyone typed reaches it.
const html = marked.parse(notes
  .replace(/^# .*$/m, '')
  .replace(/\]\(figures\/([\w-]+\.svg)\)/g, (_, name: string) => `](${address(name)})`)
  .replace(/\[([^\]]+)\]\(\.\.[^)]*\)/g, '$1'), { async: false })
  // What scrolls on a narrow screen can be reached from the keyboard.
  .replace(/<(table|pre)>/g, '<$1 tabindex="0">')
</script>

<template>
  <div>
    <LabHead />
    <!-- eslint-disable-next-line vue/no-v-html -->
    <article class="notes" v-html="html" />
  </div>
</template>

<style scoped>
.notes {
  max-width: 900px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}
.notes :deep(h2) {
  margin-top: 16px;
  font-size: 1.2rem;
  border-bottom: 2px solid var(--ink);
  padding-bottom: 5px;
}
.notes :deep(ul) {
  list-style: disc;
  padding-left: 20px;
  display: grid;
  gap: 5px;
}
.notes :deep(table) {
  display: block;
  overflow-x: auto;
  border-collapse: collapse;
  font-size: 0.9rem;
}
.notes :deep(th),
.notes :deep(td) {
  text-align: left;
  padding: 5px 14px 5px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: baseline;
}
.notes :deep(pre) {
  background: var(--sheet);
  border-radius: 10px;
  padding: 12px 16px;
  overflow-x: auto;
  font-size: 0.86rem;
}
.notes :deep(code) {
  font-family: var(--numbers);
  font-stretch: 75%;
  font-size: 0.92em;
}
.notes :deep(img) {
  max-width: 100%;
  border-radius: 12px;
}
</style>
