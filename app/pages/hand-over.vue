<script setup lang="ts">
import Button from 'primevue/button'
import type { Left } from '~/sync/left-behind'
import { useSession } from '~/sync/session'
import RippleMark from '~/ui/RippleMark.vue'

/**
 * What this browser still holds for the workshop's plain address comes here, when somebody says so: the other page
 * (public/left-behind.js) opened this one.
 */
definePageMeta({ layout: 'bare' })
const session = useSession()
const other = window.opener as Window | null
/** The template looks into what it is given, which another address does not allow. */
const alone = other === null
const from = ref(''), left = shallowRef<Left>(), done = ref(false), wrong = ref('')
const count = computed(() => left.value ? left.value.waiting.length + left.value.begun.length + left.value.changes.length : 0)

async function hear(event: MessageEvent): Promise<void> {
  if (event.source !== other || left.value) return
  const { readLeft } = await import('~/sync/left-behind'), read = readLeft(event.data)
  if (!read) return
  from.value = event.origin
  left.value = read
}
onMounted(() => {
  addEventListener('message', hear)
  // Nothing is told by this but that the page is there.
  other?.postMessage({ ripples: 'ready' }, '*')
})
onBeforeUnmount(() => removeEventListener('message', hear))

async function take(): Promise<void> {
  const { keepLeft } = await import('~/sync/left-behind')
  try {
    const kept = await keepLeft(left.value!)
    other?.postMessage({ ripples: 'kept', kept }, from.value)
    done.value = true
  }
  catch {
    wrong.value = 'This browser could not write it down. Nothing is lost: it still waits under the old address. Make room on the device and press again.'
  }
}
/** All is read anew, and sent. */
const goIn = () => location.assign('/')
</script>

<template>
  <main class="door">
    <div class="card sheet">
      <RippleMark class="mark" />
      <h1>{{ done ? 'It waits here now' : 'From the old address' }}</h1>
      <p v-if="alone" class="soft">
        Nothing was handed over. Open the workshop’s plain address, the one that begins with “http:”, and press “Hand them over” there.
      </p>
      <p v-else-if="!left" class="soft" role="status">Waiting for the other page …</p>
      <template v-else-if="!done">
        <p>
          The page at <strong>{{ from }}</strong> hands over what could not be sent from there:
          <strong class="num">{{ count }}</strong> {{ count === 1 ? 'entry or change' : 'entries and changes' }}.
          Take them in only if that is where you had the workshop open.
        </p>
        <p v-if="left.unread > 0" class="soft">
          <span class="num">{{ left.unread }}</span> more cannot be read by this version and {{ left.unread === 1 ? 'stays' : 'stay' }} there.
        </p>
        <Button label="Take them in" size="large" fluid :disabled="count === 0" @click="take" />
      </template>
      <template v-else>
        <p role="status">
          {{ session.person
            ? 'What is yours is sent as soon as the server answers. What somebody else wrote waits until they sign in on this device.'
            : 'Sign in as the one who wrote it, and it is sent.' }}
        </p>
        <Button :label="session.person ? 'To the workshop' : 'Sign in'" size="large" fluid @click="goIn" />
      </template>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
    </div>
  </main>
</template>

<style scoped>
.door { min-height: 100dvh; display: grid; place-items: center; padding: 20px; }
.card { width: min(400px, 100%); padding: 30px; display: grid; gap: 14px; }
.mark { width: 46px; background: var(--rail); border-radius: 10px; padding: 6px; }
</style>
