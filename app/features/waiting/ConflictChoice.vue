<script setup lang="ts">
import Button from 'primevue/button'
import { listed } from '~core/units/sentences'
import { useChanges } from '~/sync/changes'
import { otherOf, type Change } from '~/sync/kept-changes'
import { useSession } from '~/sync/session'
import { choiceWords, differencesOf, nameWords, type Choice } from './words'

/** One thing in two versions: somebody says which one stands. Until then both are kept. */
/** @param chosen is told how, and the id where mine became a thing of its own: also when this is gone by then */
const { change, chosen = () => {} } = defineProps<{ change: Change, chosen?: (how: Choice, id?: string) => unknown }>()
const changes = useChanges(), session = useSession(), busy = ref(false)
const words = computed(() => choiceWords(change))
const differs = computed(() => differencesOf(change, session.units))
/** What fits in a line each, and what is only named. */
const side = computed(() => differs.value.filter(d => d.mine !== undefined))
const named = computed(() => differs.value.filter(d => d.mine === undefined).map(d => d.field))
const name = computed(() => nameWords(change))
/** @param work gives back the id of what became a thing of its own */
async function choose(how: Choice, work: () => Promise<string | undefined>) {
  const tell = chosen
  busy.value = true
  try {
    await tell(how, await work())
  }
  finally {
    busy.value = false
  }
}
const mark = computed(() => otherOf(change) === undefined ? '' : ', second version')
const WAYS = {
  both: () => changes.keepBoth(change, mark.value),
  mine: () => changes.keepMine(change),
  theirs: () => changes.drop(change),
}
const ways = computed(() => (['both', 'mine', 'theirs'] as const).filter(w => words.value.ways[w]))
</script>

<template>
  <section class="choice" :aria-label="`Two versions of ${name}`">
    <p class="strong">{{ words.met }}</p>
    <table v-if="side.length > 0">
      <thead><tr><td /><th scope="col">{{ words.mine }}</th><th scope="col">{{ words.theirs }}</th></tr></thead>
      <tbody>
        <tr v-for="d in side" :key="d.field"><th scope="row">{{ d.field }}</th><td>{{ d.mine }}</td><td>{{ d.theirs }}</td></tr>
      </tbody>
    </table>
    <p class="small">
      <template v-if="named.length > 0">
        The two versions differ {{ side.length > 0 ? 'also ' : '' }}in {{ listed(named) }}.{{ ' ' }}
      </template>
      What you changed is kept in this browser until you choose.
    </p>
    <div class="ways">
      <Button
        v-for="(w, i) in ways"
        :key="w"
        :label="words.ways[w]"
        :severity="i === 0 ? undefined : 'secondary'"
        size="small"
        :disabled="busy"
        @click="choose(w, WAYS[w])" />
    </div>
  </section>
</template>

<style scoped>
.choice {
  border-left: 4px solid var(--warn);
  background: var(--warn-soft);
  color: #4d3000;
  padding: 10px 14px;
  border-radius: 6px;
  margin-bottom: 14px;
}
.choice p { margin: 0 0 6px; }
table { border-collapse: collapse; margin-bottom: 8px; }
th, td { text-align: left; padding: 2px 18px 2px 0; vertical-align: top; overflow-wrap: anywhere; }
thead th { font-size: 0.85rem; }
tbody th { font-weight: 400; }
td { font-weight: 600; max-width: 24ch; }
.ways { display: flex; flex-wrap: wrap; gap: 8px; }
</style>
