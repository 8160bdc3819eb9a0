import { expose } from 'comlink'
import { debrief } from '~core/practice/debrief'
import type { LeverId } from '~core/practice/levers'
import { outcomeOf, type Outcome } from '~core/practice/outcome'
import { play } from '~core/practice/run'
import type { Bowl } from '~core/practice/scenarios'
import { follow } from '~core/practice/script'
import type { Log } from '~core/practice/types'

/** What became of a run of practice, the one thing to change, and an expert's way through the same bucket. */
export interface Told {
  readonly outcome: Outcome
  readonly changes: readonly { readonly levers: readonly LeverId[], readonly outcome: Outcome }[]
  readonly best: { readonly log: Log, readonly outcome: Outcome }
}

const work = {
  /** It is here: from now on no network is needed. */
  ready: (): boolean => true,
  tell({ setup, expert }: Bowl, seed: number, log: Log): Told {
    const { outcome, changes } = debrief(setup, seed, play(setup, seed, log))
    const best = follow(setup, seed, expert)
    return {
      outcome, changes: changes.map(({ levers, outcome: after }) => ({ levers, outcome: after })),
      best: { log: best.log, outcome: outcomeOf(best) },
    }
  },
}
export type PracticeWork = typeof work
expose(work)
