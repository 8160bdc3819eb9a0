import { sentEventSchema, type Arriving, type Fate, type SentEvent, type TakenAnswer } from '~contract/pour'
import { plainly } from '~contract/zod'
import { notTakenWords } from '../words'
import { pourEventsAfter } from './pours'
import { recordEvents } from './recording'
import type { Scope } from './scope'

/** Entries as they arrive, each read for itself. */
function readEach(arriving: readonly Arriving[]): {
  readonly events: readonly SentEvent[]
  readonly refused: ReadonlyMap<string, Fate>
} {
  const events: SentEvent[] = [], refused = new Map<string, Fate>()
  for (const entry of arriving) {
    const read = sentEventSchema.safeParse(entry, { error: plainly })
    if (read.success) events.push(read.data)
    else {
      const fault = { code: 'unreadable', why: read.error.issues[0]!.message } as const
      refused.set(entry.id, { id: entry.id, fate: 'refused', code: fault.code, sentence: notTakenWords(fault) })
    }
  }
  return { events, refused }
}

/**
 * Takes what a device sends, each entry for itself: stored, known already, or refused with its reason.
 * @param sent as `recordEvents` takes it @returns undefined when there is no such pour
 */
export async function takeEntries(
  scope: Scope,
  pour: string,
  arriving: readonly Arriving[],
  sent: { readonly actor: string, readonly skewMs: number, readonly after: number },
): Promise<TakenAnswer | undefined> {
  const { events, refused } = readEach(arriving)
  const answer = events.length > 0
    ? await recordEvents(scope, pour, events, sent.actor, sent.skewMs, sent.after)
    : await pourEventsAfter(scope, pour, sent.after).then(known => known && { ...known, fates: [] })
  if (!answer) return undefined
  const taken = new Map(answer.fates.map(f => [f.id, f]))
  return { ...answer, fates: arriving.flatMap(({ id }) => taken.get(id) ?? refused.get(id) ?? []) }
}
