import type { JobStep } from '~core/job/types'
import type { StepTimes } from '~core/job/windows'
import type { GlyphId } from '~/ui/glyphs'
import { dayAndTime, roughDay, windowOf } from '~/ui/when'

/** How a step is shown: its sign, and its window as people say times. */

export const STEP_GLYPHS: Readonly<Record<JobStep['kind'], GlyphId>> = { mix: 'stir', pour: 'pour', hand: 'hand', until: 'wait' }

const ROUGH_MS = 20 * 3_600_000, END_OF_DAY_MS = 86_400_000

/** `between 14:05 and 14:20`, `from tomorrow 9:10`, `now`: what its state says of its time. */
export function whenWords({ state, from, to, within, ends }: StepTimes, now: number): string {
  const span = () => windowOf(from, ends, now)
  switch (state) {
    case 'done': return ends - from < 60_000 ? dayAndTime(from, now) : span()
    case 'running': return `since ${dayAndTime(from, now)}`
    case 'waiting': return `until ${ends - now > ROUGH_MS ? roughDay(ends, now) : dayAndTime(ends, now)}`
    case 'missed': return 'its time is over'
    case 'now': return to === undefined ? 'any time now' : `until ${dayAndTime(to, now)}`
    case 'ahead': {
      if (from - now > ROUGH_MS) return `from ${roughDay(from, now)}`
      const last = to ?? within
      if (last === undefined || last - from >= END_OF_DAY_MS) return `from ${dayAndTime(from, now)}`
      return last - from < 60_000 ? `at ${dayAndTime(from, now)}` : windowOf(from, last, now)
    }
  }
}
