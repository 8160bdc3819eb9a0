import { computed, ref } from 'vue'
import type { LeftoverPlace } from '~core/pour/events'
import { momentShift } from '~core/forecast/learning'
import { shiftWords } from '~core/forecast/words'
import { coatMoment } from '~core/bench/coat-moment'
import { milestonesOf } from '~core/pour/milestones'
import { overlapOf } from '~core/plan/batches/overlap'
import { SIGNS, signsAt, NINE_STAGES, schoolStages, type SignFacts } from '~core/plan/stages'
import { useClock } from '~/sync/clock'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'
import { cuesOf } from '~core/bench/cues'

/** More than these are not shown side by side, but those that are under way or next. */
const FEW_BATCHES = 5

type Store = ReturnType<typeof useRun>
type Clock = ReturnType<typeof useClock>

/** The batch and the step that this device works on. */
function handOf(store: Store, clock: Clock) {
  const run = computed(() => store.run!)
  const state = computed(() => store.state!)
  /** The batch this device works on, once it has said so: two people at one pour may each have their own. */
  const mine = ref<number>()
  const inHand = computed(() =>
    mine.value !== undefined && state.value.batches[mine.value]?.step !== undefined
      ? mine.value
      : state.value.steps[state.value.step]!.batch,
  )
  const index = computed(() => state.value.batches[inHand.value]!.step ?? state.value.step)
  const step = computed(() => state.value.steps[index.value]!)
  const nextStep = computed(() => state.value.steps[index.value + 1])
  const batch = computed(() => state.value.batches[inHand.value]!)
  const entered = computed(() =>
    batch.value.stages.find(s => s.stage === step.value.stage)?.at ?? state.value.startedAt ?? clock.now,
  )
  return { run, state, mine, inHand, step, nextStep, batch, entered }
}
type Hand = ReturnType<typeof handOf>

/** The other batches, and what could be begun beside the one in hand. */
function batchesOf({ run, state, inHand, batch, step }: Hand) {
  /** Batches side by side: where each is, and which may be begun beside the one in hand. */
  const batchTabs = computed(() => run.value.batches.length < 2
    ? []
    : run.value.batches.map(({ coat }, b) => {
        const at = state.value.batches[b]!, begun = at.step !== undefined
        return {
          b,
          done: at.cleanAt !== undefined,
          name: coat ? `Coat ${b + 1}` : `Bucket ${b + 1}`,
          begun,
          here: b === inHand.value,
          words: begun ? state.value.steps[at.step!]!.stage : 'not begun',
          mayBegin: !begun && state.value.batches[b - 1]?.step !== undefined,
        }
      }).filter((t, _, all) => all.length <= FEW_BATCHES || t.here || t.mayBegin || (t.begun && !t.done)),
  )
  const overlaps = computed(() =>
    run.value.batches.map((_, b) =>
      ([1, 2] as const).map(hands =>
        overlapOf(run.value.plan, run.value.world, run.value.ratio, run.value.batches, b, hands),
      ),
    ),
  )
  /** What the next batch could gain while this one is in hand. */
  const beside = computed(() => {
    const b = inHand.value, { wetAt } = batch.value
    if (
      wetAt === undefined || !batchTabs.value.find(t => t.b === b + 1)?.mayBegin
      || !['sift', 'soak', 'stir'].includes(step.value.stage)
    ) return undefined
    const [alone, two] = overlaps.value[b]!
    if (alone && 'siftAt' in alone && step.value.stage === 'soak')
      return { hands: 1 as const, at: wetAt + alone.siftAt * 1000, saves: alone.saves }
    return two && 'siftAt' in two ? { hands: 2 as const, at: wetAt + two.siftAt * 1000, saves: two.saves } : undefined
  })
  return { batchTabs, beside }
}

/** What is to come, as it is known by now. */
function foreseenOf({ run, state, inHand, batch, step }: Hand, store: Store, clock: Clock) {
  /** The moment for this coat, or while the one before is cleaned up for the next. */
  const coat = computed(() => {
    const b = step.value.stage === 'clean-up' ? inHand.value + 1 : inHand.value
    const moment = b > 0 ? coatMoment(store.runFor(b - 1), state.value, b, clock.now) : undefined
    return moment && { ...moment, number: b + 1, mixing: state.value.batches[b]!.wetAt !== undefined }
  })
  const milestones = computed(() => milestonesOf(store.runFor(step.value.batch), state.value, step.value.batch))
  const cues = computed(() => cuesOf(run.value, state.value, store.runFor))
  /** How the forecast has moved, and what does not fit together; the batch in hand, by its slowest mould. */
  const forecastWords = computed(() => {
    const known = store.learnt.get(step.value.batch)
    if (!known) return { shift: undefined, torn: undefined }
    const slowest = Object.keys(known.moments).reduce((a, b) =>
      run.value.moments[b]!.open.from > run.value.moments[a]!.open.from ? b : a,
    )
    const torn = known.contradiction && `“${SIGNS.find(s => s.id === known.contradiction)?.words}”`
    const shift = known.seen > 0 || batch.value.ratio !== undefined
      ? momentShift(run.value.moments[slowest]!.glossGone, known.moments[slowest]!.glossGone)
      : undefined
    return { shift: shift === undefined ? undefined : shiftWords(shift), torn }
  })
  return { coat, milestones, cues, forecastWords }
}

/** How long it has been going on, and what fits the step in hand. */
function timesOf({ run, state, batch, step, entered }: Hand, clock: Clock) {
  const since = (at: number | undefined) => at === undefined ? undefined : Math.max(0, (clock.now - at) / 1000)
  const wetFor = computed(() => since(batch.value.wetAt))
  const stirredFor = computed(() => since(batch.value.stirAt))
  const inStep = computed(() => since(entered.value) ?? 0)
  /** Place among the nine, counting only what this school has. */
  const place = computed(() => {
    const own = schoolStages(run.value.plan.school)
    const stage = step.value.stage === 'clean-up' ? 'set' : step.value.stage
    return { number: own.indexOf(stage) + 1, of: own.length, all: NINE_STAGES.length }
  })
  /** Expected length of the step in hand, seconds; nothing where it has none. */
  const expected = computed(() => {
    const { steps } = run.value.batches[step.value.batch]!
    switch (step.value.stage) {
      case 'sift': return steps.sifted.value
      case 'soak': return steps.soaked.value - steps.sifted.value
      case 'stir': return steps.stirred.value - steps.soaked.value
      case 'fill': return steps.pouring
      default: return undefined
    }
  })
  const openWindow = computed(() => {
    const waiting = state.value.casts.filter(c => c.openedAt === undefined && c.openFrom !== undefined)
    return waiting.length
      ? { from: Math.min(...waiting.map(c => c.openFrom!)), to: Math.max(...waiting.map(c => c.openTo!)) }
      : undefined
  })
  const offered = computed(() => new Set(signsAt(step.value.stage).map(s => s.id)))
  const given = computed(() => new Set(batch.value.marks.map(m => m.sign)))
  const over = computed(() => ['finished', 'abandoned', 'drying'].includes(state.value.status))

  return { wetFor, stirredFor, inStep, place, expected, openWindow, offered, given, over }
}

/** Runs one thing after another: a second press sees what the first one did. */
function oneByOne() {
  let turn = Promise.resolve()
  return (work: () => Promise<void>): Promise<void> => {
    turn = turn.then(work, work)
    return turn
  }
}

type InTurn = ReturnType<typeof oneByOne>

/** What is told of the batch in hand beside its steps. @param when it was, as it is told late or not */
function tellingOf(hand: Hand, store: Store, when: () => number, inTurn: InTurn, offered: () => Set<string>) {
  const session = useSession(), { step } = hand
  async function sign(s: SignFacts): Promise<void> {
    if (session.mayWrite && offered().has(s.id))
      await store.record({ kind: 'mark', data: { sign: s.id } }, step.value.batch, when())
  }
  async function temperature(celsius: number): Promise<void> {
    await store.record({ kind: 'temperature', data: { celsius, where: 'cast' } }, step.value.batch, when())
  }
  async function leftover(where: LeftoverPlace): Promise<void> {
    await store.record({ kind: 'leftover', data: { where } }, step.value.batch)
  }
  return {
    sign: (s: SignFacts) => inTurn(() => sign(s)),
    leftover: (where: LeftoverPlace) => inTurn(() => leftover(where)),
    temperature: (celsius: number) => inTurn(() => temperature(celsius)),
  }
}

/** What is told with one press. */
function actsOf(hand: Hand, store: Store, clock: Clock, mayBegin: (b: number) => boolean, offered: () => Set<string>) {
  const session = useSession(), inTurn = oneByOne()
  const { state, mine, inHand, nextStep, batch, step } = hand
  /** Minutes that the next entry is told late. */
  const late = ref(0)
  function when(): number {
    const at = clock.read() - late.value * 60_000
    late.value = 0
    return at
  }
  async function next(): Promise<void> {
    const target = nextStep.value
    if (!session.mayWrite || !target) return
    // The batch after it is under way already: this bucket is clean, and the hands go there.
    if (target.batch !== inHand.value && state.value.batches[target.batch]!.step !== undefined) {
      if (batch.value.cleanAt === undefined) await store.record({ kind: 'cleaned', data: {} }, inHand.value, when())
    }
    else {
      const from = target.batch === inHand.value ? step.value.stage : 'unbegun'
      await store.record({ kind: 'stage', data: { stage: target.stage, from } }, target.batch, when())
    }
    mine.value = target.batch
  }
  /** Takes a batch in hand; one that was not begun is begun by it. */
  async function take(b: number): Promise<void> {
    if (session.mayWrite && mayBegin(b))
      await store.record(
        {
          kind: 'stage',
          data: { stage: state.value.steps.find(s => s.batch === b)!.stage, from: 'unbegun' },
        },
        b,
        when(),
      )
    mine.value = b
  }
  async function back(): Promise<void> {
    const { last } = batch.value
    // The first entry is the start of the pour: there is nothing before it to go back to.
    if (!session.mayWrite || !last || (last.kind === 'stage' && last.data.stage === 'ready')) return
    // Told twice, by two hands or a stale screen: it is gone only when both are.
    const again = state.value.repeats.filter(e =>
      last.kind === 'stage' && (e.batch ?? 0) === inHand.value && e.data.stage === last.data.stage)
    for (const entry of [last, ...again]) await store.undo(entry)
  }
  return {
    late,
    take: (b: number) => inTurn(() => take(b)),
    next: () => inTurn(next),
    back: () => inTurn(back),
    ...tellingOf(hand, store, when, inTurn, offered),
  }
}

/** What the bench shows and does, worked out from the pour in hand and the clock. */
export function useBench() {
  const store = useRun(), clock = useClock(), session = useSession()
  const hand = handOf(store, clock), batches = batchesOf(hand), times = timesOf(hand, clock)
  const mayBegin = (b: number) => batches.batchTabs.value.find(t => t.b === b)?.mayBegin ?? false
  return {
    store,
    clock,
    session,
    SIGNS,
    ...hand,
    ...batches,
    ...times,
    ...foreseenOf(hand, store, clock),
    ...actsOf(hand, store, clock, mayBegin, () => times.offered.value),
  }
}
