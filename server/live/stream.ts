import type { H3Event } from 'h3'
import { useRuntimeConfig } from '#imports'
import type { Hello, LiveMessage } from '~contract/pour'
import { frameOf, openStream } from './event-stream'
import { epochNow, subscribe } from './hub'

/** A browser comes back this soon after its stream ended. */
const COME_BACK_MS = 1000

/** Which workshop is heard, and where its records are. */
interface Heard { readonly workshop: string, readonly home: string | null }

/**
 * A stream of what changes in a workshop. The first message says which database and which build this is; a browser that
 * was away knows to catch up. It ends when the database is lost: the browser comes back when there is one.
 * @param show what this stream may say of a message: something, nothing, or that it is over.
 * @param of the session it ends with, and whether that is still there: it may have ended while this stream began
 */
export function streamOf(
  event: H3Event,
  { workshop, home }: Heard,
  show: (message: LiveMessage) => object | undefined | 'end' | Promise<object | undefined | 'end'>,
  of?: { readonly session: string, readonly stillThere: () => Promise<boolean> },
): Promise<void> {
  return openStream(event, ({ push, end }) => subscribe(workshop, {
    tell: message => void Promise.resolve(show(message)).then((shown) => {
      if (shown === 'end') end()
      else if (shown) push(framed(shown))
    }).catch(end),
    lost: end,
    home,
    session: of?.session,
  }), () => hello(home), of?.stillThere)
}

/** A seat’s stream: counted with its class, so that no class closes the workshop’s own pages. */
export function classStreamOf(
  event: H3Event,
  { workshop, home }: Heard,
  ofClass: string,
  show: (message: LiveMessage) => Promise<object | undefined | 'end'>,
): Promise<void> {
  return openStream(event, ({ push, end }) => subscribe(workshop, {
    tell: message => void show(message).then((shown) => {
      if (shown === 'end') end()
      else if (shown) push(framed(shown))
    }).catch(end),
    lost: end,
    home,
    class: ofClass,
  }), () => hello(home))
}

function hello(home: string | null): string {
  const said: Hello = { epoch: epochNow(home), build: useRuntimeConfig().app.buildId }
  return frameOf(JSON.stringify(said), { event: 'hello', retry: COME_BACK_MS })
}

/** Written down once for all the streams that are told the same. */
const frames = new WeakMap<object, string>()
function framed(message: object): string {
  const known = frames.get(message) ?? frameOf(JSON.stringify(message))
  frames.set(message, known)
  return known
}
