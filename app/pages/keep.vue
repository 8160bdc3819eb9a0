<script setup lang="ts">
import type { SessionFacts } from '~contract/account'
import { guestHere, takeOverLater } from '~/sync/guest'
import { guestAsFile } from '~/sync/guest-file'
import { countOf } from '~/sync/take-over'
import { useSession } from '~/sync/session'
import { fileName, offerFile } from '~/ui/files'
import PlainButton from '~/ui/PlainButton.vue'

/** What a guest poured, made somebody’s own: in a new workshop, one they belong to, or the demo. Asked, never merged. */
definePageMeta({ layout: 'bare' })
/** Over plain http nobody signs in. */
const isPrivate = window.isSecureContext
const session = useSession(), route = useRoute()
const guest = guestHere(), facts = shallowRef<SessionFacts>(), trouble = ref(''), busy = ref(false)
const count = shallowRef<{ readonly pours: number }>()
onMounted(async () => {
  if (guest) count.value = await countOf(guest).catch(() => undefined)
})
const one = computed(() => (count.value?.pours ?? 1) < 2)
const pours = computed(() => count.value?.pours === 0 ? 'this plan' : one.value ? 'this pour' : `these ${count.value?.pours} pours`)
async function attempt(work: () => Promise<unknown>) {
  busy.value = true
  trouble.value = ''
  try {
    await work()
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  busy.value = false
}
const find = () => attempt(async () => {
  facts.value = await session.askWho()
})
/** All begins anew as who they are: nothing of a guest’s is held in the page any more. */
function begin(to: string) {
  takeOverLater(guest)
  session.endGuest()
  location.assign(to)
}
const save = () => attempt(async () => {
  const text = await guestAsFile(guest!)
  offerFile(fileName('my pour', 'guest.json'), text, 'application/json')
})
const intoDemo = () => attempt(async () => {
  takeOverLater(guest)
  session.endGuest()
  await session.enterDemo()
  location.assign('/')
})
</script>

<template>
  <main class="keep">
    <h1>Keep this</h1>
    <template v-if="guest">
      <p v-if="route.query.for">That page belongs to a workshop. Keep {{ pours }} in one, and it opens.</p>
      <p>So far {{ pours }} {{ one ? 'is' : 'are' }} on this device only, with every mark, mould and bag. Kept in a workshop, they
        move there as they are, and later pours learn from them.</p>
      <p v-if="!isPrivate">This address is not private, so nothing goes into a workshop from here. Save it as a file, or <a href="/install">let this phone trust the workshop’s server</a> first and bring the file in there.</p>
      <template v-else-if="!facts">
        <PlainButton label="Keep it in a workshop" strong :disabled="busy" @click="find" />
      </template>
      <template v-else-if="facts.person && facts.workshop">
        <p class="strong">Put {{ pours }} into “{{ facts.workshop.name }}”?</p>
        <span class="ways">
          <PlainButton label="Put it there" strong @click="begin('/')" />
          <PlainButton label="Another workshop" @click="begin('/sign-in')" />
        </span>
      </template>
      <template v-else-if="facts.demo">
        <p>This is a demo: what goes into its workshop is thrown away with it.</p>
        <PlainButton label="Into the demo workshop" strong :disabled="busy" @click="intoDemo" />
      </template>
      <template v-else-if="facts.needsOwner">
        <p>There is no workshop here yet. Make one, and this is its first pour.</p>
        <PlainButton label="Make a workshop" strong @click="begin('/sign-in')" />
      </template>
      <template v-else>
        <p>A workshop lives at this address already. Sign in to it, and {{ pours }} {{ one ? 'goes' : 'go' }} in.</p>
        <PlainButton label="Sign in" strong @click="begin('/sign-in')" />
      </template>
      <p v-if="isPrivate">Or take it to a workshop somewhere else: save it as a file, and bring that in there under Workshop.</p>
      <PlainButton label="Save it as a file" :disabled="busy" @click="save" />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <p class="small"><NuxtLink to="/bench">Back to the bench</NuxtLink></p>
    </template>
    <p v-else>There is nothing here to keep. <a href="/door">Begin at the door</a></p>
  </main>
</template>

<style scoped>
.keep { max-width: 52ch; margin: 12vh auto 0; padding: 0 20px; display: grid; gap: 14px; justify-items: start; }
.ways { display: flex; gap: 10px; flex-wrap: wrap; }
</style>
