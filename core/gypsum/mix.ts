import type { Celsius, CubicMetres, Kilograms, KilogramsPerCubicMetre, WaterRatio } from '../units/quantity'
import { additionKind, type Addition, type AdditionId } from './additions'
import { DENSITY, powderSpecificVolume } from './grains'
import type { PowderClass } from './powders'

export { DENSITY, powderSpecificVolume }

/** Molar masses in g/mol: CaSO4.1/2H2O, CaSO4.2H2O, H2O (IUPAC atomic masses). */
const MOLAR_HEMIHYDRATE = 145.1485
const MOLAR_GYPSUM = 172.1714
const MOLAR_WATER = 18.01528

/** Water that one kilogram of hemihydrate binds in setting, kg/kg (first principles, 0.18617). */
export const CHEMICAL_WATER = 1.5 * MOLAR_WATER / MOLAR_HEMIHYDRATE
/** Gypsum formed by one kilogram of hemihydrate, kg/kg (first principles, 1.18617). */
export const GYPSUM_YIELD = MOLAR_GYPSUM / MOLAR_HEMIHYDRATE

/**
 * Density of pure water, kg/m3, for 0 to 60 degC at sea-level pressure.
 * Source: Tanaka et al. 2001, Metrologia 38:301 (from memory; good to a few parts per million to 40 degC, 0.05 % at
 * 60).
 */
export function waterDensity(t: Celsius): KilogramsPerCubicMetre {
  return 999.97495 * (1 - ((t - 3.983035) ** 2 * (t + 301.797)) / (522528.9 * (t + 69.34881)))
}

interface MixRecipe {
  readonly powder: PowderClass
  readonly ratio: WaterRatio
  readonly waterTemperature: Celsius
  /** Volume share of air stirred in and not driven out; defaults to that of a hand-stirred mix of this class. */
  readonly air?: number
  readonly additions?: readonly Addition[]
}

/** What is known, in SI: the slurry volume wanted, the powder there is, or the water already in the bucket. */
export interface Known { readonly what: 'slurry' | 'powder' | 'water', readonly amount: number }

export interface Mix {
  readonly powder: Kilograms
  readonly water: Kilograms
  readonly additions: readonly { readonly id: AdditionId, readonly mass: Kilograms }[]
  readonly slurry: CubicMetres
  readonly slurryDensity: KilogramsPerCubicMetre
  /** Volume of the water alone at its temperature: the level in the bucket before powder. */
  readonly waterVolume: CubicMetres
  /** Solid volume over solid and liquid volume in the fresh mix. */
  readonly solidsFraction: number
  /** Water per powder that is left to thin the mix once additions have drunk theirs and grains hold their film. */
  readonly effectiveRatio: WaterRatio
  /** Mass when all free water has left. */
  readonly dryMass: Kilograms
  /** Pore volume over cast volume when dry, entrained air included. */
  readonly dryPorosity: number
  /** Water that is not bound and must dry out. */
  readonly freeWater: Kilograms
}

/**
 * Masses and volumes of a mix for any one known amount.
 * First principles: volumes of powder grains, water and additions add up, divided by (1 - air).
 * @throws RangeError when an amount, ratio or share is not a finite positive number: callers check input first
 *   (`mixProblems`).
 */
export function solveMix(recipe: MixRecipe, known: Known): Mix {
  const { powder, ratio, waterTemperature } = recipe
  const air = recipe.air ?? powder.handAir
  if (!(ratio > 0) || !(known.amount >= 0) || !Number.isFinite(known.amount) || !(air >= 0 && air < 0.5))
    throw new RangeError('impossible mix')
  const rhoWater = waterDensity(waterTemperature)
  let addedVolume = 0, addedMass = 0, drunk = 0, brought = 0
  for (const { id, share } of recipe.additions ?? []) {
    const kind = additionKind(id)
    const solid = kind.instead ? 0 : share * (1 - (kind.water ?? 0))
    addedVolume += solid / kind.density
    addedMass += solid
    brought += share * (kind.water ?? 0)
    drunk += share * (kind.waterUptake + (kind.film ?? 0))
  }
  const solids = powderSpecificVolume(powder) + addedVolume
  const water = ratio + brought, perKilogram = (solids + water / rhoWater) / (1 - air)
  const mass = known.what === 'powder'
    ? known.amount
    : known.what === 'water'
      ? known.amount / ratio
      : known.amount / perKilogram
  const bound = Math.min(powder.purity * CHEMICAL_WATER, water)
  const gypsum = powder.purity * GYPSUM_YIELD
  const solidWhenSet = gypsum / DENSITY.gypsum + (1 - powder.purity) / powder.inertDensity + addedVolume
  return {
    powder: mass,
    water: mass * ratio,
    additions: (recipe.additions ?? []).filter(a => !additionKind(a.id).instead)
      .map(a => ({ id: a.id, mass: a.share * mass })),
    slurry: mass * perKilogram,
    slurryDensity: (1 + water + addedMass) / perKilogram,
    waterVolume: mass * ratio / rhoWater,
    solidsFraction: solids / (solids + water / rhoWater),
    effectiveRatio: water - drunk,
    dryMass: mass * (1 + bound + addedMass),
    dryPorosity: 1 - solidWhenSet / perKilogram,
    freeWater: mass * (water - bound),
  }
}

/**
 * Consistency at which powder sifted into still water stays dry on top: the water that fills the gaps of the settled
 * bed.
 * Engineering guess for the bed; it lands on the recommended consistency of every class, as practice says.
 */
export function saturationRatio(powder: PowderClass, waterTemperature: Celsius = 20): WaterRatio {
  const phi = powder.settledFraction
  return waterDensity(waterTemperature) * powderSpecificVolume(powder) * (1 - phi) / phi
}

/**
 * Change of the volume of the mix itself as it sets (before any expansion pushes the grains apart), as a share;
 * negative.
 * First principles; the textbook figure for hemihydrate with just the water it binds is -7.11 %.
 */
export function chemicalShrinkage(
  crystal: 'alpha' | 'beta',
  ratio: WaterRatio,
  rhoHemihydrate: KilogramsPerCubicMetre = DENSITY[crystal],
  rhoGypsum: KilogramsPerCubicMetre = DENSITY.gypsum,
  rhoWater: KilogramsPerCubicMetre = 998,
): number {
  return (GYPSUM_YIELD / rhoGypsum + (ratio - CHEMICAL_WATER) / rhoWater) / (1 / rhoHemihydrate + ratio / rhoWater) - 1
}
