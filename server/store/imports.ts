import { sql } from 'kysely'
import {
  IMPORT_DAYS,
  isUnderWay,
  NO_IMPORT_COUNTS,
  type ImportCounts,
  type ImportKind,
  type ImportState,
  type ThingKind,
} from '~contract/import-state'
import type { ImportJob } from '~contract/import'
import { Refused } from '../refused'
import type { Scope } from './scope'

/** Nobody has said for so long that they work on it: whoever did is gone. */
const SILENT = '60 seconds'
const silent = sql<boolean>`(heard_at < now() - ${sql.lit(SILENT)}::interval)`
/** Told of, the newest first. */
const MOST_TOLD = 10

interface Fault { readonly sentence: string, readonly field?: string }
export interface Thing { readonly kind: ThingKind, readonly id: string, readonly version: number }

/** @throws Refused when another whole workshop is being brought in */
export async function beginImport(
  scope: Scope,
  job: { readonly id: string, readonly kind: ImportKind, readonly name: string, readonly by: string },
): Promise<void> {
  await scope.transaction(async (inner) => {
    // Of two at once, the second waits here and then sees the first.
    await inner.bumpEvents(0)
    const others = await inner.select('import_job').select(['kind', 'state']).where(silent, '=', false).execute()
    const busy = others.filter(o => isUnderWay(o.state))
    if (busy.length >= 4 || (job.kind === 'archive' && busy.some(o => o.kind === 'archive')))
      throw new Refused('imports-under-way')
    const { by, ...row } = job
    await inner.insert('import_job', [{ ...row, begun_by: by, state: 'waiting' }]).execute()
  })
}

/** Says how far one is. @returns whether it is still wanted */
export async function tellImport(
  scope: Scope,
  id: string,
  now: { readonly state?: ImportState, readonly share?: number, readonly counts?: ImportCounts } = {},
): Promise<boolean> {
  const { state, share, counts } = now
  const row = await scope.update('import_job').set({
    ...state && { state },
    ...share !== undefined && { share },
    ...counts && { counts: JSON.stringify(counts) },
    heard_at: sql`now()`,
  }).where('id', '=', id).returning('unwanted').executeTakeFirst()
  return row !== undefined && !row.unwanted
}

/** What became of one. */
export async function endImport(
  scope: Scope,
  id: string,
  state: ImportState,
  counts: ImportCounts,
  fault?: Fault,
): Promise<void> {
  await scope.update('import_job').set({
    state,
    share: 1,
    counts: JSON.stringify(counts),
    fault: fault ? JSON.stringify(fault) : null,
    unwanted: false,
  }).where('id', '=', id).execute()
}

/** Ends one whose worker is gone, if it did not end itself. */
export async function importBroke(scope: Scope, id: string, fault: Fault): Promise<void> {
  const row = await scope.select('import_job').select(['state', 'counts']).where('id', '=', id).executeTakeFirst()
  if (row && isUnderWay(row.state))
    await endImport(scope, id, 'broken', { ...NO_IMPORT_COUNTS, ...row.counts }, fault)
}

/** What the one that is under way brought, in the transaction that brings it. */
export async function rememberThings(inner: Scope, job: string, things: readonly Thing[]): Promise<void> {
  if (things.length > 0)
    await inner.insert('import_thing', things.map(thing => ({ ...thing, job_id: job }))).execute()
}

const own = (scope: Scope) =>
  scope.select('import_job').select(['id', 'kind', 'name', 'begun_by', 'state', 'share', 'counts', 'fault', 'made_at'])
    .select([silent.as('silent'), sql<number>`(select count(*)::int from import_thing t
      where t.workshop_id = import_job.workshop_id and t.job_id = import_job.id)`.as('things')])
    .where('made_at', '>', sql<Date>`now() - ${sql.lit(`${IMPORT_DAYS} days`)}::interval`)
type Row = Awaited<ReturnType<ReturnType<typeof own>['execute']>>[number]

const jobOf = (row: Row): ImportJob => ({
  id: row.id,
  kind: row.kind,
  name: row.name,
  by: row.begun_by,
  state: isUnderWay(row.state) && row.silent ? 'broken' : row.state,
  share: row.share,
  counts: { ...NO_IMPORT_COUNTS, ...row.counts },
  ...row.fault && { fault: row.fault },
  things: row.things,
  madeAt: row.made_at.getTime(),
})

/** What is being brought in and was lately, the newest first. */
export async function importsOf(scope: Scope): Promise<ImportJob[]> {
  return (await own(scope).orderBy('made_at', 'desc').limit(MOST_TOLD).execute()).map(jobOf)
}

export async function importOf(scope: Scope, id: string): Promise<ImportJob | undefined> {
  const row = await own(scope).where('id', '=', id).executeTakeFirst()
  return row && jobOf(row)
}

/** Asks whoever works on it to end. */
export async function askToEnd(scope: Scope, id: string): Promise<void> {
  await scope.update('import_job').set({ unwanted: true }).where('id', '=', id).execute()
}

/** Takes one up again, to take out what it brought. @returns false when it is under way */
export async function beginTakingOut(scope: Scope, id: string): Promise<boolean> {
  const row = await scope.update('import_job').set({
    state: 'taking-out', share: 0, fault: null, unwanted: false, heard_at: sql`now()`,
  }).where('id', '=', id).where(eb => eb.or([
    eb('state', 'in', ['done', 'given-up', 'refused', 'broken', 'taken-out', 'half-out']),
    eb(silent, '=', true),
  ])).returning('id').executeTakeFirst()
  return row !== undefined
}
