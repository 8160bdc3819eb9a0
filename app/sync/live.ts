import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { LiveMessage } from '~contract/pour'
import { useRecords } from './records'
import { meetEpoch } from './epoch'
import { ownBuild } from './build'
import { useSession } from './session'
import { addressOf, ask } from './api'
import { useClock } from './clock'
import { SILENT_MS, streaming } from './stream'
import { onTabs, takeTurns, tellTabs, type Heard } from './tabs'

/** How often that is looked at. */
const LOOK_MS = 2500

type Message = LiveMessage | (Heard & { readonly what: 'caught-up' })

/** What is known of the server by what is heard of it. */
function hearing() {
  const connected = ref(true)
  /** When the server was last heard, on this device's own clock. */
  const heardAt = ref(Date.now())
  /** The stream is refused because nobody is signed in any more; the pour in hand goes on. */
  const signedOut = ref(false)
  /** The server runs another build than this page: said, and opened by hand alone. */
  const newer = ref(false)
  const listeners = new Set<(message: Message) => void>()
  /** A clock that was set, or a device that slept: the server's time is asked for anew. */
  function lookAtClock(): void {
    if (useClock().unsure()) void useClock().contact().catch(() => {})
  }
  function hear(message: LiveMessage | Heard): void {
    connected.value = message.what !== 'lost'
    if (message.what === 'lost') return void askWhy()
    signedOut.value = false
    heardAt.value = Date.now()
    if (message.what === 'beat') return
    if (message.what === 'caught-up') {
      newer.value ||= Boolean(message.build && ownBuild && message.build !== ownBuild)
      useRecords().hurry()
      if (useSession().kept) void useSession().load().catch(() => {})
      else lookAtClock()
    }
    if (message.what === 'clock' || message.what === 'people') void useSession().load().catch(() => {})
    for (const listener of listeners) listener(message)
  }
  /**
   * A stream does not say why it broke; who is here is not changed by asking: they may be in mid-pour. Whoever is
   * somebody else by now, or in another workshop, is signed out as far as this page goes.
   */
  async function askWhy(): Promise<void> {
    signedOut.value = await ask('GET session').then(s => s.person?.id !== useSession().person?.id, () => false)
  }
  /** @returns a function that stops listening. */
  function on(listener: (message: Message) => void): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }
  return { connected, heardAt, signedOut, newer, hear, lookAtClock, on }
}

/** The one stream of this browser: its tabs take turns to hear for all. */
function streamOf({ connected, heardAt, hear, lookAtClock }: ReturnType<typeof hearing>) {
  const key = () => useSession().key ?? ''
  let stream: ReturnType<typeof streaming> | undefined, giveUp: (() => void) | undefined
  let looking: ReturnType<typeof setInterval> | undefined, tried = 0
  /** This tab's turn to hear for all. @param taken from a tab that fell silent */
  function begin(): () => void {
    stream = streaming(addressOf('GET live'), (message) => {
      tellTabs({ what: 'live', key: key(), message })
      hear(message)
    }, epoch => meetEpoch(epoch))
    return () => {
      stream?.close()
      stream = undefined
    }
  }
  onTabs((message) => {
    if (giveUp && message.what === 'live' && message.key === key() && !stream) hear(message.message)
  })
  /** A stream that broke without a word, a device that slept, a tab that hears for all and was put to sleep. */
  function look(): void {
    if (connected.value) lookAtClock()
    if (Date.now() - heardAt.value < SILENT_MS) return
    connected.value = false
    if (document.visibilityState === 'hidden' || Date.now() - tried < SILENT_MS) return
    tried = Date.now()
    if (stream) stream.again()
    else {
      giveUp?.()
      giveUp = takeTurns('live', begin, true)
    }
  }
  /** A device that loses its network knows it before the stream does; when it is back, the stream is begun anew. */
  function lost(): void {
    connected.value = false
  }
  const back = () => stream?.again()
  function start(): void {
    if (giveUp) return
    addEventListener('offline', lost)
    addEventListener('online', back)
    document.addEventListener('visibilitychange', look)
    looking = setInterval(look, LOOK_MS)
    giveUp = takeTurns('live', begin)
  }
  function stop(): void {
    giveUp?.()
    giveUp = undefined
    clearInterval(looking)
    removeEventListener('offline', lost)
    removeEventListener('online', back)
    document.removeEventListener('visibilitychange', look)
  }
  return { start, stop }
}

/**
 * What changed elsewhere: one stream a browser, which its tabs pass on; also the honest answer to “are we connected?”.
 */
export const useLive = defineStore('live', () => {
  const heard = hearing(), { connected, signedOut, heardAt, newer, on } = heard
  return { connected, signedOut, heardAt, newer, on, ...streamOf(heard) }
})
