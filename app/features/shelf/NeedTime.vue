<script setup lang="ts">
import { useSession } from '~/sync/session'
import GroundButton from '~/ui/GroundButton.vue'
import { castFrom, NEED_GROUND } from '~/ui/grounds'
import type { CastGroup } from './groups'
import NeedWords from './NeedWords.vue'

/** When a group of casts needs what it needs, and, asked, what that time stands on. */
const { group, part = 'when' } = defineProps<{ group: CastGroup, part?: 'what' | 'when' }>()
const session = useSession()
const ground = computed(() => NEED_GROUND[group.need])
</script>

<template>
  <span
  ><GroundButton v-if="ground" :ground="ground" :from="() => castFrom(group.first, session.units)"
  ><NeedWords :group="group" :part="part" /></GroundButton
  ><NeedWords v-else :group="group" :part="part"
  /></span>
</template>
