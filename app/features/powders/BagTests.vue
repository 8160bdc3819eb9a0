<script setup lang="ts">
import { format } from 'date-fns'
import Button from 'primevue/button'
import Dialog from 'primevue/dialog'
import SelectButton from 'primevue/selectbutton'
import { useIntervalFn } from '@vueuse/core'
import { powderClass } from '~core/gypsum/powders'
import { bulkDensity, CUP, cupExpected, cupInput, cupRecipe } from '~core/forecast/cup-test'
import { formatConsistency, formatDuration, formatMass, formatTemperature, formatTemperatures, roundTo } from '~core/units/format'
import type { BagBody, LibraryItem } from '~contract/library'
import { learnBatches } from '~/sync/learning'
import { counting } from '~/ui/when'
import SpreadTest from './SpreadTest.vue'
import QuantityField from '~/ui/QuantityField.vue'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'

/** A bag measured: how fast it sets, in a cup; and what a level litre of it weighs. */
const { bag } = defineProps<{ bag: LibraryItem<'bag'> | undefined }>()
const emit = defineEmits<{ closed: [] }>()
const library = useLibrary(), session = useSession(), clock = useClock()
const WAYS = [
  { id: 'cup', word: 'How fast it sets' }, { id: 'spread', word: 'How it flows' }, { id: 'litre', word: 'What a litre weighs' },
] as const
const way = ref<typeof WAYS[number]['id']>('cup'), trouble = ref(''), busy = ref(false), said = ref('')
const units = computed(() => session.units), recipe = computed(() => bag && cupRecipe(bag.body.classId))
const celsius = ref<number>(20)

// A running cup outlives the page: it cannot be set again.
const KEPT = 'cup-test'
const begun = ref<number>(), now = ref(Date.now())
const { resume, pause } = useIntervalFn(() => {
  now.value = Date.now()
}, 200, { immediate: false })
watch(() => bag, (b) => {
  trouble.value = said.value = ''
  typed.value = undefined
  masses.value = [undefined, undefined, undefined]
  const kept = JSON.parse(localStorage.getItem(KEPT) ?? 'null') as { bag: string, at: number, celsius: number } | null
  begun.value = b && kept?.bag === b.id && Date.now() - kept.at < 6 * 3_600_000 ? kept.at : undefined
  if (begun.value !== undefined) {
    celsius.value = kept!.celsius
    resume()
  }
  else pause()
})
function start() {
  begun.value = now.value = Date.now()
  localStorage.setItem(KEPT, JSON.stringify({ bag: bag!.id, at: begun.value, celsius: celsius.value }))
  resume()
}
function stop() {
  begun.value = undefined
  localStorage.removeItem(KEPT)
  pause()
}
const elapsed = computed(() => begun.value === undefined ? 0 : (now.value - begun.value) / 1000)
const soakEnds = CUP.siftSeconds + 60 * CUP.soakMinutes, stirEnds = soakEnds + 60 * CUP.stirMinutes
const doing = computed(() => {
  if (elapsed.value < CUP.siftSeconds) return 'Sift it in'
  if (elapsed.value < soakEnds) return 'Let it soak'
  return elapsed.value < stirEnds ? 'Stir it' : 'Leave it and look along its face: the shine goes all at once'
})
const expected = computed(() => bag && cupExpected(bag.body.classId, celsius.value))
const typed = ref<number>()

async function save(change: Partial<BagBody>, words: string) {
  busy.value = true
  trouble.value = ''
  try {
    const item = library.items.bag.find(b => b.id === bag!.id)!
    await library.save('bag', item.id, { ...item.body, ...change }, item)
    said.value = words
  }
  catch (error) {
    trouble.value = (error as Error).message
  }
  busy.value = false
}
async function noteCup(glossGone: number) {
  if (glossGone < 60) {
    trouble.value = 'Nothing sets within a minute. Press when the shine has gone.'
    return
  }
  const item = library.items.bag.find(b => b.id === bag!.id)!
  const [learnt] = await learnBatches([{
    batch: 0,
    kinds: [{ moulds: ['cup'], input: cupInput(item.body.classId, celsius.value) }],
    seen: [{ what: 'mark', sign: 'gloss-gone', at: glossGone }],
  }])
  if (!learnt?.taught) {
    trouble.value = 'This could not be worked out. Keep the time and type it in again.'
    return
  }
  const off = glossGone / expected.value! - 1, percent = Math.round(100 * Math.abs(off))
  await save(
    {
      cups: [...item.body.cups ?? [], {
        at: Math.round(clock.read()),
        celsius: celsius.value,
        glossGone: Math.round(glossGone),
        ...learnt.taught,
      }].slice(-50),
    },
    `After ${formatDuration(glossGone, 'minute')}; its class takes ${formatDuration(expected.value!, 'minute')}. ${
      percent < 4 ? 'It sets as its class does.' : `It sets ${percent} % ${off < 0 ? 'sooner' : 'later'}.`
    } The next plan from this bag knows.`,
  )
  if (!trouble.value) stop()
}

const volume = ref<number | undefined>(0.00025), masses = ref<(number | undefined)[]>([undefined, undefined, undefined])
const density = computed(() =>
  volume.value ? bulkDensity(volume.value, masses.value.filter(m => m !== undefined)) : undefined,
)
/** As it is by now, with what was just kept. */
const held = computed(() => library.items.bag.find(b => b.id === bag?.id) ?? bag)
const cups = computed(() => [...library.items.bag.find(b => b.id === bag?.id)?.body.cups ?? []].reverse().slice(0, 5))
async function saveDensity() {
  if (!density.value) return
  const { low, high } = density.value
  await save({ bulk: { low, high } }, 'Kept: scoops from this bag are truer now.')
}
</script>

<template>
  <Dialog
    :visible="bag !== undefined"
    modal
    :header="bag ? `Measure ${bag.body.name}` : ''"
    :style="{ width: 'min(600px, 95vw)' }"
    @update:visible="emit('closed')">
    <div v-if="bag && recipe" class="test">
      <SelectButton
        v-model="way"
        :options="[...WAYS]"
        option-label="word"
        option-value="id"
        :allow-empty="false"
        aria-label="What is measured" />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <p v-if="said" role="status" class="strong">{{ said }}</p>
      <template v-if="way === 'cup'">
        <p>
          In a thin plastic cup: <span class="num strong">{{ formatMass(recipe.water, units) }}</span> water,
          <span class="num strong">{{ formatMass(recipe.powder, units) }}</span> powder ({{
            formatConsistency(powderClass(bag.body.classId).ratio.recommended)
          }}
          to 100). Water and room at one temperature. Sift in {{ CUP.siftSeconds }} s, soak 1 min, stir 1 min by hand.
          Mask on.
        </p>
        <QuantityField
          :model-value="celsius"
          kind="temperature"
          field="air"
          label="Water and room"
          :check="v => (v >= 5 && v <= 40 ? undefined : `Between ${formatTemperatures(5, 40, session.units)} a cup can be compared.`)"
          @given="celsius = $event" />
        <p class="small soft">
          A cup of its class loses its gloss after {{ formatDuration(expected!, 'minute') }} at
          {{ formatTemperature(celsius, units) }}.
        </p>
        <div v-if="begun === undefined" class="go">
          <Button label="Powder meets water" @click="start" />
          <span class="small soft">or a time that was taken with a watch:</span>
          <QuantityField v-model="typed" kind="time" label="Gloss gone after" clearable />
          <Button v-if="typed" label="Note it" severity="secondary" :disabled="busy" @click="noteCup(typed)" />
        </div>
        <div v-else class="running">
          <p class="num clock" aria-live="off">{{ counting(elapsed) }}</p>
          <p class="strong" role="status">{{ doing }}</p>
          <Button label="Gloss gone" :disabled="busy || elapsed < stirEnds" class="gone" @click="noteCup(elapsed)" />
          <Button label="Give this cup up" severity="secondary" size="small" @click="stop" />
        </div>
        <ul v-if="cups.length > 0" class="small ruled">
          <li v-for="c in cups" :key="c.at">
            {{ format(c.at, 'd MMM yyyy') }}: <span class="num">{{ formatDuration(c.glossGone, 'minute') }}</span> at
            {{ formatTemperature(c.celsius, units) }}
          </li>
        </ul>
      </template>
      <SpreadTest v-else-if="way === 'spread'" :body="held!.body" :busy="busy" @kept="save" />
      <template v-else>
        <p>
          Fill your scoop as you always do, level it with a straight edge, and weigh the powder alone. Three times says
          how much your scoops differ.
        </p>
        <QuantityField
          v-model="volume"
          kind="volume"
          field="holds"
          label="Your scoop holds"
          :check="v => (v > 0 ? undefined : 'Enter more than zero.')" />
        <QuantityField
          v-for="(_, i) in masses"
          :key="i"
          v-model="masses[i]"
          kind="mass"
          :label="`Powder in it, ${['first', 'second', 'third'][i]} time`"
          clearable
          :check="v => (v > 0 ? undefined : 'Enter more than zero.')" />
        <p v-if="density" role="status">
          A level litre weighs <span class="num strong">{{ roundTo(density.mean, 10) }} g</span>; eight of ten scoops
          are between {{ roundTo(density.low, 10) }} and {{ roundTo(density.high, 10) }} g.
        </p>
        <p v-else-if="masses.some(m => m !== undefined)" class="problem">
          No powder weighs that: a litre has between 200 and 2 500 g. Is the container taken off?
        </p>
        <Button
          label="Keep it"
          :disabled="!density || busy"
          @click="saveDensity" />
      </template>
    </div>
  </Dialog>
</template>

<style scoped>
.test {
  display: grid;
  gap: 12px;
}
.go {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.running {
  display: grid;
  gap: 8px;
  justify-items: center;
  background: var(--mix-soft);
  border-radius: 12px;
  padding: 16px;
  text-align: center;
}
.clock {
  font-size: 2.4rem;
  font-weight: 700;
}
.gone {
  min-width: 220px;
  min-height: 64px;
  font-size: 1.2rem;
}
li {
  padding: 5px 0;
}
</style>
