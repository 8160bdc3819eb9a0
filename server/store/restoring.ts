import type { FrozenRun } from '~core/plan/run'
import type { SentEvent } from '~contract/pour'
import { Refused } from '../refused'
import { appendAll, asRead, checkAgainst, planHere, plansHere } from './appending'
import { grown } from './pours-in-hand'
import { project } from './projecting'
import type { Scope } from './scope'

/** A pour as it comes out of an archive or a generator. @see restorePours */
export interface WholePour {
  readonly id: string
  readonly planId?: string
  readonly run: FrozenRun
  readonly startedBy: string
  readonly createdAt: Date
  readonly entries: readonly WholeEntry[]
}
interface WholeEntry {
  readonly event: SentEvent
  readonly actor: string
  readonly skewMs: number
  readonly receivedAt: Date
}

/**
 * Writes pours that are over with all their entries, projected and counted. Call within a transaction. @throws
 * Refused when an entry does not belong to its run, or an id is taken.
 */
export async function restorePours(inner: Scope, pours: readonly WholePour[]): Promise<void> {
  for (const p of pours) checkAgainst(p.run, p.entries.map(e => e.event))
  const plans = await plansHere(inner, pours.map(p => p.planId))
  const made = await inner.insert(
    'pour',
    pours.map(p => ({
      id: p.id,
      plan_id: planHere(plans, p.planId),
      run: JSON.stringify(p.run),
      started_by: p.startedBy,
      created_at: p.createdAt,
    })),
  ).onConflict(c => c.columns(['workshop_id', 'id']).doNothing()).returning(['id', 'run']).execute()
  if (made.length < pours.length) throw new Refused('entries', undefined, 'A pour with this id is here already.')
  const all = pours.flatMap(p => p.entries.map(e => ({ pour: p.id, ...e }))),
    last = await inner.bumpEvents(all.length),
    first = last - all.length + 1
  for (let i = 0; i < all.length; i += MOST_ROWS) await appendAll(inner, first + i, all.slice(i, i + MOST_ROWS))
  const runs = new Map(made.map(m => [m.id, m.run]))
  await project(
    inner,
    new Map(
      pours.map(
        p => [
          p.id,
          grown(
            { run: runs.get(p.id)!, events: [], ids: new Set(), seqs: [], tallies: [] },
            all.filter(e => e.pour === p.id).map(asRead),
            all.flatMap((e, i) => e.pour === p.id ? first + i : []),
          ),
        ],
      ),
    ),
  )
}
/** PostgreSQL takes 65 535 parameters in one question. */
const MOST_ROWS = 2000
