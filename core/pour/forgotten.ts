import type { FrozenRun } from '../plan/run'
import type { Stage } from '../plan/stages'
import type { Instant } from './events'
import type { PourState } from './fold'
import type { PourSummary } from './projection'

/** After this long without a word a pour at the bench is asked about, ms (common practice, no source). */
const FORGOTTEN_MS = 86_400_000

/** Whether a pour stands at the bench of which nothing was told for a day: it was forgotten, not poured so slowly. */
export function isForgotten({ status, lastAt }: PourSummary, now: Instant): boolean {
  return (status === 'readying' || status === 'pouring') && lastAt !== undefined && now - lastAt > FORGOTTEN_MS
}

/**
 * What to tell of a forgotten pour that was poured after all: that it was left to set, at the moment it would have been
 * by its plan, but not before the last thing that was told, nor after `now`. The steps between follow from it.
 */
export function pouredAsPlanned(
  run: FrozenRun,
  state: PourState,
  now: Instant,
): { readonly batch: number, readonly stage: Stage, readonly from: Stage | 'unbegun', readonly at: Instant } {
  const batch = run.batches.length - 1, { steps } = run.batches[batch]!, { wetAt, step } = state.batches[batch]!
  const last = state.lastAt ?? now
  const poured = (wetAt ?? last) + 1000 * (steps.stirred.value + steps.pouring)
  return {
    batch,
    stage: 'set',
    from: step === undefined ? 'unbegun' : state.steps[step]!.stage,
    at: Math.round(Math.min(now, Math.max(last, poured))),
  }
}
