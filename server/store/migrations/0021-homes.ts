import { sql, type Kysely } from 'kysely'

const RECORDS = [
  'library_item', 'plan', 'pour', 'pour_event', 'pour_projection', 'cast_projection', 'tally', 'logbook_word',
  'logbook_view', 'mesh', 'mesh_part', 'photo', 'import_job', 'import_thing',
]

/**
 * Where a workshop's records are (homes.ts), and that none are written where they are no more: each statement that
 * writes some holds the workshop's row against being sent away, and fails where it was. Only connections that are set
 * to a workshop are asked; the tables' owner may do what moving takes.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table workshop add column home text, add column moving boolean not null default false,
    add column gone_to text, add column gone_at timestamptz`.execute(db)
  await sql`create function stays_here() returns trigger language plpgsql as $$
    declare here text := nullif(current_setting('ripples.workshop', true), '');
    begin
      if here is null then return null; end if;
      perform 1 from workshop where id = here::uuid and gone_to is null for key share;
      if not found then
        raise exception 'the records of this workshop are elsewhere' using errcode = 'RM001';
      end if;
      return null;
    end $$`.execute(db)
  for (const table of RECORDS.map(t => sql.table(t)))
    await sql`create trigger stays_here before insert or update or delete on ${table}
      for each statement execute function stays_here()`.execute(db)
}
