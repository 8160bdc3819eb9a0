<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'

/** The frame of every library dialog: fields, one sentence when something will not do, save and put away. */
const { title, trouble, busy, existing } = defineProps<
  { title: string, trouble: string, busy: boolean, existing: boolean }
>()
const open = defineModel<boolean>('open', { required: true })
const emit = defineEmits<{ save: [], putAway: [] }>()
</script>

<template>
  <Dialog v-model:visible="open" modal :header="title" :style="{ width: 'min(540px, 95vw)' }">
    <form novalidate @submit.prevent="emit('save')">
      <slot />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <div class="ways">
        <Button v-if="existing" label="Archive" severity="secondary" :disabled="busy" @click="emit('putAway')" />
        <Button type="submit" label="Save" :disabled="busy" class="save" />
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
form { display: grid; gap: 12px; }
.ways { display: flex; gap: 10px; padding-top: 6px; }
.save { margin-left: auto; min-width: 120px; }
</style>
