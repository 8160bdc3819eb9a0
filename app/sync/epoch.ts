import type { PourEvent } from '~core/pour/events'
import { castsPerBatch } from '~core/plan/run'
import type { PourAnswer, SentEvent } from '~contract/pour'
import { ask, Refused } from './api'
import { keptOf, keptValue } from './kept'
import { epochHere, keepBegunAgain, keepEpoch, keepSentAgain, type Begun } from './outbox'
import { useCache } from './cache'
import { useRecords } from './records'
import { useSession } from './session'

/** An entry as its device sent it once. */
function asSent({ pour: _, actor: __, ...event }: PourEvent): SentEvent {
  return event as SentEvent
}

/** A whole pour that the server has no more, as it is sent when it begins. */
function asBegun(key: string, { id, run, planId, events, startedBy }: PourAnswer): Begun | undefined {
  const first = events.find(e => e.kind === 'stage' && e.data.stage === 'ready')
  if (!first) return undefined
  return {
    id,
    key,
    run,
    start: {
      id,
      planId,
      plan: run.plan,
      person: startedBy,
      startedAt: first.happenedAt,
      eventId: first.id,
      device: first.device,
      deviceSeq: first.deviceSeq,
      frozen: { world: run.world, casts: castsPerBatch(run) },
    },
    // The same shapes; what was frozen cannot be written to.
  } as unknown as Begun
}

/** What this person told of a pour that is kept here, and that the server does not have, waits to be sent again. */
async function lookAt(key: string, me: string, kept: PourAnswer): Promise<void> {
  const there = await ask('GET pours/:id', { params: { id: kept.id } }).catch((error: unknown) => {
    if (error instanceof Refused && error.ours && error.status === 404) return undefined
    throw error
  })
  const known = new Set(there?.events.map(e => e.id)),
    begun = there || kept.startedBy !== me ? undefined : asBegun(key, kept)
  if (begun) await keepBegunAgain(begun)
  const lost = kept.events.filter(e => e.actor === me && !known.has(e.id) && e.id !== begun?.start.eventId)
  await keepSentAgain(key, kept.id, lost.map(asSent))
}

/**
 * A database of another epoch was restored or moved, and may lack what it once confirmed: everything is read anew, and
 * what this person told from any device, as far as it is kept in this browser, is sent again. What is there already is
 * known there. Begun anew until it is done.
 */
export async function meetEpoch(epoch: string): Promise<void> {
  const session = useSession(), { key } = session, me = session.person?.id
  if (!epoch || !key || !me) return
  const before = await epochHere(key).catch(() => undefined)
  if (before === epoch) return
  if (before !== undefined) {
    try {
      for (const path of (await keptOf(key)).filter(p => /^pours\/[0-9a-f-]{36}$/.test(p))) {
        const kept = await keptValue<PourAnswer>(key, path)
        if (kept && Array.isArray(kept.events)) await lookAt(key, me, kept)
      }
    }
    catch {
      return
    }
    useCache().distrust()
    await useRecords().load()
  }
  await keepEpoch(key, epoch).catch(() => {})
}
