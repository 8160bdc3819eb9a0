import type { Standing } from './board'
import { compareFor, type Round } from './round'
import { planRound } from './search'
import type { RoundPlan } from './timetable'
import type { Shift } from './windows'

/**
 * What would help: the round worked out again with one thing changed each, from the plan that there is, so that no
 * change seems to make it worse.
 */

export type HelpCode = 'copy' | 'person' | 'bucket' | 'larger-bucket' | 'earlier' | 'longer'
export interface Help {
  readonly code: HelpCode
  /** Which shape has one copy more. */
  readonly shape?: number
  /** Pieces that are out in time more than now, and how much sooner the last is out, in units. */
  readonly pieces: number
  readonly sooner: number
  readonly end: number
  readonly missing: number
}

/** Tries for each change. */
const TRIES = 60
/** A change that wins less is not worth its trouble, in units. */
export interface Worth {
  /** Units of time that are worth a change. */
  readonly least: number
  /** Units by which somebody begins earlier or stays longer. */
  readonly more: number
}

interface Changed {
  readonly code: HelpCode
  readonly shape?: number
  readonly round: Round
}

const longer = (shifts: readonly Shift[], before: number, after: number): readonly Shift[] =>
  shifts.map(([from, to], i) => [
    Math.max(shifts[i - 1]?.[1] ?? 0, from - before), Math.min(shifts[i + 1]?.[0] ?? Infinity, to + after),
  ])

/** What may be changed, the least trouble first. */
function changesOf(round: Round, { more }: Worth): readonly Changed[] {
  const { shapes, persons, buckets, bucketVolume } = round
  return [
    { code: 'earlier', round: { ...round, persons: persons.map(p => longer(p, more, 0)) } },
    { code: 'longer', round: { ...round, persons: persons.map(p => longer(p, 0, more)) } },
    { code: 'bucket', round: { ...round, buckets: buckets + 1 } },
    { code: 'larger-bucket', round: { ...round, bucketVolume: bucketVolume * 1.5 } },
    ...shapes.map((_, shape): Changed => ({
      code: 'copy',
      shape,
      round: { ...round, shapes: shapes.map((s, i) => i === shape ? { ...s, copies: s.copies + 1 } : s) },
    })),
    { code: 'person', round: { ...round, persons: [...persons, persons[0]!] } },
  ]
}

const onTime = ({ table }: RoundPlan) => table.opened.reduce((a, b) => a + b, 0) - table.late

/**
 * One change after the other, so that whoever asks can stop between them.
 * @param plan the plan there is for this round @param standing what it was made around
 */
export function* whatHelps(
  round: Round, plan: RoundPlan, worth: Worth, standing?: Standing,
): Generator<Help | undefined> {
  const better = compareFor(round.goal)
  for (const { code, shape, round: changed } of changesOf(round, worth)) {
    const { list } = plan, next = planRound(changed, { tries: TRIES, before: list, ...standing && { standing } })
    const pieces = onTime(next) - onTime(plan), sooner = plan.table.end - next.table.end
    const wins = better(next.table, plan.table) < 0 && (pieces > 0 || sooner >= worth.least)
    yield wins ? { code, shape, pieces, sooner, end: next.table.end, missing: next.table.missing } : undefined
  }
}

/** The best first: pieces in time, then how much sooner. At most three. */
export const bestOf = (helps: readonly Help[]): readonly Help[] =>
  [...helps].sort((a, b) => b.pieces - a.pieces || b.sooner - a.sooner).slice(0, 3)
