import { sql, type Kysely } from 'kysely'

/** What names this database as it is here: another name after it was restored or moved, so that browsers notice. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`create table epoch (one boolean primary key default true check (one), id uuid not null, place text not null)`
    .execute(db)
}
