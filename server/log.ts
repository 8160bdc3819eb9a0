import pino from 'pino'

/**
 * The server’s log: one line of JSON for each request and each error, to standard output, where whoever starts it
 * keeps it (bin/start: .data/logs, rotated). Requests stand in it by the name of their route, whose parameters may be
 * secrets; of an error what it was and where, never the values that were in hand.
 */
export const log = pino({
  level: process.env.LOG_LEVEL ?? 'info',
  base: undefined,
  timestamp: pino.stdTimeFunctions.isoTime,
  formatters: { level: label => ({ level: label }) },
})

/** PostgreSQL's `detail` and `where` quote rows, and Zod's issues what was typed: neither is written down. */
export function withoutValues(error: unknown): object {
  if (!(error instanceof Error)) return { name: typeof error }
  const { name, message, stack, code, cause } = error as Error & { readonly code?: string }
  const where = stack?.split('\n').filter(line => /^\s+at /.test(line)).slice(0, 8).map(line => line.trim())
  // Quoted in a message stands what somebody typed.
  const said = message.replace(/"[^"]*"/g, '"…"').slice(0, 300)
  return { name, said, ...code && { code }, where, ...cause !== undefined && { cause: withoutValues(cause) } }
}
