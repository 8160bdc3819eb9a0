<script setup lang="ts">
import { levelOf, profileOf } from '~core/drawing/profile'
import { MOULD_MATERIALS } from '~core/setting/body'
import { gaugeBasisWords, releaseSentence } from '~core/mould/words'
import { formatLength, formatVolume } from '~core/units/format'
import type { LibraryItem } from '~contract/library'
import GroundButton from '~/ui/GroundButton.vue'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import PlainButton from '~/ui/PlainButton.vue'
import { useSession } from '~/sync/session'

/** A mould of the library: as it looks, cut through as it holds, and the few facts one asks for at the table. */
const { item } = defineProps<{ item: LibraryItem<'mould'> }>()
const emit = defineEmits<{ change: [] }>()
const session = useSession(), units = computed(() => session.units)
const body = computed(() => item.body)
const basis = computed(() => body.value.gauges?.length ? body.value.gauges.map(gaugeBasisWords).join('; ') : undefined)
const profile = computed(() => profileOf(body.value))
/** What the two pictures show, from the numbers they were drawn with. */
const tells = computed(() => {
  const { mouth, volume, form } = body.value, { depth, measured } = profile.value
  const half = depth - levelOf(profile.value, volume.value / 2)
  return `${formatLength(mouth.width, units.value)} wide and ${formatLength(depth, units.value)} deep, half of it stands `
    + `${formatLength(half, units.value)} high${measured || form ? '' : '; its shape was not measured'}`
})
const copies = computed(() => body.value.copies && body.value.copies > 1 ? [`${body.value.copies} copies`] : [])
const spread = computed(() => {
  const { low, high, value } = body.value.volume
  return Math.max(1, Math.round(50 * (high - low) / value))
})
</script>

<template>
  <div class="card">
    <div class="pictures">
      <div class="seen"><i /><MouldDrawing :mould="body" view="above" :width="150" :height="118" /><i /></div>
      <MouldDrawing :mould="body" view="cut" :width="190" :height="72" :filled="1" :warmth="8" :label="tells" />
    </div>
    <p class="facts">
      <NuxtLink :to="`/moulds/${item.id}`" class="row-link strong">{{ body.name }}</NuxtLink>
      <span class="num strong">{{ formatVolume(body.volume.value, units) }}</span>
    </p>
    <p class="facts small soft">
      <span :title="releaseSentence(body.material)">{{ [MOULD_MATERIALS[body.material].name, ...copies].join(', ') }}</span>
      <span class="num"><GroundButton :ground="body.gauges?.length ? 'gauged' : 'told'" :basis="basis"
      >± {{ spread }} %</GroundButton></span>
    </p>
    <p class="facts small soft">
      <span><span class="num">{{ item.uses ?? 0 }}</span> {{ item.uses === 1 ? 'cast' : 'casts' }} so far</span>
    </p>
    <p class="ways">
      <PlainButton
        label="Measure" small :aria-label="`Measure ${body.name}`" @click="navigateTo(`/moulds/${item.id}`)" />
      <PlainButton
        v-if="session.mayWrite"
        label="Change"
        small
        :aria-label="`Change ${body.name}`"
        @click="emit('change')" />
    </p>
  </div>
</template>

<style scoped>
.card { display: grid; gap: 4px; align-content: start; padding: 12px 14px 14px; min-width: 0; }
.pictures { display: grid; gap: 8px; justify-items: center; padding-bottom: 8px; }
/* The marks beside it are where it is cut through. */
.seen { display: flex; justify-content: space-between; align-items: center; width: 100%; }
.seen i { width: 14px; border-top: 3px solid var(--warn); }
.facts { display: flex; justify-content: space-between; gap: 10px; align-items: baseline; }
.facts > :first-child { overflow-wrap: anywhere; }
.facts > .num { flex: none; }
.ways { display: flex; gap: 6px; padding-top: 6px; }
</style>
