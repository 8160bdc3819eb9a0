import { sql } from 'kysely'
import type {
  DeleteQueryBuilder,
  DeleteResult,
  Insertable,
  InsertQueryBuilder,
  InsertResult,
  IsolationLevel,
  SelectQueryBuilder,
  Transaction,
  UpdateQueryBuilder,
  UpdateResult,
} from 'kysely'
import { HERE, RECORD_TABLES, recordsOf, type Place } from './homes'
import type { Db } from './open'
import type { Database } from './schema'
import { inside } from './second-wall'

/** Tables whose every row belongs to one workshop. */
type TenantTable = Exclude<
  keyof Database,
  'workshop' | 'account' | 'known_device' | 'ticket' | 'guess' | 'passkey' | 'answered_challenge'
>
type Work<R> = (scope: Scope, trx: Transaction<Database>) => Promise<R>

/**
 * The only door to tenant tables: every query that comes out of it is already limited to one workshop, every row that
 * goes in carries it. Records are asked where they are (homes.ts), all else in the first database.
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
  /** How many records this query finds, looked at up to `most`. */
  countUpTo<T extends TenantTable, O>(query: SelectQueryBuilder<Database, T, O>, most: number): Promise<number>
  /**
   * Takes the next `count` numbers of this workshop's event counter and returns the last. The counter row is the cursor
   * of live streams:
   * bumped inside the transaction, it makes numbers become visible in order, which a sequence would not.
   */
  bumpEvents(count: number): Promise<number>
  /** One transaction of records; what else is asked in it is only part of it where both are in one database. */
  transaction<R>(work: Work<R>, isolation?: IsolationLevel): Promise<R>
  /** One of people, classes and what opens doors. */
  frontTransaction<R>(work: Work<R>): Promise<R>
}

const RECORDS: ReadonlySet<TenantTable> = new Set(RECORD_TABLES)

/** A workshop's own door. @param place where its records are @throws Refused by what asks for records on their way */
export function within(front: Db, workshopId: string, place: Place = HERE): Scope {
  const here = inside(front, workshopId)
  let records: Db | undefined
  return scopeOf(here, () => {
    if (records) return records
    const db = recordsOf(front, place)
    records = db === front ? here : inside(db, workshopId)
    return records
  }, workshopId)
}

function scopeOf(front: Db, records: () => Db, workshopId: string): Scope {
  const at = (table: TenantTable) => RECORDS.has(table) ? records() : front
  // Kysely cannot prove that a union of tables shares a column; every tenant table has workshop_id (see the
  // migrations).
  const own = (table: TenantTable, query: unknown) =>
    (query as { where(column: string, op: string, value: string): never }).where(
      `${table}.workshop_id`,
      '=',
      workshopId,
    )
  function begin<R>(db: Db, work: Work<R>, isolation?: IsolationLevel): Promise<R> {
    const begun = isolation ? db.transaction().setIsolationLevel(isolation) : db.transaction()
    const asIn = (side: () => Db, trx: Db) => () => side() === db ? trx : side()
    return begun.execute(trx => work(scopeOf(asIn(() => front, trx)(), asIn(records, trx), workshopId), trx))
  }
  return {
    workshopId,
    select: table => own(table, at(table).selectFrom(table as 'plan')),
    insert: (table, rows) =>
      at(table).insertInto(table).values(rows.map(row => ({ ...row, workshop_id: workshopId })) as never),
    update: table => own(table, at(table).updateTable(table as 'plan')),
    remove: table => own(table, at(table).deleteFrom(table as 'plan')),
    countUpTo: async (query, most) => {
      const { n } = await records().selectFrom(query.limit(most).as('found') as never).select(
        sql<number>`count(*)::int`.as('n'),
      ).executeTakeFirstOrThrow()
      return n
    },
    bumpEvents: async (count) => {
      const { event_seq } = await records().updateTable('workshop')
        .set(eb => ({ event_seq: eb('event_seq', '+', count) }))
        .where('id', '=', workshopId).returning('event_seq').executeTakeFirstOrThrow()
      return event_seq
    },
    transaction: (work, isolation) => begin(records(), work, isolation),
    frontTransaction: work => begin(front, work),
  }
}
