import { sql, type Kysely } from 'kysely'

/** Photos of moulds and of prints, each one row of under a megabyte. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table photo (
      id uuid primary key, workshop_id uuid not null references workshop on delete cascade, mould_id uuid not null references library_item on delete cascade,
      caption text not null, width integer not null, height integer not null, sha256 text not null, data bytea not null, created_at timestamptz not null default now()
    );
    create index photo_of_mould on photo (workshop_id, mould_id, created_at);
  `.execute(db)
}
