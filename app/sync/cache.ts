import { defineStore } from 'pinia'
import { computed, shallowRef, watch, type ComputedRef, type ShallowRef } from 'vue'
import { EVENT_VERSION, type PourEvent } from '~core/pour/events'
import { foldPour, type PourState } from '~core/pour/fold'
import { summariseCasts, summarisePour, type CastSummary, type PourSummary } from '~core/pour/projection'
import type { EventsAnswer, PourAnswer } from '~contract/pour'
import { untilItWorks } from './again'
import { keepAnswer, remembered } from './kept'
import type { Begun } from './outbox'
import { useLive } from './live'
import { useRecords } from './records'
import { useSession } from './session'

/** A pour as this browser has it: with what waits here to be sent, and all that lists read of it. */
interface FoldedPour extends PourAnswer {
  readonly state: PourState
  /** Worked out when a list first asks. */
  readonly summary: PourSummary
  readonly casts: readonly CastSummary[]
}

function folded(pour: PourAnswer, pending: readonly PourEvent[]): FoldedPour {
  const { run } = pour, state = foldPour(run, [...pour.events, ...pending])
  let summary: PourSummary | undefined, casts: readonly CastSummary[] | undefined
  return {
    ...pour,
    state,
    get summary() {
      return summary ??= summarisePour(run, state)
    },
    get casts() {
      return casts ??= summariseCasts(run, state)
    },
  }
}

const byId = (events: readonly PourEvent[], more: readonly PourEvent[]) =>
  [...new Map([...events, ...more].map(e => [e.id, e])).values()]

/**
 * Asks for pours, each once at a time; what is told of while an answer is on its way is asked for again after it, and
 * until the server has said it.
 * @param ask whether what came is the server's answer, and not what was kept here
 */
function asking(ask: (pour: string) => Promise<boolean>) {
  const under = new Map<string, { readonly done: Promise<boolean>, again: boolean }>()
  const heard = new Map<string, () => void>()
  function load(pour: string): Promise<boolean> {
    const known = under.get(pour)
    if (known) return known.done
    const now = {
      again: false,
      done: ask(pour).finally(() => {
        under.delete(pour)
        if (now.again) loadNewer(pour)
      }),
    }
    under.set(pour, now)
    return now.done
  }
  function hear(pour: string): () => void {
    const known = heard.get(pour) ?? untilItWorks(() => load(pour))
    heard.set(pour, known)
    return known
  }
  /** There is something newer than what may be on its way. */
  function loadNewer(pour: string): void {
    const known = under.get(pour)
    if (known) known.again = true
    else hear(pour)()
  }
  return { load, loadNewer, under: (pour: string) => under.has(pour), allUnder: () => [...under.keys()] }
}

/** A pour that was begun here is known to nobody else yet. */
function begunHere({ id, key, run, start }: Begun): PourAnswer {
  const [startedBy = ''] = key.split('@')
  const first = {
    id: start.eventId,
    pour: id,
    kind: 'stage',
    data: { stage: 'ready', from: 'unbegun' },
    batch: 0,
    version: EVENT_VERSION,
    happenedAt: start.startedAt,
    recordedAt: start.startedAt,
    device: start.device,
    deviceSeq: start.deviceSeq,
    actor: startedBy,
  } as const
  return { id, planId: start.planId, run, startedBy, events: [first], seq: 0 }
}

/** Pours as they are held, and what was told of others. @param who whose they are */
function holding(who: () => string) {
  const held = shallowRef<ReadonlyMap<string, PourAnswer>>(new Map())
  const loose = shallowRef<ReadonlyMap<string, readonly PourEvent[]>>(new Map())
  function put(pour: PourAnswer): void {
    held.value = new Map(held.value).set(pour.id, pour)
    // What was taken has left the outbox: without a network it must be here.
    void keepAnswer(who(), 'GET pours/:id', { params: { id: pour.id } }, pour)
  }
  /** @param from the entries are all that came after this number @returns false when some before them are missing */
  function merge(id: string, answer: EventsAnswer, from = 0): boolean {
    const pour = held.value.get(id)
    if (!pour) {
      loose.value = new Map(loose.value).set(id, byId(loose.value.get(id) ?? [], answer.events))
      return true
    }
    const whole = from <= pour.seq
    put({ ...pour, events: byId(pour.events, answer.events), seq: whole ? Math.max(pour.seq, answer.seq) : pour.seq })
    return whole
  }
  /** Held from a database that is no more: the next answer is all there is. */
  const distrusted = new Set<string>()
  function distrust(): void {
    for (const id of held.value.keys()) distrusted.add(id)
    loose.value = new Map()
  }
  /** The server's answer to a whole pour, with what was heard of it since. */
  function putWhole(answer: PourAnswer): void {
    const { id } = answer, known = distrusted.delete(id) ? undefined : held.value.get(id)
    const events = byId(answer.events, [...known?.events ?? [], ...loose.value.get(id) ?? []])
    loose.value = new Map([...loose.value].filter(([pour]) => pour !== id))
    put({ ...answer, events, seq: Math.max(answer.seq, known?.seq ?? 0) })
  }
  let lent: ReadonlySet<string> = new Set()
  /** What a link lets one see, in place of what it showed before: neither kept here nor merged with anything. */
  function show(pours: readonly Pick<PourAnswer, 'id' | 'run' | 'events'>[]): void {
    const own = [...held.value].filter(([id]) => !lent.has(id))
    lent = new Set(pours.map(p => p.id))
    held.value = new Map([...own, ...pours.map(p => [p.id, { ...p, startedBy: '', seq: 0 }] as const)])
  }
  /** Taken out again, with the file that brought them. */
  function drop(pours: readonly string[]): void {
    if (!pours.some(id => held.value.has(id))) return
    const gone = new Set(pours)
    held.value = new Map([...held.value].filter(([id]) => !gone.has(id)))
  }
  function clear(): void {
    held.value = new Map()
    loose.value = new Map()
  }
  return { held, loose, put, putWhole, merge, distrust, show, drop, clear }
}

/** @returns a pour as it is now; undefined while it is not held */
function foldingOf(held: ShallowRef<ReadonlyMap<string, PourAnswer>>, pendingOf: (id: string) => readonly PourEvent[]) {
  const folds = new Map<string, ComputedRef<FoldedPour | undefined>>()
  return (id: string): FoldedPour | undefined => {
    let fold = folds.get(id)
    if (!fold) {
      // Entries of other pours come and go: this one is folded anew only for its own.
      const pour = computed(() => held.value.get(id)), pending = pendingKept(() => pendingOf(id))
      folds.set(id, fold = computed(() => pour.value && folded(pour.value, pending.value)))
    }
    return fold.value
  }
}

/**
 * The pours that this browser holds whole, each once: everything that shows a pour reads it here, and whatever is heard
 * of one, from the server or from another tab, is merged here and nowhere else. Of pours that are not held, what was
 * told since is kept until they are.
 */
export const useCache = defineStore('cache', () => {
  const records = useRecords(), live = useLive(), who = () => useSession().key ?? ''
  const { held, loose, put, putWhole, merge, distrust, show, drop, clear } = holding(who)
  const asked = asking(async (id) => {
    if (records.begun.some(b => b.id === id)) return true
    const { value: answer, fromHere } = await remembered(who(), 'GET pours/:id', { params: { id } })
    if (held.value.has(id) && fromHere) return false
    putWhole(answer)
    return !fromHere
  })
  function hear(id: string, answer: EventsAnswer, from?: number): void {
    if (!merge(id, answer, from)) asked.loadNewer(id)
  }
  watch(() => records.begun, (list) => {
    for (const begun of list) if (!held.value.has(begun.id)) put(begunHere(begun))
  }, { immediate: true, flush: 'sync' })
  // Nobody finds here what somebody else had open.
  watch(() => useSession().key, clear, { flush: 'sync' })
  records.onStarted(answer => hear(answer.id, answer))
  records.onAnswer((pour, answer, after) => hear(pour, answer, after))
  records.knows(id => held.value.get(id)?.seq)
  live.on((message) => {
    if (message.what === 'caught-up')
      for (const id of new Set([...held.value.keys(), ...asked.allUnder()])) asked.loadNewer(id)
    if (message.what === 'gone') drop(message.pours)
    if (message.what !== 'pour') return
    // The answer that is on its way may be older than this.
    if (asked.under(message.pour)) asked.loadNewer(message.pour)
    else if (!held.value.has(message.pour)) return
    else if (message.events) hear(message.pour, { events: message.events, seq: message.seq }, message.after)
    else if (message.seq > held.value.get(message.pour)!.seq) asked.loadNewer(message.pour)
  })
  const pourOf = foldingOf(held, id => records.pendingOf(id))
  return { held, loose, pourOf, load: asked.load, loadNewer: asked.loadNewer, show, distrust }
})

/** A list that stays the same thing while it says the same. */
function pendingKept(list: () => readonly PourEvent[]): ComputedRef<readonly PourEvent[]> {
  return computed<readonly PourEvent[]>((before) => {
    const now = list()
    const isSame = (e: PourEvent, i: number) => e.id === before![i]!.id && e.happenedAt === before![i]!.happenedAt
    return before?.length === now.length && now.every(isSame) ? before : now
  })
}
