import type { ShareFacts } from '~contract/share'

/** How this server is shared, as far as it is: set by what started it (server/entry.ts). */
let now: { readonly facts: ShareFacts, readonly authority: string } | undefined

export function setShared(facts: ShareFacts, authority: string): void {
  now = { facts, authority }
}
export const shared = () => now
