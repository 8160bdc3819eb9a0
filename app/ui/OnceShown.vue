<script setup lang="ts">
import Button from 'primevue/button'
import QrPicture from './QrPicture.vue'

/** An address that is shown once, to be handed over: as a link, to be copied, and to be scanned. */
const { address } = defineProps<{ address: string }>()
const copied = ref(false)
async function copy() {
  await navigator.clipboard?.writeText(address).then(() => {
    copied.value = true
  }, () => {})
}
watch(() => address, () => {
  copied.value = false
})
</script>

<template>
  <div class="once" role="status">
    <QrPicture :text="address" label="The same address, to be scanned" />
    <div class="told">
      <p><slot /></p>
      <p><a :href="address" target="_blank" rel="noreferrer">{{ address }}</a></p>
      <Button :label="copied ? 'Copied' : 'Copy'" severity="secondary" size="small" @click="copy" />
    </div>
  </div>
</template>

<style scoped>
.once { display: flex; flex-wrap: wrap; gap: 14px 20px; padding: 14px 0; }
.told { flex: 1 1 260px; display: grid; gap: 8px; align-content: start; justify-items: start; }
.told a { overflow-wrap: anywhere; }
</style>
