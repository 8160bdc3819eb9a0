<script setup lang="ts">
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'

/** How a pour ended of which nothing more was told. @param name of the one that is asked about, if any */
const { name } = defineProps<{ name?: string, trouble: string }>()
const emit = defineEmits<{ poured: [], nothing: [], closed: [] }>()
</script>

<template>
  <Dialog
    :visible="name !== undefined"
    modal
    :header="name"
    :style="{ width: 'min(480px, 95vw)' }"
    @update:visible="emit('closed')">
    <p>How did it end? What was told of it stays in the logbook either way.</p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div class="ends">
      <Button label="It was poured" @click="emit('poured')" />
      <p class="small soft">
        Its casts go to the shelf, filled when the plan would have filled them; open and judge them there.
      </p>
      <Button label="Nothing came of it" severity="secondary" @click="emit('nothing')" />
      <p class="small soft">It is given up, and counts for nothing.</p>
    </div>
  </Dialog>
</template>

<style scoped>
.ends {
  display: grid;
  gap: 6px;
  padding-top: 14px;
}
.ends p + button { margin-top: 12px; }
</style>
