import Bowser from 'bowser'
import { getRequestHeader, getRequestProtocol, type H3Event } from 'h3'
import proxyAddr from 'proxy-addr'
import { useRuntimeConfig } from '#imports'

/** From where a request comes, as far as it can be believed. */

let trust: { readonly said: string, readonly trusts: ReturnType<typeof proxyAddr.compile> } | undefined

function trusted(): ReturnType<typeof proxyAddr.compile> {
  const said = String(useRuntimeConfig().trustedProxy ?? '')
  if (trust?.said !== said) trust = { said, trusts: proxyAddr.compile(said.split(/[\s,]+/).filter(Boolean)) }
  return trust.trusts
}

/** Whether it comes from a proxy that was named in NUXT_TRUSTED_PROXY. */
export function believes(event: H3Event): boolean {
  const { remoteAddress } = event.node.req.socket
  return remoteAddress !== undefined && trusted()(remoteAddress, 0)
}

/**
 * The address of whoever asks. What a request says of itself is believed only from such proxies, and no further back
 * than they reach.
 */
export function placeOf(event: H3Event): string {
  try {
    return proxyAddr(event.node.req, trusted()).replace(/^::ffff:/, '')
  }
  catch {
    return event.node.req.socket.remoteAddress ?? 'unknown'
  }
}

/** Whether what this request brings can be read by nobody on the way. */
export function isSecure(event: H3Event): boolean {
  return getRequestProtocol(event, { xForwardedProto: believes(event) }) === 'https'
}

/** A browser in words that its person knows it by. @example 'Firefox on Android' */
export function deviceOf(event: H3Event): string {
  const said = getRequestHeader(event, 'user-agent') ?? ''
  if (!said) return ''
  const { browser, os } = Bowser.parse(said.slice(0, 400))
  return [browser.name, os.name].filter(Boolean).join(' on ').slice(0, 80)
}
