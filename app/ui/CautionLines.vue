<script setup lang="ts">
import type { Caution } from '~core/plan/cautions'
import { cautionWords } from '~core/plan/words'
import type { UnitPreferences } from '~core/units/units'
import { CAUTION_GLYPHS } from './act-glyphs'
import HouseGlyph from './HouseGlyph.vue'

/** What can hurt, each with its sign. */
const { cautions, units } = defineProps<{ cautions: readonly Caution[], units: UnitPreferences }>()
const lines = computed(() => cautions.map(c => ({ words: cautionWords(c, units), glyph: CAUTION_GLYPHS[c.code] ?? 'wrong' })))
</script>

<template>
  <ul class="cautions">
    <li v-for="l in lines" :key="l.words"><HouseGlyph :id="l.glyph" :size="20" /> <span>{{ l.words }}</span></li>
  </ul>
</template>

<style scoped>
ul { display: grid; gap: 6px; border-left: 3px solid var(--heat); padding-left: 12px; }
li { display: grid; grid-template-columns: 20px minmax(0, 1fr); gap: 10px; align-items: start; font-size: 0.94rem; }
svg { margin-top: 1px; color: var(--heat); }
</style>
