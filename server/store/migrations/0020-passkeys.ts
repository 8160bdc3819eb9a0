import { sql, type Kysely } from 'kysely'

/** Keys that a device holds for an account, and challenges that were answered: no answer is taken twice. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table passkey (
      id uuid primary key, account_id uuid not null references account on delete cascade, host text not null,
      credential text not null unique, public_key text not null, counter bigint not null,
      transports text[] not null default '{}', name text not null, made_at timestamptz not null default now(),
      used_at timestamptz
    )
  `.execute(db)
  await sql`create index passkey_account on passkey (account_id)`.execute(db)
  await sql`create index passkey_host on passkey (host)`.execute(db)
  await sql`
    create table answered_challenge (sha256 text primary key, at timestamptz not null default now())
  `.execute(db)
}
