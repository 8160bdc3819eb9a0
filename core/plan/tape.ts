import type { TapeInput } from '../drawing/tape'
import type { SchoolId } from '../gypsum/schools'
import type { Moments } from '../setting/moments'
import type { PlanResult } from './types'

/** How long after it is not too stiff a cast is opened at the latest where nobody foresees it yet, s. */
const OPEN_LATER = 1200

/**
 * The tape of a plan's first bucket, before anything has happened.
 * @param moments its ranges; by the centre of the forecast until they are there
 * @param early whether it is too stiff from when one in ten is: where custom pours on regardless, it is not
 */
export function tapeOfPlan(
  school: SchoolId, { batches, setting }: Pick<PlanResult, 'batches' | 'setting'>, moments?: Moments, early = false,
): TapeInput | undefined {
  const [bucket] = batches, centre = setting?.centre
  if (!bucket || !centre) return undefined
  const { sifted, soaked, stirred, poured } = bucket.steps
  const first = school === 'powder-first' ? 'water' : 'sift', stirs = school === 'bag' ? 'knead' : 'stir'
  const acts = [[first, sifted], ['soak', soaked], [stirs, stirred], ['fill', poured]] as const
  return {
    acts: acts.filter(([, end]) => end.value > 0).map(([id, end]) => ({ id, end: end.value, done: false })),
    gloss: moments?.glossGone.value ?? centre.glossGone, warmest: moments?.warmest.value ?? centre.warmest,
    open: moments?.open ?? { from: centre.open, to: centre.open + OPEN_LATER },
    stiff: (early ? moments?.pourBy.low : moments?.pourBy.value) ?? centre.pourBy,
  }
}
