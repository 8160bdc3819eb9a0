<script setup lang="ts">
import { takeHanded, useMixing } from '~/features/door/mixing'
import { newId } from '~/sync/api'
import { beGuest } from '~/sync/guest'
import { useRecords } from '~/sync/records'
import { useSession } from '~/sync/session'

/** From the door to the bench: whoever is signed in pours in their workshop, anybody else as a guest of this tab. */
definePageMeta({ layout: 'bare' })
const session = useSession(), { mixIn, keepIn } = useMixing()
const trouble = ref('')
async function begin() {
  const things = takeHanded()
  if (!things) return navigateTo('/door', { replace: true, external: true })
  if (!session.person) {
    if (!beGuest(newId())) {
      trouble.value = 'This browser keeps nothing: it is private, or full. No pour can be noted here.'
      return
    }
    await session.load()
    await useRecords().load()
  }
  try {
    if (things.to === 'bench') await navigateTo(`/bench/${await mixIn(things)}`, { replace: true })
    else await afterKeeping(await keepIn(things))
  }
  catch (error) {
    trouble.value = `${(error as Error).message} Nothing is begun; go back and try it again.`
  }
}
/** A guest is asked where it is to be kept. */
const afterKeeping = (plan: string) => navigateTo(session.isGuest ? '/keep' : `/plan/${plan}`, { replace: true })
onMounted(begin)
</script>

<template>
  <main class="mix">
    <p v-if="trouble" role="alert">{{ trouble }} <a href="/door">Back to the door</a></p>
    <p v-else role="status">Setting the bench …</p>
  </main>
</template>

<style scoped>
.mix { max-width: 46ch; margin: 24vh auto 0; padding: 0 20px; }
</style>
