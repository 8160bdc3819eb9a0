import { sql } from 'kysely'
import type { PourEvent } from '~core/pour/events'
import { castsOf, type FrozenRun } from '~core/pour/run'
import { summariseCasts, summarisePour } from '~core/pour/summary'
import { foldPour } from '~core/pour/timeline'
import type { CastRow, EventsAnswer, PourAnswer, PourRow, SentEvent } from '~shared/pour'
import type { Scope } from './scope'
import { announce } from './announce'

/** Why events were not taken; nothing of the batch was written. */
export class EventsRefused extends Error {}

type EventRow = { id: string, pour_id: string, batch: number | null, kind: string, version: number, data: object, happened_at: number, recorded_at: number, device: string, device_seq: number, actor: string }

function eventOf(row: EventRow): PourEvent {
  return {
    id: row.id, pour: row.pour_id, batch: row.batch ?? undefined, kind: row.kind, version: 1, data: row.data,
    happenedAt: row.happened_at, recordedAt: row.recorded_at, device: row.device, deviceSeq: row.device_seq, actor: row.actor,
  } as PourEvent
}

const EVENT_COLUMNS = ['id', 'pour_id', 'batch', 'kind', 'version', 'data', 'happened_at', 'recorded_at', 'device', 'device_seq', 'actor'] as const

async function eventsOf(scope: Scope, pourId: string, after = 0): Promise<EventsAnswer> {
  const rows = await scope.select('pour_event').select([...EVENT_COLUMNS, 'seq']).where('pour_id', '=', pourId).where('seq', '>', after).orderBy('seq').execute()
  return { events: rows.map(eventOf), seq: rows.at(-1)?.seq ?? after }
}

/** Refuses what could never belong to this run, so that a fault in one device cannot pollute the record. */
function checkAgainst(run: FrozenRun, events: readonly SentEvent[]): void {
  const casts = new Set(castsOf(run).map(c => c.id))
  for (const e of events) {
    if (e.batch !== undefined && e.batch >= run.batches.length) throw new EventsRefused(`This pour has ${run.batches.length} batches; an entry names batch ${e.batch + 1}.`)
    if ('cast' in e.data && !casts.has(e.data.cast)) throw new EventsRefused(`This pour has no cast ${e.data.cast}.`)
  }
}

/** Replaces a pour's projections by the fold of all its events. Call with the pour's row locked. */
async function project(scope: Scope, pourId: string, run: FrozenRun): Promise<void> {
  const { events } = await eventsOf(scope, pourId)
  const state = foldPour(run, events)
  const summary = summarisePour(run, state)
  await scope.remove('pour_projection').where('pour_id', '=', pourId).execute()
  await scope.remove('cast_projection').where('pour_id', '=', pourId).execute()
  await scope.insert('pour_projection', [{ pour_id: pourId, status: summary.status, started_at: summary.startedAt ?? null, body: JSON.stringify(summary) }]).execute()
  await scope.insert('cast_projection', summariseCasts(run, state).map(c => ({ pour_id: pourId, cast_id: c.id, status: c.status, body: JSON.stringify(c) }))).execute()
}

async function append(scope: Scope, pourId: string, events: readonly SentEvent[], actor: string, skewMs: number): Promise<number> {
  if (events.length === 0) return 0
  const ids = events.map(e => e.id)
  const known = new Map((await scope.select('pour_event').select(['id', 'pour_id']).where('id', 'in', ids).execute()).map(r => [r.id, r.pour_id]))
  if ([...known.values()].some(p => p !== pourId)) throw new EventsRefused('An entry with this id already belongs to another pour.')
  const fresh = [...new Map(events.filter(e => !known.has(e.id)).map(e => [e.id, e])).values()]
  if (fresh.length === 0) return 0
  const last = await scope.bumpEvents(fresh.length)
  await scope.insert('pour_event', fresh.map((e, i) => ({
    id: e.id, pour_id: pourId, seq: last - fresh.length + 1 + i, batch: e.batch ?? null, kind: e.kind, version: e.version, data: JSON.stringify(e.data),
    happened_at: Math.round(e.happenedAt), recorded_at: Math.round(e.recordedAt), skew_ms: Math.round(skewMs), device: e.device, device_seq: e.deviceSeq, actor,
  }))).execute()
  return last
}

/** Starts a pour with its first event. Repeating the same start is harmless. */
export async function startPour(scope: Scope, start: { readonly id: string, readonly planId?: string, readonly run: FrozenRun, readonly first: readonly SentEvent[], readonly actor: string, readonly skewMs?: number }): Promise<void> {
  await scope.transaction(async (inner, trx) => {
    const made = await inner.insert('pour', [{ id: start.id, plan_id: start.planId ?? null, run: JSON.stringify(start.run), started_by: start.actor }]).onConflict(c => c.column('id').doNothing()).returning('id').execute()
    if (made.length === 0) {
      if (!await inner.select('pour').select('id').where('id', '=', start.id).executeTakeFirst()) throw new EventsRefused('This pour cannot be started here.')
      return
    }
    checkAgainst(start.run, start.first)
    const seq = await append(inner, start.id, start.first, start.actor, start.skewMs ?? 0)
    await project(inner, start.id, start.run)
    await announce(trx, scope.workshopId, { what: 'pour', pour: start.id, seq })
  })
}

/** Takes what a device sends: new ids are appended, known ones acknowledged, projections refolded, all in one transaction. @returns all events after `after`, or undefined when there is no such pour. */
export async function recordEvents(scope: Scope, pourId: string, events: readonly SentEvent[], actor: string, skewMs = 0): Promise<EventsAnswer | undefined> {
  return scope.transaction(async (inner, trx) => {
    const pour = await inner.select('pour').select('run').where('id', '=', pourId).forUpdate().executeTakeFirst()
    if (!pour) return undefined
    checkAgainst(pour.run, events)
    const seq = await append(inner, pourId, events, actor, skewMs)
    if (seq > 0) {
      await project(inner, pourId, pour.run)
      await announce(trx, scope.workshopId, { what: 'pour', pour: pourId, seq })
    }
    return eventsOf(inner, pourId)
  })
}

export async function pourWithEvents(scope: Scope, pourId: string): Promise<PourAnswer | undefined> {
  const pour = await scope.select('pour').select(['id', 'plan_id', 'run', 'started_by']).where('id', '=', pourId).executeTakeFirst()
  if (!pour) return undefined
  return { id: pour.id, planId: pour.plan_id ?? undefined, run: pour.run, startedBy: pour.started_by, ...await eventsOf(scope, pourId) }
}

export async function pourEventsAfter(scope: Scope, pourId: string, after: number): Promise<EventsAnswer | undefined> {
  if (!await scope.select('pour').select('id').where('id', '=', pourId).executeTakeFirst()) return undefined
  return eventsOf(scope, pourId, after)
}

/** Newest first. */
export async function pourRows(scope: Scope, limit = 500): Promise<PourRow[]> {
  const rows = await scope.select('pour_projection').select(['pour_id', 'body']).orderBy('started_at', 'desc').limit(limit).execute()
  return rows.map(r => ({ id: r.pour_id, summary: r.body }))
}

/** Casts that still need something, and those that came off the shelf after `since` (ms). */
export async function castRows(scope: Scope, since: number): Promise<CastRow[]> {
  const rows = await scope.select('cast_projection').innerJoin('pour_projection as p', 'p.pour_id', 'cast_projection.pour_id')
    .select(['cast_projection.pour_id as pour', 'cast_projection.body as cast', 'p.status as pourStatus', sql<string>`p.body->>'name'`.as('pourName')])
    .where(eb => eb.or([eb('cast_projection.status', '<>', 'finished'), eb(sql<number>`(cast_projection.body->>'finishedAt')::bigint`, '>', Math.round(since))]))
    .where('p.status', '<>', 'abandoned').execute()
  return rows.map(({ pour, pourName, cast }) => ({ pour, pourName, cast }))
}
