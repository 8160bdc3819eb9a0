import type { Ref } from 'vue'
import type { PourEvent } from '~core/pour/events'
import { MOST_INT } from '~contract/limits'
import type { EventsAnswer, Fate, PourAnswer, TakenAnswer } from '~contract/pour'
import { ask, Refused } from './api'
import { useClock } from './clock'
import { endOf, firstLot, type End } from './fates'
import type { InHand, Settling } from './in-hand'
import type { Begun, Waiting } from './outbox'
import { useSession } from './session'

/** Who holds the pours: how far each is known, and what is told of what the server says. */
export interface Holder {
  /** How far this browser has a pour already; undefined when it does not hold it. */
  had(pour: string): number | undefined
  /** What the server says to a pour's entries: all that came `after` a number, and those that were sent. */
  answered(pour: string, answer: EventsAnswer, after: number): void
  /** What the server made of a pour that was begun here. */
  started(answer: PourAnswer): void
}

/** Whether this is what the server says to entries of this pour, and not what something in between says to anything. */
function isAnswer(answer: TakenAnswer | undefined, pour: string): answer is TakenAnswer {
  return Array.isArray(answer?.fates) && Array.isArray(answer.events) && answer.events.every(e => e.pour === pour)
}
/** What was sent and is there: the answer does not tell it where nothing was asked for. */
function confirmed(pour: string, lot: readonly Waiting[], fates: readonly Fate[], actor: string): PourEvent[] {
  const there = new Set(fates.filter(f => f.fate !== 'refused').map(f => f.id))
  return lot.filter(w => there.has(w.event.id)).map(w => ({ ...w.event, pour, actor } as PourEvent))
}

/**
 * What came of a request that was not answered as wanted.
 * @param entries in it @param trouble is told what the server says of itself @param setAside keeps what is refused
 */
async function endOfFailure(
  error: unknown,
  entries: number,
  trouble: Ref<string>,
  setAside: (sentence: string) => Promise<void>,
): Promise<End | 'taken'> {
  if (!(error instanceof Refused)) return 'later'
  trouble.value = error.ours && error.status > 500 ? error.sentence : ''
  const end = endOf(error, entries)
  if (end !== 'set-aside') return end
  await setAside(error.sentence)
  return 'taken'
}

/**
 * Sends one pour: first itself where it was begun here, then its entries in order.
 * @param trouble what the server itself said why it cannot take anything now: its database is away, or its disk full
 */
export function pourSending({ begun, unsent }: InHand, settling: Settling, holder: Holder, trouble: Ref<string>) {
  const session = useSession(), clock = useClock()
  async function sendLot(pour: string, lot: readonly Waiting[]): Promise<End | 'taken'> {
    // Of a pour that is not held here, nothing is asked for.
    const after = holder.had(pour) ?? MOST_INT, person = session.person?.id
    try {
      const answer = await ask('POST pours/:id/events', {
        params: { id: pour },
        body: { sentAt: clock.read(), person, after, events: lot.map(w => w.event) },
      })
      if (!isAnswer(answer, pour)) return 'later'
      trouble.value = ''
      const events = [...confirmed(pour, lot, answer.fates, person ?? ''), ...answer.events]
      holder.answered(pour, { events, seq: answer.seq }, after)
      return await settling.settle(lot, answer.fates) ? 'taken' : 'later'
    }
    catch (error) {
      const end = await endOfFailure(error, lot.length, trouble, sentence => settling.setAside(lot, sentence))
      return end === 'smaller' ? sendHalves(pour, lot) : end
    }
  }
  async function sendHalves(pour: string, lot: readonly Waiting[]): Promise<End | 'taken'> {
    const half = Math.ceil(lot.length / 2), first = await sendLot(pour, lot.slice(0, half))
    return first === 'taken' ? sendLot(pour, lot.slice(half)) : first
  }
  async function sendBegun(start: Begun): Promise<End | 'taken'> {
    try {
      const answer = await ask('POST pours', { body: { ...start.start, sentAt: clock.read() } })
      if (answer?.id !== start.id || !Array.isArray(answer.events)) return 'later'
      trouble.value = ''
      holder.started(answer)
    }
    catch (error) {
      return endOfFailure(error, 1, trouble, sentence => settling.markStarts([start], sentence))
    }
    await settling.isThere(start)
    return 'taken'
  }
  /** One that is not taken takes its entries with it into the list of those. */
  async function sendPour(pour: string): Promise<End | 'taken'> {
    const startOf = () => begun.value.find(b => b.id === pour), start = startOf()
    const begins = start && !start.refused ? await sendBegun(start) : 'taken', refused = startOf()?.refused
    const entries = unsent().filter(w => w.pour === pour)
    // What is told of it meanwhile comes the next time.
    if (refused) {
      await settling.setAside(entries, refused)
      return begins
    }
    return begins !== 'taken' || entries.length === 0 ? begins : sendLot(pour, firstLot(entries))
  }
  return { sendPour }
}
