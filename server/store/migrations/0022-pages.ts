import { sql, type Kysely } from 'kysely'

/** Pages of a teacher's own lie beside jobs and orders. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table library_item drop constraint library_item_kind_check`.execute(db)
  await sql`alter table library_item add constraint library_item_kind_check
    check (kind in ('mould', 'bucket', 'bag', 'order', 'job', 'page'))`.execute(db)
}
