import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import type { Happening, Instant, PourEvent } from '~core/pour/events'
import { tells } from '~core/forecast/observations'
import type { FrozenRun } from '~core/plan/run'
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
  watch(state, async (now) => {
    if (!now || !run.value || !await learning.follow(id.value, run.value, now)) return
    for (const b of [...owing]) void foresee(b)
  })
  async function foresee(b: number): Promise<void> {
    const known = learnt.value.get(b), before = state.value?.batches[b]?.foreseen
    owing.delete(b)
    if (!known || (known.seen === 0 && !before)) return
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
  return { learning, learnt, runFor, owing }
}

/** One pour in hand: its frozen run, its events from the server and those still waiting here, folded into its state. */
export const useRun = defineStore('run', () => {
  const records = useRecords(), clock = useClock()
  const held = heldState(), { id, run, events, state, trouble, missing } = held
  const { learning, learnt, runFor, owing } = learningFrom(held), cache = useCache()

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

  function record(happening: Happening, batch?: number, happenedAt?: Instant): Promise<void> {
    if (tellsForecast(happening)) owing.add(batch ?? 0)
    return records.record(id.value, happening, batch, happenedAt)
  }

  /** Takes an event back by a further one, which must sort after it even when clocks differ. */
  function undo(event: PourEvent): Promise<void> {
    owing.add(event.batch ?? 0)
    return records.record(
      id.value,
      { kind: 'undo', data: { event: event.id } },
      event.batch,
      Math.max(clock.read(), event.happenedAt + 1),
    )
  }

  return { id, run, events, state, learnt, trouble, missing, load, record, undo, runFor }
})
