<script setup lang="ts">
import Button from 'primevue/button'
import type { ImportJob } from '~contract/import'
import { isUnderWay } from '~contract/import-state'
import { useSession } from '~/sync/session'
import { importWords } from './words'

/** One file on its way in: how far it is, or what came of it and how to undo that. */
const { job, isPast = false } = defineProps<{ job: ImportJob, isPast?: boolean }>()
defineEmits<{ giveUp: [], takeOut: [] }>()
const session = useSession()
const isOn = computed(() => isUnderWay(job.state)), percent = computed(() => Math.floor(100 * job.share))
const mayAct = computed(() => session.isOwner || job.by === session.person?.id)
const canGo = computed(() => !isOn.value && job.things > 0 && job.state !== 'taken-out' && mayAct.value)
const isWrong = computed(() => job.state === 'refused' || job.state === 'broken')
</script>

<template>
  <div class="import">
    <p :class="{ problem: isWrong }" :role="isPast ? undefined : isWrong ? 'alert' : 'status'">
      <span v-if="job.name" class="soft name">{{ job.name }}</span>{{ ' ' }}
      <span>{{ importWords(job) }}</span>
    </p>
    <template v-if="isOn">
      <span class="num">{{ percent }} %</span>
      <progress :value="percent" max="100" :aria-label="importWords(job)" />
      <Button v-if="mayAct" label="Give it up" severity="secondary" size="small" @click="$emit('giveUp')" />
    </template>
    <Button v-if="canGo" label="Take it out again" severity="secondary" size="small" @click="$emit('takeOut')" />
  </div>
</template>

<style scoped>
.import {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  padding-top: 8px;
}
.name {
  overflow-wrap: anywhere;
}
progress {
  width: 180px;
  accent-color: var(--action);
}
</style>
