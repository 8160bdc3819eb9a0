import type { FrozenRun } from '~core/plan/run'
import type { SentEvent } from '~contract/pour'
import { Refused } from '../refused'
import { appendAll, asRead, checkAgainst, planHere, plansHere } from './appending'
import { grown } from './pours-in-hand'
import { foldedFor, writeFolded, type Folded } from './projecting'
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

/** A whole pour as it will be read back, but for its numbers; folded without the database. */
export function foldedWhole(pour: WholePour, run: FrozenRun = pour.run): Folded {
  const events = pour.entries.map(e => asRead({ pour: pour.id, ...e }))
  return foldedFor([pour.id, grown({ run, events: [], ids: new Set(), seqs: [], tallies: [] }, events, [])])
}

/**
 * Writes pours that are over with all their entries, projected and counted. Call within a transaction. What takes time
 * is done before the workshop's counter is taken, for which everybody's entries wait.
 * @returns the number of each pour's last entry
 * @throws Refused when an entry does not belong to its run, or an id is taken.
 */
export async function restorePours(inner: Scope, pours: readonly WholePour[]): Promise<ReadonlyMap<string, number>> {
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
  const runs = new Map(made.map(m => [m.id, m.run])), folded = pours.map(p => foldedWhole(p, runs.get(p.id)!))
  const all = pours.flatMap(p => p.entries.map(e => ({ pour: p.id, ...e }))),
    last = await inner.bumpEvents(all.length),
    first = last - all.length + 1
  for (let i = 0; i < all.length; i += MOST_ROWS) await appendAll(inner, first + i, all.slice(i, i + MOST_ROWS))
  const seqs = new Map(pours.map(p => [p.id, [] as number[]]))
  for (const [i, { pour }] of all.entries()) seqs.get(pour)!.push(first + i)
  await writeFolded(inner, folded.map(f => ({ ...f, now: { ...f.now, seqs: seqs.get(f.id)! } })))
  return new Map([...seqs].map(([id, own]) => [id, own.at(-1) ?? 0]))
}
/** PostgreSQL takes 65 535 parameters in one question. */
const MOST_ROWS = 2000
