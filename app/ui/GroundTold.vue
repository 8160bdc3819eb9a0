<script setup lang="ts">
import Popover from 'primevue/popover'
import { GROUNDS } from '~core/setting/grounds'
import { GROUND_WORDS, SURE_WORDS, type GroundId } from '~core/setting/words'

/** What a figure stands on: its rule, what went into it, where that is from, how sure it is, what would narrow it. */
const { anchor, ground } = defineProps<{
  anchor: HTMLElement | undefined
  ground: GroundId
  from?: string
  basis?: string
}>()
const emit = defineEmits<{ closed: [] }>()
const popover = ref<InstanceType<typeof Popover>>()
const words = computed(() => GROUND_WORDS[ground])
watch(() => anchor, async (at) => {
  await nextTick()
  if (at) popover.value?.show(new Event('click'), at)
  else popover.value?.hide()
})
</script>

<template>
  <Popover ref="popover" :style="{ maxWidth: 'min(380px, 92vw)' }" @hide="emit('closed')">
    <div class="told">
      <p>{{ words.how }}</p>
      <p v-if="from"><span class="strong">From</span> {{ from }}.</p>
      <p v-if="basis"><span class="strong">Here</span> {{ basis }}.</p>
      <p><span class="strong">Source</span> {{ words.source }}</p>
      <p><span class="strong">{{ SURE_WORDS[GROUNDS[ground]] }}</span> {{ words.narrow }}</p>
    </div>
  </Popover>
</template>

<style scoped>
.told {
  display: grid;
  gap: 8px;
  font-size: 0.9rem;
}
</style>
