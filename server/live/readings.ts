import { createEventStream, type H3Event } from 'h3'
import { subscribe } from './hub'

/** Shorter than any browser or proxy waits: a scale that is off says nothing for long. */
const HEARTBEAT_MS = 10_000

/** A stream of what one device measures. It ends with its session, and when the device is taken out. */
export async function readingsOf(
  event: H3Event,
  workshop: string,
  device: string,
  of: { readonly session: string, readonly stillThere: () => Promise<boolean> },
): Promise<void> {
  const stream = createEventStream(event), end = () => void stream.close().catch(() => {})
  const stop = await subscribe(workshop, {
    device,
    session: of.session,
    read: line => void stream.push(JSON.stringify(line)).catch(end),
    tell: () => {},
    lost: end,
  })
  if (!await of.stillThere()) end()
  const heartbeat = setInterval(() => void stream.push({ event: 'beat', data: '' }), HEARTBEAT_MS)
  stream.onClosed(async () => {
    clearInterval(heartbeat)
    stop()
    await stream.close()
  })
  void stream.push({ event: 'hello', data: '' })
  return stream.send()
}
