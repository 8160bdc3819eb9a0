import type { Celsius, Kilograms, Seconds, WaterRatio } from '../units/quantity'
import { standingNow, type Standing } from '../drying/places'
import {
  standing,
  type FaultMark,
  type HappeningKind,
  type Instant,
  type LeftoverPlace,
  type Measured,
  type PourEvent,
  type Verdict,
} from './events'
import type { DefectId, TroubleId } from './defects'
import type { CauseId } from './causes'
import { castsOf, stepsOf, type FrozenRun, type RunCast, type RunStep } from '../plan/run'
import type { Sign, Stage } from '../plan/stages'

interface StageEntered {
  readonly stage: Stage
  readonly at: Instant /** Nobody said so; it follows from a later stage. */
  readonly inferred: boolean
  /** Who said so. */
  readonly by?: string
}

export interface BatchState {
  readonly stages: readonly StageEntered[]
  /** When powder met water, and when stirring began. */
  readonly wetAt?: Instant
  readonly stirAt?: Instant
  readonly filledAt?: Instant
  readonly cleanAt?: Instant
  readonly weighed: { readonly water?: Kilograms, readonly powder?: Kilograms }
  /** The jug of water before any went in, and what was left in it. */
  readonly jug: { readonly before?: Kilograms, readonly after?: Kilograms }
  /** Water per powder as weighed, when both were. */
  readonly ratio?: WaterRatio
  readonly marks: readonly { readonly sign: Sign, readonly at: Instant, readonly event: string }[]
  readonly temperatures: readonly { readonly celsius: Celsius, readonly at: Instant }[]
  /** Air around it and water that went into it, as last read. */
  readonly room?: Celsius
  readonly water?: Celsius
  /** The last forecast that was recorded for it. */
  readonly foreseen?: (PourEvent & { readonly kind: 'foreseen' })['data']
  readonly leftover?: LeftoverPlace
  readonly troubles: readonly TroubleId[]
  /** Index into the run's steps of the step this batch is at; undefined before it was begun. */
  readonly step?: number
  /** The last thing that was said of it at the bench and that still stands: what “Back” takes back there. */
  readonly last?: PourEvent
}

export type CastStatus = 'waiting' | 'setting' | 'opened' | 'judged' | 'finished'

export interface CastState {
  readonly cast: RunCast
  readonly status: CastStatus
  readonly filledAt?: Instant
  readonly fillInferred: boolean
  /** When to open it, known once its batch is wet. */
  readonly openFrom?: Instant
  readonly openTo?: Instant
  readonly openedAt?: Instant
  /** When it should be ready for its end use, known once it is open. */
  readonly readyFrom?: Instant
  readonly readyTo?: Instant
  readonly verdict?: Verdict
  readonly defects: readonly DefectId[]
  /** What someone found to be behind a defect. */
  readonly causes: readonly { readonly defect: DefectId, readonly cause: CauseId }[]
  readonly note: string
  readonly finishedAt?: Instant
  /** Where it stood since it was opened, what it weighed and how it felt. */
  readonly stays: readonly (Standing & { readonly at: Instant })[]
  readonly weighed: readonly { readonly at: Instant, readonly mass: Kilograms }[]
  readonly felt: readonly { readonly at: Instant, readonly how: 'cold' | 'dry' }[]
  readonly wettedAt?: Instant
  /** Its faults as they were drawn last, and its measures. */
  readonly faults: readonly FaultMark[]
  readonly measured: readonly Measured[]
}

export type PourStatus = 'readying' | 'pouring' | 'setting' | 'drying' | 'finished' | 'abandoned'

export interface PourState {
  readonly status: PourStatus
  /** Index into the run's steps of the step that was entered last; batches may overlap, so each also has its own. */
  readonly step: number
  readonly steps: readonly RunStep[]
  readonly batches: readonly BatchState[]
  readonly casts: readonly CastState[]
  readonly notes: readonly { readonly at: Instant, readonly text: string }[]
  readonly startedAt?: Instant
  readonly endedAt?: Instant
  /** When the last thing happened that was told of it. */
  readonly lastAt?: Instant
  /** The last thing that was said at the bench and that still stands: what “Back” takes back. */
  readonly last?: PourEvent
  /** Steps told again after they had begun, by another hand or a stale screen: nothing else counts them. */
  readonly repeats: readonly StageTold[]
}

const AT_THE_BENCH: ReadonlySet<HappeningKind> = new Set([
  'stage',
  'weighed',
  'jug',
  'mark',
  'temperature',
  'trouble',
  'filled',
  'leftover',
  'cleaned',
])

type Draft<T> = { -readonly [K in keyof T]: T[K] extends readonly (infer U)[] ? U[] : T[K] }

/** Planned length of a step, used to place stages that nobody reported. */
function plannedLength(run: FrozenRun, step: RunStep): Seconds {
  const t = run.batches[step.batch]!.steps
  switch (step.stage) {
    case 'sift': return t.sifted.value
    case 'soak': return t.soaked.value - t.sifted.value
    case 'stir': return t.stirred.value - t.soaked.value
    case 'fill': return t.pouring
    default: return 0
  }
}

type StageTold = PourEvent & { readonly kind: 'stage' }
type Entered = (StageEntered | undefined)[]

/**
 * Enters the step at `target`. Steps of its batch between the last known and this one are inferred backwards from it by
 * their planned lengths, not before
 * the last thing known of the batch before; going back to an earlier step takes the later ones of its batch with it.
 */
function enter(
  run: FrozenRun, steps: readonly RunStep[], entered: Entered, target: number, at: Instant, by?: string,
): void {
  const { batch } = steps[target]!
  const first = steps.findIndex(s => s.batch === batch)
  for (let i = target + 1; steps[i]?.batch === batch; i++) entered[i] = undefined
  entered[target] = { stage: steps[target]!.stage, at, inferred: false, ...by !== undefined && { by } }
  let known = target - 1
  while (known >= first && !entered[known]) known--
  const before = entered.slice(0, first).flatMap(s => s && s.at <= at ? s.at : [])
  const earliest = known >= first ? entered[known]!.at : Math.max(-Infinity, ...before)
  let moment = at
  for (let i = target - 1; i > known && i >= first; i--) {
    moment = Math.max(earliest, moment - plannedLength(run, steps[i]!) * 1000)
    entered[i] = { stage: steps[i]!.stage, at: moment, inferred: true }
  }
}

/** Moulds are filled batch by batch: whoever pours this one has poured the ones before it, said or not. */
function enterAfterOthers(
  run: FrozenRun,
  steps: readonly RunStep[],
  entered: Entered,
  target: number,
  at: Instant,
  by: string,
): void {
  const { batch, stage } = steps[target]!
  if (stage === 'fill' || stage === 'clean-up' || stage === 'set') {
    for (let b = 0; b < batch; b++) {
      const done = steps.findIndex(s => s.batch === b && s.stage === 'clean-up')
      if (entered[done]) continue
      const begun = Math.min(at, ...entered.slice(0, target).flatMap((s, i) => s && steps[i]!.batch > b ? s.at : []))
      const latest = Math.max(
        -Infinity,
        ...entered.slice(0, done).flatMap((s, i) => s && steps[i]!.batch === b ? s.at : []),
      )
      enter(run, steps, entered, done, Math.max(begun, latest))
      entered[done] = { ...entered[done]!, inferred: true }
    }
  }
  enter(run, steps, entered, target, at, by)
}

/**
 * Whether a batch is at this step already, or past it, and somebody said so: the device that tells it now had not
 * heard. What was only inferred may still be told as it was.
 */
function isRepeat(
  steps: readonly RunStep[],
  entered: Readonly<Entered>,
  target: number,
  from: Stage | 'unbegun' | undefined,
): boolean {
  if (from === undefined) return false
  const { batch } = steps[target]!
  for (let i = target; steps[i]?.batch === batch; i++) if (entered[i]?.inferred === false) return true
  return false
}

function batchState(
  b: number,
  steps: readonly RunStep[],
  entered: Readonly<Entered>,
  events: readonly PourEvent[],
): BatchState {
  const stages: StageEntered[] = []
  const batch: Draft<BatchState> = { stages, weighed: {}, jug: {}, marks: [], temperatures: [], troubles: [] }
  for (let i = 0; i < steps.length; i++) {
    const was = entered[i], step = steps[i]!
    const previous = steps[i - 1]
    // Leaving a batch's clean-up is entering whatever comes next, unless that was begun before.
    if (was && previous?.batch === b && previous.stage === 'clean-up' && was.at >= (entered[i - 1]?.at ?? Infinity))
      batch.cleanAt = was.at
    if (!was || step.batch !== b) continue
    batch.step = i
    stages.push(was)
    if (step.starts === 'wet') batch.wetAt = was.at
    if (step.stage === 'stir') batch.stirAt = was.at
    if (step.stage === 'clean-up') batch.filledAt = was.at
  }
  const weighed: { water?: Kilograms, powder?: Kilograms } = {}, jug: { before?: Kilograms, after?: Kilograms } = {}
  for (const e of events) {
    // The room is the same for every batch.
    if (e.kind === 'temperature' && e.data.where === 'room') batch.room = e.data.celsius
    if ((e.batch ?? 0) !== b) continue
    if (AT_THE_BENCH.has(e.kind)) batch.last = e
    if (e.kind === 'weighed') weighed[e.data.what] = e.data.mass
    else if (e.kind === 'jug') jug[e.data.when] = e.data.mass
    else if (e.kind === 'mark') batch.marks.push({ sign: e.data.sign, at: e.happenedAt, event: e.id })
    else if (e.kind === 'leftover') batch.leftover = e.data.where
    else if (e.kind === 'trouble') batch.troubles.push(e.data.trouble)
    else if (e.kind === 'cleaned') batch.cleanAt ??= e.happenedAt
    else if (e.kind === 'temperature' && e.data.where === 'cast')
      batch.temperatures.push({ celsius: e.data.celsius, at: e.happenedAt })
    else if (e.kind === 'temperature' && e.data.where === 'water') batch.water = e.data.celsius
    else if (e.kind === 'foreseen') batch.foreseen = e.data
  }
  // What is left tells what went in; more left than there was tells nothing.
  if (jug.before !== undefined && jug.after !== undefined && jug.after < jug.before)
    weighed.water = jug.before - jug.after
  batch.weighed = weighed
  batch.jug = jug
  if (weighed.water && weighed.powder) batch.ratio = weighed.water / weighed.powder
  return batch
}

/** What one entry changes of the cast that it names. */
function tellCast(state: Draft<CastState>, e: PourEvent): void {
  switch (e.kind) {
    case 'filled': state.filledAt = e.happenedAt; break
    case 'opened': state.openedAt ??= e.happenedAt; break
    case 'cause': {
      const { defect, cause } = e.data
      state.causes = [...state.causes.filter(c => c.defect !== defect), { defect, cause }]
      break
    }
    case 'placed': {
      const { place, air, weather } = standingNow(e.data)
      state.stays.push({ at: e.happenedAt, place, air, weather })
      break
    }
    case 'cast-weighed': state.weighed.push({ at: e.happenedAt, mass: e.data.mass }); break
    case 'felt': state.felt.push({ at: e.happenedAt, how: e.data.how }); break
    case 'faults': state.faults = [...e.data.marks]; break
    case 'measured': {
      const { cast: _, ...measure } = e.data
      state.measured = [...state.measured.filter(m => m.what !== measure.what), measure]
      break
    }
    case 'wetted': state.wettedAt = e.happenedAt; break
    case 'judged':
      state.verdict = e.data.verdict
      state.defects = [...e.data.defects]
      state.note = e.data.note
      state.openedAt ??= e.happenedAt
      if (e.data.verdict === 'waste') state.finishedAt ??= e.happenedAt
      break
    case 'finished': state.finishedAt = e.happenedAt; state.openedAt ??= e.happenedAt; break
    // What is told of a whole batch or pour is no news of one cast.
    default: break
  }
}

function castStatus({ finishedAt, verdict, openedAt, filledAt }: CastState): CastStatus {
  if (finishedAt !== undefined) return 'finished'
  if (verdict) return 'judged'
  if (openedAt !== undefined) return 'opened'
  return filledAt !== undefined ? 'setting' : 'waiting'
}

function castState(run: FrozenRun, cast: RunCast, batch: BatchState, events: readonly PourEvent[]): CastState {
  const state: Draft<CastState> = {
    cast,
    status: 'waiting',
    fillInferred: false,
    defects: [],
    causes: [],
    note: '',
    stays: [],
    weighed: [],
    felt: [],
    faults: [],
    measured: [],
  }
  for (const e of events) if ('cast' in e.data && e.data.cast === cast.id) tellCast(state, e)
  if (state.filledAt === undefined && (batch.filledAt !== undefined || state.openedAt !== undefined)) {
    state.filledAt = batch.filledAt ?? state.openedAt
    state.fillInferred = true
  }
  const moments = run.moments[cast.mould.id]
  if (batch.wetAt !== undefined && moments) {
    const open = batch.foreseen?.open[cast.mould.id] ?? moments.open
    state.openFrom = batch.wetAt + open.from * 1000
    state.openTo = batch.wetAt + open.to * 1000
  }
  const drying = run.drying[cast.mould.id]
  if (state.openedAt !== undefined && drying) {
    state.readyFrom = state.openedAt + drying.low * 1000
    state.readyTo = state.openedAt + drying.high * 1000
  }
  state.status = castStatus(state)
  return state
}

/** Where a pour stands that was not given up. */
function pourStatus(casts: readonly CastState[], stage: Stage, step: number): PourStatus {
  if (casts.every(c => c.status === 'finished')) return 'finished'
  if (casts.every(c => c.openedAt !== undefined)) return 'drying'
  if (stage === 'set' || casts.every(c => c.filledAt !== undefined)) return 'setting'
  return step > 0 ? 'pouring' : 'readying'
}

/**
 * State of a pour: a pure fold over its events in the order of happening. The same function runs in the browser, on the
 * server and in tests.
 * Tolerant: late, repeated, taken-back and unknown events never break it.
 */
export function foldPour(run: FrozenRun, all: readonly PourEvent[]): PourState {
  const told = standing(all)
  const repeats: StageTold[] = []
  const steps = stepsOf(run)
  const entered: Entered = []
  let step = 0
  const notes: { at: Instant, text: string }[] = []
  let abandonedAt: Instant | undefined
  for (const e of told) {
    if (e.kind === 'stage') {
      const target = steps.findIndex(s => s.batch === (e.batch ?? 0) && s.stage === e.data.stage)
      if (target < 0) continue
      if (isRepeat(steps, entered, target, e.data.from)) {
        repeats.push(e)
        continue
      }
      enterAfterOthers(run, steps, entered, target, e.happenedAt, e.actor)
      step = target
    }
    else if (e.kind === 'note') notes.push({ at: e.happenedAt, text: e.data.text })
    else if (e.kind === 'abandoned') abandonedAt = e.happenedAt
  }
  const again = new Set<PourEvent>(repeats), events = told.filter(e => !again.has(e))
  const batches = run.batches.map((_, b) => batchState(b, steps, entered, events))
  const casts = castsOf(run).map(cast => castState(run, cast, batches[cast.batch]!, events))
  const done = casts.every(c => c.status === 'finished')
  const status = abandonedAt !== undefined ? 'abandoned' : pourStatus(casts, steps[step]!.stage, step)
  return {
    status, step, steps, batches, casts, notes, repeats,
    startedAt: events[0]?.happenedAt,
    endedAt: abandonedAt ?? (done ? Math.max(...casts.map(c => c.finishedAt!)) : undefined),
    lastAt: events.at(-1)?.happenedAt,
    last: events.filter(e => AT_THE_BENCH.has(e.kind)).at(-1),
  }
}
