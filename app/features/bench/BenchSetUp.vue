<script setup lang="ts">
import { useRoom, useThermometer } from '~/sync/climate'
import type { DeviceFacts } from '~contract/devices'
import { HERE } from '~/features/bench/device'
import { useScale } from '~/features/bench/scale'
import { ask } from '~/sync/api'
import { onOwnMachine } from '~/sync/own-machine'
import { COMMAND_HINT } from './commands'
import { LEADS } from './telling'

/** Devices at the bench and how it speaks and listens: set once, then out of the way. */
const { canListen, listening } = defineProps<{ canListen: boolean, listening: boolean }>()
const keysOn = defineModel<boolean>('keys', { required: true })
const lead = defineModel<number>('lead', { required: true })
const emit = defineEmits<{ listen: [] }>()
const scale = useScale(), thermometer = useThermometer(), room = useRoom()
/** Devices on this machine are only heard by a page that it shows itself. */
const ownMachine = onOwnMachine()
const KINDS = [
  { kind: 'scale', name: 'Scale', store: scale },
  { kind: 'thermometer', name: 'Thermometer', store: thermometer },
  { kind: 'room', name: 'Room sensor', store: room },
] as const
const elsewhere = ref<readonly DeviceFacts[]>([])
onMounted(() => ask('GET devices').then((told) => {
  elsewhere.value = told
}, () => {}))
const devices = computed(() => KINDS.flatMap(({ kind, name, store }) => {
  const one = (id: string, called: string) => ({ id, name: called, store, chosen: store.wanted && store.from === id })
  return [
    ...ownMachine ? [one(HERE, name)] : [],
    ...elsewhere.value.filter(d => d.kind === kind).map(d => one(d.id, d.name)),
  ]
}))
</script>

<template>
  <div class="set-up">
    <span class="group" role="group" aria-label="Devices">
      <button v-for="d in devices" :key="d.id + d.name" :aria-pressed="d.chosen" @click="d.store.toggle(d.id)">
        {{ d.name }}<span v-if="d.chosen" class="small">{{ d.store.here ? ' heard' : ' not heard' }}</span>
      </button>
      <span v-if="devices.length === 0" class="small">No devices: they are brought in under Workshop.</span>
    </span>
    <span class="group" role="group" aria-label="How early cues are told">
      <span class="small">Cues</span>
      <button v-for="s in LEADS" :key="s" :aria-pressed="lead === s" @click="lead = s">
        {{ s === 0 ? 'on time' : `${s} s early` }}
      </button>
    </span>
    <span class="group">
      <button :aria-pressed="keysOn" @click="keysOn = !keysOn">Keys</button>
      <button v-if="canListen" :aria-pressed="listening" @click="emit('listen')">Listen</button>
    </span>
    <span v-if="canListen && listening" class="small" role="status">{{ COMMAND_HINT }}</span>
  </div>
</template>

<style scoped>
.set-up {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  padding: 8px 12px;
  border-radius: 10px;
  background: var(--sheet);
  color: var(--soft);
}
.group {
  display: inline-flex;
  gap: 5px;
  align-items: center;
}
button {
  border: 1px solid var(--line);
  background: none;
  color: var(--soft);
  border-radius: 8px;
  padding: 4px 10px;
  min-height: 36px;
  font-size: 0.92rem;
}
button[aria-pressed='true'] {
  background: var(--action-soft);
  color: var(--ink);
  border-color: var(--line-strong);
}
</style>
