import { solveMix } from '../gypsum/mix'
import { powderClass, type PowderClassId } from '../gypsum/powders'
import {
  Z80, type Celsius, type Kilograms, type KilogramsPerCubicMetre, type Seconds, type WaterRatio,
} from '../units/quantity'
import { centreMoments, type MomentsInput } from '../setting/moments'

/** Measuring a bag: a small cup for its speed, a level measure for its weight. */

/**
 * A cup small enough to waste and large enough to be like a cast (common practice, no source): always made the same
 * way.
 */
export const CUP = { powder: 0.1 as Kilograms, soakMinutes: 1, stirMinutes: 1, section: 0.03, siftSeconds: 20 } as const

interface CupRecipe { readonly powder: Kilograms, readonly water: Kilograms }
export function cupRecipe(classId: PowderClassId): CupRecipe {
  const powder = powderClass(classId),
    { water } = solveMix({ powder, ratio: powder.ratio.recommended, waterTemperature: 20 }, {
      what: 'powder',
      amount: CUP.powder,
    })
  return { powder: CUP.powder, water }
}

/**
 * The cup as the setting model sees it.
 * @param celsius of water and room, which have to be the same @param of its ratio, its class's own unless said
 */
export function cupInput(classId: PowderClassId, celsius: Celsius, of?: WaterRatio): MomentsInput {
  const powder = powderClass(classId), ratio = of ?? powder.ratio.recommended
  return {
    powder,
    ratio: {
      value: ratio,
      low: 0.99 * ratio,
      high: 1.01 * ratio,
      basis: { kind: 'your own record', note: 'as weighed' },
    },
    waterTemperature: celsius,
    roomTemperature: celsius,
    stir: { tool: 'hand', minutes: CUP.stirMinutes },
    stirFrom: CUP.siftSeconds + 60 * CUP.soakMinutes,
    section: CUP.section,
    mould: 'plastic',
    wall: 0.0005,
    bagUncertain: true,
    openNotBefore: 0,
    fragile: false,
  }
}

/** When a cup of this class loses its gloss, at its class's usual speed. */
export function cupExpected(classId: PowderClassId, celsius: Celsius): Seconds {
  return centreMoments(cupInput(classId, celsius)).glossGone
}

interface Litre {
  readonly low: KilogramsPerCubicMetre
  readonly high: KilogramsPerCubicMetre
  readonly mean: KilogramsPerCubicMetre
}
/** Nobody levels a scoop better than this, relative standard deviation (engineering guess). */
const LEVELLED = 0.02

/**
 * Bulk density of a powder from level measures of it, with the range that holds eight of ten scoops. @returns undefined
 * of none, or of what no powder weighs.
 */
export function bulkDensity(volume: number, masses: readonly Kilograms[]): Litre | undefined {
  if (masses.length === 0 || volume <= 0) return undefined
  const all = masses.map(m => m / volume), mean = all.reduce((a, b) => a + b, 0) / all.length
  const seen = all.length > 1
      ? Math.sqrt(all.reduce((s, d) => s + (d - mean) ** 2, 0) / (all.length - 1))
      : 0.05 * mean,
    sd = Math.max(seen, LEVELLED * mean)
  return mean < 200 || mean > 2500 ? undefined : { mean, low: mean - Z80 * sd, high: mean + Z80 * sd }
}
