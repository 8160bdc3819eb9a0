import type { ShallowRef } from 'vue'
import { ref } from 'vue'
import type { PourEvent } from '~core/pour/events'
import { MOST_INT } from '~contract/limits'
import type { EventsAnswer, Fate, PourAnswer, TakenAnswer } from '~contract/pour'
import { ask, Refused } from '~/sync/api'
import {
  begunOf,
  begunTaken,
  markBegun,
  markRefused,
  putSettled,
  taken,
  waitingOf,
  type Begun,
  type Waiting,
} from '~/sync/outbox'
import { useChanges } from './changes'
import { useClock } from './clock'
import { endOf, firstLot, type End } from './fates'
import type { Change } from './kept-changes'
import { useSession } from './session'
import { settled } from './told-times'

const RETRY_FIRST_MS = 1000, RETRY_MOST_MS = 20_000

/** Ends that are about the browser and not about one pour: nothing else need be tried now. */
type Halt = Extract<End, 'away' | 'signed-out' | 'not-allowed'>
const isHalt = (end: End | 'taken'): end is Halt => ['away', 'signed-out', 'not-allowed'].includes(end)
/** What all pours wait for. */
const ALL = ''

/** One writer at a time across tabs where the browser can say so. */
function exclusively(work: () => Promise<void>): Promise<void> {
  const locks = globalThis.navigator?.locks
  return locks ? locks.request('outbox', work) : work()
}

/** Who waits how long after trouble: each time twice as long, until it goes well. */
function patience() {
  const waits = new Map<string, { readonly delay: number, readonly until: number }>()
  const until = (who: string) => waits.get(who)?.until ?? 0
  return {
    wait(who: string): void {
      const delay = Math.min(RETRY_MOST_MS, 2 * (waits.get(who)?.delay ?? RETRY_FIRST_MS / 2))
      waits.set(who, { delay, until: Date.now() + delay })
    },
    wentWell: (who: string) => waits.delete(who),
    forget: () => waits.clear(),
    isReady: (who: string) => Math.max(until(ALL), until(who)) <= Date.now(),
    /** How long the one that may go first still waits, ms. */
    first: (all: readonly string[]) =>
      Math.max(0, Math.min(...all.map(who => Math.max(until(ALL), until(who)))) - Date.now()),
  }
}

/** Whether this is what the server says to entries of this pour, and not what something in between says to anything. */
function isAnswer(answer: TakenAnswer | undefined, pour: string): answer is TakenAnswer {
  return Array.isArray(answer?.fates) && Array.isArray(answer.events) && answer.events.every(e => e.pour === pour)
}

/**
 * Sends what waits, pour by pour, each in order, one tab at a time. An entry leaves only when its own id is confirmed;
 * one that is refused is set aside alone.
 * @param had how far this browser has a pour already; undefined when it does not hold it
 * @param answered is told what the server says to a pour's entries: all that came `after` a number, and those that were
 *   sent
 * @param begun pours that were begun here: each is sent before its entries
 * @param started is told what the server made of one
 * @param changed is told when what waits is other than before
 * Changes to things are kept by changes.ts and sent from here, so that there is one order and one patience for all.
 */
export function sendingOf(
  waiting: ShallowRef<readonly Waiting[]>,
  begun: ShallowRef<readonly Begun[]>,
  had: (pour: string) => number | undefined,
  answered: (pour: string, answer: EventsAnswer, after: number) => void,
  started: (answer: PourAnswer) => void,
  changed: () => void,
) {
  const session = useSession(), clock = useClock(), changes = useChanges(), later = patience()
  /** Why nothing is sent at all just now. */
  const halted = ref<Halt>()
  /** What the server itself said why it cannot take anything now: its database is away, or its disk full. */
  const trouble = ref('')
  const unsent = () => waiting.value.filter(w => !w.refused)
  const isBegun = (pour: string) => begun.value.some(b => b.id === pour)
  /** Things first: a pour names its plan; then pours, then photos of what came of them. */
  function toSend(): string[] {
    const isOfPour = (c: Change) => c.target.what === 'photo' && 'pour' in c.target.of
    const waits = (c: Change) => c.target.what === 'photo' && 'pour' in c.target.of && isBegun(c.target.of.pour)
    const pours = new Set([...begun.value.filter(b => !b.refused).map(b => b.id), ...unsent().map(w => w.pour)])
    return [
      ...changes.ready.filter(c => !isOfPour(c)).map(c => c.name),
      ...pours,
      ...changes.ready.filter(c => isOfPour(c) && !waits(c)).map(c => c.name),
    ]
  }
  let sending: Promise<void> | undefined, timer: ReturnType<typeof setTimeout> | undefined
  function send(): Promise<void> {
    sending ??= exclusively(sendAll).finally(() => {
      sending = undefined
      clearTimeout(timer)
      // What did not fit, what failed, and what was told while the last answer was on its way.
      const left = toSend()
      if (left.length > 0) timer = setTimeout(() => void send(), later.first(left))
    })
    return sending
  }

  /** Another tab may have written in the meantime; what was told here during the reading must not be lost over it. */
  async function readAnew(key: string): Promise<void> {
    const stored = await waitingOf(key), known = new Set(stored.map(w => w.event.id)), starts = await begunOf(key)
    waiting.value = [...stored, ...waiting.value.filter(w => !known.has(w.event.id))].sort((a, b) => a.order - b.order)
    begun.value = [...starts, ...begun.value.filter(b => !starts.some(s => s.id === b.id))]
  }
  async function setAside(mine: readonly Waiting[], sentence: string): Promise<void> {
    await markRefused(mine, sentence)
    waiting.value = waiting.value.map(w => mine.includes(w) ? { ...w, refused: sentence } : w)
    changed()
  }
  /** Each entry by what became of it; one of which nothing was said stays. */
  async function settle(lot: readonly Waiting[], fates: readonly Fate[]): Promise<End | 'taken'> {
    const byId = new Map(fates.map(f => [f.id, f]))
    const done = lot.map(w => w.event.id).filter(id => ['stored', 'known'].includes(byId.get(id)?.fate ?? ''))
    await taken(done)
    waiting.value = waiting.value.filter(w => !done.includes(w.event.id))
    changed()
    for (const w of lot) {
      const fate = byId.get(w.event.id)
      if (fate?.fate === 'refused') await setAside([w], fate.sentence)
    }
    return lot.every(w => byId.has(w.event.id)) ? 'taken' : 'later'
  }
  /** What was sent and is there: the answer does not tell it where nothing was asked for. */
  function confirmed(pour: string, lot: readonly Waiting[], fates: readonly Fate[]): PourEvent[] {
    const there = new Set(fates.filter(f => f.fate !== 'refused').map(f => f.id)), actor = session.person?.id ?? ''
    return lot.filter(w => there.has(w.event.id)).map(w => ({ ...w.event, pour, actor } as PourEvent))
  }
  async function sendLot(pour: string, lot: readonly Waiting[]): Promise<End | 'taken'> {
    // Of a pour that is not held here, nothing is asked for.
    const after = had(pour) ?? MOST_INT
    try {
      const answer = await ask('POST pours/:id/events', {
        params: { id: pour },
        body: { sentAt: clock.read(), person: session.person?.id, after, events: lot.map(w => w.event) },
      })
      if (!isAnswer(answer, pour)) return 'later'
      trouble.value = ''
      answered(pour, { events: [...confirmed(pour, lot, answer.fates), ...answer.events], seq: answer.seq }, after)
      return await settle(lot, answer.fates)
    }
    catch (error) {
      if (!(error instanceof Refused)) return 'later'
      trouble.value = error.ours && error.status > 500 ? error.sentence : ''
      const end = endOf(error, lot.length)
      if (end === 'smaller') return sendHalves(pour, lot)
      if (end !== 'set-aside') return end
      await setAside(lot, error.sentence)
      return 'taken'
    }
  }
  /** A pour that was begun here goes first. One that is not taken takes its entries with it into the list of those. */
  async function sendBegun(start: Begun): Promise<End | 'taken'> {
    try {
      const answer = await ask('POST pours', { body: { ...start.start, sentAt: clock.read() } })
      if (answer?.id !== start.id || !Array.isArray(answer.events)) return 'later'
      trouble.value = ''
      started(answer)
    }
    catch (error) {
      if (!(error instanceof Refused)) return 'later'
      trouble.value = error.ours && error.status > 500 ? error.sentence : ''
      const end = endOf(error, 1)
      if (end !== 'set-aside') return end
      await markBegun(start, error.sentence)
      begun.value = begun.value.map(b => b === start ? { ...b, refused: error.sentence } : b)
      changed()
      return 'taken'
    }
    await begunTaken(start.id)
    begun.value = begun.value.filter(b => b.id !== start.id)
    changed()
    return 'taken'
  }
  async function sendPour(pour: string): Promise<End | 'taken'> {
    const start = begun.value.find(b => b.id === pour), begins = start && !start.refused ? await sendBegun(start) : 'taken'
    const refused = begun.value.find(b => b.id === pour)?.refused
    // What is told of it meanwhile comes the next time.
    if (refused) {
      await setAside(unsent().filter(w => w.pour === pour), refused)
      return begins
    }
    const lot = firstLot(unsent().filter(w => w.pour === pour))
    return begins !== 'taken' || lot.length === 0 ? begins : sendLot(pour, lot)
  }
  async function sendHalves(pour: string, lot: readonly Waiting[]): Promise<End | 'taken'> {
    const half = Math.ceil(lot.length / 2), first = await sendLot(pour, lot.slice(0, half))
    return first === 'taken' ? sendLot(pour, lot.slice(half)) : first
  }
  /** Before anything of it is sent, what was told in doubt of its time is put right. @returns false out of reach */
  async function settleTimes(): Promise<boolean> {
    if (![...waiting.value, ...begun.value].some(one => one.told)) return true
    const contact = await clock.contact().catch(() => 'away' as const)
    if (contact === 'away') return false
    // Signed out: what is sent now is told so, and waits as it is.
    if (!contact) return true
    const now = settled(waiting.value, begun.value, session.facts?.demo ? undefined : contact)
    await putSettled(now.waiting, now.begun)
    const entries = new Map(now.waiting.map(w => [w.event.id, w])), starts = new Map(now.begun.map(b => [b.id, b]))
    waiting.value = waiting.value.map(w => entries.get(w.event.id) ?? w)
    begun.value = begun.value.map(b => starts.get(b.id) ?? b)
    changed()
    return true
  }
  async function sendAll(): Promise<void> {
    if (!session.key || !later.isReady(ALL)) return
    await Promise.all([readAnew(session.key), changes.load()])
    if (!await settleTimes()) {
      halted.value = 'away'
      return later.wait(ALL)
    }
    for (const one of toSend()) {
      if (!later.isReady(one)) continue
      const end = await (changes.inHand(one) ? changes.send(one) : sendPour(one))
      halted.value = isHalt(end) ? end : undefined
      if (isHalt(end)) return later.wait(ALL)
      later.wentWell(ALL)
      if (end === 'taken') later.wentWell(one)
      else later.wait(one)
    }
  }

  /** Tries all at once: the server is back, or someone signed in. */
  function hurry(): void {
    later.forget()
    if (toSend().length > 0) void send()
  }
  changes.onKept(() => {
    void send()
    return later.isReady(ALL)
  })
  return { send, hurry, halted, trouble }
}
