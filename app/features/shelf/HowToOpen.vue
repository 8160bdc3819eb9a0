<script setup lang="ts">
import Popover from 'primevue/popover'
import { openingOf, type Opened } from '~core/bench/opening'
import { OPEN_STEP_WORDS, OPEN_STOP_WORDS } from '~core/bench/words'
import TermText from '~/ui/TermText.vue'

/** How this mould is opened, in a few steps, and when to leave off. */
const { anchor, mould } = defineProps<{ anchor: HTMLElement | undefined, mould: Opened | undefined }>()
const emit = defineEmits<{ closed: [] }>()
const popover = ref<InstanceType<typeof Popover>>()
const opening = computed(() => mould && openingOf(mould))
watch(() => anchor, async (at) => {
  await nextTick()
  if (at) popover.value?.show(new Event('click'), at)
  else popover.value?.hide()
})
</script>

<template>
  <Popover ref="popover" :style="{ maxWidth: 'min(400px, 92vw)' }" @hide="emit('closed')">
    <div v-if="opening" class="how">
      <ol><li v-for="s in opening.steps" :key="s"><TermText :text="OPEN_STEP_WORDS[s]" /></li></ol>
      <p class="stop">{{ OPEN_STOP_WORDS[opening.stop] }}</p>
    </div>
  </Popover>
</template>

<style scoped>
.how { display: grid; gap: 10px; }
ol { list-style: decimal; padding-left: 1.6em; display: grid; gap: 8px; }
.stop { border-left: 4px solid var(--warn); padding-left: 10px; font-weight: 600; }
</style>
