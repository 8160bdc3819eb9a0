<script setup lang="ts">
import type { splitByTerms } from '~/features/help/terms'
import type TermWord from './TermWord.vue'

/** A sentence whose words of the trade open what they mean, once that is here; the sentence does not wait for it. */
const { text } = defineProps<{ text: string }>()
const found = shallowRef<{ split: typeof splitByTerms, word: typeof TermWord }>()
onMounted(async () => {
  const [{ splitByTerms: split }, { default: word }] = await Promise.all([
    import('~/features/help/terms'), import('./TermWord.vue'),
  ]).catch(() => [{ splitByTerms: undefined }, { default: undefined }] as const)
  if (split && word) found.value = { split, word }
})
const parts = computed(() => found.value?.split(text) ?? [{ text }])
</script>

<template>
  <template v-for="(p, n) in parts" :key="n">
    <component :is="found.word" v-if="found && 'term' in p && p.term" :id="p.term">{{ p.text }}</component>
    <template v-else>{{ p.text }}</template>
  </template>
</template>
