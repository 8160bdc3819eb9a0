import type { H3Event } from 'h3'
import { frameOf, openStream } from './event-stream'
import { subscribe } from './hub'

/** A stream of what one device measures. It ends with its session, and when the device is taken out. */
export function readingsOf(
  event: H3Event,
  workshop: string,
  device: string,
  of: { readonly session: string, readonly stillThere: () => Promise<boolean> },
): Promise<void> {
  return openStream(event, ({ push, end }) => subscribe(workshop, {
    device,
    home: null,
    session: of.session,
    read: line => push(frameOf(JSON.stringify(line))),
    tell: () => {},
    lost: end,
  }), () => frameOf('', { event: 'hello' }), of.stillThere)
}
