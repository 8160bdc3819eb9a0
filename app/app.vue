<script setup lang="ts">
import { onBeforeUnmount } from 'vue'
import { useClock } from '~/stores/clock'

const stop = useClock().start()
onBeforeUnmount(stop)
</script>

<template>
  <NuxtLoadingIndicator color="#5fb7ad" />
  <NuxtLayout><NuxtPage /></NuxtLayout>
</template>
