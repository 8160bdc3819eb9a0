import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Happening, Instant, PourEvent } from '~core/pour/events'
import { foldPour } from '~core/pour/fold'
import { tells } from '~core/forecast/observations'
import type { FrozenRun } from '~core/plan/run'
import type { EventsAnswer } from '~contract/pour'
import { keepAnswer, remembered } from '~/sync/kept'
import { learntRuns } from '~/sync/learning'
import { useClock } from './clock'
import { useLive } from './live'
import { useRecords } from './records'
import { useSession } from './session'

/** Whether this tells the forecast something, and so is followed by a record of what it then foresees. */
function tellsForecast(h: Happening): boolean {
  return h.kind === 'judged' || (h.kind === 'mark' && tells(h.data.sign))
    || (h.kind === 'temperature' && h.data.where === 'cast')
}
/** A forecast that moved less than this is not worth a record of its own. */
const MOVED = 0.03

/** What is held of the pour in hand. */
function heldState() {
  const id = ref(''), run = shallowRef<FrozenRun>(), events = shallowRef<readonly PourEvent[]>([]), startedBy = ref('')
  const trouble = ref(''), missing = ref(false)
  /** All events up to this number are here. */
  const seq = ref(0)
  const records = useRecords()
  const state = computed(() => run.value && foldPour(run.value, [...events.value, ...records.pendingOf(id.value)]))
  return { id, run, events, startedBy, trouble, missing, seq, state }
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

/** What the server has of it. */
function loading(held: Held, forget: (pour: string) => void) {
  const { id, run, events, startedBy, trouble, missing, seq } = held
  function merge(pour: string, answer: EventsAnswer): void {
    if (pour !== id.value) return
    const known = new Map(events.value.map(e => [e.id, e]))
    for (const e of answer.events) known.set(e.id, e)
    events.value = [...known.values()]
    seq.value = Math.max(seq.value, answer.seq)
    // What was taken has left the outbox: without a network it must be here.
    if (!run.value) return
    const held = { id: pour, run: run.value, startedBy: startedBy.value, events: [...events.value], seq: seq.value }
    void keepAnswer(useSession().key ?? '', 'GET pours/:id', { params: { id: pour } }, held)
  }

  function take(pour: string): void {
    id.value = pour
    run.value = undefined
    events.value = []
    seq.value = 0
    forget(pour)
  }
  /** Told of something new while an answer was on its way, which may be older than that: it is asked again. */
  let asking = 0, outrun = false
  async function load(pour: string): Promise<void> {
    asking++
    if (id.value !== pour) take(pour)
    try {
      const { value: answer } = await remembered(useSession().key ?? '', 'GET pours/:id', { params: { id: pour } })
      if (id.value !== pour) return
      run.value = answer.run
      startedBy.value = answer.startedBy
      merge(pour, answer)
      trouble.value = ''
      missing.value = false
    }
    catch (error) {
      trouble.value = (error as Error).message
      missing.value = (error as { status?: number }).status === 404
    }
    finally {
      asking--
    }
    if (outrun && asking === 0 && id.value === pour) {
      outrun = false
      await load(pour)
    }
  }
  /** Something was told elsewhere. */
  function again(): void {
    if (asking > 0) outrun = true
    else if (run.value) void load(id.value)
  }
  return { merge, load, again }
}

/** One pour in hand: its frozen run, its events from the server and those still waiting here, folded into its state. */
export const useRun = defineStore('run', () => {
  const records = useRecords(), clock = useClock()
  const held = heldState(), { id, run, events, state, trouble, missing, seq } = held
  const { learning, learnt, runFor, owing } = learningFrom(held)
  const { merge, load, again } = loading(held, (pour) => {
    learning.forget(pour)
    owing.clear()
  })

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

  records.onAnswer(merge)
  records.knows(pour => pour === id.value ? seq.value : 0)
  useLive().on((message) => {
    const concerns = message.what === 'caught-up' || (message.what === 'pour' && message.pour === id.value)
    if (id.value && concerns) again()
  })
  return { id, run, events, state, learnt, trouble, missing, load, record, undo, runFor }
})
