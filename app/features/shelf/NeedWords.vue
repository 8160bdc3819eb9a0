<script setup lang="ts">
import { useClock } from '~/sync/clock'
import { needWords, type CastGroup } from './groups'

/** What a group of casts needs, or when: words of their own, so that a moving clock draws them anew and no more. */
const { group, part } = defineProps<{ group: CastGroup, part: 'what' | 'when' }>()
const clock = useClock()
const words = computed(() => needWords(group, clock.beat)[part])
</script>

<template>
  <span>{{ words }}</span>
</template>
