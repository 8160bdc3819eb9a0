import type { CubicMetres, Metres } from '../units/quantity'
import { vesselDiameter, vesselHeight, type Vessel } from '../mould/gauge/vessel'

/** A bucket cut through, with what stands in it: water, the mound that grows in it, islands, and then the mix. */
export interface BucketLevels {
  /** Heights above the floor. */
  readonly water: Metres
  /** The top of powder that has sunk, on average; nothing before powder and nothing in a mix. */
  readonly mound: Metres
  /** Dry powder riding on the water: it sinks, or stays where the mound has reached it. */
  readonly islands: 'none' | 'sinking' | 'staying'
}

/** What goes into a bucket, m3: water, and the solid volume of its powder. */
export interface Poured {
  readonly water: CubicMetres
  readonly solid: CubicMetres
  /** Share of a settled bed of this powder that is solid. */
  readonly settled: number
}

/**
 * Levels while sifting. Powder that has sunk lies as a bed of its settled share and lifts the water by its own solid
 * volume; where the bed has reached the water, what comes after stays dry. First principles.
 * @param sifted share of the powder that is in, 0 to 1
 */
export function siftedLevels(vessel: Vessel, { water, solid, settled }: Poured, sifted: number): BucketLevels {
  const inside = solid * Math.min(1, Math.max(0, sifted)), bed = inside / settled
  const top = vesselHeight(vessel, water + inside)
  if (inside === 0) return { water: top, mound: 0, islands: 'none' }
  const mound = Math.min(top, vesselHeight(vessel, bed))
  return { water: top, mound, islands: bed >= water + inside ? 'staying' : 'sinking' }
}

/** Height at which a mix of so much stands. */
export const mixLevel = (vessel: Vessel, mix: CubicMetres): Metres => vesselHeight(vessel, mix)

/** Half of what is inside a bucket between two heights, as a closed cut: x from the middle, y up from the floor. */
export function insideBetween(
  vessel: Vessel, low: Metres, high: Metres,
): readonly { readonly x: Metres, readonly y: Metres }[] {
  const half = (height: Metres) => vesselDiameter(vessel, height) / 2
  return [
    { x: -half(low), y: low }, { x: -half(high), y: high }, { x: half(high), y: high }, { x: half(low), y: low },
  ]
}

/** Grains of a bed, where a fixed drawing of lots puts them: a picture stands still. Shares of its width and height. */
export function grainsOf(count: number): readonly { readonly x: number, readonly y: number, readonly r: number }[] {
  let state = 9
  const next = () => (state = state * 16_807 % 2_147_483_647) / 2_147_483_647
  return Array.from({ length: count }, () => ({ x: next(), y: next(), r: 0.7 + 1.3 * next() }))
}
