<script setup lang="ts">
import { additionKind } from '~core/gypsum/additions'
import { WAY_IN_WORDS } from '~core/gypsum/words'
import { toWeigh, type ToWeigh } from '~core/plan/to-weigh'
import type { Batch, Plan } from '~core/plan/types'
import { formatMass } from '~core/units/format'
import { useSession } from '~/sync/session'

/** Everything to weigh for one bucket, in the order in which it is used. */
const { plan, batch } = defineProps<{ plan: Plan, batch: Batch }>()
const session = useSession()
const kg = (mass: number) => formatMass(mass, session.units)
function words(w: ToWeigh): { readonly what: string, readonly more?: string } {
  if (w.what === 'addition') return { what: additionKind(w.id).name, more: WAY_IN_WORDS[w.way].into.toLowerCase() }
  if (w.what === 'water' || !w.split) return { what: w.what === 'water' ? 'Water' : 'Powder' }
  return { what: 'Powder', more: `mixed yourself: ${kg(w.split.plaster)} plaster and ${kg(w.split.filler)} silica flour` }
}
const rows = computed(() => toWeigh(plan, batch.mix).map((w, i) => ({ key: `${i}`, mass: kg(w.mass), ...words(w) })))
</script>

<template>
  <ol class="weigh" aria-label="Everything to weigh, in order">
    <li v-for="r in rows" :key="r.key">
      <span class="num strong">{{ r.mass }}</span> <span>{{ r.what }}<span v-if="r.more" class="soft">, {{ r.more }}</span></span>
    </li>
  </ol>
</template>

<style scoped>
.weigh { list-style: none; margin: 0; padding: 0; display: grid; gap: 3px; }
li { display: grid; grid-template-columns: 7.4em minmax(0, 1fr); gap: 10px; align-items: baseline; }
.num { text-align: right; white-space: nowrap; }
</style>
