<script setup lang="ts">
import type { LibraryItem } from '~contract/library'
import type { CastGroup } from '~/features/shelf/groups'
import { needWords } from '~/features/shelf/groups'
import MouldDrawing from '~/ui/MouldDrawing.vue'
import { useClock } from '~/sync/clock'
import { dampOf } from './picture'

/** The shelf as it stands: each piece by its own shape, grey as far up as it is damp. Every one is a way in. */
const { groups, mouldOf } = defineProps<{
  groups: readonly CastGroup[]
  mouldOf: (id: string) => LibraryItem<'mould'> | undefined
}>()
/** Kinds that are drawn; more stand in one stack with their number. */
const MOST = 6, MOST_PIECES = 3
const clock = useClock()
const shown = computed(() => groups.slice(0, MOST).map((g) => {
  const mould = mouldOf(g.first.mouldId), damp = dampOf(g.first, clock.halfHour)
  return {
    ...g, mouldBody: mould?.body, damp,
    pieces: Math.min(MOST_PIECES, g.casts.length),
    says: damp === undefined ? '' : `, about ${Math.round(10 * damp) * 10} % of its water left`,
  }
}))
const more = computed(() => groups.slice(MOST).reduce((n, g) => n + g.casts.length, 0))
const words = (g: CastGroup) => needWords(g, clock.halfHour)
</script>

<template>
  <section aria-labelledby="shelf-head" class="shelf">
    <h2 id="shelf-head">Drying <span class="small soft">grey is damp, white is dry</span></h2>
    <p v-if="groups.length === 0" class="bare soft">The shelf is bare. What you open stands here until it is finished.</p>
    <ul>
      <li v-for="g in shown" :key="g.key">
        <NuxtLink :to="g.casts.length === 1 ? `/piece/${g.pour}/${g.first.id}` : '/shelf'" :aria-label="`${g.label}: ${words(g).what}, ${words(g).when}${g.says}`">
          <span class="stand">
            <MouldDrawing
              v-for="n in g.pieces"
              :key="n"
              :mould="g.mouldBody ?? { volume: { value: 1e-3 }, mouth: { shape: 'rectangular', width: 0.1, length: 0.1 }, material: '', wall: 0.01 }"
              view="above"
              :width="[118, 78, 62][g.pieces - 1]!"
              :height="104"
              :damp="g.damp ?? 1" />
          </span>
          <span class="name">{{ g.label }}</span>
          <span :class="['small', g.need === 'ready-now' ? 'ready' : 'soft']">{{ words(g).what }}<template v-if="g.need === 'drying'">, {{ words(g).when }}</template></span>
        </NuxtLink>
      </li>
      <li v-if="more > 0" class="stack">
        <NuxtLink to="/shelf">
          <span class="stand"><span class="pile num">{{ more }}</span></span>
          <span class="name">{{ more === 1 ? 'One more piece' : `${more} more pieces` }}</span>
          <span class="small soft">on the shelf</span>
        </NuxtLink>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 { padding-bottom: 4px; }
h2 .small { font-weight: 500; font-stretch: 100%; padding-left: 8px; }
ul { display: flex; flex-wrap: wrap; gap: 10px 0; }
li { flex: 1 1 150px; max-width: 260px; min-width: 0; }
a { display: grid; justify-items: center; color: inherit; text-decoration: none; text-align: center; }
.stand {
  display: flex; justify-content: center; align-items: end; height: 116px; width: 100%; padding: 0 6px;
  border-bottom: 13px solid var(--wood); box-shadow: 0 2px 0 var(--ink), inset 0 -2px 0 var(--ink); margin-bottom: 8px;
}
.stand > * + * { margin-left: -12px; }
a > .small { max-width: 100%; padding: 0 6px; }
.name { font-weight: 660; padding: 0 8px; }
a:hover .name { text-decoration: underline; }
.ready { color: var(--set); font-weight: 660; }
.pile { display: grid; place-items: center; width: 84px; height: 60px; border: 2px dashed var(--line-strong); border-bottom: 0; font-size: 1.4rem; font-weight: 700; }
.bare { padding: 26px 0 18px; border-bottom: 13px solid var(--wood); margin-bottom: 8px; }
</style>
