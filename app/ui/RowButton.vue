<script setup lang="ts">
import Button from 'primevue/button'

/** A button of a row in a list: quiet, unless it is what the row is for. */
const { label, strong = false, small = false } = defineProps<{ label: string, strong?: boolean, small?: boolean }>()
</script>

<template>
  <Button :label="label" :severity="strong ? undefined : 'secondary'" :size="small ? 'small' : undefined" />
</template>
