import { EVENT_VERSION, type PourEvent } from '~core/pour/events'
import { castsOf, type FrozenRun } from '~core/plan/run'
import type { SentEvent } from '~contract/pour'
import { upcastEvent } from '~contract/versions'
import { Refused } from '../refused'
import { notTakenWords, type NotTaken } from '../words'
import type { Scope } from './scope'
import { readable } from './set-aside'

/** Finds what could never belong to this run, so that a fault in one device cannot pollute the record. */
export function faultFinder(run: FrozenRun): (e: SentEvent) => NotTaken | undefined {
  const casts = new Set(castsOf(run).map(c => c.id)), batches = run.batches.length
  return (e) => {
    if (e.batch !== undefined && e.batch >= batches) return { code: 'batch', batches, named: e.batch }
    if ('cast' in e.data && !casts.has(e.data.cast)) return { code: 'cast', named: e.data.cast }
    return undefined
  }
}

/** For a whole that is taken as it is or not at all. @throws Refused */
export function checkAgainst(run: FrozenRun, events: readonly SentEvent[]): void {
  const faultOf = faultFinder(run)
  for (const e of events) {
    const fault = faultOf(e)
    if (fault) throw new Refused('entries', undefined, notTakenWords(fault))
  }
}

/**
 * Appends events that the pours do not have yet. @param first the number of the first. @returns the ids that were
 * written: all but those that are another pour's already.
 */
export async function append(scope: Scope, first: number, fresh: readonly Fresh[]): Promise<ReadonlySet<string>> {
  if (fresh.length === 0) return new Set()
  const written = await scope.insert(
    'pour_event',
    fresh.map(({ pour, event: e, actor, skewMs, receivedAt }, i) => ({
      id: e.id,
      pour_id: pour,
      seq: first + i,
      batch: e.batch ?? null,
      kind: e.kind,
      version: e.version,
      data: JSON.stringify(e.data),
      happened_at: Math.round(e.happenedAt),
      recorded_at: Math.round(e.recordedAt),
      skew_ms: Math.round(skewMs),
      device: e.device,
      device_seq: e.deviceSeq,
      actor,
      mends: e.mends ?? null,
      doubt_ms: e.doubt ?? null,
      ...receivedAt && { received_at: receivedAt },
    })),
  ).onConflict(c => c.doNothing()).returning('id').execute()
  return new Set(written.map(r => r.id))
}
/** As `append`, for a whole that is taken as it is or not at all. @throws Refused */
export async function appendAll(scope: Scope, first: number, fresh: readonly Fresh[]): Promise<void> {
  if ((await append(scope, first, fresh)).size < fresh.length)
    throw new Refused('entries', undefined, notTakenWords({ code: 'elsewhere' }))
}
export interface Fresh {
  readonly pour: string
  readonly event: SentEvent
  readonly actor: string
  readonly skewMs: number
  readonly receivedAt?: Date
}

/** An event as it will be read back from its row. */
export function asRead({ pour, event: e, actor }: Fresh): PourEvent {
  return {
    ...e,
    pour,
    batch: e.batch,
    version: EVENT_VERSION,
    data: readable(upcastEvent(e.kind, e.version, JSON.parse(JSON.stringify(e.data)) as object)),
    happenedAt: Math.round(e.happenedAt),
    recordedAt: Math.round(e.recordedAt),
    actor,
  } as PourEvent
}

/** Which of these plans the workshop has. */
export async function plansHere(inner: Scope, ids: readonly (string | undefined)[]): Promise<ReadonlySet<string>> {
  const named = ids.filter(id => id !== undefined)
  const rows = named.length > 0 ? await inner.select('plan').select('id').where('id', 'in', named).execute() : []
  return new Set(rows.map(r => r.id))
}
export const planHere = (here: ReadonlySet<string>, id: string | undefined) =>
  id !== undefined && here.has(id) ? id : null
