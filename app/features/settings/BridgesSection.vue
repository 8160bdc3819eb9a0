<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Select from 'primevue/select'
import { DEVICE_KINDS, type DeviceFacts, type DeviceId } from '~contract/devices'
import { ask } from '~/sync/api'
import { useSession } from '~/sync/session'
import { useAttempt } from '~/ui/attempt'
import { dayAndTime } from '~/ui/when'
import { reachable } from './reach'

/** Devices that hang on one machine and are heard at every bench, through the server. */
const KIND_WORDS: Readonly<Record<DeviceId, string>> = { scale: 'Scale', thermometer: 'Thermometer', room: 'Room sensor' }
const kinds = DEVICE_KINDS.map(id => ({ id, name: KIND_WORDS[id] }))
const session = useSession(), { trouble, attempt } = useAttempt()
const list = ref<readonly DeviceFacts[]>([]), form = reactive({ kind: 'scale' as DeviceId, name: '' })
const made = ref<{ readonly name: string, readonly token: string, readonly server: string }>(), copied = ref(false)
const load = async () => {
  list.value = await ask('GET devices')
}
await attempt(load)
const make = () => attempt(async () => {
  const { name, token } = await ask('POST devices', { body: { ...form } })
  made.value = { name, token, server: await reachable() }
  copied.value = false
  form.name = ''
  await load()
})
const drop = (id: string) => attempt(async () => {
  await ask('DELETE devices/:id', { params: { id } })
  await load()
})
async function copy() {
  await navigator.clipboard?.writeText(made.value!.token).then(() => {
    copied.value = true
  }, () => {})
}
</script>

<template>
  <section aria-labelledby="bridges-head">
    <div class="group-head">
      <h2 id="bridges-head">Devices</h2>
      <span class="small soft">a scale, thermometer or room sensor on one machine, heard at every bench</span>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble.sentence }}</p>
    <ul v-if="list.length > 0" class="ruled">
      <li v-for="d in list" :key="d.id">
        <span>
          <span class="strong">{{ d.name }}</span>, {{ KIND_WORDS[d.kind].toLowerCase() }}<br>
          <span class="small soft">{{ d.heardAt ? `last heard ${dayAndTime(d.heardAt, Date.now())}` : 'not heard yet' }}</span>
        </span>
        <Button
          v-if="session.isOwner"
          label="Take out"
          severity="secondary"
          size="small"
          :aria-label="`Take out ${d.name}`"
          @click="drop(d.id)"
        />
      </li>
    </ul>
    <div v-if="made" class="made" role="status">
      <p><span class="strong">{{ made.name }}</span> posts to {{ made.server }}/api/readings with this secret, which is shown once:</p>
      <p class="secret">{{ made.token }}</p>
      <Button :label="copied ? 'Copied' : 'Copy'" severity="secondary" size="small" @click="copy" />
    </div>
    <form v-if="session.isOwner" novalidate @submit.prevent="make">
      <Select v-model="form.kind" :options="kinds" option-label="name" option-value="id" aria-label="Kind of device" />
      <label for="device-name" class="small strong">Which one</label>
      <InputText id="device-name" v-model="form.name" maxlength="60" autocomplete="off" />
      <Button type="submit" label="Bring it in" severity="secondary" />
    </form>
  </section>
</template>

<style scoped>
li { display: flex; justify-content: space-between; align-items: center; gap: 14px; padding: 8px 0; }
.made { display: grid; gap: 6px; justify-items: start; padding: 12px 0; }
.secret { font-family: var(--numbers); font-weight: 600; overflow-wrap: anywhere; }
form { display: flex; flex-wrap: wrap; gap: 8px 10px; align-items: center; padding-top: 12px; }
</style>
