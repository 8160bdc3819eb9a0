import { sql } from 'kysely'
import type {
  DeleteQueryBuilder,
  DeleteResult,
  Insertable,
  InsertQueryBuilder,
  InsertResult,
  SelectQueryBuilder,
  Transaction,
  UpdateQueryBuilder,
  UpdateResult,
} from 'kysely'
import type { Db } from './open'
import type { Database } from './schema'
import { inside } from './second-wall'

/** Tables whose every row belongs to one workshop. */
type TenantTable = Exclude<
  keyof Database,
  'workshop' | 'account' | 'known_device' | 'ticket' | 'guess' | 'passkey' | 'answered_challenge'
>

/**
 * The only door to tenant tables: every query that comes out of it is already limited to one workshop, every row that
 * goes in carries it.
 */
export interface Scope {
  readonly workshopId: string
  select<T extends TenantTable>(table: T): SelectQueryBuilder<Database, T, unknown>
  insert<T extends TenantTable>(
    table: T,
    rows: readonly Omit<Insertable<Database[T]>, 'workshop_id'>[],
  ): InsertQueryBuilder<Database, T, InsertResult>
  update<T extends TenantTable>(table: T): UpdateQueryBuilder<Database, T, T, UpdateResult>
  remove<T extends TenantTable>(table: T): DeleteQueryBuilder<Database, T, DeleteResult>
  /** How many rows this query finds, looked at up to `most`. */
  countUpTo<T extends TenantTable, O>(query: SelectQueryBuilder<Database, T, O>, most: number): Promise<number>
  /**
   * Takes the next `count` numbers of this workshop's event counter and returns the last. The counter row is the cursor
   * of live streams:
   * bumped inside the transaction, it makes numbers become visible in order, which a sequence would not.
   */
  bumpEvents(count: number): Promise<number>
  transaction<R>(work: (scope: Scope, trx: Transaction<Database>) => Promise<R>): Promise<R>
}

export function within(whole: Db, workshopId: string): Scope {
  const db = inside(whole, workshopId)
  // Kysely cannot prove that a union of tables shares a column; every tenant table has workshop_id (see the
  // migrations).
  const own = (table: TenantTable, query: unknown) =>
    (query as { where(column: string, op: string, value: string): never }).where(
      `${table}.workshop_id`,
      '=',
      workshopId,
    )
  return {
    workshopId,
    select: table => own(table, db.selectFrom(table as 'plan')),
    insert: (table, rows) =>
      db.insertInto(table).values(rows.map(row => ({ ...row, workshop_id: workshopId })) as never),
    update: table => own(table, db.updateTable(table as 'plan')),
    remove: table => own(table, db.deleteFrom(table as 'plan')),
    countUpTo: async (query, most) => {
      const { n } = await db.selectFrom(query.limit(most).as('found') as never).select(
        sql<number>`count(*)::int`.as('n'),
      ).executeTakeFirstOrThrow()
      return n
    },
    bumpEvents: async (count) => {
      const { event_seq } = await db.updateTable('workshop').set(eb => ({ event_seq: eb('event_seq', '+', count) }))
        .where('id', '=', workshopId).returning('event_seq').executeTakeFirstOrThrow()
      return event_seq
    },
    transaction: work => db.transaction().execute(trx => work(within(trx, workshopId), trx)),
  }
}
