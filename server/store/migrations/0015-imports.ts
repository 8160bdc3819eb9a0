import { sql, type Kysely } from 'kysely'

/**
 * What is brought in from a file, how far it is, and each thing it brought, as it was then: so that it can be taken out
 * again. These rows are the server's own business and in no archive.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table import_job (
      workshop_id uuid not null references workshop on delete cascade, id uuid not null, kind text not null, name text not null,
      begun_by uuid not null, state text not null, share real not null default 0, counts jsonb not null default '{}',
      fault jsonb, unwanted boolean not null default false, made_at timestamptz not null default now(),
      heard_at timestamptz not null default now(), primary key (workshop_id, id)
    );
    create table import_thing (
      workshop_id uuid not null, job_id uuid not null, kind text not null, id uuid not null, version bigint not null,
      primary key (workshop_id, job_id, kind, id),
      foreign key (workshop_id, job_id) references import_job (workshop_id, id) on delete cascade
    );
  `.execute(db)
}
