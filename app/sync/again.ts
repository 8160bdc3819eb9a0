import { Refused } from './api'

const FIRST_MS = 1000, MOST_MS = 20_000

/**
 * Reads anew what was heard to have changed, until the server has answered: each time a while later, and at once when
 * it is heard of again. Nobody may go on seeing what was true before one answer was lost.
 * @param read whether what came is the server's answer, and not what was kept here
 * @returns a function to call whenever it is heard of
 */
export function untilItWorks(read: () => Promise<boolean>): () => void {
  let wait = FIRST_MS, timer: ReturnType<typeof setTimeout> | undefined, going = false, again = false
  async function go(): Promise<void> {
    clearTimeout(timer)
    again = going
    if (going) return
    going = true
    // What the server itself refuses it refuses the next time too.
    const done = await read().catch((error: unknown) => error instanceof Refused && error.ours && error.status < 500)
    going = false
    if (again) return go()
    if (!done) timer = setTimeout(() => void go(), wait)
    wait = done ? FIRST_MS : Math.min(MOST_MS, 2 * wait)
  }
  return () => void go()
}
