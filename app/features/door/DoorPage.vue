<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { MASK } from '~core/door/words'
import type { DoorThings } from '~core/door/door'
import { formatMass } from '~core/units/format'
import { METRIC, US_CUSTOMARY, type UnitPreferences } from '~core/units/units'
import RippleMark from '~/ui/RippleMark.vue'
import { useDoor } from './door'
import DoorPicker from './DoorPicker.vue'
import DoorTable from './DoorTable.vue'
import { whenIdle } from './idle'

/**
 * The door: what somebody fills, and at once what to mix. It stands alone before anybody signs in, and is “New pour”
 * inside a workshop. Everything it needs is imported by name: it is also built by itself, without the application.
 */
const { units: given, inside = false, busy = false, trouble = '', kept = [] } = defineProps<{
  /** A workshop's own; a stranger chooses below. */
  units?: UnitPreferences
  inside?: boolean
  busy?: boolean
  trouble?: string
  /** Pours of strangers that are kept on this device. */
  kept?: readonly { readonly id: string, readonly words: string }[]
}>()
const emit = defineEmits<{
  mix: [things: DoorThings, units: UnitPreferences]
  keep: [things: DoorThings, units: UnitPreferences]
  go: [id: string]
  forget: [id: string]
}>()
const american = ref(false), here = ref(false)
// The page answers first: what this changes is drawn anew.
onMounted(() => whenIdle(() => {
  // A mix is weighed in grams everywhere; the cups are those of the country.
  if (navigator.language === 'en-US') metric.value = { ...METRIC, region: 'us' }
  here.value = true
}, 500))
const metric = ref<UnitPreferences>(METRIC)
const units = computed(() => given ?? (american.value ? US_CUSTOMARY : metric.value))
const door = useDoor(() => units.value)
/** Told once the page is somebody’s: it was drawn long before. */
const at = (seconds: number) => {
  if (!here.value) return '––:––'
  const then = new Date(Date.now() + seconds * 1000)
  return `${String(then.getHours()).padStart(2, '0')}:${String(then.getMinutes()).padStart(2, '0')}`
}
function mix() {
  if (door.mayMix.value && typeof door.things.value !== 'string') emit('mix', door.things.value, units.value)
}
function keep() {
  if (door.bucket.value && typeof door.things.value !== 'string') emit('keep', door.things.value, units.value)
}
/** On a phone the answer stays in sight below, whatever is typed above. */
const amounts = computed(() => door.bucket.value && {
  water: formatMass(door.bucket.value.mix.water, units.value), powder: formatMass(door.bucket.value.mix.powder, units.value),
})
const needsReady = computed(() => door.isPerson.value && door.said.ready !== true)
</script>

<template>
  <div class="door" :class="{ inside }">
    <div class="left">
      <header v-if="!inside">
        <RippleMark class="mark" /><span class="name">Nine Ripples</span>
        <a href="/sign-in" class="workshop">My workshop</a>
      </header>
      <p v-for="k in kept" :key="k.id" class="kept">
        <button type="button" class="go" @click="emit('go', k.id)">Go on with {{ k.words }}</button>
        <button type="button" class="link" @click="emit('forget', k.id)">Forget it</button>
      </p>
      <DoorPicker :door="door" :units="units" />
      <p v-if="!inside" class="small soft">
        Nothing to sign up for. Nothing leaves this device until you choose to keep it.
        <button type="button" class="link" @click="american = !american">{{ american ? 'Use g, ml and °C' : 'Use lb, cups and °F' }}</button>
      </p>
    </div>
    <div class="right">
      <DoorTable :door="door" :units="units" :at="at" />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <div class="acts">
        <p v-if="amounts" class="sums" aria-hidden="true">
          <span class="water">{{ amounts.water }} water</span><span class="powder">{{ amounts.powder }} powder</span>
        </p>
        <button type="button" class="mix" :disabled="!door.mayMix.value || busy" :aria-describedby="needsReady ? 'ready-label' : undefined" @click="mix">
          Mix it
        </button>
        <button type="button" class="keep" :disabled="!door.bucket.value || busy" @click="keep">
          <span class="strong">{{ inside ? 'Keep the plan' : 'Keep this' }}</span><br v-if="!inside">
          <span v-if="!inside" class="small">in a workshop of your own</span>
        </button>
        <p class="mask small strong">{{ MASK }}</p>
      </div>
    </div>
  </div>
</template>

<style scoped>
.door { display: grid; grid-template-columns: 452px minmax(0, 1fr); min-height: 100dvh; }
.left { background: var(--band); padding: 18px 26px 26px 32px; display: grid; gap: 12px; align-content: start; }
.right { padding: 32px; display: grid; gap: 16px; align-content: start; }
.door.inside { min-height: 0; gap: 28px; grid-template-columns: minmax(0, 1fr) minmax(0, 1.5fr); }
.inside .left { background: none; padding: 0; }
.inside .right { padding: 0; }
header { display: flex; align-items: center; gap: 10px; }
.mark { width: 36px; height: 36px; }
.name { font-weight: 800; font-stretch: 112%; font-size: 1.15rem; }
.workshop { margin-left: auto; font-weight: 700; min-height: 32px; display: inline-grid; align-content: center; }
.kept { display: flex; gap: 14px; align-items: center; }
.go { border: 2px solid var(--ink); border-radius: 12px; background: var(--sheet); min-height: 44px; padding: 4px 14px; font-weight: 700; text-align: left; }
.link { border: 0; background: none; padding: 0; text-decoration: underline; min-height: 32px; }
.acts { display: grid; grid-template-columns: minmax(0, 1fr) 220px; gap: 10px 14px; }
.mask { grid-column: 1 / -1; }
.keep { border: 2px solid var(--ink); border-radius: 14px; background: none; min-height: 56px; }
.keep:disabled { border-style: dashed; color: var(--soft); }
.mix { min-height: 72px; border: 3px solid var(--ink); border-radius: 14px; background: var(--now); color: var(--now-ink); font-size: 1.7rem; font-weight: 800; font-stretch: 112%; }
.mix:disabled { background: none; color: var(--soft); border-style: dashed; cursor: default; }
/* As on the table beside it, which is in sight on a desk. */
.sums { display: none; }
.problem { color: var(--heat); font-weight: 600; }
@media (max-width: 860px) {
  .door, .door.inside { grid-template-columns: minmax(0, 1fr); gap: 0; }
  .left { padding: 12px 16px 14px; overflow-x: clip; gap: 8px; }
  .right { padding: 14px 16px 150px; }
  .inside .left, .inside .right { padding: 0 0 14px; }
  .acts { position: fixed; left: 0; right: 0; bottom: 0; padding: 10px 16px 14px; background: var(--ground); border-top: 1px solid var(--line); z-index: 2; grid-template-columns: minmax(0, 1fr) auto; gap: 6px 10px; }
  .keep { padding: 4px 14px; }
  .keep .small, .keep br { display: none; }
  .mix { min-height: 60px; }
  .sums { display: flex; grid-column: 1 / -1; justify-content: space-between; gap: 12px; font-weight: 750; font-size: 1.15rem; }
  .sums .water { color: var(--water); }
  .sums .powder { color: var(--powder); }
}
</style>
