<script setup lang="ts">
import { KINDS } from '~core/door/kinds'
import type { JobStep } from '~core/job/types'
import { thingsLike } from './planned'
import HouseGlyph from '~/ui/HouseGlyph.vue'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import { STEP_GLYPHS } from './step-signs'

/** A job to begin from: what is filled, and its steps as signs in a row, each as long as its sign. */
const { name, what, steps } = defineProps<{ name: string, what: string, steps: readonly JobStep[] }>()
const emit = defineEmits<{ begin: [] }>()
const poured = computed(() => steps.find(s => s.like)?.like)
const mould = computed(() => poured.value && poured.value.kind in KINDS ? thingsLike(poured.value, '').mould : undefined)
</script>

<template>
  <button type="button" class="chain" @click="emit('begin')">
    <span class="drawn">
      <MouldDrawing v-if="mould" :mould="mould" view="above" :width="92" :height="78" />
    </span>
    <span class="strong">{{ name }}</span>
    <span class="small soft">{{ what }}</span>
    <span class="signs" aria-hidden="true">
      <HouseGlyph v-for="s in steps" :id="STEP_GLYPHS[s.kind]" :key="s.id" :size="18" :class="s.kind" />
    </span>
  </button>
</template>

<style scoped>
.chain { display: grid; grid-template-rows: 88px auto auto 1fr; gap: 4px; text-align: left; border: 1.5px solid var(--line); border-radius: 14px; background: var(--sheet); padding: 12px 14px; min-width: 0; color: var(--ink); }
.chain:hover { border-color: var(--ink); }
.drawn { display: grid; place-items: center; }
.strong { font-size: 1.08rem; }
.signs { display: flex; flex-wrap: wrap; gap: 5px; align-self: end; padding-top: 8px; color: var(--soft); }
.signs .pour, .signs .mix { color: var(--ink); }
</style>
