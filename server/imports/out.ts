import { sql } from 'kysely'
import { changeOf } from '~core/logbook/tallies'
import type { ThingKind } from '~contract/import-state'
import { announceAll } from '../store/announce'
import { count } from '../store/projecting'
import type { Scope } from '../store/scope'
import { LOT, type Lots } from './lots'

/**
 * Takes out again what an import brought: each thing that is as it was then, and that nothing else in the workshop
 * speaks of. What was used or changed since stays, and is counted.
 */

/** Things of one kind that are left to take out. */
async function some(scope: Scope, job: string, kind: ThingKind, after: string, most: number): Promise<string[]> {
  const rows = await scope.select('import_thing').select('id').where('job_id', '=', job).where('kind', '=', kind)
    .where('id', '>', after).orderBy('id').limit(most).execute()
  return rows.map(r => r.id)
}
const FIRST = '00000000-0000-0000-0000-000000000000'

async function forget(inner: Scope, job: string, kind: ThingKind, ids: readonly string[]): Promise<void> {
  if (ids.length > 0)
    await inner.remove('import_thing').where('job_id', '=', job).where('kind', '=', kind).where('id', 'in', ids).execute()
}

/** Pours of which nothing was told since, and no photo of a cast was taken. @returns those that went */
async function removePours(inner: Scope, job: string, ids: readonly string[]): Promise<string[]> {
  // Nobody adds to one of them meanwhile.
  await inner.bumpEvents(0)
  const told = sql<boolean>`exists (select from import_thing t where t.workshop_id = pour_projection.workshop_id
    and t.job_id = ${job} and t.kind = 'pour' and t.id = pour_projection.pour_id and t.version = pour_projection.seq)`
  const seen = sql<boolean>`exists (select from photo p where p.workshop_id = pour_projection.workshop_id
    and p.pour_id = pour_projection.pour_id and not exists (select from import_thing t
      where t.workshop_id = p.workshop_id and t.job_id = ${job} and t.kind = 'photo' and t.id = p.id))`
  const rows = await inner.select('pour_projection').select(['pour_id', 'tallies']).where('pour_id', 'in', ids)
    .where(told, '=', true).where(seen, '=', false).execute()
  const gone = rows.map(r => r.pour_id)
  if (gone.length === 0) return []
  await count(inner, changeOf(rows.flatMap(r => [...r.tallies]), []))
  await inner.remove('pour').where('id', 'in', gone).execute()
  return gone
}

/** Plans as they were brought, from which no pour was begun that is still here. */
async function removePlans(inner: Scope, job: string, ids: readonly string[]): Promise<string[]> {
  const poured = sql<boolean>`exists (select from pour p where p.workshop_id = plan.workshop_id and p.plan_id = plan.id)`
  return (await inner.remove('plan').where('id', 'in', ids).where(sameRevision('plan', job), '=', true)
    .where(poured, '=', false).returning('id').execute()).map(r => r.id)
}

/** It is as it was brought. */
const sameRevision = (table: 'plan' | 'library_item', job: string) =>
  sql<boolean>`exists (select from import_thing t where t.workshop_id = ${sql.ref(table)}.workshop_id
    and t.job_id = ${job} and t.id = ${sql.ref(table)}.id and t.version = ${sql.ref(table)}.revision)`

/** Moulds, buckets and bags as they were brought, that no plan, pour, photo or model speaks of. */
async function removeItems(inner: Scope, job: string, ids: readonly string[]): Promise<string[]> {
  const spokenOf = (table: 'plan' | 'pour', body: 'body' | 'run') =>
    sql<boolean>`exists (select from ${sql.table(table)} o where o.workshop_id = library_item.workshop_id
      and strpos(o.${sql.ref(body)}::text, library_item.id::text) > 0)`
  const shown = (table: 'photo' | 'mesh') =>
    sql<boolean>`exists (select from ${sql.table(table)} o where o.workshop_id = library_item.workshop_id
      and o.mould_id = library_item.id and not exists (select from import_thing t
        where t.workshop_id = o.workshop_id and t.job_id = ${job} and t.kind = ${table} and t.id = o.id))`
  return (await inner.remove('library_item').where('id', 'in', ids).where(sameRevision('library_item', job), '=', true)
    .where(spokenOf('plan', 'body'), '=', false).where(spokenOf('pour', 'run'), '=', false)
    .where(shown('photo'), '=', false).where(shown('mesh'), '=', false).returning('id').execute()).map(r => r.id)
}

/** Names of people without an account, who wrote nothing that is still here. */
async function removePeople(inner: Scope, ids: readonly string[]): Promise<string[]> {
  const began = sql<boolean>`exists (select from pour p where p.workshop_id = person.workshop_id
    and p.started_by = person.id::text)`
  const told = sql<boolean>`exists (select from pour_event e where e.workshop_id = person.workshop_id
    and e.actor = person.id::text)`
  return (await inner.remove('person').where('id', 'in', ids).where('account_id', 'is', null)
    .where(began, '=', false).where(told, '=', false).returning('id').execute()).map(r => r.id)
}

/** Photos and models went with the mould or pour they show; what shows one that stays, stays with it. */
async function goneWith(inner: Scope, table: 'photo' | 'mesh', ids: readonly string[]): Promise<string[]> {
  const here = new Set((await inner.select(table).select('id').where('id', 'in', ids).execute()).map(r => r.id))
  return ids.filter(id => !here.has(id))
}

async function removeViews(inner: Scope, ids: readonly string[]): Promise<string[]> {
  await inner.remove('logbook_view').where('id', 'in', ids).execute()
  return [...ids]
}

type Remove = (inner: Scope, job: string, ids: readonly string[]) => Promise<string[]>
/** In this order: what speaks of others before what is spoken of. */
const STEPS: readonly (readonly [ThingKind, Remove, number])[] = [
  ['pour', removePours, LOT],
  ['plan', removePlans, 100],
  ['item', removeItems, 100],
  ['view', (inner, _, ids) => removeViews(inner, ids), 100],
  ['photo', (inner, _, ids) => goneWith(inner, 'photo', ids), 100],
  ['mesh', (inner, _, ids) => goneWith(inner, 'mesh', ids), 10],
  ['person', (inner, _, ids) => removePeople(inner, ids), 100],
]

/** @throws GivenUp; what is left can be taken out later */
export async function takeOut(lots: Lots): Promise<void> {
  const { scope, id: job } = lots
  const { all } = await scope.select('import_thing').select(sql<number>`count(*)::int`.as('all')).where('job_id', '=', job)
    .executeTakeFirstOrThrow()
  let seen = 0
  for (const [kind, remove, most] of STEPS) {
    for (let after = FIRST; ;) {
      await lots.told('taking-out', all === 0 ? 1 : seen / all)
      const ids = await some(scope, job, kind, after, most)
      if (ids.length === 0) break
      after = ids.at(-1)!
      seen += ids.length
      const gone = await scope.transaction(async (inner, trx) => {
        const went = await remove(inner, job, ids)
        await forget(inner, job, kind, went)
        if (kind === 'pour' && went.length > 0)
          await announceAll(trx, scope.workshopId, [{ what: 'gone', pours: went }])
        return went
      })
      lots.counts.stayed += kind === 'person' ? 0 : ids.length - gone.length
    }
  }
}
