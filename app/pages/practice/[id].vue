<script setup lang="ts">
import { EXAMPLES, exampleLog } from '~core/practice/examples'
import type { ScenarioId } from '~core/practice/scenarios'
import { SCENARIO_WORDS } from '~core/practice/words'
import { givenOf } from '~/features/practice/where'
import PracticeBench from '~/features/practice/PracticeBench.vue'

definePageMeta({
  layout: 'bare',
  // What a page's head names stands in every page's script: the scenarios do not.
  validate: route => import('~core/practice/scenarios').then(m => m.SCENARIO_IDS.includes(route.params.id as ScenarioId)),
})
const { params, query } = useRoute(), id = params.id as ScenarioId
/** A run of somebody else’s, to be read. */
const example = query.read === undefined ? undefined : EXAMPLES.find(e => e.id === id)
const log = example && exampleLog(example)
useHead({ title: SCENARIO_WORDS[id].name })
</script>

<template>
  <main><PracticeBench v-bind="{ ...givenOf(id), log }" :seed="example?.seed" /></main>
</template>
