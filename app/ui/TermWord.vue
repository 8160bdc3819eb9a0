<script setup lang="ts">
import { computed, useId } from 'vue'
import { GLOSSARY, type TermId } from '~/features/help/words'

/** A word of the trade that opens what it means. */
const { id } = defineProps<{ id: TermId }>()
const box = useId(), term = computed(() => GLOSSARY[id])
</script>

<template>
  <button type="button" class="term" :popovertarget="box"><slot>{{ term.term.toLowerCase() }}</slot></button>
  <span :id="box" popover class="means" role="note"><b>{{ term.term }}.</b> {{ term.means }}</span>
</template>

<style scoped>
.term { border: 0; padding: 0; background: none; font: inherit; color: inherit; text-decoration: underline dotted var(--line-strong); text-underline-offset: 4px; min-height: 24px; }
.means { border: 2px solid var(--ink); border-radius: var(--radius); background: var(--sheet); color: var(--ink); padding: 14px 18px; max-width: min(26rem, 90vw); font-weight: 400; font-size: 1rem; line-height: 1.45; }
</style>
