import { ref } from 'vue'
import { useChanges } from './changes'
import { useClock } from './clock'
import type { End } from './fates'
import { settlingOf, type InHand } from './in-hand'
import type { Change } from './kept-changes'
import { ALL, patience } from './patience'
import { pourSending, type Holder } from './pour-sending'
import { isGuestKey } from './guest'
import { useSession } from './session'
import { settled } from './told-times'

/** Ends that are about the browser and not about one pour: nothing else need be tried now. */
type Halt = Extract<End, 'away' | 'signed-out' | 'not-allowed'>
const isHalt = (end: End | 'taken'): end is Halt => ['away', 'signed-out', 'not-allowed'].includes(end)

/** One writer at a time across tabs where the browser can say so. */
function exclusively(work: () => Promise<void>): Promise<void> {
  const locks = globalThis.navigator?.locks
  return locks ? locks.request('outbox', work) : work()
}

/** What is to be sent, in order. Things first: a pour names its plan; then pours, then photos of what came of them. */
function toSend({ begun, unsent }: InHand, changes: readonly Change[]): string[] {
  const pourOf = ({ target }: Change) => target.what === 'photo' && 'pour' in target.of ? target.of.pour : undefined
  const pours = new Set([...begun.value.filter(b => !b.refused).map(b => b.id), ...unsent().map(w => w.pour)])
  return [
    ...changes.filter(c => pourOf(c) === undefined).map(c => c.name),
    ...pours,
    ...changes.filter(c => pourOf(c) !== undefined && !begun.value.some(b => b.id === pourOf(c))).map(c => c.name),
  ]
}

/**
 * Sends what waits, pour by pour, each in order, one tab at a time. An entry leaves only when its own id is confirmed;
 * one that is refused is set aside alone. Changes to things are kept by changes.ts and sent from here, so that there is
 * one order and one patience for all.
 */
export function sendingOf(hand: InHand, holder: Holder) {
  const session = useSession(), clock = useClock(), changes = useChanges(), later = patience()
  /** Why nothing is sent at all just now. */
  const halted = ref<Halt>(), trouble = ref('')
  const settling = settlingOf(hand), { sendPour } = pourSending(hand, settling, holder, trouble)
  let sending: Promise<void> | undefined, timer: ReturnType<typeof setTimeout> | undefined
  function send(): Promise<void> {
    // What a guest tells stays here.
    if (isGuestKey(session.key)) return Promise.resolve()
    sending ??= exclusively(sendAll).finally(() => {
      sending = undefined
      clearTimeout(timer)
      // What did not fit, what failed, and what was told while the last answer was on its way.
      const left = toSend(hand, changes.ready)
      if (left.length > 0) timer = setTimeout(() => void send(), later.first(left))
    })
    return sending
  }
  /** Before anything of it is sent, what was told in doubt of its time is put right. @returns false out of reach */
  async function settleTimes(): Promise<boolean> {
    if (![...hand.waiting.value, ...hand.begun.value].some(one => one.told)) return true
    const contact = await clock.contact().catch(() => 'away' as const)
    if (contact === 'away') return false
    // Signed out: what is sent now is told so, and waits as it is.
    if (contact)
      await settling.putRight(settled(hand.waiting.value, hand.begun.value, session.facts?.demo ? undefined : contact))
    return true
  }
  async function sendAll(): Promise<void> {
    if (!session.key || !later.isReady(ALL)) return
    await Promise.all([hand.readMore(session.key), changes.load()])
    if (!await settleTimes()) {
      halted.value = 'away'
      return later.wait(ALL)
    }
    for (const one of toSend(hand, changes.ready)) {
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
    if (toSend(hand, changes.ready).length > 0) void send()
  }
  changes.onKept(() => {
    void send()
    return later.isReady(ALL) && !isGuestKey(session.key)
  })
  return { send, hurry, halted, trouble, settling }
}
