import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import type { Db } from './open'

/**
 * Where a database is: its cluster, its own number there, and how often the cluster went back or over to a standby (its
 * timeline). All three stay over restarts; a dump that is read in has another number, a restored backup or a promoted
 * standby another timeline. A cold copy of all files, run in its place, looks the same: what browsers hold is newer
 * then, which they notice by themselves.
 */
async function placeOf(db: Db): Promise<string> {
  const { rows: [row] } = await sql<{ place: string }>`
    select concat_ws('/', (select system_identifier from pg_control_system()),
      (select oid from pg_database where datname = current_database()),
      (select timeline_id from pg_control_checkpoint())) as place`.execute(db)
  return row!.place
}

/** The epoch of this database: another one as soon as it stands in another place. Told to every browser. */
export async function epochOf(db: Db): Promise<string> {
  const place = await placeOf(db), id = randomUUID()
  const { rows: [row] } = await sql<{ id: string }>`
    insert into epoch (id, place) values (${id}, ${place}) on conflict (one)
    do update set id = case when epoch.place = excluded.place then epoch.id else excluded.id end, place = excluded.place
    returning id`.execute(db)
  return row!.id
}
