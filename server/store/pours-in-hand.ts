import { EVENT_VERSION, type PourEvent } from '~core/pour/events'
import type { FrozenRun } from '~core/plan/run'
import type { Tally } from '~core/logbook/tallies'
import { upcastRun } from '~contract/versions'
import { LastUsed } from '../last-used'
import { EVENT_COLUMNS, eventOf } from './pours'
import type { Scope } from './scope'

/** A pour as this process knows it. */
export interface Known {
  readonly run: FrozenRun
  readonly events: readonly PourEvent[]
  readonly ids: ReadonlySet<string>
  /** The number of each event, rising. */
  readonly seqs: readonly number[]
  /**
   * The casts as they stand in the projection and what it adds to the counts, if it was this process that wrote them.
   */
  readonly casts?: ReadonlyMap<string, Standing>
  readonly tallies?: readonly Tally[]
  readonly words?: readonly string[]
  /** What it adds to what is told of moulds and bags, as one line to compare. */
  readonly library?: string
}
/** How far a cast is, and all that lists read of it. */
interface Standing { readonly status: string, readonly body: string }
export const lastOf = (known: Known) => known.seqs.at(-1) ?? 0

export function grown(known: Known, events: readonly PourEvent[], seqs: readonly number[]): Known {
  return {
    ...known,
    events: [...known.events, ...events],
    ids: new Set([...known.ids, ...events.map(e => e.id)]),
    seqs: [...known.seqs, ...seqs],
  }
}

/**
 * What was written to lately is kept, so that an entry does not read its pour again. It holds as long as nobody else
 * writes: every writer takes numbers from the
 * workshop's counter, so a counter that stands where this process left it says that nobody did; else all of the
 * workshop's is read anew.
 */
interface InHand { counter: number, pours: LastUsed<Known> }
const POURS_IN_HAND = 300
const inHand = new LastUsed<InHand>(100)

export function keep(workshop: string, before: number, counter: number, pours: ReadonlyMap<string, Known>): void {
  let own = inHand.get(workshop)
  if (own?.counter !== before) inHand.set(workshop, own = { counter, pours: new LastUsed(POURS_IN_HAND) })
  own.counter = counter
  for (const [id, known] of pours) own.pours.set(id, known)
}

/**
 * These pours up to this moment; those that are not the workshop's are left out. Call with the workshop's counter
 * taken. @param before where it stood.
 */
export async function upToNow(scope: Scope, before: number, pours: readonly string[]): Promise<Map<string, Known>> {
  const own = inHand.get(scope.workshopId), found = new Map<string, Known>(), missing: string[] = []
  for (const id of pours) {
    const known = own?.counter === before ? own.pours.get(id) : undefined
    if (known) found.set(id, known)
    else missing.push(id)
  }
  if (missing.length === 0) return found
  const runs = await scope.select('pour').select(['id', 'run']).where('id', 'in', missing).execute()
  const rows = await scope.select('pour_event').select([...EVENT_COLUMNS, 'seq']).where('pour_id', 'in', missing)
    .orderBy('seq').execute()
  for (const { id, run: stored } of runs) {
    const read = upcastRun(stored), own = rows.filter(r => r.pour_id === id)
    // Set aside: nothing is added to what cannot be read.
    if (!read.ok || own.some(r => r.version > EVENT_VERSION)) continue
    const run = read.value
    found.set(id, grown({ run, events: [], ids: new Set(), seqs: [] }, own.map(eventOf), own.map(r => r.seq)))
  }
  return found
}
