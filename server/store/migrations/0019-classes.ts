import { sql, type Kysely } from 'kysely'

/** Classes, the seats in them, and what came of their tasks. Names of pupils stand in `seat` alone, and go with it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table classroom (
      workshop_id uuid not null references workshop on delete cascade, id uuid not null, name text not null,
      code text not null, teacher uuid not null, opened_at timestamptz not null default now(),
      ends_at timestamptz not null, shut boolean not null default false, paused boolean not null default false,
      kept boolean not null default false, task jsonb not null default '{"kind":"none"}', tasks int not null default 0,
      kit jsonb, led int not null default -1, primary key (workshop_id, id)
    )
  `.execute(db)
  await sql`create index classroom_code on classroom (code)`.execute(db)
  await sql`
    create table seat (
      workshop_id uuid not null, id uuid not null, classroom_id uuid not null, number int not null, name text not null,
      token_sha256 text unique, heard_at timestamptz, doing jsonb, pour_id uuid, colour text not null default '',
      sent_out boolean not null default false, primary key (workshop_id, id), unique (workshop_id, classroom_id, number),
      foreign key (workshop_id, classroom_id) references classroom on delete cascade
    )
  `.execute(db)
  await sql`
    create table seat_result (
      workshop_id uuid not null, seat_id uuid not null, task int not null, body jsonb not null,
      at timestamptz not null default now(), primary key (workshop_id, seat_id, task),
      foreign key (workshop_id, seat_id) references seat on delete cascade
    )
  `.execute(db)
  // Who a seat is, is found before it is known where: `classroom` and `seat` stand before the wall, as links do.
  await sql`alter table seat_result enable row level security`.execute(db)
  await sql`create policy own on seat_result
    using (workshop_id = nullif(current_setting('ripples.workshop', true), '')::uuid)`.execute(db)
}
