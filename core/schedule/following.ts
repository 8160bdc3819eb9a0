import type { Instant } from '../pour/events'
import type { CastStatus } from '../pour/fold'
import type { Standing, StandingMould } from './board'

/**
 * An order that is under way: what is out, what stands in its moulds, what broke, and what is still taken, so that the
 * rest can be planned anew without moving what runs. Each bucket is a pour of its own, frozen when powder met water.
 */

/** One of an order's pours as lists know it. */
export interface OrderPour {
  readonly casts: readonly {
    readonly mould: string
    readonly status: CastStatus
    /** From when it can be opened, if that is known. */
    readonly openFrom?: Instant | undefined
    readonly waste: boolean
  }[]
  /** When the bucket is poured out, or should be; and from when its moulds can be opened, as far as is foretold. */
  readonly filledBy: Instant
  readonly opensFrom: Instant
  /** Hands are at it: it is not all poured. */
  readonly inHand: boolean
}
export interface Followed {
  /** Of each line: out and whole, out and broken, in their moulds. */
  readonly out: readonly number[]
  readonly broken: readonly number[]
  readonly inMoulds: readonly number[]
  /** Buckets that hands are at. */
  readonly inHand: number
  /** Whether anything was begun. */
  readonly begun: boolean
  readonly standing: Standing
}

const OUT: ReadonlySet<CastStatus> = new Set(['opened', 'judged', 'finished'])

/**
 * @param lines moulds of the order, in its order, and how many there are of each
 * @param unitOf an instant in units from the zero of the plan that is to be made @param cleaning of a bucket, units
 * @example followOrder([{ mould, copies: 3 }], pours, { unitOf, cleaning: 6 }).standing
 */
export function followOrder(
  lines: readonly { readonly mould: string, readonly copies: number }[], pours: readonly OrderPour[],
  { unitOf, cleaning }: { readonly unitOf: (at: Instant) => number, readonly cleaning: number },
): Followed {
  const zeros = () => lines.map(() => 0), out = zeros(), broken = zeros(), inMoulds = zeros()
  const moulds: StandingMould[] = [], later = (at: Instant) => Math.max(0, Math.ceil(unitOf(at)))
  for (const pour of pours) {
    for (const cast of pour.casts) {
      const shape = lines.findIndex(l => l.mould === cast.mould)
      if (shape < 0) continue
      if (cast.waste) broken[shape]!++
      else if (OUT.has(cast.status)) out[shape]!++
      else {
        const copy = inMoulds[shape]!++
        // More than there are moulds of it now: some were put away since. They come out all the same.
        if (copy < lines[shape]!.copies) moulds.push({ shape, copy, set: later(cast.openFrom ?? pour.opensFrom) })
      }
    }
  }
  const wet = pours.filter(p => p.inHand), freeAt = wet.map(p => later(p.filledBy))
  return {
    out, broken, inMoulds, inHand: wet.length, begun: pours.length > 0,
    standing: {
      from: 0, moulds, buckets: freeAt.map(t => t + cleaning),
      // One pair of hands is at what is wet; the others go on.
      persons: freeAt.length > 0 ? [Math.max(...freeAt)] : [],
    },
  }
}
