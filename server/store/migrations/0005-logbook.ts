import { sql, type Kysely } from 'kysely'

/**
 * What a long logbook is searched, filtered and counted by, kept beside each pour's projection. `rules` says by which
 * rules a projection was made: those of
 * older rules are made anew before anything is served.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table pour_projection add column found_by text[] not null default '{}', add column tallies jsonb not null default '[]', add column rules integer not null default 0;
    alter table pour_projection alter column found_by set statistics 1000;
    create index projection_found_by on pour_projection using gin (found_by);
    create index projection_in_time on pour_projection (workshop_id, (coalesce(started_at, 0)) desc, pour_id desc);
    create index projection_by_rules on pour_projection (rules);
    create table logbook_word (workshop_id uuid not null references workshop on delete cascade, word text collate "C" not null, primary key (workshop_id, word));
    create table tally (
      workshop_id uuid not null references workshop on delete cascade, series text not null, key text not null, month text not null,
      pours integer not null, casts integer not null, judged integer not null, good integer not null, second integer not null, waste integer not null,
      powder_grams bigint not null, cost_hundredths bigint not null, pieces integer not null, took_casts integer not null, took_mm3 bigint not null, primary key (workshop_id, series, key, month)
    );
    create table logbook_view (
      id uuid primary key, workshop_id uuid not null references workshop on delete cascade, name text not null, query jsonb not null, created_at timestamptz not null default now()
    );
    create index view_of_workshop on logbook_view (workshop_id);
  `.execute(db)
}
