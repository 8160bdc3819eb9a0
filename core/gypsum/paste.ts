import type { WaterRatio } from '../units/quantity'
import { additionKind, type Addition } from './additions'
import { powderSpecificVolume } from './grains'
import type { PowderClass } from './powders'

/**
 * What sets in a mix, and the grains that only lie in it. A powder that is sold mixed is the plaster in it with a
 * filler, so that both ways of coming to one mix are worked out as one.
 */
export interface Paste {
  readonly plaster: PowderClass
  /** Kilograms out of the bag for one kilogram of plaster: more than one where it is sold mixed. */
  readonly powder: number
  /** Water to plaster by mass. */
  readonly ratio: WaterRatio
  /** Shares of the plaster's mass. */
  readonly additions: readonly Addition[]
}

/**
 * @param ratio water to what is in the bag; @param additions shares of what is in the bag
 * @example pasteOf(powderClass('investment-plaster'), 0.45).ratio // 0.90, of water to plaster
 */
export function pasteOf(powder: PowderClass, ratio: WaterRatio, additions: readonly Addition[] = []): Paste {
  const { composition } = powder
  if (!composition) return { plaster: powder, powder: 1, ratio, additions }
  const whole = 1 + composition.share
  return {
    plaster: composition.plaster,
    powder: whole,
    ratio: ratio * whole,
    additions: [
      { id: composition.filler, share: composition.share },
      ...additions.map(a => ({ id: a.id, share: a.share * whole })),
    ],
  }
}

/** Grains of a paste that take no part in setting, by kilogram of plaster. */
export interface Grains {
  /** Mass of those fine enough to thicken the paste itself, kg/kg. */
  readonly fine: number
  /** Volumes, m3/kg: of those, of coarse ones, and of all. */
  readonly fineVolume: number
  readonly coarseVolume: number
  readonly volume: number
  /** Water in the film on coarse ones, kg/kg. */
  readonly film: number
}

export function grainsIn({ additions }: Pick<Paste, 'additions'>): Grains {
  let fine = 0, fineVolume = 0, coarseVolume = 0, volume = 0, film = 0
  for (const { id, share } of additions) {
    const { grain, density, film: held = 0 } = additionKind(id)
    if (!grain) continue
    volume += share / density
    film += share * held
    if (grain === 'fine') {
      fine += share
      fineVolume += share / density
    }
    if (grain === 'coarse') coarseVolume += share / density
  }
  return { fine, fineVolume, coarseVolume, volume, film }
}

/** Of two kinds of grain lying together, by their volumes. */
export function byVolume(plaster: PowderClass, fineVolume: number, ofPlaster: number, ofFine: number): number {
  const grains = powderSpecificVolume(plaster)
  return (grains * ofPlaster + fineVolume * ofFine) / (grains + fineVolume)
}

/**
 * Water for a kilogram of plaster that keeps a mix flowing as it did before grains were added, kg: what its usual range
 * is moved by. Silica flour .27 (.20 to .35), sand .05 (.02 to .10) for each kilogram of it; engineering guess.
 */
export function waterForGrains({ additions }: Pick<Paste, 'additions'>): {
  readonly low: number
  readonly value: number
  readonly high: number
} {
  let low = 0, value = 0, high = 0
  for (const { id, share } of additions) {
    const { grain } = additionKind(id)
    if (grain !== 'fine' && grain !== 'coarse') continue
    const more = MORE_WATER[grain]
    low += more.low * share
    value += more.value * share
    high += more.high * share
  }
  return { low, value, high }
}
const MORE_WATER = {
  fine: { low: 0.20, value: 0.27, high: 0.35 },
  coarse: { low: 0.02, value: 0.05, high: 0.10 },
} as const
