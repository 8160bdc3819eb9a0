import { defineEventHandler, getRequestHeader, setResponseHeader, setResponseStatus } from 'h3'
import { shared } from '../auth/shared'
import { installPage, kindOf } from '../install/page'

/** How a phone comes to trust this server; the same over plain http and https. */
export default defineEventHandler((event) => {
  const now = shared()
  setResponseHeader(event, 'content-type', now ? 'text/html; charset=utf-8' : 'text/plain; charset=utf-8')
  if (now) return installPage(now.facts.addresses, now.facts.fingerprint, kindOf(getRequestHeader(event, 'user-agent') ?? ''))
  setResponseStatus(event, 404)
  return 'This server is not shared on the network. Start it with bin/start --share.'
})
