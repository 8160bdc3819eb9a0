import { createEventStream, type H3Event } from 'h3'
import type { LiveMessage } from '~contract/pour'
import { subscribe } from './hub'

const HEARTBEAT_MS = 20_000

/**
 * A stream of what changes in a workshop. The first message says where its counter stands, so that a browser that was
 * away knows to catch up.
 * @param show what this stream may say of a message: something, nothing, or that it is over.
 */
export async function streamOf(
  event: H3Event,
  workshop: string,
  seq: number,
  show: (message: LiveMessage) => object | undefined | 'end' | Promise<object | undefined | 'end'>,
): Promise<void> {
  const stream = createEventStream(event)
  const stop = await subscribe(workshop, message => void Promise.resolve(show(message)).then((shown) => {
    if (shown === 'end') return stream.close()
    if (shown) return stream.push(JSON.stringify(shown))
  }).catch(() => stream.close()))
  const heartbeat = setInterval(() => void stream.push({ event: 'beat', data: '' }), HEARTBEAT_MS)
  stream.onClosed(async () => {
    clearInterval(heartbeat)
    stop()
    await stream.close()
  })
  void stream.push({ event: 'hello', data: String(seq) })
  return stream.send()
}
