import { begunAnew, CHAINS } from '../core/job/chains'
import { CHAIN_WORDS, type ChainId } from '../core/job/words'
import type { JobStep } from '../core/job/types'
import { jobSchema, type JobBody } from '../contract/job'

const MIN = 60_000, HOUR = 60 * MIN

/**
 * A chain whose first steps are done, each as long as it takes.
 * @param until when the last of them ended, min before now
 */
function doneUpTo(steps: readonly JobStep[], last: string, now: number, until: number): JobStep[] {
  const end = steps.findIndex(s => s.id === last)
  let ended = now - until * MIN
  const marks = new Map<string, { began: number, ended: number }>()
  for (const s of steps.slice(0, end + 1).toReversed()) {
    marks.set(s.id, { began: ended - s.minutes * MIN, ended })
    ended -= s.minutes * MIN
  }
  return steps.map(s => ({ ...s, ...s.kind !== 'pour' && marks.get(s.id) }))
}

/** A pour of small pieces that is setting, and one that was filled an hour or two ago. */
interface Poured { readonly small: string, readonly half: string }
/** A hand that waits for its impression, pieces whose backs were left too long, half a mould that sets. */
export function demoJobs(now: number, { small, half }: Poured): readonly JobBody[] {
  const of = (id: ChainId, name: string, change: (steps: JobStep[]) => JobStep[], startedAt = now - HOUR): JobBody => {
    const chain = CHAINS.find(c => c.id === id)!
    return jobSchema.parse({
      name, chain: id, cautions: chain.cautions, steps: change(begunAnew(chain.steps)), startedAt,
    }) as JobBody
  }
  const withPour = (steps: JobStep[], step: string, pour: string) => steps.map(s => s.id === step ? { ...s, pour } : s)
  return [
    of('impression', 'Two hands for a christening', steps => doneUpTo(steps, 'try', now, 2)),
    of('small-pieces', `${CHAIN_WORDS['small-pieces'].name} for the shop`, steps =>
      withPour(doneUpTo(steps, 'lay', now, 40), 'pour', small)),
    of('two-part', 'Lantern base, a mould in two halves', steps =>
      withPour(doneUpTo(steps, 'bed', now, 3 * 60), 'first', half), now - 4 * HOUR),
  ]
}
