import { sql, type Kysely } from 'kysely'

/** Photos of casts, beside those of moulds: each is of one or of the other. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table photo alter column mould_id drop not null, add column pour_id uuid references pour on delete cascade, add column cast_id text;
    alter table photo add constraint photo_of_one_thing check ((mould_id is not null and pour_id is null and cast_id is null) or (mould_id is null and pour_id is not null and cast_id is not null));
    create index photo_of_pour on photo (workshop_id, pour_id) where pour_id is not null;
  `.execute(db)
}
