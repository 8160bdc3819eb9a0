import type { Estimate, Seconds, WaterRatio } from '../../units/quantity'
import { pourableUntil } from '../../setting/hydration'
import { centreOf } from '../../setting/moments'
import { momentsInput } from '../moments-input'
import type { Batch, Plan, PlanWorld } from '../types'

/** When the next batch may be begun while one is still in hand. */
export interface Overlap {
  /** What the second bucket waits for: the first batch soaking (one person), or the second pair of hands. */
  readonly hands: 1 | 2
  /** When to put the powder of the next batch into its water, seconds after the first one's met. */
  readonly siftAt: Seconds
  /** How much sooner the last mould is poured than one after the other. */
  readonly saves: Seconds
}
/** Why the next batch has to wait. */
export type NoOverlapReason = 'last-batch' | 'coats' | 'no-soak' | 'soak-too-short' | 'thickens' | 'thickens-even-so'
export interface NoOverlap { readonly hands: 1 | 2, readonly why: NoOverlapReason }

/** To turn round to the other bucket and back (engineering guess). */
const TURN_ROUND: Seconds = 15
/** To clean one bucket before the next batch goes into it (engineering guess). */
const CLEAN: Seconds = 120

/**
 * Whether batch `b + 1` can be sifted while batch `b` soaks (one person: hands never in two buckets at once), or mixed
 * beside it (two people), in a second bucket,
 * and still be poured in time although it then soaks longer.
 * @param batches of the plan, `steps` being the pace of one person.
 */
export function overlapOf(
  plan: Plan,
  world: PlanWorld,
  ratio: Estimate<WaterRatio>,
  batches: readonly Batch[],
  b: number,
  hands: 1 | 2,
): Overlap | NoOverlap {
  const first = batches[b], next = batches[b + 1]
  if (!first || !next) return { hands, why: 'last-batch' }
  if (plan.coats) return { hands, why: 'coats' }
  const [one, two] = [first.steps, next.steps]
  const sift2 = two.sifted.value, stir2 = two.stirred.value - two.soaked.value
  const oneAfterOther = one.poured.value + CLEAN + two.poured.value
  const inTime = (siftAt: Seconds) => {
    const stirFrom = Math.max(two.soaked.value, one.poured.value + TURN_ROUND - siftAt)
    const thickest = next.fills.map(f => f.mould).reduce((a, m) => m.section > a.section ? m : a)
    const input = momentsInput(plan, ratio, thickest, stirFrom, world, next)
    const until = pourableUntil({ ...input, ratio: ratio.value }, centreOf(input))
    return { ok: stirFrom + stir2 + two.pouring <= until, poured: siftAt + stirFrom + stir2 + two.pouring }
  }
  if (hands === 1) {
    const soak1 = one.soaked.value - one.sifted.value
    if (soak1 <= 0) return { hands, why: 'no-soak' }
    if (sift2 + 2 * TURN_ROUND > soak1)
      return {
        hands,
        why: 'soak-too-short',
      }
    const { ok, poured } = inTime(one.sifted.value + TURN_ROUND)
    if (!ok) return { hands, why: 'thickens' }
    return { hands, siftAt: one.sifted.value + TURN_ROUND, saves: Math.max(0, oneAfterOther - poured) }
  }
  const siftAt = Math.max(0, one.poured.value + TURN_ROUND - two.stirred.value)
  const { ok, poured } = inTime(siftAt)
  return ok
    ? { hands, siftAt, saves: Math.max(0, oneAfterOther - poured) }
    : { hands, why: 'thickens-even-so' }
}
