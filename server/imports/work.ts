import type { ImportRows } from '~contract/import'
import type { ImportCounts, ImportState } from '~contract/import-state'
import { restoreArchive } from '../archive/restore'
import { announceAll } from '../store/announce'
import type { Place } from '../store/homes'
import { endImport } from '../store/imports'
import type { Db } from '../store/open'
import { Refused } from '../refused'
import { GivenUp, Lots } from './lots'
import { takeOut } from './out'
import { importRows } from './rows'
import { importFaultWords } from './words'

/** What is to be done with a file, or with what one brought. */
export interface Order {
  readonly workshop: string
  readonly job: string
  /** Where its records are. */
  readonly place?: Place
  readonly work:
    | { readonly what: 'archive', readonly path: string }
    | { readonly what: 'rows', readonly table: ImportRows, readonly actor: string, readonly now: number }
    | { readonly what: 'out', readonly counts: ImportCounts }
}

function begin({ work }: Order, lots: Lots): Promise<void> {
  switch (work.what) {
    case 'archive':
      return restoreArchive(lots, work.path)
    case 'rows':
      return importRows(lots, work.table, work.actor, work.now)
    case 'out':
      lots.counts = { ...work.counts, stayed: 0 }
      return takeOut(lots)
  }
}

/** How one ended that did not come to its end. */
function endOf(error: unknown): { readonly state: ImportState, readonly fault?: { sentence: string, field?: string } } {
  if (error instanceof GivenUp) return { state: 'given-up' }
  if (error instanceof Refused) return { state: 'refused', fault: { sentence: error.message, field: error.field } }
  console.error(error)
  return { state: 'broken', fault: { sentence: importFaultWords((error as { code?: string }).code) } }
}

/** What is refused after some of it was written broke off in the middle. */
function stateAfter({ work }: Order, lots: Lots, state: ImportState): ImportState {
  if (work.what === 'out') return 'half-out'
  return state === 'refused' && Object.values(lots.counts).some(n => n > 0) ? 'broken' : state
}

/** Does one from its beginning to its end, and says what became of it. */
export async function carryOut(db: Db, order: Order): Promise<void> {
  const lots = new Lots(db, order.workshop, order.job, order.place)
  try {
    await begin(order, lots)
    await endImport(lots.scope, order.job, order.work.what === 'out' ? 'taken-out' : 'done', lots.counts)
  }
  catch (error) {
    const end = endOf(error)
    await endImport(lots.scope, order.job, stateAfter(order, lots, end.state), lots.counts, end.fault)
  }
  await announceAll(db, order.workshop, [{ what: 'library' }, { what: 'plans' }, { what: 'people' }, { what: 'pours' }])
}
