/**
 * A bag takes up damp: how it is kept, for how long that lasts, and what its age does to what is known of it. Common
 * practice, no source.
 */

const YEAR = 365.25 * 86_400_000

/** How a bag is kept, and for how many years it stays what it was, once opened. */
const YEARS = { sealed: 1.5, closed: 1, open: 0.5, damp: 0.1 } as const
export type BagStorage = keyof typeof YEARS
export const STORAGE = Object.keys(YEARS) as [BagStorage, ...BagStorage[]]

/** A bag of which nobody says how it is kept is taken to be folded shut. */
const USUAL: BagStorage = 'closed'

/**
 * How long a bag has been open, in whole months. @param opened its day, `2026-11-25` @param now milliseconds since 1970
 */
export function monthsOpen(opened: string | undefined, now: number): number | undefined {
  return opened === undefined ? undefined : Math.max(0, Math.floor((now - Date.parse(opened)) / YEAR * 12))
}

/** Whether a bag has been open for longer than it keeps. */
export function pastItsTime(bag: { readonly opened?: string, readonly storage?: BagStorage }, now: number): boolean {
  return bag.opened !== undefined
    && now - Date.parse(bag.opened) > YEAR * YEARS[bag.storage ?? USUAL]
}

/** A bag as its age and keeping make it: past its time, when it sets is less certain. */
export function agedBag<
  T extends { readonly uncertain: boolean, readonly opened?: string, readonly storage?: BagStorage },
>(bag: T, now: number): T {
  return pastItsTime(bag, now) ? { ...bag, uncertain: true } : bag
}
