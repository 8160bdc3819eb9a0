<script setup lang="ts">
import { useSeat } from '~/features/seat/seat'
import PlainButton from '~/ui/PlainButton.vue'
import RippleMark from '~/ui/RippleMark.vue'
import TextField from '~/ui/TextField.vue'
import { useAttempt } from '~/ui/attempt'

/** The door of a class: a code and a first name, nothing else. */
definePageMeta({ layout: 'bare' })
const seat = useSeat(), route = useRoute(), { trouble, busy, says, attempt } = useAttempt()
const form = reactive({ code: String(route.query.code ?? ''), name: '' })
const join = () => attempt(async () => {
  await seat.join(form.code, form.name)
  await navigateTo('/seat')
})
const isPlain = import.meta.client && !globalThis.isSecureContext
useHead({ title: 'Into the class', meta: [{ name: 'robots', content: 'noindex' }] })
</script>

<template>
  <main class="door">
    <form class="card sheet" novalidate @submit.prevent="join">
      <RippleMark class="mark" />
      <h1>Into the class</h1>
      <p v-if="seat.gone" role="status">{{ seat.gone }}</p>
      <TextField id="code" v-model="form.code" label="Code on the screen in front" autocomplete="off" :wrong="says('code')" />
      <TextField id="name" v-model="form.name" label="Your first name" autocomplete="given-name" :wrong="says('name')" />
      <p v-if="trouble && !trouble.field" class="problem" role="alert">{{ trouble.sentence }}</p>
      <PlainButton label="Take a seat" strong large :disabled="busy" @click="join" />
      <p class="small soft">No address, no password. Your name is seen by your teacher and in this room, and is deleted with the class.
        <template v-if="isPlain"> Over this address the screen may go dark while you work, and without the network the page cannot be opened anew: leave it open.</template></p>
    </form>
  </main>
</template>

<style scoped>
.door { min-height: 100dvh; display: grid; place-items: center; padding: 20px; background: var(--ground); }
.card { width: min(100%, 430px); padding: 26px; display: grid; gap: 14px; }
.mark { width: 64px; color: var(--ground); background: var(--ink); border-radius: 14px; padding: 8px; }
#code, .card :deep(#code) { font-size: 1.4rem; text-transform: uppercase; }
</style>
