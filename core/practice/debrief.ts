import { HELPS_ANYWAY, LEVERS, LEVER_IDS, type LeverId } from './levers'
import { outcomeOf, type Outcome } from './outcome'
import { play, type Run } from './run'
import type { Log, Setup } from './types'

/**
 * What was the one thing: each lever whose thing was not right is played again from the beginning with the same seed,
 * and what it would have won decides. Where no single one wins anything, two together are tried.
 */
export interface Changed {
  readonly levers: readonly LeverId[]
  readonly log: Log
  readonly outcome: Outcome
  /** Points that it would have won. */
  readonly gain: number
}
export interface Debrief {
  readonly outcome: Outcome
  /** The largest gain first; none where nothing would have won anything. */
  readonly changes: readonly Changed[]
}

/** What is worth naming, and how many of the best are tried in pairs. */
const WORTH = 0.1, PAIRED = 4

export function debrief(setup: Setup, seed: number, run: Run): Debrief {
  const outcome = outcomeOf(run), { log } = run
  const tried = LEVER_IDS.flatMap((id): Changed[] => {
    const changed = LEVERS[id](log, setup, run)
    return changed ? [tryOut(setup, seed, changed, [id], outcome)] : []
  }).sort((a, b) => b.gain - a.gain)
  if ((tried[0]?.gain ?? 1) >= WORTH || outcome.verdict === 'good') return { outcome, changes: tried.filter(t => t.gain >= WORTH) }
  return { outcome, changes: inPairs(setup, seed, run, tried.slice(0, PAIRED), outcome) }
}

function tryOut(setup: Setup, seed: number, log: Log, levers: readonly LeverId[], before: Outcome): Changed {
  const outcome = outcomeOf(play(setup, seed, log)), [only] = levers
  const counts = levers.length === 1 ? HELPS_ANYWAY[only!] ?? 1 : 1
  return { levers, log, outcome, gain: counts * (before.loss - outcome.loss) }
}

function inPairs(setup: Setup, seed: number, run: Run, best: readonly Changed[], outcome: Outcome): readonly Changed[] {
  const pairs = best.flatMap((a, i) => best.slice(i + 1).map(b => [a.levers[0]!, b.levers[0]!] as const))
  return pairs.flatMap(([a, b]): Changed[] => {
    const once = LEVERS[a](run.log, setup, run), twice = once && LEVERS[b](once, setup, run)
    return twice ? [tryOut(setup, seed, twice, [a, b], outcome)] : []
  }).filter(t => t.gain >= WORTH).sort((a, b) => b.gain - a.gain)
}
