<script setup lang="ts">
import { SCENARIO_IDS, type ScenarioId } from '~core/practice/scenarios'
import { SCENARIO_WORDS } from '~core/practice/words'
import PracticeBench from '~/features/practice/PracticeBench.vue'

definePageMeta({ layout: 'bare', validate: route => SCENARIO_IDS.includes(route.params.id as ScenarioId) })
const id = useRoute().params.id as ScenarioId
useHead({ title: SCENARIO_WORDS[id].name })
</script>

<template>
  <main><PracticeBench :id="id" /></main>
</template>
