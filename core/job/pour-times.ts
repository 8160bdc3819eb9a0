import type { MilestoneId } from '../pour/milestones'
import type { PourSummary } from '../pour/projection'
import type { Moments } from '../setting/moments'
import type { Batch } from '../plan/types'
import type { Expected, JobStep, PourTimes, SignId } from './types'

/** What a job needs to know of its pours: from what lists know of one that was begun, or from a plan's forecast. */

const SIGN_OF: Readonly<Record<SignId, MilestoneId>> = { gloss: 'set', warmest: 'warm', open: 'open', dry: 'dry' }

/** What the pours that were begun for a job are expected to do, by its steps; one that was given up is none. */
export function timesOfBegun(
  steps: readonly JobStep[], summaryOf: (pour: string) => PourSummary | undefined,
): ReadonlyMap<string, PourTimes> {
  return new Map(steps.flatMap((s) => {
    const summary = s.pour === undefined ? undefined : summaryOf(s.pour)
    return summary && summary.status !== 'abandoned' ? [[s.id, timesOfPour(summary)] as const] : []
  }))
}

/** Of a pour that was begun. Moulds may be opened from the early end of their window on. */
export function timesOfPour({ wetAt, glyph }: Pick<PourSummary, 'wetAt' | 'glyph'>): PourTimes {
  const mark = (id: MilestoneId): Expected | undefined => {
    const found = glyph.find(m => m.id === id)
    if (!found) return undefined
    const { low, high, actual } = found
    return { low, value: id === 'open' ? low : found.value, high, ...actual !== undefined && { actual } }
  }
  const signs = Object.entries(SIGN_OF).flatMap(([sign, id]) => {
    const found = mark(id)
    return found ? [[sign, found] as const] : []
  })
  return { wetAt, filled: mark('fill') ?? { low: 0, value: 0, high: 0 }, signs: Object.fromEntries(signs) }
}

/** Of one that is still a plan: its last bucket speaks. */
export function timesOfPlan(batches: readonly Batch[], moments: Moments): PourTimes {
  const { poured } = batches.at(-1)!.steps, { open, glossGone, warmest } = moments
  return {
    filled: poured,
    signs: { gloss: glossGone, warmest, open: { low: open.from, value: open.from, high: open.to } },
  }
}
