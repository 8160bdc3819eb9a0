import { sql, type Kysely } from 'kysely'

/** An entry that was not taken and then mended has a new id, and names the one it stands for. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table pour_event add column mends uuid`.execute(db)
}
