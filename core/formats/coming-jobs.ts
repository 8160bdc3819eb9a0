import { timesOfBegun } from '../job/pour-times'
import type { JobStep } from '../job/types'
import { workOutJob } from '../job/windows'
import { nameOfStep } from '../job/words'
import type { Instant } from '../pour/events'
import type { PourSummary } from '../pour/projection'
import type { Coming } from './coming'

/** A step without an end in sight is shown as this long an entry. */
const SHOWN = 30 * 60_000
/** Days ahead that a calendar shows of a job. */
const FURTHEST = 60 * 86_400_000

interface Job { readonly id: string, readonly name: string, readonly steps: readonly JobStep[] }

/**
 * Windows of the jobs under way, as a calendar has them: what is next, and each later step that must not be late. What
 * a pour that was not begun will do is not known here; its minutes stand for it.
 */
export function comingOfJobs(
  jobs: readonly Job[], summaryOf: (pour: string) => PourSummary | undefined, now: Instant,
): readonly Coming[] {
  return jobs.flatMap(({ id, name, steps }): Coming[] => {
    if (!steps.some(s => s.began !== undefined || s.pour !== undefined)) return []
    const pours = timesOfBegun(steps, summaryOf)
    const { steps: times, next } = workOutJob(steps, pours, now)
    return times.flatMap((at, n): Coming[] => {
      const step = steps[n]!, to = at.to ?? at.within
      if (at.state !== 'now' && at.state !== 'ahead') return []
      if (step.kind === 'until' || at.from - now > FURTHEST || (to === undefined && at.id !== next)) return []
      return [{
        id: `${id}-${step.id}`, pour: step.pour ?? id, title: `${nameOfStep(step)}: ${name}`,
        note: to === undefined ? 'Any time from now on.' : 'Best within this time.', from: at.from, to: to ?? at.from + SHOWN,
      }]
    })
  })
}
