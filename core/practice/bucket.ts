import { powderSpecificVolume, waterDensity } from '../gypsum/mix'
import { pasteOf } from '../gypsum/paste'
import { powderClass, type PowderClass } from '../gypsum/powders'
import type { StirTool } from '../gypsum/stirring'
import type { Celsius, Kilograms, Seconds } from '../units/quantity'
import { CELLS } from './surface'
import type { Truth } from './truth'
import type { Lumps, Setup } from './types'

/**
 * One bucket as it is now. Powder is dry on the water, wetted and sunk to a bed, dry inside lumps, or mixed in; it is
 * moved between these and never made or lost. SI throughout.
 */
export interface Bucket {
  /** Ticks of half a second since the vessel was taken; when powder met water. */
  now: Seconds
  wetAt?: Seconds
  /** By cell, kg/m2. */
  readonly dry: Float64Array
  readonly bed: Float64Array
  /** Dry inside lumps of each size, and of those what the tool does not reach; kg. */
  readonly lumps: Lumps
  readonly missed: Lumps
  mixed: Kilograms
  water: Kilograms
  waterTemperature: Celsius
  lifted: Kilograms
  /** Of all powder and water that came in, and that went into moulds. */
  strewn: Kilograms
  watered: Kilograms
  poured: { powder: Kilograms, water: Kilograms, lumps: Kilograms }
  dirt: number
  air: number
  turns: number
  stirFrom?: Seconds
  stirred: Seconds
  tool: StirTool
  /** Hydration and temperature: one place, in arrays that the reaction moves. */
  readonly alpha: Float64Array
  readonly temperature: Float64Array
  overworked: Seconds
  strews: number
}

export const TICK: Seconds = 0.5
/** Of the air that a hand leaves: what is in it before it is stirred (engineering guess). */
const AIR_AT_FIRST = 0.5

/** What is constant about one vessel and its powder. */
export interface Place {
  readonly setup: Setup
  readonly truth: Truth
  readonly powder: PowderClass
  /** The plaster of a powder that is sold mixed. */
  readonly plaster: PowderClass
  readonly area: number
  /** m3 a kilogram of powder takes as grains, and the share of a settled bed that is grains. */
  readonly volume: number
  readonly bedShare: number
}
export function placeOf(setup: Setup, truth: Truth): Place {
  const powder = powderClass(setup.powder), { plaster } = pasteOf(powder, setup.plan.ratio)
  return {
    setup, truth, powder, plaster, area: Math.PI / 4 * setup.vessel.width ** 2,
    volume: powderSpecificVolume(powder), bedShare: powder.settledFraction * truth.bed,
  }
}

export function emptyBucket({ setup, powder }: Place): Bucket {
  return {
    now: 0, dry: new Float64Array(CELLS.length), bed: new Float64Array(CELLS.length),
    lumps: [0, 0, 0], missed: [0, 0, 0],
    mixed: 0, water: 0, waterTemperature: setup.room, lifted: 0, strewn: 0, watered: 0,
    poured: { powder: 0, water: 0, lumps: 0 }, dirt: setup.hidden?.dirt ?? 0, air: AIR_AT_FIRST * powder.handAir,
    turns: 0, stirred: 0, tool: 'hand', alpha: new Float64Array(1), temperature: new Float64Array([setup.room]),
    overworked: 0, strews: 0,
  }
}

export const total = (values: ArrayLike<number>): number => {
  let sum = 0
  for (let i = 0; i < values.length; i++) sum += values[i]!
  return sum
}
export const cellArea = ({ area }: Place): number => area / CELLS.length
export const dryOf = (place: Place, b: Bucket): Kilograms => total(b.dry) * cellArea(place)
export const bedOf = (place: Place, b: Bucket): Kilograms => total(b.bed) * cellArea(place)
export const lumpsOf = (b: Bucket): Kilograms => total(b.lumps)
/** Powder that has met its water, and the ratio that it really has. */
export const wettedOf = (place: Place, b: Bucket): Kilograms => b.mixed + bedOf(place, b)
export const ratioOf = (place: Place, b: Bucket): number => b.water / Math.max(1e-9, wettedOf(place, b))

/** What a litre of lumps weighs, kg/m3: they lie in the bed and take no water (engineering guess). */
export const LUMP_DENSITY = 700
/** Level of the water over the bottom, m; what lies dry on top does not raise it. */
export function levelOf(place: Place, b: Bucket): number {
  const solids = wettedOf(place, b) * place.volume + lumpsOf(b) / LUMP_DENSITY
  return (b.water / waterDensity(b.waterTemperature) + solids) / place.area
}
/** Mix in the bucket with its lumps and air, m3. */
export function contentsOf(place: Place, b: Bucket): number {
  const rho = waterDensity(b.waterTemperature)
  return (b.water / rho + wettedOf(place, b) * place.volume) / (1 - b.air) + lumpsOf(b) / LUMP_DENSITY
}
