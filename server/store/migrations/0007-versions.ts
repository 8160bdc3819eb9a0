import { sql, type Kysely } from 'kysely'

/** Moulds, buckets and bags say which version wrote them, as plans, runs and entries do. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table library_item add column schema_version int not null default 1`.execute(db)
}
