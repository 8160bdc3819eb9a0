import { sql, type Kysely } from 'kysely'

/**
 * Who signs in is an account; who they are in a workshop is a person of it. One account has a person in each workshop
 * it belongs to; a person without an account is a name in the record and signs in nowhere. Sessions, devices that
 * signed in before, invitations and resets are rows, so that they can be listed and ended; `audit` says what was done
 * about people.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table account (
      id uuid primary key, email text not null unique, password_hash text not null, workshop_id uuid,
      second_factor text, second_factor_asked text, second_factor_step bigint, recovery_sha256 text[] not null default '{}',
      created_at timestamptz not null default now()
    );
    insert into account (id, email, password_hash, workshop_id, created_at)
      select id, email, password_hash, workshop_id, created_at from person where password_hash <> '!';

    alter table person drop constraint person_pkey, add primary key (workshop_id, id),
      add column account_id uuid references account on delete set null;
    update person set account_id = id where password_hash <> '!';
    alter table person drop column email, drop column password_hash, add unique (workshop_id, account_id);
    drop index person_of_workshop;
    create index person_of_account on person (account_id);

    create table session (
      id uuid primary key, account_id uuid not null references account on delete cascade,
      workshop_id uuid not null, person_id uuid not null, token_sha256 text not null unique,
      device text not null, place text not null,
      made_at timestamptz not null default now(), used_at timestamptz not null default now(),
      foreign key (workshop_id, person_id) references person (workshop_id, id) on delete cascade
    );
    create index session_of_account on session (account_id);
    create index session_of_person on session (workshop_id, person_id);
    create table known_device (
      token_sha256 text not null, account_id uuid not null references account on delete cascade,
      used_at timestamptz not null default now(), primary key (token_sha256, account_id)
    );
    create index known_device_of_account on known_device (account_id);

    create table ticket (
      id uuid primary key, kind text not null check (kind in ('join', 'open', 'reset')), token_sha256 text not null unique,
      workshop_id uuid references workshop on delete cascade, account_id uuid references account on delete cascade,
      role text check (role in ('owner', 'member', 'viewer')), name text not null default '',
      made_at timestamptz not null default now(), ends_at timestamptz not null
    );
    create index ticket_of_workshop on ticket (workshop_id);

    create table audit (
      workshop_id uuid not null references workshop on delete cascade, id uuid not null, at timestamptz not null default now(),
      code text not null, who text not null default '', about text not null default '', place text not null default '',
      primary key (workshop_id, id)
    );
    create index audit_of_workshop on audit (workshop_id, at desc);

    create table guess (
      key text primary key, tries integer not null, free_at timestamptz not null, tried_at timestamptz not null
    );
    drop table sign_in_limit;
  `.execute(db)
}
