import { customaryPourBy } from '../plan/customs'
import type { PourState } from '../pour/fold'
import { milestonesOf, type MilestoneId } from '../pour/milestones'
import type { FrozenRun } from '../plan/run'
import type { Instant } from '../pour/events'
import type { Seconds } from '../units/quantity'
import { coatMoment } from './coat-moment'
import { softWindows } from './soft'

/** What is told at the moments of a pour: spoken, sounded or flashed. Sentences: words.ts. */

/**
 * A milestone that is reached; a minute before the end of pouring, and the end; the back soft enough to be worked; and
 * of coats: mix the next, it can go on, it has to.
 */
export type CueKind
  = Exclude<MilestoneId, 'dry'> | 'hurry' | 'late' | 'tap' | 'table' | 'back' | 'mix' | 'stands' | 'bond'

export interface Cue {
  /** Stable within its pour: `batch-kind`. */
  readonly id: string
  readonly kind: CueKind
  readonly batch: number
  readonly at: Instant
  /** Whether its batch has to be named, and what it is called. */
  readonly named?: 'batch' | 'coat'
  /** Told this long before its moment, s. */
  readonly lead?: Seconds
}

/** Which cues reach someone who is not at the bench: those that do not wait for whoever stirs. */
const FAR: ReadonlySet<CueKind> = new Set<CueKind>(
  ['hurry', 'late', 'back', 'set', 'warm', 'open', 'mix', 'stands', 'bond'],
)
export const reachesFar = ({ kind }: Pick<Cue, 'kind'>) => FAR.has(kind)

type Moment = readonly [kind: CueKind, at: Instant]

/** Moments of the milestones that nobody has told yet. */
function milestoneMoments(run: FrozenRun, state: PourState, b: number, wet: Instant): readonly Moment[] {
  return milestonesOf(run, state, b).flatMap((m): Moment[] => {
    if (m.id === 'dry' || m.actual !== undefined) return []
    return [[m.id, wet + (m.id === 'open' ? m.low : m.value) * 1000]]
  })
}

/** Moments of the coat that goes on this one. */
function coatMoments(run: FrozenRun, state: PourState, b: number): readonly Moment[] {
  const coat = coatMoment(run, state, b + 1, -Infinity)
  if (!coat) return []
  const waits = state.batches[b + 1]!.wetAt === undefined
  const mix: readonly Moment[] = waits ? [['mix', Math.max(coat.mixAt, state.batches[b]!.filledAt ?? 0)]] : []
  return [...mix, ['stands', coat.from], ['bond', coat.to]]
}

/**
 * Cues still to come for every batch that is wet, in workshop time (ms). Steps that are done say nothing; the end of
 * the pouring time is announced a minute ahead as well.
 * @param runFor the run as a batch has it by now, with the moments that were learnt.
 */
export function cuesOf(
  run: FrozenRun,
  state: PourState,
  runFor: (batch: number) => FrozenRun = () => run,
): readonly Cue[] {
  const ofCoats = run.plan.coats ? 'coat' : 'batch'
  const named = run.batches.length > 1 ? ofCoats : undefined
  return state.batches.flatMap((batch, b): Cue[] => {
    const { wetAt: wet } = batch
    if (wet === undefined) return []
    const learnt = runFor(b), pourBy = wet + pouringEnds(learnt, b) * 1000, tapUntil = tappingEnds(learnt, b)
    const pouring: readonly Moment[] = batch.filledAt === undefined
      ? [['hurry', pourBy - 60_000], ['late', pourBy]]
      : []
    const tapping: readonly Moment[] = tapUntil === undefined ? [] : [[run.plan.bubbles === 'table' ? 'table' : 'tap', wet + tapUntil * 1000]]
    // Nobody knows of the window in which a hanger holds unless it is told: it opens while hands are elsewhere.
    const back = softWindows(learnt, state, b, wet).filter(w => w.id === 'back').map((w): Moment => ['back', w.from])
    const coming = milestoneMoments(learnt, state, b, wet)
    return [...coming, ...pouring, ...back, ...coatMoments(learnt, state, b), ...tapping]
      .map(([kind, at]) => ({ id: `${b}-${kind}`, kind, batch: b, at, named }))
  }).sort((a, c) => a.at - c.at)
}

/**
 * Cues told so many seconds before their moment, and saying so. A warning that is itself ahead of its moment stays
 * where it is.
 */
export function withLead(cues: readonly Cue[], lead: Seconds): readonly Cue[] {
  if (lead === 0) return cues
  return cues.map(c => c.kind === 'hurry' ? c : { ...c, at: c.at - lead * 1000, lead })
}

/** Seconds after wetting by which a batch should be poured: the earliest of its moulds, later where custom is. */
export function pouringEnds(run: FrozenRun, batch: number): Seconds {
  const by = Math.min(...run.batches[batch]!.fills.map(f => run.moments[f.mould.id]!.pourBy.value))
  return Math.max(by, customaryPourBy(run.plan, run.batches[batch]!) ?? 0)
}

/**
 * Seconds after wetting from which tapping no longer helps any of a batch's moulds; runs frozen by an earlier model do
 * not know, and what was brushed is left alone.
 */
export function tappingEnds(run: FrozenRun, batch: number): Seconds | undefined {
  if (run.plan.bubbles === 'brush') return undefined
  const ends = run.batches[batch]!.fills.map(f => run.moments[f.mould.id]!.tapUntil?.value)
  return ends.every(e => e !== undefined) ? Math.max(...ends) : undefined
}

/** Whatever falls due: a cue of a pour, a moment of a job. */
interface Due { readonly at: Instant, readonly kind: string, readonly batch?: number }

/** Longest between two readings of a clock that is being looked at, ms; beyond it nobody was there to be told. */
const LOOKED_AT = 30_000

/**
 * Cues that fell due between two readings of the clock: all of them while it is looked at, so that two in one tick are
 * both told. After a long gap (a reload, a jump) only the last one is still worth saying; but of a cast that was
 * warmest only after it could be opened, that it can be opened.
 */
export function fallenDue<C extends Due>(cues: readonly C[], before: Instant, now: Instant): readonly C[] {
  const due = cues.filter(c => c.at > before && c.at <= now), last = due.at(-1)
  if (now - before <= LOOKED_AT || !last) return due
  const opens = last.kind === 'warm' && due.find(c => c.kind === 'open' && c.batch === last.batch)
  return [opens || last]
}
