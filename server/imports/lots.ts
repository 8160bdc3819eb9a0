import type { Transaction } from 'kysely'
import { NO_IMPORT_COUNTS, type ImportCounts, type ImportState } from '~contract/import-state'
import { rememberThings, tellImport, type Thing } from '../store/imports'
import { HERE, type Place } from '../store/homes'
import type { Db } from '../store/open'
import type { Database } from '../store/schema'
import { within, type Scope } from '../store/scope'

/**
 * At most so many whole pours are written in one transaction: nobody else’s entry waits for more. An announcement holds
 * as many ids.
 */
export const LOT = 50
/** Between two times that progress is told and somebody's giving up is heard, ms. */
const TOLD_EVERY = 250

/** Somebody gave it up. What is in by then stays in until it is taken out. */
export class GivenUp extends Error {}

/** One import under way: it writes in lots, remembers what it wrote, and says how far it is. */
export class Lots {
  counts: { -readonly [K in keyof ImportCounts]: number } = { ...NO_IMPORT_COUNTS }
  readonly scope: Scope
  private toldAt = -Infinity
  private state: ImportState = 'waiting'

  constructor(readonly db: Db, workshopId: string, readonly id: string, place: Place = HERE) {
    this.scope = within(db, workshopId, place)
  }

  /** @param share of this state's work, 0 to 1 @throws GivenUp */
  async told(state: ImportState, share: number): Promise<void> {
    if (state === this.state && performance.now() - this.toldAt < TOLD_EVERY) return
    this.state = state
    this.toldAt = performance.now()
    if (!await tellImport(this.scope, this.id, { state, share, counts: this.counts })) throw new GivenUp()
  }

  /** One transaction, after which what it wrote is counted. @throws GivenUp before it */
  async write(
    share: number,
    work: (inner: Scope, trx: Transaction<Database>) => Promise<readonly Thing[]>,
    more: Partial<ImportCounts> = {},
  ): Promise<void> {
    await this.told('taking', share)
    await this.scope.transaction(async (inner, trx) => rememberThings(inner, this.id, await work(inner, trx)))
    for (const [what, n] of Object.entries(more)) this.counts[what as keyof ImportCounts] += n
  }
}
