import { getRequestURL, type H3Event } from 'h3'

/**
 * The address under which this was asked for, as whoever stands in front of the server saw it; undefined when what the
 * request says of its host is no address.
 */
export function askedAt(event: H3Event): URL | undefined {
  try {
    return getRequestURL(event, { xForwardedHost: true, xForwardedProto: true })
  }
  catch {
    return undefined
  }
}
