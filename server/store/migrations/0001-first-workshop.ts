import { sql, type Kysely } from 'kysely'

/**
 * The first tables. Instants are bigint milliseconds on the workshop's own clock, which in the demo is not the
 * server's.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table workshop (
      id uuid primary key, name text not null, units jsonb not null, clock jsonb not null,
      event_seq integer not null default 0, demo boolean not null default false, created_at timestamptz not null default now()
    );
    create table person (
      id uuid primary key, workshop_id uuid not null references workshop on delete cascade, name text not null, email text not null unique,
      password_hash text not null, role text not null check (role in ('owner', 'member', 'viewer')), archived_at timestamptz, created_at timestamptz not null default now()
    );
    create index person_of_workshop on person (workshop_id);
    create table library_item (
      id uuid primary key, workshop_id uuid not null references workshop on delete cascade, kind text not null check (kind in ('mould', 'bucket', 'bag')),
      body jsonb not null, revision integer not null default 1, archived_at timestamptz
    );
    create index library_of_workshop on library_item (workshop_id, kind);
    create table plan (
      id uuid primary key, workshop_id uuid not null references workshop on delete cascade, schema_version integer not null, body jsonb not null,
      revision integer not null default 1, updated_at timestamptz not null, archived_at timestamptz
    );
    create index plan_of_workshop on plan (workshop_id, updated_at desc);
    create table pour (
      id uuid primary key, workshop_id uuid not null references workshop on delete cascade, plan_id uuid references plan on delete set null,
      run jsonb not null, started_by text not null, created_at timestamptz not null default now()
    );
    create index pour_of_workshop on pour (workshop_id);
    create table pour_event (
      workshop_id uuid not null references workshop on delete cascade, id uuid not null, pour_id uuid not null references pour on delete cascade,
      seq integer not null, batch integer, kind text not null, version integer not null, data jsonb not null,
      happened_at bigint not null, recorded_at bigint not null, received_at timestamptz not null default now(), skew_ms bigint not null,
      device text not null, device_seq integer not null, actor text not null,
      primary key (workshop_id, id), unique (workshop_id, seq)
    );
    create index event_of_pour on pour_event (pour_id, seq);
    create table pour_projection (
      pour_id uuid primary key references pour on delete cascade, workshop_id uuid not null references workshop on delete cascade,
      status text not null, started_at bigint, body jsonb not null
    );
    create index projection_of_workshop on pour_projection (workshop_id, started_at desc);
    create table cast_projection (
      pour_id uuid not null references pour on delete cascade, cast_id text not null, workshop_id uuid not null references workshop on delete cascade,
      status text not null, body jsonb not null, primary key (pour_id, cast_id)
    );
    create index cast_of_workshop on cast_projection (workshop_id, status);
    create table sign_in_limit (key varchar(255) primary key, points integer not null default 0, expire bigint);
  `.execute(db)
}
