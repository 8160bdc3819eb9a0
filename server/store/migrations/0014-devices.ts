import { sql, type Kysely } from 'kysely'

/** Devices that post what they measure. Nothing they say is kept here: a bench takes what it wants. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table device (
      workshop_id uuid not null references workshop on delete cascade, id uuid not null, kind text not null, name text not null,
      token_sha256 text not null unique, made_at timestamptz not null default now(), heard_at timestamptz,
      primary key (workshop_id, id)
    );
  `.execute(db)
}
