import { formatDuration } from '~core/units/format'
import type { MilestoneId } from '~core/pour/milestones'
import type { PourSummary } from '~core/pour/projection'

const WORDS: Record<MilestoneId, string> = {
  sift: 'until all powder is in',
  soak: 'until it is soaked',
  stir: 'until it is stirred',
  fill: 'until it must be poured',
  set: 'until the gloss should go',
  warm: 'until it is warmest',
  open: 'until the moulds can be opened',
  dry: 'until it is dry',
}

/** The next thing that is expected of a pour in hand, drying apart. */
export function nextMoment(
  summary: PourSummary,
  now: number,
): { readonly id: MilestoneId, readonly in: string, readonly words: string } | undefined {
  if (summary.wetAt === undefined) return undefined
  const t = (now - summary.wetAt) / 1000
  const next = summary.glyph.find(m =>
    m.id !== 'dry' && m.actual === undefined && (m.id === 'open' ? m.low : m.value) > t,
  )
  if (!next) return undefined
  const left = (next.id === 'open' ? next.low : next.value) - t
  return { id: next.id, in: formatDuration(left, left > 600 ? 'minute' : 'second'), words: WORDS[next.id] }
}
