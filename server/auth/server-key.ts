import { hkdfSync } from 'node:crypto'
import { useRuntimeConfig } from '#imports'

/** The key for one use, from the server's own (RFC 5869). */
export function keyFor(use: string): Buffer {
  const own = String(useRuntimeConfig().serverKey)
  if (own.length < 32) throw new Error('No server key: set NUXT_SERVER_KEY, or start with bin/start.')
  return Buffer.from(hkdfSync('sha256', own, '', use, 32))
}
