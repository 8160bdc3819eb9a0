import { sql } from 'kysely'
import type { LibraryBodies, LibraryItem, LibraryKind } from '~contract/library'
import { PLAN_SCHEMA_VERSION, type SavedPlan } from '~contract/plan'
import type { PowderClassId } from '~core/gypsum/powders'
import type { Taught, Plan, PlanWorld } from '~core/plan/types'
import { agedBag } from '~core/gypsum/bag-age'
import { dayOfYear } from '~core/drying/places'
import { taughtBag } from '~core/forecast/observations'
import { withFace } from '~core/mould/gauge/face'
import type { Scope } from './scope'
import { Refused } from '../refused'
import { ITEMS, PLANS, upcast } from '~contract/versions'
import { readable } from './set-aside'

export async function libraryItems<K extends LibraryKind>(scope: Scope, kind: K): Promise<LibraryItem<K>[]> {
  const rows = await scope.select('library_item').select(['id', 'schema_version', 'body', 'revision']).where(
    'kind',
    '=',
    kind,
  ).where(
    'archived_at',
    'is',
    null,
  ).orderBy(sql`body->>'name'`).execute()
  const uses = kind === 'mould' ? await mouldUses(scope) : undefined
  const taught = kind === 'bag'
    ? await bagsTaught(scope, rows.map(r => ({ id: r.id, ...r.body as LibraryBodies['bag'] })))
    : undefined
  const used = kind === 'bag'
    ? await bagsUsed(scope, rows.map(r => ({ id: r.id, leftAt: (r.body as LibraryBodies['bag']).leftAt })))
    : undefined
  return rows.flatMap((r) => {
    const read = upcast(ITEMS[kind] as { readonly [P in K]: (typeof ITEMS)[P] }[K], r.schema_version, r.body)
    return read.ok ? [{ ...r, body: read.value as LibraryBodies[K] }] : []
  }).map(r => ({
    id: r.id,
    kind,
    body: r.body,
    revision: r.revision,
    ...(used?.has(r.id) && { used: used.get(r.id) }),
    ...(uses && { uses: uses.get(r.id)?.casts ?? 0, poured: uses.get(r.id)?.poured }),
    ...(taught && { taught: taught.get(r.id) ?? [] }),
  }))
}

/**
 * Casts filled in each mould of pours that were not given up, and what one took on the mean where its batch was weighed
 * and used up.
 */
async function mouldUses(
  scope: Scope,
): Promise<
  Map<string, { readonly casts: number, readonly poured?: { readonly volume: number, readonly casts: number } }>
> {
  const rows = await scope.select('tally').where('series', '=', 'mould').select([
    'key',
    sql<number>`sum(casts)::int`.as('casts'),
    sql<number>`sum(took_casts)::int`.as('taken'),
    sql<number>`sum(took_mm3)::float8`.as('took'),
  ]).groupBy('key').execute()
  return new Map(
    rows.map(
      r => [r.key, {
        casts: r.casts,
        poured: r.taken > 0 ? { volume: r.took / r.taken / 1e9, casts: r.taken } : undefined,
      }],
    ),
  )
}

/** Pours whose powder came from one of these bags. */
function fromOneOf(bags: Iterable<string>) {
  return sql<boolean>`found_by && ${[...bags].map(b => `bag:${b}`)}::text[]`
}

/** Powder that pours took out of these bags since it was said what is left in them. */
async function bagsUsed(
  scope: Scope,
  bags: readonly { readonly id: string, readonly leftAt?: number }[],
): Promise<Map<string, { since: number, last: number }>> {
  const since = new Map(bags.map(b => [b.id, b.leftAt ?? 0])), used = new Map<string, { since: number, last: number }>()
  if (bags.length === 0) return used
  const rows = await scope.select('pour_projection').select([
    'started_at',
    sql<string>`body->>'bagId'`.as('bag'),
    sql<number>`(body->>'powderUsed')::float8`.as('kg'),
  ])
    .where(fromOneOf(since.keys())).where(sql<boolean>`(body->>'powderUsed')::float8 > 0`).orderBy('started_at')
    .execute()
  for (const { bag, kg, started_at } of rows) {
    const known = used.get(bag) ?? { since: 0, last: 0 }
    used.set(bag, { since: known.since + ((started_at ?? 0) >= since.get(bag)! ? kg : 0), last: kg })
  }
  return used
}

/** A bag's last pours count; older ones have faded. */
const POURS_THAT_COUNT = 30

/**
 * What pours taught of these bags, the newest first. What was taught while a bag was taken for another class of powder
 * does not count: it was measured against that.
 */
async function bagsTaught(
  scope: Scope,
  bags: readonly { readonly id: string, readonly classId: PowderClassId }[],
): Promise<Map<string, Taught[]>> {
  if (bags.length === 0) return new Map()
  const classes = new Map(bags.map(b => [b.id, b.classId]))
  const rows = await scope.select('pour_projection').select([
    'started_at',
    sql<string>`body->>'bagId'`.as('bag'),
    sql<string>`body->>'classId'`.as('class'),
    sql<Taught[]>`body->'taught'`.as('taught'),
  ])
    .where('status', '<>', 'abandoned').where(fromOneOf(classes.keys())).where(
      sql<boolean>`jsonb_array_length(coalesce(body->'taught', '[]')) > 0`,
    ).orderBy('started_at', 'desc').execute()
  const found = new Map<string, Taught[]>()
  for (const { bag: id, class: poured, taught, started_at } of rows) {
    if (poured !== classes.get(id)) continue
    const list = found.get(id) ?? []
    if (list.length < POURS_THAT_COUNT) list.push(...taught.map(t => ({ ...t, at: started_at ?? 0 })))
    found.set(id, list)
  }
  return found
}

export async function saveItem<K extends LibraryKind>(
  scope: Scope,
  kind: K,
  id: string,
  body: LibraryBodies[K],
  revision: number,
): Promise<LibraryItem<K>> {
  const row = { schema_version: ITEMS[kind].version, body: JSON.stringify(body) as never }
  const made = revision === 0
    ? await scope.insert('library_item', [{ ...row, id, kind, archived_at: null }]).onConflict(c =>
        c.columns(['workshop_id', 'id']).doNothing(),
      ).returning(['id', 'revision']).executeTakeFirst()
    : await scope.update('library_item').set({ ...row, revision: revision + 1 }).where(
        'id',
        '=',
        id,
      ).where('kind', '=', kind).where('revision', '=', revision).where('archived_at', 'is', null)
        .returning(['id', 'revision']).executeTakeFirst()
  if (!made) throw new Refused('stale-item')
  return { id, kind, body, revision: made.revision }
}

/** Archived rather than deleted: old pours keep what they froze. @returns false when there is no such thing. */
export async function archiveItem(scope: Scope, kind: LibraryKind, id: string): Promise<boolean> {
  const result = await scope.update('library_item').set({ archived_at: new Date() }).where('id', '=', id).where(
    'kind',
    '=',
    kind,
  ).where('archived_at', 'is', null).executeTakeFirst()
  return result.numUpdatedRows > 0n
}

/**
 * The moulds, bucket and bag that a plan names, as they are now. Unknown ids are simply not in it; the plan then
 * explains itself.
 * @param now on the workshop's clock: bags age by it
 */
export async function worldOf(
  scope: Scope,
  plan: Pick<Plan, 'fills' | 'bucket' | 'bag'>,
  now: number,
): Promise<PlanWorld> {
  const ids = [...plan.fills.map(f => f.mould), plan.bucket, plan.bag].filter(id => id !== undefined)
  if (ids.length === 0) return { moulds: [] }
  const rows = await scope.select('library_item').select(['id', 'kind', 'schema_version', 'body']).where(
    'id',
    'in',
    ids,
  ).execute()
  const find = <K extends LibraryKind>(kind: K, id: string | undefined) => {
    const row = rows.find(r => r.kind === kind && r.id === id)
    const read = row && upcast<unknown>(ITEMS[kind], row.schema_version, row.body)
    return read?.ok ? { id: row!.id, ...read.value as LibraryBodies[K] } : undefined
  }
  const bag = find('bag', plan.bag)
  return {
    moulds: plan.fills.flatMap((f) => {
      const mould = find('mould', f.mould)
      return mould ? withFace(mould) : []
    }),
    bucket: find('bucket', plan.bucket),
    day: dayOfYear(now),
    bag: bag && taughtBag(agedBag(bag, now), (await bagsTaught(scope, [bag])).get(bag.id) ?? []),
  }
}

export async function savedPlans(scope: Scope): Promise<SavedPlan[]> {
  const rows = await scope.select('plan').select(['id', 'schema_version', 'body', 'revision', 'updated_at']).where(
    'archived_at',
    'is',
    null,
  ).orderBy('updated_at', 'desc').limit(200).execute()
  return rows.flatMap((r) => {
    const read = upcast(PLANS, r.schema_version, r.body)
    return read.ok ? [{ id: r.id, plan: read.value, revision: r.revision, updatedAt: r.updated_at.getTime() }] : []
  })
}

export async function savedPlan(scope: Scope, id: string): Promise<Plan | undefined> {
  const row = await scope.select('plan').select(['schema_version', 'body']).where('id', '=', id).executeTakeFirst()
  return row && readable(upcast(PLANS, row.schema_version, row.body))
}

/**
 * @param revision the one this edit started from; 0 makes a new plan. @throws Refused `stale-plan` when another device
 *   saved it or put it away meanwhile.
 */
export async function savePlan(scope: Scope, id: string, plan: Plan, revision: number): Promise<SavedPlan> {
  const updated_at = new Date()
  const row = revision === 0
    ? await scope.insert('plan', [{
        id,
        schema_version: PLAN_SCHEMA_VERSION,
        body: JSON.stringify(plan),
        updated_at,
        archived_at: null,
      }]).onConflict(c => c.columns(['workshop_id', 'id']).doNothing()).returning('revision').executeTakeFirst()
    : await scope.update('plan').set({
        schema_version: PLAN_SCHEMA_VERSION,
        body: JSON.stringify(plan) as never,
        updated_at,
        revision: revision + 1,
      }).where(
        'id',
        '=',
        id,
      ).where('revision', '=', revision).where('archived_at', 'is', null).returning('revision').executeTakeFirst()
  if (!row) throw new Refused('stale-plan')
  return { id, plan, revision: row.revision, updatedAt: updated_at.getTime() }
}

export async function archivePlan(scope: Scope, id: string): Promise<boolean> {
  const result = await scope.update('plan').set({ archived_at: new Date() }).where('id', '=', id).where(
    'archived_at',
    'is',
    null,
  ).executeTakeFirst()
  return result.numUpdatedRows > 0n
}
