/** What Nitro brings into its entry without types of its own. */
declare module '#nitro-internal-pollyfills'
declare module 'nitropack/runtime/internal' {
  import type { Server } from 'node:net'
  import type { NitroApp } from 'nitropack/types'

  export function setupGracefulShutdown(listener: Server, app: NitroApp): void
  export function trapUnhandledNodeErrors(): void
}
