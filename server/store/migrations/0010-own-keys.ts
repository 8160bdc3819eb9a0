import { sql, type Kysely } from 'kysely'

/**
 * Every key carries its workshop, so that no row can name another workshop's, and ids may be chosen by browsers: the
 * same id in two workshops is two things. Rows that named what is not their workshop's are mended first: a plan that is
 * not here is forgotten by its pour, what hung on another workshop's mould or pour goes.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  const mended = await sql`
    update pour set plan_id = null where plan_id is not null
      and not exists (select from plan where plan.workshop_id = pour.workshop_id and plan.id = pour.plan_id)
  `.execute(db)
  if (mended.numAffectedRows)
    console.info(`${mended.numAffectedRows} pours named a plan of another workshop; they stand without it now.`)
  await sql`
    delete from mesh where not exists
      (select from library_item i where i.workshop_id = mesh.workshop_id and i.id = mesh.mould_id);
    delete from photo where (mould_id is not null and not exists
      (select from library_item i where i.workshop_id = photo.workshop_id and i.id = photo.mould_id))
      or (pour_id is not null and not exists (select from pour where pour.workshop_id = photo.workshop_id and pour.id = photo.pour_id));

    alter table mesh_part drop constraint mesh_part_mesh_id_fkey, drop constraint mesh_part_pkey;
    alter table photo drop constraint photo_mould_id_fkey, drop constraint photo_pour_id_fkey, drop constraint photo_pkey;
    alter table mesh drop constraint mesh_mould_id_fkey, drop constraint mesh_pkey;
    alter table cast_projection drop constraint cast_projection_pour_id_fkey, drop constraint cast_projection_pkey;
    alter table pour_projection drop constraint pour_projection_pour_id_fkey, drop constraint pour_projection_pkey;
    alter table pour_event drop constraint pour_event_pour_id_fkey;
    alter table pour drop constraint pour_plan_id_fkey, drop constraint pour_pkey;
    alter table plan drop constraint plan_pkey;
    alter table library_item drop constraint library_item_pkey;
    alter table link drop constraint link_pkey;
    alter table logbook_view drop constraint logbook_view_pkey;

    alter table library_item add primary key (workshop_id, id);
    alter table plan add primary key (workshop_id, id);
    alter table link add primary key (workshop_id, id);
    alter table logbook_view add primary key (workshop_id, id);
    alter table pour add primary key (workshop_id, id),
      add foreign key (workshop_id, plan_id) references plan (workshop_id, id) on delete set null (plan_id);
    alter table pour_event add foreign key (workshop_id, pour_id) references pour (workshop_id, id) on delete cascade;
    alter table pour_projection add primary key (workshop_id, pour_id),
      add foreign key (workshop_id, pour_id) references pour (workshop_id, id) on delete cascade;
    alter table cast_projection add primary key (workshop_id, pour_id, cast_id),
      add foreign key (workshop_id, pour_id) references pour (workshop_id, id) on delete cascade;
    alter table mesh add primary key (workshop_id, id),
      add foreign key (workshop_id, mould_id) references library_item (workshop_id, id) on delete cascade;
    alter table mesh_part add primary key (workshop_id, mesh_id, part),
      add foreign key (workshop_id, mesh_id) references mesh (workshop_id, id) on delete cascade;
    alter table photo add primary key (workshop_id, id),
      add foreign key (workshop_id, mould_id) references library_item (workshop_id, id) on delete cascade,
      add foreign key (workshop_id, pour_id) references pour (workshop_id, id) on delete cascade;

    drop index event_of_pour;
    create index event_of_pour on pour_event (workshop_id, pour_id, seq);
    drop index library_of_workshop;
    create index library_of_workshop on library_item (workshop_id, kind);
  `.execute(db)
}
