import { defineEventHandler, getMethod, getRequestHeader } from 'h3'
import { askedAt } from '../asked-at'
import { refuse } from '../route'

/**
 * Changes are taken only from the product's own pages: browsers say where a request comes from, and cannot be made to
 * lie about it.
 */
export default defineEventHandler((event) => {
  if (['GET', 'HEAD'].includes(getMethod(event)) || !event.path.startsWith('/api/')) return
  // A device’s bridge is no browser: it shows a secret of its own, and cookies count for nothing there.
  if (event.path === '/api/readings') return
  const site = getRequestHeader(event, 'sec-fetch-site')
  const origin = getRequestHeader(event, 'origin')
  const host = askedAt(event)?.host
  const sameOrigin = origin !== undefined && URL.canParse(origin) && new URL(origin).host === host
  if (site !== undefined ? site !== 'same-origin' : !sameOrigin)
    throw refuse(403, 'This change did not come from the workshop’s own pages, so it was not made.')
  if (origin !== undefined && !sameOrigin)
    throw refuse(403, 'This change did not come from the workshop’s own pages, so it was not made.')
})
