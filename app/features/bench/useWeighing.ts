import { computed, ref, watch } from 'vue'
import { powderClass } from '~core/gypsum/powders'
import { needsScale, ratioOf } from '~core/gypsum/schools'
import { tolerance, weighingStep } from '~core/bench/weighing'
import { weighingWords } from '~core/bench/words'
import { formatMass } from '~core/units/format'
import { useRun } from '~/sync/run'
import { partsOf, wentIn, type Part as Weighed } from '~/features/bench/went-in'
import { useScale } from '~/features/bench/scale'
import { useSession } from '~/sync/session'

type Part = Weighed['what']
/** A second press within this goes on even though the amount is not right yet. */
const INSIST_MS = 4000
/** Less than this share of the target counts as nothing on the scale. */
const LITTLE = 0.02

/** What is still to be weighed, and how much of it. */
function askedOf(batch: () => number) {
  const store = useRun()
  const state = computed(() => store.state!.batches[batch()]!)
  /** What is still to be weighed; an entry that is taken back is weighed again. */
  const asked = computed(() => partsOf(store.run!, batch(), state.value).find(p => !p.had))
  const part = computed<Part | undefined>(() => asked.value?.what)
  const target = computed(() => 1000 * (asked.value?.wanted ?? 0))
  /**
   * Where this powder would begin to stay dry on that water, for whoever looks into the bucket rather than at the
   * scale; outside the target it only warns.
   */
  const islands = computed(() => {
    const { plan } = store.run!, { water } = state.value.weighed
    if (part.value !== 'powder' || !water) return undefined
    const { value, low, high } = ratioOf('saturation', powderClass(plan.classId), plan.ratio, plan.waterTemperature)
    return { at: 1000 * water / value, from: 1000 * water / high, to: 1000 * water / low }
  })
  return { part, target, islands }
}

/** A press although it is not right: another one soon after goes on. */
function insistence() {
  const insisting = ref(false)
  let over: ReturnType<typeof setTimeout> | undefined
  function settle(): void {
    clearTimeout(over)
    insisting.value = false
  }
  /** Notes that it was pressed although something is missing; @returns whether it was so already. */
  function insists(): boolean {
    if (insisting.value) return true
    insisting.value = true
    over = setTimeout(settle, INSIST_MS)
    return false
  }
  return { insisting, settle, insists }
}

/** What the scale shows, against what is wanted. */
function readingOf(target: { readonly value: number }) {
  const scale = useScale(), session = useSession()
  const told = computed(() => weighingStep(scale.weighing.net, target.value))
  const words = computed(() => ({ kind: told.value.code, words: weighingWords(told.value, session.units) }))
  const shown = computed(() => formatMass(Math.max(0, scale.weighing.net) / 1000, session.units))
  const share = computed(() => Math.max(0, Math.min(1, scale.weighing.net / (target.value || 1))))
  const little = () => scale.weighing.net < LITTLE * target.value
  return { scale, words, shown, share, little }
}

/**
 * Weighing by the scale on the table: one press tares, takes what stands on it, and goes on, so that a pedal is enough.
 */
export function useWeighing(batch: () => number, active: () => boolean) {
  const store = useRun(), session = useSession(), begun = ref(false)
  const { part, target, islands } = askedOf(batch), { insisting, settle, insists } = insistence()
  const { scale, words, shown, share, little } = readingOf(target)
  /** Whether this pour is weighed by a scale at all, heard or not. */
  const applies = computed(() => active() && scale.wanted && session.mayWrite && needsScale(store.run!.plan.school))
  const ready = computed(() => applies.value && scale.here)
  watch([batch, active, part], () => {
    begun.value = false
    settle()
  }, { immediate: true })
  watch(ready, settle)
  const vessel = (what: Part) => {
    if (what === 'powder') return 'Dry bucket'
    return store.run!.plan.school === 'powder-first' ? 'Jug' : 'Bucket'
  }
  /** What the one big press does now; undefined when weighing has nothing left to do. */
  const press = computed(() => {
    if (!applies.value || !part.value) return undefined
    if (!ready.value) return 'Go on without the scale'
    if (!begun.value) return `${vessel(part.value)} on the scale: tare`
    return little()
      ? `Pour in ${formatMass(target.value / 1000, session.units)} of ${part.value}`
      : `Take ${shown.value} of ${part.value}`
  })
  /** A second press while the first is being written down is the same press. */
  let taking = false
  async function take(what: Part, net: number): Promise<void> {
    taking = true
    const mass = Math.round(net * 10) / 10_000
    await store.record(wentIn(store.run!.plan.school, what, mass, 'scale'), batch()).finally(() => {
      taking = false
    })
  }
  /** @returns whether the press was for the scale. */
  async function advance(): Promise<boolean> {
    if (taking) return true
    if (!press.value || !part.value) return false
    // A scale that falls asleep as the pedal goes down must not turn “tare” into “start sifting”.
    if (!ready.value) return !insists()
    if (!begun.value) {
      scale.tare()
      begun.value = true
      return true
    }
    const net = scale.weighing.steady ? scale.weighing.stood : scale.weighing.net
    if (net < target.value - tolerance(target.value) && !insists()) return true
    settle()
    // Nothing on it, and still on: then it is weighed elsewhere, or not at all.
    if (net < LITTLE * target.value) return false
    await take(part.value, net)
    return true
  }
  return { scale, part, begun, islands, applies, ready, target, words, shown, share, press, advance, insisting }
}
