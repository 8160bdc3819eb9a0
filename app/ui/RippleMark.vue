<script setup lang="ts">
import { useId } from 'vue'
import { MARK } from '~core/drawing/picture'

/** A bowl from a little above, a stream landing off its middle, and the rings that run to its rim: four at this size. */
const hole = useId()
</script>

<template>
  <svg viewBox="0 0 128 128" aria-hidden="true" fill="currentColor">
    <mask :id="hole"><rect width="128" height="128" fill="#fff" /><path :d="MARK.gap" fill="#000" /></mask>
    <path :mask="`url(#${hole})`" fill-rule="evenodd" :d="MARK.rings.join('')" />
    <path :d="MARK.stream" />
  </svg>
</template>
