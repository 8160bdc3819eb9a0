import { sql, type Kysely } from 'kysely'

/**
 * What people write and keep; who they are is found before it is known where. Two tables are left out: in
 * `pour_projection` and `logbook_word` one searches by arrays and beginnings of words, for which an index is of use
 * only without row security (PostgreSQL uses no operator on an index that could leak, before the rows are let through).
 */
const WALLED = [
  'library_item', 'plan', 'pour', 'pour_event', 'cast_projection', 'tally', 'logbook_view', 'photo', 'mesh', 'mesh_part',
  'import_job', 'import_thing',
]

/** Rows of the workshop that the connection is set to; the tables' owner sees all. See server/store/second-wall.ts. */
export async function up(db: Kysely<unknown>): Promise<void> {
  for (const table of WALLED.map(t => sql.table(t))) {
    await sql`alter table ${table} enable row level security`.execute(db)
    await sql`create policy own on ${table}
      using (workshop_id = nullif(current_setting('ripples.workshop', true), '')::uuid)`.execute(db)
  }
}
