import { judgeTwo, sampleOf, type TwoVerdict } from './verdict'
import type { Instant } from '../pour/events'
import type { PourSummary } from '../pour/projection'

/** One pour as a value among others: what was done, and what came of it. Small enough to send two thousand of. */
export interface Trial {
  readonly at: Instant
  readonly did: Readonly<Partial<Record<NumberFactor, number>>>
  readonly was: Readonly<Partial<Record<ChoiceFactor, string>>>
  readonly came: Readonly<Partial<Record<OutcomeId, number>>>
}

/**
 * What pours may differ by, measured: soak and stir in seconds, temperatures in °C, the ratio in per cent off the plan.
 */
export const NUMBER_FACTORS = [
  { id: 'ratio', word: 'ratio, against the plan', above: 'thinner than', unit: '%', scale: 1 },
  { id: 'soak', word: 'soak', above: 'soaked longer than', unit: 'min', scale: 60 },
  { id: 'stir', word: 'stirring', above: 'stirred longer than', unit: 'min', scale: 60 },
  { id: 'water', word: 'water', above: 'with water warmer than', unit: '°C', scale: 1 },
  { id: 'room', word: 'room', above: 'in a room warmer than', unit: '°C', scale: 1 },
  { id: 'open', word: 'time to opening', above: 'opened later than', unit: 'min', scale: 60 },
] as const
export type NumberFactor = typeof NUMBER_FACTORS[number]['id']
export const CHOICE_FACTORS = [{ id: 'bag', word: 'bag' }, { id: 'school', word: 'way of measuring' }, {
  id: 'powder',
  word: 'powder',
}] as const
export type ChoiceFactor = typeof CHOICE_FACTORS[number]['id']

/**
 * What may come of it; `matters` is the difference that would be worth changing something for (common practice, no
 * source; it can be changed).
 */
export const OUTCOMES = [
  {
    id: 'good',
    word: 'pieces good at the first try',
    more: 'more good pieces',
    less: 'fewer good pieces',
    unit: 'points',
    scale: 0.01,
    matters: 0.1,
  },
  {
    id: 'set',
    word: 'gloss gone, against the forecast',
    more: 'slower than forecast',
    less: 'faster than forecast',
    unit: 'points',
    scale: 0.01,
    matters: 0.1,
  },
  { id: 'cost', word: 'cost of a usable piece', more: 'dearer', less: 'cheaper', unit: '', scale: 1, matters: 0.2 },
] as const
export type OutcomeId = typeof OUTCOMES[number]['id']

/** @returns undefined of a pour that was given up or of which nothing came yet. */
export function trialOf(pour: PourSummary): Trial | undefined {
  if (pour.status === 'abandoned' || pour.startedAt === undefined) return undefined
  const { good, second, waste } = pour.verdicts, judged = good + second + waste
  const moment = (id: string) => pour.glyph.find(m => m.id === id),
    set = moment('set'),
    lasted = (id: string, from: string) =>
      moment(id)?.actual === undefined || moment(from)?.actual === undefined
        ? undefined
        : moment(id)!.actual! - moment(from)!.actual!
  const known = <T extends object>(values: T) =>
    Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined)) as {
      [K in keyof T]?: Exclude<T[K], undefined>
    }
  const came = known({
    good: judged > 0 ? good / judged : undefined,
    set: set?.actual === undefined ? undefined : set.actual / set.value,
    cost: pour.cost && pour.cost.pieces > 0 && judged > 0 ? pour.cost.total / pour.cost.pieces : undefined,
  })
  if (Object.keys(came).length === 0) return undefined
  return {
    at: pour.startedAt,
    came,
    did: known({
      ratio: pour.ratio.actual === undefined || pour.daysOnly
        ? undefined
        : 100 * (pour.ratio.actual / pour.ratio.planned - 1),
      soak: lasted('soak', 'sift'),
      stir: lasted('stir', 'soak'),
      open: moment('open')?.actual,
      water: pour.temperatures?.water,
      room: pour.temperatures?.room,
    }),
    was: known({ bag: pour.bagId, school: pour.daysOnly ? undefined : pour.school, powder: pour.classId }),
  }
}

export type Split = { readonly by: NumberFactor, readonly at: number } | {
  readonly by: ChoiceFactor
  readonly a: string
  readonly b: string
}

/** The two sides of a question: values of the outcome, below or first, and above or second. */
export function sides(
  trials: readonly Trial[],
  split: Split,
  outcome: OutcomeId,
): readonly [readonly number[], readonly number[]] {
  const a: number[] = [], b: number[] = []
  for (const t of trials) {
    const value = t.came[outcome]
    if (value === undefined) continue
    if ('at' in split) {
      const did = t.did[split.by]
      if (did !== undefined) (did > split.at ? b : a).push(value)
    }
    else if (t.was[split.by] === split.a) a.push(value)
    else if (t.was[split.by] === split.b) b.push(value)
  }
  return [a, b]
}

/** Half of the pours on each side: where a measured factor is split unless someone says otherwise. */
export function middleOf(trials: readonly Trial[], by: NumberFactor): number | undefined {
  const known = trials.flatMap(t => t.did[by] ?? []).sort((x, y) => x - y)
  return known.length === 0 ? undefined : known[Math.floor((known.length - 1) / 2)]
}

export interface Answer {
  readonly a: readonly number[]
  readonly b: readonly number[]
  readonly means: readonly [number, number]
  readonly verdict: TwoVerdict
}

/** @param matters smallest difference worth acting on, in the outcome's own values */
export function askTrials(trials: readonly Trial[], split: Split, outcome: OutcomeId, matters: number): Answer {
  const [a, b] = sides(trials, split, outcome)
  return { a, b, means: [sampleOf(a).mean, sampleOf(b).mean], verdict: judgeTwo(a, b, matters) }
}
