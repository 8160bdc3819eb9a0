import { classRateSd, SEEDS_SD } from '../setting/bag-character'
import { CONDUCTIVITY_SD, JAMMING_SD, TEMPERATURE_SD } from '../setting/moments'
import type { Scatter } from '../setting/setting-mix'
import { normal, uniform } from './noise'
import type { Setup } from './types'

/** What this very bag, room and day are like: drawn once from the seed, with the deviations the forecast assumes. */
export interface Truth {
  readonly scatter: Scatter
  /** Off what the thermometer was thought to say, K. */
  readonly warmth: number
  /** Multiples: how densely powder beds, how fast it wets, how caked it is, what holds a cast, how slowly it dries. */
  readonly bed: number
  readonly wetting: number
  readonly caking: number
  readonly holding: number
  readonly drying: number
}

/** Deviations of what only practice draws (engineering guesses). */
const BED_SD = 0.025, WETTING_SD = 0.2, CAKING_SD = 0.35, HOLDING_SD = 0.10, DRYING_SD = 0.12

/** Neutral where there is no seed: what check values are worked out with. */
export const NEUTRAL: Truth = {
  scatter: { rate: 1, seeds: 1 }, warmth: 0, bed: 1, wetting: 1, caking: 1, holding: 1, drying: 1,
}

export function drawTruth({ hidden = {} }: Setup, seed: number): Truth {
  const z = (name: string) => normal(seed, name), times = (sd: number, name: string) => Math.exp(sd * z(name))
  const u = uniform(seed, 'tail')
  return {
    scatter: {
      rate: (hidden.rate ?? 1) * times(hidden.rateSd ?? classRateSd(false), 'rate'),
      seeds: times(SEEDS_SD, 'seeds'),
      tail: u < 0.25 ? 0.6 : u < 0.75 ? 1 : 1.6,
      jamming: 1 + JAMMING_SD * z('jamming'),
      conductivity: times(CONDUCTIVITY_SD, 'conductivity'),
      effect: z('effect'),
    },
    warmth: TEMPERATURE_SD * z('warmth'),
    bed: times(BED_SD, 'bed'),
    wetting: times(WETTING_SD, 'wetting'),
    caking: (hidden.caking ?? 1) * times(CAKING_SD, 'caking'),
    holding: times(HOLDING_SD, 'holding'),
    drying: times(DRYING_SD, 'drying'),
  }
}
