import { sql, type Kysely } from 'kysely'

/**
 * Links that open one thing of a workshop to whoever has them, until they are taken back. Only a hash of the secret is
 * kept.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table link (
      id uuid primary key, workshop_id uuid not null references workshop on delete cascade, kind text not null check (kind in ('wall', 'calendar')),
      name text not null, token_sha256 text not null unique, created_at timestamptz not null default now()
    );
    create index link_of_workshop on link (workshop_id);
  `.execute(db)
}
