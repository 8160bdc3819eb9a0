import type { Kilograms } from '../units/quantity'
import { USUAL_LIFE } from '../mould/readiness'
import type { FrozenRun } from '../plan/run'
import type { PourState } from './fold'

/**
 * Powder that went into the buckets of a pour: as weighed, else as planned, batch by batch as far as they were wetted.
 */
export function powderUsed(run: FrozenRun, state: PourState): Kilograms {
  return state.batches.reduce(
    (sum, b, i) => sum + (b.wetAt === undefined ? 0 : b.weighed.powder ?? run.batches[i]!.mix.powder),
    0,
  )
}

/** What a pour cost, in the workshop's money; a part whose price is not known is named and left out. */
export interface Cost {
  readonly powder?: number
  /** Wear of the moulds: price over the pours they last. */
  readonly moulds?: number
  readonly total: number
  /**
   * Pieces that can be used, and what one of them cost with the waste of the others; undefined before any was looked
   * over.
   */
  readonly pieces: number
  readonly each?: number
  readonly unknown: readonly ('powder' | 'moulds')[]
}

/** @returns undefined where neither price is known. */
export function costOf(run: FrozenRun, state: PourState): Cost | undefined {
  const price = run.world.bag?.price, filled = state.casts.filter(c => c.filledAt !== undefined)
  const powder = price === undefined ? undefined : price * powderUsed(run, state)
  const worn = filled.map(({ cast: { mould } }) => {
    const life = mould.life ?? USUAL_LIFE[mould.material]
    return mould.cost === undefined || life === undefined ? undefined : mould.cost / life
  })
  const moulds = worn.length === 0 || worn.some(w => w === undefined)
    ? undefined
    : worn.reduce((s: number, w) => s + w!, 0)
  if (powder === undefined && moulds === undefined) return undefined
  const total = (powder ?? 0) + (moulds ?? 0),
    judged = state.casts.some(c => c.verdict),
    pieces = state.casts.filter(c => c.verdict === 'good' || c.verdict === 'second').length
  return {
    powder,
    moulds,
    total,
    pieces,
    each: judged && pieces > 0 ? total / pieces : undefined,
    unknown: [...powder === undefined ? ['powder' as const] : [], ...moulds === undefined ? ['moulds' as const] : []],
  }
}
