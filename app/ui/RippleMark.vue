<script setup lang="ts">
/** A bowl from a little above, a stream landing off its middle, and the rings that run to its rim: four at this size. */
const hole = useId()
</script>

<template>
  <svg viewBox="0 0 128 128" aria-hidden="true" fill="currentColor">
    <mask :id="hole"><rect width="128" height="128" fill="#fff" /><path d="M28.5 0H53.5V59.8H28.5Z" fill="#000" /></mask>
    <path
      :mask="`url(#${hole})`"
      fill-rule="evenodd"
      d="M6 66A58 37.4 0 0 1 122 66C122 101.64 96 120 86 120H42C32 120 6 101.64 6 66ZM14 66A50 31 0 1 1 114 66A50 31 0 1 1 14 66ZM17.38 65.22A43.75 27.13 0 1 1 104.88 65.22A43.75 27.13 0 1 1 17.38 65.22ZM20.75 64.45A37.5 23.25 0 1 1 95.75 64.45A37.5 23.25 0 1 1 20.75 64.45ZM24.13 63.67A31.25 19.38 0 1 1 86.63 63.67A31.25 19.38 0 1 1 24.13 63.67ZM27.5 62.9A25 15.5 0 1 1 77.5 62.9A25 15.5 0 1 1 27.5 62.9ZM30.88 62.13A18.75 11.63 0 1 1 68.38 62.13A18.75 11.63 0 1 1 30.88 62.13ZM34.25 61.35A12.5 7.75 0 1 1 59.25 61.35A12.5 7.75 0 1 1 34.25 61.35ZM37.63 60.57A6.25 3.88 0 1 1 50.13 60.57A6.25 3.88 0 1 1 37.63 60.57Z"
    />
    <path d="M34.5 4H47.5L45.68 59.8H36.32Z" />
  </svg>
</template>
