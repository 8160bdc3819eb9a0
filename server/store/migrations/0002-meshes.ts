import { sql, type Kysely } from 'kysely'

/** Models of moulds, gzipped and cut into parts of under a megabyte, so that no request and no row is large. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table mesh (
      id uuid primary key, workshop_id uuid not null references workshop on delete cascade, mould_id uuid not null references library_item on delete cascade,
      name text not null, unit text not null, triangles integer not null, parts integer not null, sha256 text, created_at timestamptz not null default now()
    );
    create index mesh_of_mould on mesh (workshop_id, mould_id);
    create table mesh_part (
      mesh_id uuid not null references mesh on delete cascade, part integer not null, workshop_id uuid not null references workshop on delete cascade, data bytea not null,
      primary key (mesh_id, part)
    );
  `.execute(db)
}
