import type { Seconds } from '../units/quantity'
import type { Instant } from '../pour/events'
import type { FrozenRun } from '../plan/run'
import type { PourState } from '../pour/fold'

/** When the next coat goes on. */
export interface CoatMoment {
  /**
   * `early`: the coat before still flows. `now`: it stands and bonds by itself. `late`: it has set and has to be scored
   * and wetted.
   */
  readonly state: 'early' | 'now' | 'late'
  readonly from: Instant
  readonly to: Instant
  /** When to begin the next mix, so that it is ready as the coat before stands. */
  readonly mixAt: Instant
}

/**
 * The moment for coat `b` on the one before: from when a drawn finger leaves a standing peak (the model's “no longer
 * levels itself”, or the mark that says so)
 * until the gloss goes (the cautious end, or its mark).
 * @param run as learnt for the batch before. @returns undefined where there is no coat before, it is not wet yet, or
 *   this one is already on.
 */
export function coatMoment(run: FrozenRun, state: PourState, b: number, now: Instant): CoatMoment | undefined {
  const coat = run.batches[b]?.coat, before = state.batches[b - 1]
  if (!coat || coat.number === 1 || before?.wetAt === undefined || state.batches[b]!.filledAt !== undefined)
    return undefined
  const moments = run.moments[run.batches[b - 1]!.fills[0]!.mould.id]!
  const marked = (sign: string) => before.marks.find(m => m.sign === sign)?.at
  const to = marked('gloss-gone') ?? before.wetAt + moments.glossGone.low * 1000
  const from = Math.min(to, marked('will-not-pour') ?? before.wetAt + moments.pourBy.value * 1000)
  // Once it is being laid, what counts is when that began.
  const at = state.batches[b]!.stages.find(s => s.stage === 'fill')?.at ?? now
  const ready: Seconds = run.batches[b]!.steps.stirred.value
  return { state: placeOf(at, from, to), from, to, mixAt: from - ready * 1000 }
}

function placeOf(at: Instant, from: Instant, to: Instant): CoatMoment['state'] {
  if (at < from) return 'early'
  return at <= to ? 'now' : 'late'
}
