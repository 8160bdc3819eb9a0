import { sql } from 'kysely'
import type { LibraryBodies, LibraryItem, LibraryKind } from '~shared/library'
import { PLAN_SCHEMA_VERSION, type SavedPlan } from '~shared/plan'
import { powderClass, type PowderClassId } from '~core/gypsum/powders'
import type { Taught } from '~core/pour/forecast'
import { taughtBag } from '~core/pour/observations'
import type { Plan, PlanWorld } from '~core/pour/plan'
import type { Scope } from './scope'

/** Someone else saved it in between; nothing was written. */
export class Stale extends Error {}

export async function libraryItems<K extends LibraryKind>(scope: Scope, kind: K): Promise<LibraryItem<K>[]> {
  const rows = await scope.select('library_item').select(['id', 'body', 'revision']).where('kind', '=', kind).where('archived_at', 'is', null).orderBy(sql`body->>'name'`).execute()
  const [uses, took] = kind === 'mould' ? await Promise.all([mouldUses(scope), mouldFills(scope)]) : []
  const taught = kind === 'bag' ? await bagsTaught(scope, rows.map(r => ({ id: r.id, ...r.body as LibraryBodies['bag'] }))) : undefined
  const used = kind === 'bag' ? await bagsUsed(scope, rows.map(r => ({ id: r.id, leftAt: (r.body as LibraryBodies['bag']).leftAt }))) : undefined
  return rows.map(r => ({ id: r.id, kind, body: r.body as LibraryBodies[K], revision: r.revision, ...(used?.has(r.id) && { used: used.get(r.id) }), ...(uses && { uses: uses.get(r.id) ?? 0, poured: took?.get(r.id) }), ...(taught && { taught: taught.get(r.id) ?? [] }) }))
}

/** Casts poured in each mould: counted from what was frozen into the pours that were not abandoned. */
async function mouldUses(scope: Scope): Promise<Map<string, number>> {
  const rows = await scope.select('pour').innerJoin('pour_projection as p', 'p.pour_id', 'pour.id').where('p.status', '<>', 'abandoned')
    .select([sql<string>`jsonb_path_query(run, '$.batches[*] ? (!exists(@.coat) || @.coat.number == @.coat.of).fills[*]')`.as('fill')]).execute() as unknown as { fill: { mould: { id: string }, copies: number } }[]
  const uses = new Map<string, number>()
  for (const { fill } of rows) uses.set(fill.mould.id, (uses.get(fill.mould.id) ?? 0) + fill.copies)
  return uses
}

/** Powder that pours took out of these bags since it was said what is left in them. */
async function bagsUsed(scope: Scope, bags: readonly { readonly id: string, readonly leftAt?: number }[]): Promise<Map<string, { since: number, last: number }>> {
  const since = new Map(bags.map(b => [b.id, b.leftAt ?? 0])), used = new Map<string, { since: number, last: number }>()
  if (bags.length === 0) return used
  const rows = await scope.select('pour_projection').select(['started_at', sql<string>`body->>'bagId'`.as('bag'), sql<number>`(body->>'powderUsed')::float8`.as('kg')])
    .where(sql<boolean>`body->>'bagId' = any(${[...since.keys()]})`).where(sql<boolean>`(body->>'powderUsed')::float8 > 0`).orderBy('started_at').execute()
  for (const { bag, kg, started_at } of rows) {
    const known = used.get(bag) ?? { since: 0, last: 0 }
    used.set(bag, { since: known.since + ((started_at ?? 0) >= since.get(bag)! ? kg : 0), last: kg })
  }
  return used
}

/** What casts really took, by mould: the mean over those whose batch was weighed and used up. */
async function mouldFills(scope: Scope): Promise<Map<string, { volume: number, casts: number }>> {
  const rows = await scope.select('cast_projection').select([sql<string>`body->>'mouldId'`.as('mould'), sql<number>`avg((body->>'took')::float8)`.as('volume'), sql<number>`count(*)::int`.as('casts')])
    .where(sql<boolean>`body->>'took' is not null`).groupBy(sql`body->>'mouldId'`).execute()
  return new Map(rows.map(r => [r.mould, { volume: r.volume, casts: r.casts }]))
}

/** A bag's last pours count; older ones have faded. */
const POURS_THAT_COUNT = 30

/** What pours taught of these bags, the newest first. What was taught while a bag was taken for another class of powder does not count: it was measured against that. */
async function bagsTaught(scope: Scope, bags: readonly { readonly id: string, readonly classId: PowderClassId }[]): Promise<Map<string, Taught[]>> {
  if (bags.length === 0) return new Map()
  const named = new Map(bags.map(b => [b.id, powderClass(b.classId).name]))
  const rows = await scope.select('pour_projection').select([sql<string>`body->>'bagId'`.as('bag'), sql<string>`body->>'powder'`.as('powder'), sql<Taught[]>`body->'taught'`.as('taught')])
    .where('status', '<>', 'abandoned').where(sql<boolean>`body->>'bagId' = any(${[...named.keys()]})`).where(sql<boolean>`jsonb_array_length(coalesce(body->'taught', '[]')) > 0`).orderBy('started_at', 'desc').execute()
  const found = new Map<string, Taught[]>()
  for (const { bag: id, powder, taught } of rows) {
    if (powder !== named.get(id)) continue
    const list = found.get(id) ?? []
    if (list.length < POURS_THAT_COUNT) list.push(...taught)
    found.set(id, list)
  }
  return found
}

export async function saveItem<K extends LibraryKind>(scope: Scope, kind: K, id: string, body: LibraryBodies[K], revision: number): Promise<LibraryItem<K>> {
  const row = revision === 0
    ? await scope.insert('library_item', [{ id, kind, body: JSON.stringify(body), archived_at: null }]).onConflict(c => c.column('id').doNothing()).returning(['id', 'revision']).executeTakeFirst()
    : await scope.update('library_item').set({ body: JSON.stringify(body) as never, revision: revision + 1 }).where('id', '=', id).where('kind', '=', kind).where('revision', '=', revision).returning(['id', 'revision']).executeTakeFirst()
  if (!row) throw new Stale()
  return { id, kind, body, revision: row.revision }
}

/** Archived rather than deleted: old pours keep what they froze. @returns false when there is no such thing. */
export async function archiveItem(scope: Scope, kind: LibraryKind, id: string): Promise<boolean> {
  const result = await scope.update('library_item').set({ archived_at: new Date() }).where('id', '=', id).where('kind', '=', kind).where('archived_at', 'is', null).executeTakeFirst()
  return result.numUpdatedRows > 0n
}

/** The moulds, bucket and bag that a plan names, as they are now. Unknown ids are simply not in it; the plan then explains itself. */
export async function worldOf(scope: Scope, plan: Plan): Promise<PlanWorld> {
  const ids = [...plan.fills.map(f => f.mould), plan.bucket, plan.bag].filter(id => id !== undefined)
  if (ids.length === 0) return { moulds: [] }
  const rows = await scope.select('library_item').select(['id', 'kind', 'body']).where('id', 'in', ids).execute()
  const find = <K extends LibraryKind>(kind: K, id: string | undefined) => {
    const row = rows.find(r => r.kind === kind && r.id === id)
    return row && { id: row.id, ...row.body as LibraryBodies[K] }
  }
  const bag = find('bag', plan.bag)
  return { moulds: plan.fills.flatMap(f => find('mould', f.mould) ?? []), bucket: find('bucket', plan.bucket), bag: bag && taughtBag(bag, (await bagsTaught(scope, [bag])).get(bag.id) ?? []) }
}

export async function savedPlans(scope: Scope): Promise<SavedPlan[]> {
  const rows = await scope.select('plan').select(['id', 'body', 'revision', 'updated_at']).where('archived_at', 'is', null).orderBy('updated_at', 'desc').limit(200).execute()
  return rows.map(r => ({ id: r.id, plan: r.body, revision: r.revision, updatedAt: r.updated_at.getTime() }))
}

/** @param revision the one this edit started from; 0 makes a new plan. @throws Stale when another device saved meanwhile. */
export async function savePlan(scope: Scope, id: string, plan: Plan, revision: number): Promise<SavedPlan> {
  const updated_at = new Date()
  const row = revision === 0
    ? await scope.insert('plan', [{ id, schema_version: PLAN_SCHEMA_VERSION, body: JSON.stringify(plan), updated_at, archived_at: null }]).onConflict(c => c.column('id').doNothing()).returning('revision').executeTakeFirst()
    : await scope.update('plan').set({ body: JSON.stringify(plan) as never, updated_at, revision: revision + 1 }).where('id', '=', id).where('revision', '=', revision).returning('revision').executeTakeFirst()
  if (!row) throw new Stale()
  return { id, plan, revision: row.revision, updatedAt: updated_at.getTime() }
}

export async function archivePlan(scope: Scope, id: string): Promise<boolean> {
  const result = await scope.update('plan').set({ archived_at: new Date() }).where('id', '=', id).where('archived_at', 'is', null).executeTakeFirst()
  return result.numUpdatedRows > 0n
}
