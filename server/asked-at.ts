import { getRequestURL, type H3Event } from 'h3'
import { believes } from './auth/place'

/**
 * The address under which this was asked for, as whoever stands in front of the server saw it; undefined when what the
 * request says of its host is no address. What a proxy says of it counts where the proxy was named.
 */
export function askedAt(event: H3Event): URL | undefined {
  try {
    const proxy = believes(event)
    return getRequestURL(event, { xForwardedHost: proxy, xForwardedProto: proxy })
  }
  catch {
    return undefined
  }
}
