const RETRY_FIRST_MS = 1000, RETRY_MOST_MS = 20_000
/** What all wait for. */
export const ALL = ''

/** Who waits how long after trouble: each time twice as long, until it goes well. */
export function patience() {
  const waits = new Map<string, { readonly delay: number, readonly until: number }>()
  const until = (who: string) => waits.get(who)?.until ?? 0
  return {
    wait(who: string): void {
      const delay = Math.min(RETRY_MOST_MS, 2 * (waits.get(who)?.delay ?? RETRY_FIRST_MS / 2))
      waits.set(who, { delay, until: Date.now() + delay })
    },
    wentWell: (who: string) => waits.delete(who),
    forget: () => waits.clear(),
    isReady: (who: string) => Math.max(until(ALL), until(who)) <= Date.now(),
    /** How long the one that may go first still waits, ms. */
    first: (all: readonly string[]) =>
      Math.max(0, Math.min(...all.map(who => Math.max(until(ALL), until(who)))) - Date.now()),
  }
}
