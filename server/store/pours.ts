import { sql } from 'kysely'
import type { DefectId } from '~core/pour/defects'
import { EVENT_VERSION, type PourEvent } from '~core/pour/events'
import type { CauseId } from '~core/pour/causes'
import type { Confirmed } from '~core/logbook/why'
import type { CastSummary, PourSummary } from '~core/pour/projection'
import type { CastRow, EventsAnswer, PourAnswer, PourRow } from '~contract/pour'
import type { Scope } from './scope'
import { upcastEvent, upcastRun } from '~contract/versions'
import { readable } from './set-aside'

type EventRow = {
  id: string
  pour_id: string
  batch: number | null
  kind: string
  version: number
  data: object
  happened_at: number
  recorded_at: number
  device: string
  device_seq: number
  actor: string
  mends: string | null
  doubt_ms: number | null
}

export function eventOf(row: EventRow): PourEvent {
  return {
    id: row.id,
    pour: row.pour_id,
    batch: row.batch ?? undefined,
    kind: row.kind,
    version: EVENT_VERSION,
    data: readable(upcastEvent(row.kind, row.version, row.data)),
    happenedAt: row.happened_at,
    recordedAt: row.recorded_at,
    device: row.device,
    deviceSeq: row.device_seq,
    actor: row.actor,
    ...row.mends !== null && { mends: row.mends },
    ...row.doubt_ms !== null && { doubt: row.doubt_ms },
  } as PourEvent
}

export const EVENT_COLUMNS = [
  'id',
  'pour_id',
  'batch',
  'kind',
  'version',
  'data',
  'happened_at',
  'recorded_at',
  'device',
  'device_seq',
  'actor',
  'mends',
  'doubt_ms',
] as const

async function eventsOfPour(scope: Scope, pourId: string, after = 0): Promise<EventsAnswer> {
  const rows = await scope.select('pour_event').select([...EVENT_COLUMNS, 'seq']).where('pour_id', '=', pourId).where(
    'seq',
    '>',
    after,
  ).orderBy('seq').execute()
  return { events: rows.map(eventOf), seq: rows.at(-1)?.seq ?? after }
}

export async function pourWithEvents(scope: Scope, pourId: string): Promise<PourAnswer | undefined> {
  const pour = await scope.select('pour').select(['id', 'plan_id', 'run', 'started_by']).where('id', '=', pourId)
    .executeTakeFirst()
  if (!pour) return undefined
  return {
    id: pour.id,
    planId: pour.plan_id ?? undefined,
    run: readable(upcastRun(pour.run)),
    startedBy: pour.started_by,
    ...await eventsOfPour(scope, pourId),
  }
}

export async function pourEventsAfter(scope: Scope, pourId: string, after: number): Promise<EventsAnswer | undefined> {
  if (!await scope.select('pour').select('id').where('id', '=', pourId).executeTakeFirst()) return undefined
  return eventsOfPour(scope, pourId, after)
}

/** Newest first. */
export async function pourRows(scope: Scope, limit = 500): Promise<PourRow[]> {
  const rows = await scope.select('pour_projection').select(['pour_id', 'seq', 'body'])
    .orderBy('started_at', 'desc').limit(limit).execute()
  return rows.map(r => ({ id: r.pour_id, seq: r.seq, summary: r.body }))
}

/** What lists know of one pour and its casts. */
export async function castsOfPour(
  scope: Scope,
  pourId: string,
): Promise<{ readonly summary: PourSummary, readonly casts: readonly CastSummary[] } | undefined> {
  const pour = await scope.select('pour_projection').select('body').where('pour_id', '=', pourId).executeTakeFirst()
  const casts = pour
    && await scope.select('cast_projection').select('body').where('pour_id', '=', pourId).orderBy(
      sql`string_to_array(cast_id, '.')::int[]`,
    ).execute()
  return pour && { summary: pour.body, casts: casts!.map(c => c.body) }
}

const PAGE = 200
/** All pours with their casts, the oldest first, a page at a time. */
export async function* logbookPages(
  scope: Scope,
): AsyncGenerator<readonly { readonly summary: PourSummary, readonly casts: readonly CastSummary[] }[]> {
  let after: { started: number, id: string } | undefined
  for (;;) {
    let query = scope.select('pour_projection').select([
      'pour_id',
      'body',
      sql<number>`coalesce(started_at, 0)`.as('started'),
    ])
    if (after)
      query = query.where(sql<boolean>`(coalesce(started_at, 0), pour_id) > (${after.started}, ${after.id}::uuid)`)
    const pours = await query.orderBy(sql`coalesce(started_at, 0)`).orderBy('pour_id').limit(PAGE).execute()
    if (pours.length === 0) return
    const casts = await scope.select('cast_projection').select(['pour_id', 'body']).where(
      'pour_id',
      'in',
      pours.map(p => p.pour_id),
    ).orderBy(sql`string_to_array(cast_id, '.')::int[]`).execute()
    yield pours.map(p => ({ summary: p.body, casts: casts.filter(c => c.pour_id === p.pour_id).map(c => c.body) }))
    const last = pours.at(-1)!
    after = { started: last.started, id: last.pour_id }
  }
}

/** Casts that still need something, and those that came off the shelf after `since` (ms). Each part has its index. */
export async function castRows(scope: Scope, since: number): Promise<CastRow[]> {
  const casts = () => scope.select('cast_projection')
    .innerJoin('pour_projection as p', join => join
      .onRef('p.workshop_id', '=', 'cast_projection.workshop_id').onRef('p.pour_id', '=', 'cast_projection.pour_id'))
    .select([
      'cast_projection.pour_id as pour',
      'cast_projection.body as cast',
      sql<string>`p.body->>'name'`.as('pourName'),
    ])
  const standing = casts().where(sql<boolean>`cast_projection.status not in ('finished', 'abandoned')`)
  const finished = casts().where('cast_projection.status', '=', 'finished')
    .where('cast_projection.finished_at', '>', Math.round(since))
  const rows = await Promise.all([standing.execute(), finished.execute()])
  return rows.flat().map(({ pour, pourName, cast }) => ({ pour, pourName, cast }))
}

/** Causes of defects that this workshop has confirmed, counted. */
export async function confirmedCauses(scope: Scope): Promise<Confirmed> {
  const rows = await scope.select('tally').where('series', '=', 'cause')
    .select(['key', sql<number>`sum(casts)::int`.as('times')]).groupBy('key').orderBy('key').execute()
  return rows.filter(r => r.times > 0).map(({ key, times }) => {
    const [defect, cause] = key.split(' ') as [DefectId, CauseId]
    return { defect, cause, times }
  })
}
