<script setup lang="ts">
import Stranger from '~/door/Stranger.vue'

/** The door within the application: while it is worked on, and where its own page is not at hand. */
definePageMeta({ layout: 'bare' })
</script>

<template>
  <Stranger />
</template>
