import { keptOf } from './kept'

/** What this browser keeps for one person, and how safely. */
export interface KeptHere {
  /** Pours that open without a network, and other questions whose last answer is kept. */
  readonly pours: number
  readonly answers: number
  /** Whether the browser promised to clear nothing by itself; undefined when it does not say. */
  readonly forGood?: boolean
  /** Room that is left for this product, bytes; the browser rounds it. */
  readonly left?: number
}

/** The Storage Standard's manager; browsers offer none to a page that came over plain http. */
const storage = () => globalThis.navigator?.storage as StorageManager | undefined

export async function keptHere(who: string): Promise<KeptHere> {
  const [paths, forGood, estimate] = await Promise.all([
    keptOf(who),
    storage()?.persisted?.().catch(() => undefined),
    storage()?.estimate?.().catch(() => undefined),
  ])
  const pours = paths.filter(p => /^pours\/[^/]+$/.test(p)).length
  return {
    pours,
    answers: paths.length - pours,
    forGood,
    left: estimate?.quota === undefined ? undefined : Math.max(0, estimate.quota - (estimate.usage ?? 0)),
  }
}

let asked = false
/**
 * Asks the browser, once, to clear nothing of this by itself when the device runs short of room: as soon as something
 * waits here that is nowhere else. It decides, and may ask the person.
 * @param again they pressed the button themselves
 */
export async function askToKeep(again = false): Promise<boolean> {
  if (asked && !again) return false
  asked = true
  return await storage()?.persist?.().catch(() => false) ?? false
}
