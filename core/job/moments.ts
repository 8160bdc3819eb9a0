import type { Instant } from '../pour/events'
import type { JobStep, Link, PourTimes } from './types'
import { workOutJob } from './windows'

/**
 * Moments of a job that are told wherever one is: a wait is over, a window is about to close, a hold is done. They are
 * worked out as of the last mark, so that they stay where they are until something is marked again.
 */
export interface JobMoment {
  readonly step: string
  readonly kind: 'opens' | 'closing' | 'over'
  readonly at: Instant
  /** The last moment to begin it; none where nothing presses. */
  readonly to?: Instant | undefined
}

const MINUTE = 60_000
/** What may be begun sooner than this after the last mark needs no telling: hands are there. */
const WAITED = 2 * MINUTE
/** Told again so long before the end, or a third of a short window. */
const BEFORE_CLOSE = 10 * MINUTE

type Pours = ReadonlyMap<string, PourTimes>

/** The latest that was marked of a job or its pours; nothing where it has not begun. */
export function lastMark(steps: readonly JobStep[], pours: Pours): Instant | undefined {
  const marks = steps.flatMap((s) => {
    const times = pours.get(s.id), wet = times?.wetAt, filled = times?.filled.actual
    return [s.began, s.ended, wet, wet !== undefined && filled !== undefined ? wet + 1000 * filled : undefined]
  })
  const known = marks.filter(m => m !== undefined)
  return known.length > 0 ? Math.max(...known) : undefined
}

/** Whether all that a step waits for has happened, or comes by itself now. */
function isFree(step: JobStep, steps: readonly JobStep[], pours: Pours): boolean {
  const happened = ({ step: of, at }: Link): boolean => {
    const before = steps.find(s => s.id === of), times = pours.get(of)
    if (!before) return true
    if (before.kind === 'until') return isFree(before, steps, pours)
    if (before.kind === 'pour') return times?.wetAt !== undefined && (at !== 'end' || times.filled.actual !== undefined)
    return (at === 'end' ? before.ended : before.began) !== undefined
  }
  return step.after.every(happened)
}

/**
 * In the order of time. Nothing of a job that has not begun, or whose steps contradict each other.
 * @example momentsOfJob(job.steps, pours).filter(m => m.at > before && m.at <= now)
 */
export function momentsOfJob(steps: readonly JobStep[], pours: Pours): readonly JobMoment[] {
  const last = lastMark(steps, pours)
  if (last === undefined) return []
  const { steps: times } = workOutJob(steps, pours, last)
  return times.flatMap((at, n): JobMoment[] => {
    const step = steps[n]!, { from, to } = at
    if (at.state === 'running') return step.task === 'hold' ? [{ step: step.id, kind: 'over', at: at.ends }] : []
    if (step.kind === 'until' || at.state === 'done' || !isFree(step, steps, pours)) return []
    const closing = to === undefined ? undefined : to - Math.min(BEFORE_CLOSE, (to - from) / 3)
    return [
      ...from - last >= WAITED ? [{ step: step.id, kind: 'opens', at: from, to } as const] : [],
      ...closing !== undefined && closing > from ? [{ step: step.id, kind: 'closing', at: closing, to } as const] : [],
    ]
  }).sort((a, b) => a.at - b.at)
}
