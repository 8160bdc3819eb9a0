import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Happening, Instant, PourEvent } from '~core/pour/events'
import { tells } from '~core/forecast/observations'
import type { FrozenRun } from '~core/plan/run'
import type { PourState } from '~core/pour/fold'
import { learntRuns } from '~/sync/learning'
import { useCache } from './cache'
import { useClock } from './clock'
import { useRecords } from './records'

/** Whether this tells the forecast something, and so is followed by a record of what it then foresees. */
function tellsForecast(h: Happening): boolean {
  return h.kind === 'judged' || (h.kind === 'mark' && tells(h.data.sign))
    || (h.kind === 'temperature' && h.data.where === 'cast')
}
/** A forecast that moved less than this is not worth a record of its own. */
const MOVED = 0.03

/** The pour in hand, as this browser holds it. */
function heldState() {
  const id = ref(''), trouble = ref(''), missing = ref(false)
  const cache = useCache(), pour = computed(() => id.value ? cache.pourOf(id.value) : undefined)
  return {
    id,
    trouble,
    missing,
    run: computed(() => pour.value?.run),
    /** What the server has of it. */
    events: computed(() => pour.value?.events ?? []),
    state: computed(() => pour.value?.state),
  }
}
type Held = ReturnType<typeof heldState>

/** The forecast as it learns from what is told here. */
function learningFrom({ id, run, state }: Held) {
  const records = useRecords()
  const learning = learntRuns()
  /** By batch, as far as it is wet: what the moments are now. */
  const learnt = computed(() => learning.of(id.value))
  const runFor = (batch: number): FrozenRun => learning.runFor(id.value, run.value!, batch)
  /** Batches about which this device told something: it also records what is foreseen then. */
  const owing = new Set<number>()
  let line = Promise.resolve()
  async function learnFrom(now: PourState | undefined): Promise<void> {
    if (!now || !run.value || !await learning.follow(id.value, run.value, now)) return
    // In turn: each looks at what the one before it wrote down.
    for (const b of [...owing]) line = line.then(() => foresee(b)).catch(() => {})
  }
  watch(state, now => void learnFrom(now))
  /** What was told stands in the state by now; an answer that was on its way when it was told did not know of it. */
  function owe(b: number): void {
    owing.add(b)
    void learnFrom(state.value)
  }
  async function foresee(b: number): Promise<void> {
    const known = learnt.value.get(b), before = state.value?.batches[b]?.foreseen
    if (!owing.delete(b) || !known || (known.seen === 0 && !before)) return
    const open = Object.fromEntries(
      Object.entries(known.moments).map((
        [mould, m],
      ) => [mould, { from: Math.round(m.open.from), to: Math.round(m.open.to) }]),
    )
    const moved = !before || Object.entries(open).some(([mould, o]) =>
      Math.abs(o.from / (before.open[mould]?.from ?? Infinity) - 1) > MOVED,
    ) || (known.taught?.sd ?? 9) < 0.95 * (before.taught?.sd ?? 9)
    if (moved) await records.record(id.value, { kind: 'foreseen', data: { open, taught: known.taught } }, b)
  }
  return { learning, learnt, runFor, owing, owe }
}

/** One pour in hand: its frozen run, its events from the server and those still waiting here, folded into its state. */
export const useRun = defineStore('run', () => {
  const records = useRecords(), clock = useClock()
  const held = heldState(), { id, run, events, state, trouble, missing } = held
  const { learning, learnt, runFor, owing, owe } = learningFrom(held), cache = useCache()

  async function load(pour: string): Promise<void> {
    if (id.value !== pour) {
      id.value = pour
      learning.forget(pour)
      owing.clear()
    }
    try {
      await cache.load(pour)
      if (id.value === pour) [trouble.value, missing.value] = ['', false]
    }
    catch (error) {
      if (id.value !== pour) return
      trouble.value = (error as Error).message
      missing.value = (error as { status?: number }).status === 404
    }
  }

  async function record(happening: Happening, batch?: number, happenedAt?: Instant): Promise<void> {
    const pour = id.value
    await records.record(pour, happening, batch, happenedAt)
    if (tellsForecast(happening) && id.value === pour) owe(batch ?? 0)
  }

  /** Takes an event back by a further one, which must sort after it even when clocks differ. */
  async function undo(event: PourEvent): Promise<void> {
    const pour = id.value
    await records.record(
      pour,
      { kind: 'undo', data: { event: event.id } },
      event.batch,
      Math.max(clock.read(), event.happenedAt + 1),
    )
    if (id.value === pour) owe(event.batch ?? 0)
  }

  return { id, run, events, state, learnt, trouble, missing, load, record, undo, runFor }
})
