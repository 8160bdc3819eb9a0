import { sql, type Kysely } from 'kysely'

/** An entry told while a device's clocks parted keeps by how much its moment may be otherwise. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table pour_event add column doubt_ms bigint`.execute(db)
}
