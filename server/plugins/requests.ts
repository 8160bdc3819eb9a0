import { randomUUID } from 'node:crypto'
import { setResponseHeader } from 'h3'
import { defineNitroPlugin } from '#imports'
import { ROUTE_HEADER } from '~contract/route-header'
import { ROUTES, type RouteName } from '~contract/routes'
import type { Contract } from '~contract/routes/route'
import { log } from '../log'
import { durations, requests } from '../metrics'

const isStream = (route: string) => (ROUTES[route as RouteName] as Contract | undefined)?.gives === 'text/event-stream'

/** Every request of the interface has an id, which its answer and its line in the log bear; refusals have one too. */
export default defineNitroPlugin((nitro) => {
  nitro.hooks.hook('request', (event) => {
    if (!event.path.startsWith('/api/')) return
    const id = randomUUID(), began = performance.now(), { res } = event.node
    ;(event.context as { requestId?: string }).requestId = id
    setResponseHeader(event, 'x-request-id', id)
    res.once('close', () => {
      const route = String(res.getHeader(ROUTE_HEADER) ?? 'none'), status = res.statusCode
      const ms = Math.round(performance.now() - began)
      requests.inc({ route, status })
      if (!isStream(route)) durations.observe({ route }, ms / 1000)
      log.info({ id, route, status, ms })
    })
  })
})
