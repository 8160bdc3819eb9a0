import { defineEventHandler, getMethod, sendRedirect, setResponseHeader, setResponseStatus, type H3Event } from 'h3'
import { GUEST_PAGES } from '~contract/guest-pages'
import { askedAt } from '../asked-at'
import { isLoopback, trustOf } from '../auth/door'
import { shared } from '../auth/shared'

/**
 * What plain http on the network serves, besides the files of the application, which are no secret: the page that helps
 * to https, whether this server is well, and a guest's pages, which ask nothing of this server, and a seat in a class.
 */
const PLAIN = /^\/(install|authority\.crt|health)(\?|$)/
/** A seat in a class is no account: a first name, for a day. */
const SEAT = /^\/api\/seat(\/(live|doing|results|kit|events))?(\?|$)/
const isPlainPage = (event: H3Event): boolean =>
  PLAIN.test(event.path) || SEAT.test(event.path) || (GUEST_PAGES.test(event.path) && ['GET', 'HEAD'].includes(getMethod(event)))

const NOT_OURS = 'This is not an address of this server. Open the one that stood in the window where it was started.'
const NO_HTTPS = 'Nothing secret is told over plain http. Start with bin/start --share, or put a proxy with https before this server and name it in NUXT_TRUSTED_PROXY.'
const byHttps = (address: string) => `Over plain http nothing secret is told. Open ${address} instead.`

/** By hand: whatever goes wrong later is told by its address. To whoever opened a page it is the sentence itself. */
function say(event: H3Event, status: number, sentence: string) {
  setResponseStatus(event, status)
  if (!event.path.startsWith('/api/')) {
    setResponseHeader(event, 'content-type', 'text/plain; charset=utf-8')
    return sentence
  }
  return { error: true, statusCode: status, data: { sentence } }
}

/**
 * Decides by the door what is behind it: on loopback all, but only under a name of this machine's own, so that no page
 * elsewhere can lend it another; on plain http no more than what helps to https.
 */
export default defineEventHandler((event) => {
  const trust = trustOf(event)
  if (trust === 'own' && !isLoopback(askedAt(event)?.hostname ?? '')) return say(event, 400, NOT_OURS)
  if (trust !== 'plain' || isPlainPage(event)) return
  const [address] = shared()?.facts.addresses ?? []
  if (event.path.startsWith('/api/') || !address)
    return say(event, 403, address ? byHttps(address) : NO_HTTPS)
  if (['GET', 'HEAD'].includes(getMethod(event))) return sendRedirect(event, '/install')
})
