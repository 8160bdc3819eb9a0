import { USUAL_LIFE } from '../mould/readiness'
import type { MouldFacts } from '../plan/types'
import type { Kilograms, Seconds } from '../units/quantity'
import type { Timetable } from './round'

/** What one piece of an order costs and takes, and how many more are to be made for those that will not do. */

/** Of so many pieces that were looked over, how many were waste, and what is made over for that. */
export interface Rejects {
  readonly waste: number
  readonly of: number
  /** Pieces to be made over, as a share of those that are wanted. */
  readonly spare: number
}

/**
 * @param verdicts of pours of the same moulds @returns nothing where no piece was looked over yet
 * @example rejectsOf([{ good: 9, second: 0, waste: 1 }])?.spare // 0.11
 */
export function rejectsOf(
  verdicts: readonly { readonly good: number, readonly second: number, readonly waste: number }[],
): Rejects | undefined {
  const waste = verdicts.reduce((n, v) => n + v.waste, 0)
  const of = verdicts.reduce((n, v) => n + v.good + v.second + v.waste, 0)
  if (of === 0) return undefined
  // Where all went wrong no number of spares helps.
  return { waste, of, spare: Math.min(0.5, waste < of ? waste / (of - waste) : 0.5) }
}

interface Piece {
  readonly powder: Kilograms
  /** Of a kilogram. */
  readonly price: number | undefined
  readonly mould: Pick<MouldFacts, 'life' | 'cost' | 'material'>
}
/** Powder and wear of one piece, in the workshop's money; what has no price is left out, none at all is undefined. */
export function costOfPiece({ powder, price, mould }: Piece): number | undefined {
  const life = mould.life ?? USUAL_LIFE[mould.material]
  const wear = mould.cost === undefined || life === undefined ? undefined : mould.cost / life
  if (price === undefined && wear === undefined) return undefined
  return (price ?? 0) * powder + (wear ?? 0)
}

/** Time of hands for each piece of a plan, s. @param unit seconds of one unit of it */
export function handsPerPiece(
  { tasks, opened }: Pick<Timetable, 'tasks' | 'opened'>, unit: Seconds,
): Seconds | undefined {
  const pieces = opened.reduce((a, b) => a + b, 0)
  return pieces === 0 ? undefined : unit * tasks.reduce((n, t) => n + t.to - t.from, 0) / pieces
}
