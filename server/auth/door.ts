import type { IncomingMessage } from 'node:http'
import type { H3Event } from 'h3'
import ipaddr from 'ipaddr.js'
import { believes, isSecure } from './place'

/**
 * The door at which a request came in: plain http on this machine itself, plain http elsewhere (HOST, or a proxy of
 * somebody's own before it), https on the workshop's network, plain http there.
 */
export type Door = 'own' | 'elsewhere' | 'shared' | 'plain'
/**
 * How far a door can be trusted. `own`: nobody but this machine. `shared`: whoever is on the network, and nobody in
 * between. `plain`: whatever is told here can be read on the way, so nothing secret is.
 */
export type Trust = 'own' | 'shared' | 'plain'

const DOOR = Symbol('door')
type Marked = IncomingMessage & { [DOOR]?: Door }

export function markDoor(request: IncomingMessage, door: Door): void {
  (request as Marked)[DOOR] = door
}

/** @param host an address, or a name that every machine means itself by (RFC 6761, 6.3) */
export function isLoopback(host: string): boolean {
  const plain = host.replace(/^\[|\]$/g, '')
  if (plain === 'localhost' || plain.endsWith('.localhost')) return true
  return ipaddr.isValid(plain) && ipaddr.process(plain).range() === 'loopback'
}

/** How far the way is trusted that this request came. What a proxy adds counts only where the proxy was named. */
export function trustOf(event: H3Event): Trust {
  const { req } = event.node, door = (req as Marked)[DOOR]
  // The development server has one door, on loopback, and a proxy of its own before it.
  if (import.meta.dev || door === undefined) return 'own'
  if (door === 'shared' || door === 'plain') return door
  const proxied = req.headers['x-forwarded-for'] !== undefined || believes(event)
  if (door === 'own' && !proxied) return 'own'
  return isSecure(event) ? 'shared' : 'plain'
}
