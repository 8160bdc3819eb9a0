import { sql, type Kysely } from 'kysely'

/**
 * A projection says up to which entry it was made, so that a browser that holds the pour itself knows which of the two
 * is newer. Casts that still need something, and those that came off the shelf lately, are found without looking
 * through the others; those of a pour that was given up are kept under `abandoned`.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table pour_projection add column seq integer not null default 0;
    create index cast_standing on cast_projection (workshop_id) where status not in ('finished', 'abandoned');
    alter table cast_projection add column finished_at bigint;
    create index cast_finished on cast_projection (workshop_id, finished_at);
  `.execute(db)
}
