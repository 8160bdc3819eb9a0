import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry } from 'prom-client'
import type { Pools } from './store/pools'

/** What monitoring tools read, in the open text format; on loopback only (server/routes/metrics.get.ts). */
export const registry = new Registry()
collectDefaultMetrics({ register: registry, prefix: 'ripples_' })

export const requests = new Counter({
  name: 'ripples_requests_total', help: 'Requests answered, by route and status.', labelNames: ['route', 'status'],
  registers: [registry],
})
/** Streams last as long as a page is open, and are not in it. */
export const durations = new Histogram({
  name: 'ripples_request_seconds', help: 'How long a request took, by route.', labelNames: ['route'],
  buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10], registers: [registry],
})
export const entries = new Counter({
  name: 'ripples_entries_stored_total', help: 'Entries of pours that were stored.', registers: [registry],
})
const streams = new Gauge({ name: 'ripples_streams', help: 'Streams that are open.', registers: [registry] })
const connections = new Gauge({
  name: 'ripples_database_connections', help: 'Connections to the database, and requests that wait for one.',
  labelNames: ['state'], registers: [registry],
})

/** Read when it is asked for. */
export async function metricsText(pool: Pools, open: number): Promise<string> {
  streams.set(open)
  for (const [state, count] of Object.entries(pool.count)) connections.set({ state }, count)
  return registry.metrics()
}
