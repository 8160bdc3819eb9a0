import { createEventStream, type H3Event } from 'h3'
import { useRuntimeConfig } from '#imports'
import type { Hello, LiveMessage } from '~contract/pour'
import { epochNow, subscribe } from './hub'

/** A browser that hears nothing for two and a half of these says that it may be stale. */
const HEARTBEAT_MS = 10_000
/** A browser comes back this soon after its stream ended. */
const COME_BACK_MS = 1000

/**
 * A stream of what changes in a workshop. The first message says which database and which build this is; a browser that
 * was away knows to catch up. It ends when the database is lost: the browser comes back when there is one.
 * @param show what this stream may say of a message: something, nothing, or that it is over.
 * @param of the session it ends with, and whether that is still there: it may have ended while this stream began
 */
export async function streamOf(
  event: H3Event,
  workshop: string,
  show: (message: LiveMessage) => object | undefined | 'end' | Promise<object | undefined | 'end'>,
  of?: { readonly session: string, readonly stillThere: () => Promise<boolean> },
): Promise<void> {
  const stream = createEventStream(event)
  const end = () => void stream.close().catch(() => {})
  const stop = await subscribe(workshop, {
    tell: message => void Promise.resolve(show(message)).then((shown) => {
      if (shown === 'end') end()
      else if (shown) return stream.push(JSON.stringify(shown))
    }).catch(end),
    lost: end,
    session: of?.session,
  })
  if (of && !await of.stillThere()) end()
  const heartbeat = setInterval(() => void stream.push({ event: 'beat', data: '' }), HEARTBEAT_MS)
  stream.onClosed(async () => {
    clearInterval(heartbeat)
    stop()
    await stream.close()
  })
  const hello: Hello = { epoch: epochNow(), build: useRuntimeConfig().app.buildId }
  void stream.push({ event: 'hello', data: JSON.stringify(hello), retry: COME_BACK_MS })
  return stream.send()
}
