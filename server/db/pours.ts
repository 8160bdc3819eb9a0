import { sql } from 'kysely'
import type { DefectId } from '~core/pour/defects'
import type { PourEvent } from '~core/pour/events'
import type { CauseId, Confirmed } from '~core/pour/why'
import { castsOf, type FrozenRun } from '~core/pour/run'
import { summariseCasts, summarisePour, type CastSummary, type PourSummary } from '~core/pour/summary'
import { foldPour } from '~core/pour/timeline'
import type { CastRow, EventsAnswer, PourAnswer, PourRow, SentEvent } from '~shared/pour'
import type { Scope } from './scope'
import { announce, announceAll } from './announce'

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

/** All events of several pours. */
async function eventsOfAll(scope: Scope, pours: readonly string[]): Promise<Map<string, EventsAnswer>> {
  const found = new Map(pours.map(id => [id, { events: [] as PourEvent[], seq: 0 }]))
  if (pours.length === 0) return found
  for (const row of await scope.select('pour_event').select([...EVENT_COLUMNS, 'seq']).where('pour_id', 'in', pours).orderBy('seq').execute()) {
    const own = found.get(row.pour_id)!
    own.events.push(eventOf(row))
    own.seq = row.seq
  }
  return found
}

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

/** Writes what lists read of these pours: always the fold of all their events. Call with the pours' rows locked. */
async function project(scope: Scope, pours: readonly { readonly id: string, readonly run: FrozenRun, readonly events: readonly PourEvent[] }[]): Promise<void> {
  const folded = pours.map(({ id, run, events }) => {
    const state = foldPour(run, events)
    return { id, summary: summarisePour(run, state), casts: summariseCasts(run, state) }
  })
  await scope.insert('pour_projection', folded.map(({ id, summary }) => ({ pour_id: id, status: summary.status, started_at: summary.startedAt ?? null, body: JSON.stringify(summary) })))
    .onConflict(c => c.column('pour_id').doUpdateSet(eb => ({ status: eb.ref('excluded.status'), started_at: eb.ref('excluded.started_at'), body: eb.ref('excluded.body') }))).execute()
  // A run's casts never change, so that every one of them is written over.
  await scope.insert('cast_projection', folded.flatMap(({ id, casts }) => casts.map(c => ({ pour_id: id, cast_id: c.id, status: c.status, body: JSON.stringify(c) }))))
    .onConflict(c => c.columns(['pour_id', 'cast_id']).doUpdateSet(eb => ({ status: eb.ref('excluded.status'), body: eb.ref('excluded.body') }))).execute()
}

/** Appends events that are not there yet. @returns the workshop's counter after them, or 0 when all were known. */
async function append(scope: Scope, fresh: readonly { readonly pour: string, readonly event: SentEvent, readonly actor: string, readonly skewMs: number }[]): Promise<number> {
  if (fresh.length === 0) return 0
  const last = await scope.bumpEvents(fresh.length)
  await scope.insert('pour_event', fresh.map(({ pour, event: e, actor, skewMs }, i) => ({
    id: e.id, pour_id: pour, seq: last - fresh.length + 1 + i, batch: e.batch ?? null, kind: e.kind, version: e.version, data: JSON.stringify(e.data),
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
    if (await inner.select('pour_event').select('id').where('id', 'in', start.first.map(e => e.id)).executeTakeFirst()) throw new EventsRefused('An entry with this id already belongs to another pour.')
    const seq = await append(inner, start.first.map(event => ({ pour: start.id, event, actor: start.actor, skewMs: start.skewMs ?? 0 })))
    const { events } = await eventsOf(inner, start.id)
    await project(inner, [{ id: start.id, run: start.run, events }])
    await announce(trx, scope.workshopId, { what: 'pour', pour: start.id, seq })
  })
}

/** What one device sent for one pour, waiting to be written. */
interface Sent { readonly scope: Scope, readonly pour: string, readonly events: readonly SentEvent[], readonly actor: string, readonly skewMs: number, readonly resolve: (answer: EventsAnswer | undefined) => void, readonly reject: (error: unknown) => void }

/** Written together at most. */
const MOST_TOGETHER = 64
const waiting = new Map<string, Sent[]>()

/**
 * Takes what a device sends: new ids are appended, known ones acknowledged, projections refolded, all in one transaction.
 * A workshop's counter row lets one transaction write at a time; what arrives while one is under way goes together into the next, so that a class of
 * devices waits for one commit and not for each other's.
 * @returns all events of the pour, or undefined when there is no such pour. @throws EventsRefused
 */
export function recordEvents(scope: Scope, pour: string, events: readonly SentEvent[], actor: string, skewMs = 0): Promise<EventsAnswer | undefined> {
  return new Promise((resolve, reject) => {
    const sent: Sent = { scope, pour, events, actor, skewMs, resolve, reject }
    const line = waiting.get(scope.workshopId)
    if (line) {
      line.push(sent)
      return
    }
    waiting.set(scope.workshopId, [sent])
    void writeInTurn(scope.workshopId)
  })
}

async function writeInTurn(workshop: string): Promise<void> {
  const line = waiting.get(workshop)!
  while (line.length > 0) {
    const together = line.splice(0, MOST_TOGETHER)
    await writeTogether(together).catch(async (error) => {
      // One that the database cannot take must not take the others with it.
      for (const one of together) await (together.length > 1 ? writeTogether([one]) : Promise.reject(error)).catch(one.reject)
    })
  }
  waiting.delete(workshop)
}

/** A frozen run never changes: the last ones that were written to are kept, so that they are not read and parsed for each entry. */
const RUNS_KEPT = 200
const runs = new Map<string, FrozenRun>()

/** Locks pours and gives their runs; those that are not this workshop's are left out. */
async function locked(scope: Scope, pours: readonly string[]): Promise<Map<string, FrozenRun>> {
  const rows = await scope.select('pour').select('id').where('id', 'in', pours).orderBy('id').forUpdate().execute()
  const missing = rows.map(r => r.id).filter(id => !runs.has(id))
  if (missing.length > 0) for (const r of await scope.select('pour').select(['id', 'run']).where('id', 'in', missing).execute()) runs.set(r.id, r.run)
  const found = new Map(rows.map(({ id }) => [id, runs.get(id)!]))
  while (runs.size > RUNS_KEPT) runs.delete(runs.keys().next().value!)
  return found
}

async function writeTogether(together: readonly Sent[]): Promise<void> {
  const { scope } = together[0]!
  const refused = new Map<Sent, unknown>()
  const answers = await scope.transaction(async (inner, trx) => {
    const found = await locked(inner, [...new Set(together.map(s => s.pour))])
    const ids = together.flatMap(s => s.events.map(e => e.id))
    const owner = new Map(ids.length === 0 ? [] : (await inner.select('pour_event').select(['id', 'pour_id']).where('id', 'in', ids).execute()).map(r => [r.id, r.pour_id]))
    const fresh = together.flatMap((sent) => {
      const run = found.get(sent.pour)
      if (!run) return []
      try {
        checkAgainst(run, sent.events)
        if (sent.events.some(e => (owner.get(e.id) ?? sent.pour) !== sent.pour)) throw new EventsRefused('An entry with this id already belongs to another pour.')
      }
      catch (error) {
        refused.set(sent, error)
        return []
      }
      // The same entry twice, in one request or in two that came together, is one entry.
      return sent.events.flatMap((event) => {
        if (owner.has(event.id)) return []
        owner.set(event.id, sent.pour)
        return [{ pour: sent.pour, event, actor: sent.actor, skewMs: sent.skewMs }]
      })
    })
    const last = await append(inner, fresh)
    const all = await eventsOfAll(inner, [...found.keys()])
    const changed = new Set(fresh.map(f => f.pour))
    if (changed.size > 0) {
      await project(inner, [...changed].map(id => ({ id, run: found.get(id)!, events: all.get(id)!.events })))
      await announceAll(trx, scope.workshopId, [...changed].map(pour => ({ what: 'pour', pour, seq: last })))
    }
    return all
  })
  for (const sent of together) {
    if (refused.has(sent)) sent.reject(refused.get(sent))
    else sent.resolve(answers.get(sent.pour))
  }
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

/** What lists know of one pour and its casts. */
export async function castsOfPour(scope: Scope, pourId: string): Promise<{ readonly summary: PourSummary, readonly casts: readonly CastSummary[] } | undefined> {
  const pour = await scope.select('pour_projection').select('body').where('pour_id', '=', pourId).executeTakeFirst()
  const casts = pour && await scope.select('cast_projection').select('body').where('pour_id', '=', pourId).orderBy(sql`string_to_array(cast_id, '.')::int[]`).execute()
  return pour && { summary: pour.body, casts: casts!.map(c => c.body) }
}

const PAGE = 200
/** All pours with their casts, the oldest first, a page at a time. */
export async function* logbookPages(scope: Scope): AsyncGenerator<readonly { readonly summary: PourSummary, readonly casts: readonly CastSummary[] }[]> {
  let after: { started: number, id: string } | undefined
  for (;;) {
    let query = scope.select('pour_projection').select(['pour_id', 'body', sql<number>`coalesce(started_at, 0)`.as('started')])
    if (after) query = query.where(sql<boolean>`(coalesce(started_at, 0), pour_id) > (${after.started}, ${after.id}::uuid)`)
    const pours = await query.orderBy(sql`coalesce(started_at, 0)`).orderBy('pour_id').limit(PAGE).execute()
    if (pours.length === 0) return
    const casts = await scope.select('cast_projection').select(['pour_id', 'body']).where('pour_id', 'in', pours.map(p => p.pour_id)).orderBy(sql`string_to_array(cast_id, '.')::int[]`).execute()
    yield pours.map(p => ({ summary: p.body, casts: casts.filter(c => c.pour_id === p.pour_id).map(c => c.body) }))
    const last = pours.at(-1)!
    after = { started: last.started, id: last.pour_id }
  }
}

/** Casts that still need something, and those that came off the shelf after `since` (ms). */
export async function castRows(scope: Scope, since: number): Promise<CastRow[]> {
  const rows = await scope.select('cast_projection').innerJoin('pour_projection as p', 'p.pour_id', 'cast_projection.pour_id')
    .select(['cast_projection.pour_id as pour', 'cast_projection.body as cast', 'p.status as pourStatus', sql<string>`p.body->>'name'`.as('pourName')])
    .where(eb => eb.or([eb('cast_projection.status', '<>', 'finished'), eb(sql<number>`(cast_projection.body->>'finishedAt')::bigint`, '>', Math.round(since))]))
    .where('p.status', '<>', 'abandoned').execute()
  return rows.map(({ pour, pourName, cast }) => ({ pour, pourName, cast }))
}

/** Causes of defects that this workshop has confirmed, counted. */
export async function confirmedCauses(scope: Scope): Promise<Confirmed> {
  const rows = await scope.select('pour_projection').select(sql<{ defect: DefectId, cause: CauseId }>`jsonb_array_elements(coalesce(body->'causes', '[]'))`.as('found')).execute()
  const counts = new Map<string, { defect: DefectId, cause: CauseId, times: number }>()
  for (const { found } of rows) {
    const key = `${found.defect} ${found.cause}`, known = counts.get(key) ?? { ...found, times: 0 }
    counts.set(key, { ...known, times: known.times + 1 })
  }
  return [...counts.values()]
}
