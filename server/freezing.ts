import type { Frozen } from '~core/plan/run'

/** Longest that freezing a plan keeps everybody else waiting. */
const TURN_MS = 8

/** Freezes a plan a few milliseconds at a time. */
export async function frozenBetweenOthers(work: Generator<undefined, Frozen>): Promise<Frozen> {
  for (;;) {
    for (const until = performance.now() + TURN_MS; performance.now() < until;) {
      const step = work.next()
      if (step.done) return step.value
    }
    await new Promise<void>(done => setImmediate(done))
  }
}
