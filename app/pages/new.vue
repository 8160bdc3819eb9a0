<script setup lang="ts">
import type { DoorThings } from '~core/door/door'
import DoorPage from '~/features/door/DoorPage.vue'
import { useMixing } from '~/features/door/mixing'
import { useSession } from '~/sync/session'

/** “New pour”: the door inside a workshop, or a guest's own. Who has moulds of their own plans with those. */
const session = useSession(), { mixIn, keepIn } = useMixing()
const busy = ref(false), trouble = ref('')
async function go(where: () => Promise<string>) {
  busy.value = true
  trouble.value = ''
  try {
    await navigateTo(await where())
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  busy.value = false
}
const mix = (things: DoorThings) => go(async () => `/bench/${await mixIn(things)}`)
const keep = (things: DoorThings) => go(async () => `/plan/${await keepIn(things)}`)
</script>

<template>
  <DoorPage
    v-if="session.mayWrite"
    :units="session.units"
    inside
    :busy="busy"
    :trouble="trouble"
    @mix="mix"
    @keep="keep" />
  <p v-else>Only who may change this workshop begins a pour in it.</p>
</template>
