import type { EventsAnswer, LiveMessage } from '~contract/pour'
import type { Stands } from './changes'

/** What the tabs of one browser tell each other. `key` is whose it is: other people's tabs leave it alone. */
type TabMessage
  // What waits to be sent has changed: it is read anew.
  = | { readonly what: 'outbox', readonly key: string }
    // What the server said to a pour's entries.
    | { readonly what: 'answer', readonly key: string, readonly pour: string, readonly answer: EventsAnswer, readonly after: number }
    // What the server has now of a thing that was changed here.
    | { readonly what: 'stands', readonly key: string, readonly told: Stands }
    // What the one stream of this browser heard; `beat` is that it still hears.
    | { readonly what: 'live', readonly key: string, readonly message: LiveMessage | Heard }
/** Of the stream itself: it is there and what was missed has to be caught up with, it is still there, or it broke. */
export type Heard = { readonly what: 'caught-up', readonly build?: string } | { readonly what: 'beat' } | { readonly what: 'lost' }

const NAME = 'nine-ripples'
/** Nothing where the browser has none: then each tab reads for itself what it shows. */
const channel = typeof BroadcastChannel === 'function' ? new BroadcastChannel(NAME) : undefined
const listeners = new Set<(message: TabMessage) => void>()
if (channel) {
  channel.onmessage = ({ data }: MessageEvent<TabMessage>) => {
    for (const listener of listeners) listener(data)
  }
  // Under Node, where the stores are tested, it must not keep the process.
  ;(channel as { unref?: () => void }).unref?.()
}

/** Tells the other tabs. What goes in is copied: no reactive objects. */
export function tellTabs(message: TabMessage): void {
  channel?.postMessage(JSON.parse(JSON.stringify(message)))
}

export function onTabs(listener: (message: TabMessage) => void): void {
  listeners.add(listener)
}

/**
 * Lets one tab of this browser do something for all: whoever comes first does it until its tab closes, then another.
 * Where the browser has no locks (the page came over plain http), each tab does it for itself.
 * @param begin is told when this tab's turn comes; gives back what ends it
 * @returns a function that gives the turn up, or stops waiting for it
 */
export function takeTurns(name: string, begin: () => () => void, take = false): () => void {
  const locks = globalThis.navigator?.locks
  if (!locks || !channel) return begin()
  const waiting = new AbortController()
  let end: (() => void) | undefined, release = () => {}
  void locks.request(name, take ? { steal: true } : { signal: waiting.signal }, () => {
    if (waiting.signal.aborted) return undefined
    end = begin()
    return new Promise<void>((done) => {
      release = done
    })
    // Given up, or taken by a tab that heard nothing.
  }).catch(() => {}).finally(() => {
    end?.()
    end = undefined
  })
  return () => {
    waiting.abort()
    end?.()
    end = undefined
    release()
  }
}
