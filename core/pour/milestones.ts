import type { Basis, Seconds } from '../units/quantity'
import { endUse } from '../gypsum/end-use'
import type { Moments } from '../setting/moments'
import { finishesCasts } from '../plan/batches/coats'
import type { Batch } from '../plan/types'
import type { SchoolId } from '../gypsum/schools'
import { schoolStages, type Stage } from '../plan/stages'
import type { FrozenRun } from '../plan/run'
import type { BatchState, CastState, PourState } from './fold'

export type MilestoneId = 'sift' | 'soak' | 'stir' | 'fill' | 'set' | 'warm' | 'open' | 'dry'
/** Which material colour a milestone wears. */
export type Tone = 'powder' | 'water' | 'mix' | 'air' | 'heat' | 'set'

export interface Milestone {
  readonly id: MilestoneId
  /** One word for the chart, a phrase for the list. */
  readonly word: string
  readonly phrase: string
  readonly tone: Tone
  /** Seconds after powder met water, 80 % range. */
  readonly low: Seconds
  readonly value: Seconds
  readonly high: Seconds
  readonly basis: Basis
  /** When it really happened. */
  readonly actual?: Seconds
}

type Bare = Omit<Milestone, 'actual'>

/** What is expected of one batch, in the order of time. `drying` is counted from opening. */
export function expectedMilestones(
  school: SchoolId,
  batch: Batch,
  moments: Moments,
  drying: FrozenRun['drying'][string] | undefined,
  dryWord: string,
): readonly Bare[] {
  const has = (stage: Stage) => schoolStages(school).includes(stage)
  const { steps } = batch
  const list: Bare[] = []
  const step = (
    id: MilestoneId,
    word: string,
    phrase: string,
    tone: Tone,
    e: { low: number, value: number, high: number, basis: Basis },
  ) => list.push({ id, word, phrase, tone, low: e.low, value: e.value, high: e.high, basis: e.basis })
  if (school === 'powder-first') step('sift', 'Water', 'most of the water in', 'water', steps.sifted)
  else if (has('sift')) step('sift', 'Sift', 'powder all in', 'powder', steps.sifted)
  if (has('soak')) step('soak', 'Soak', 'soaked, start stirring', 'water', steps.soaked)
  step('stir', 'Stir', school === 'bag' ? 'kneaded, start pouring' : 'stirred, start pouring', 'mix', steps.stirred)
  step('fill', 'Fill', 'all poured', 'mix', steps.poured)
  step('set', 'Set', 'gloss goes', 'set', moments.glossGone)
  step('warm', 'Warm', 'warmest', 'heat', moments.warmest)
  const { open } = moments
  step('open', 'Open', 'open the moulds', 'set', {
    low: open.from,
    value: (open.from + open.to) / 2,
    high: open.to,
    basis: open.basis,
  })
  if (drying)
    step('dry', 'Dry', dryWord, 'powder', {
      low: open.from + drying.low,
      value: open.from + drying.value,
      high: open.from + drying.high,
      basis: drying.basis,
    })
  return list
}

function actualOf(id: MilestoneId, batch: BatchState, casts: readonly CastState[]): number | undefined {
  const entered = (stage: Stage) => batch.stages.find(s => s.stage === stage)?.at
  const marked = (sign: string) => batch.marks.find(m => m.sign === sign)?.at
  switch (id) {
    case 'sift':
      return entered('soak') ?? entered('stir')
    case 'soak':
      return entered('stir')
    case 'stir':
      return entered('fill')
    case 'fill':
      return batch.filledAt
    case 'set':
      return marked('gloss-gone')
    case 'warm':
      return marked('warmest')
    case 'open':
      return casts.every(c => c.openedAt !== undefined) ? Math.max(...casts.map(c => c.openedAt!)) : undefined
    case 'dry':
      return casts.every(c => c.finishedAt !== undefined) ? Math.max(...casts.map(c => c.finishedAt!)) : undefined
  }
}

/**
 * Milestones of a batch in a run, with what really happened where it has. Steps still to come shift with the last one
 * that is done;
 * the moments of the mix itself stay where the forecast has them. The cast that takes longest to open speaks for its
 * batch.
 */
export function milestonesOf(run: FrozenRun, state: PourState, b: number): readonly Milestone[] {
  const batch = run.batches[b]!, happened = state.batches[b]!
  const casts = state.casts.filter(c => c.cast.batch === b)
  const slowest = batch.fills.map(f => f.mould.id).reduce((a, id) =>
    run.moments[id]!.open.from > run.moments[a]!.open.from ? id : a,
  )
  const moments = happened.foreseen?.open[slowest]
    ? { ...run.moments[slowest]!, open: { ...run.moments[slowest]!.open, ...happened.foreseen.open[slowest] } }
    : run.moments[slowest]!
  const all = expectedMilestones(run.plan.school, batch, moments, run.drying[slowest], endUse(run.plan.endUse).dryWord)
  // A coat under another one is not opened.
  const expected = finishesCasts(batch) ? all : all.filter(m => m.id !== 'warm' && m.id !== 'open' && m.id !== 'dry')
  if (happened.wetAt === undefined || run.daysOnly) return expected
  let shift = 0
  return expected.map((m): Milestone => {
    const at = actualOf(m.id, happened, casts)
    const actual = at === undefined ? undefined : (at - happened.wetAt!) / 1000
    const isStep = m.id === 'sift' || m.id === 'soak' || m.id === 'stir' || m.id === 'fill'
    if (isStep && actual !== undefined) shift = actual - m.value
    const by = isStep && actual === undefined ? shift : 0
    return {
      ...m,
      low: Math.max(0, m.low + by),
      value: Math.max(0, m.value + by),
      high: Math.max(0, m.high + by),
      actual,
    }
  })
}
