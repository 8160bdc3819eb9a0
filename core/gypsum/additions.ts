import type { KilogramsPerCubicMetre } from '../units/quantity'

export type AdditionId
  = | 'dry-pigment' | 'sand' | 'silica-flour' | 'glass-fibre'
    | 'salt' | 'potassium-sulfate' | 'ground-gypsum' | 'citrate' | 'borax' | 'polymer'

/** How well the effect on the set is known; it widens the ranges and is said beside the dose. */
export type Sureness = 'physics' | 'order of magnitude' | 'direction only'

export interface AdditionKind {
  readonly id: AdditionId
  readonly name: string
  readonly density: KilogramsPerCubicMetre
  /** Water each kilogram holds on to, so that it no longer thins the mix, kg/kg (engineering guess). */
  readonly waterUptake: number
  /** Smallest dose anyone weighs, as a share of the powder's mass: the step of the field that sets it. */
  readonly step: number
  /** Most that is commonly added, as a share of the powder's mass (common practice). */
  readonly most: number
  /** From this share on it does more harm than good (common practice). */
  readonly harmful: number
  readonly does: string
  readonly harm: string
  readonly sure: Sureness
  /** Multiplier of the hydration rate at a dose in percent of the powder; 1 when it does not take part. */
  readonly speed?: (percent: number) => number
  /** Seeds it brings, per kilogram of it. */
  readonly seeds?: number
  readonly caution?: string
}

/**
 * What people put in beside powder and water. Densities: handbook values from memory; uptake: engineering guess; doses:
 * common practice, no source.
 * Rate factors are orders of magnitude shaped on handbook statements from memory (salt and potassium sulfate speed up,
 * citrate and borax
 * slow down, salt loses its effect again at high dose): try a cup before relying on them.
 */
export const ADDITIONS: readonly AdditionKind[] = [
  {
    id: 'dry-pigment',
    name: 'Dry pigment',
    density: 4500,
    waterUptake: 0.5,
    step: 0.005,
    most: 0.05,
    harmful: 0.05,
    sure: 'physics',
    does: 'Colours the body; drinks about half its weight of water.',
    harm: 'Weaker and streaky, and the mix stiffens. A liquid colour brings its own water: count it as water.',
  },
  {
    id: 'sand',
    name: 'Fine sand',
    density: 2650,
    waterUptake: 0.10,
    step: 0.05,
    most: 1,
    harmful: 1,
    sure: 'physics',
    does: 'Bulk, weight and tooth; cooler, since it makes no heat.',
    harm: 'It settles out of anything thin and the piece is weak.',
  },
  {
    id: 'silica-flour',
    name: 'Silica flour',
    density: 2650,
    waterUptake: 0.27,
    step: 0.05,
    most: 1,
    harmful: 1.2,
    sure: 'physics',
    does: 'Keeps a kiln mould from shrinking; drinks about a quarter of its weight of water.',
    harm: 'Too little plaster is left to hold it together.',
    caution: 'Silica dust harms the lungs for good: fitted respirator, extraction, wet clean-up, never sweep it dry.',
  },
  {
    id: 'glass-fibre',
    name: 'Glass fibre',
    density: 2550,
    waterUptake: 0,
    step: 0.005,
    most: 0.03,
    harmful: 0.03,
    sure: 'direction only',
    does: 'Holds a broken shell together; stiffens the mix at once. How much tougher it gets is not worked out here.',
    harm: 'It will not pour; press it into layers instead.',
    caution: 'Glass fibre pricks and itches: gloves, sleeves, and eye protection when it is cut.',
  },
  {
    id: 'salt',
    name: 'Table salt',
    density: 2165,
    waterUptake: 0,
    step: 0.001,
    most: 0.02,
    harmful: 0.03,
    sure: 'order of magnitude',
    does: 'Speeds the set, most at about 2 %; by 10 % nothing of it is left, and above that it slows.',
    harm: 'Blooms white, rusts metal nearby, keeps the cast damp.',
    speed: c => 1 + 0.38 * c * Math.exp(1 - c / 2),
  },
  {
    id: 'potassium-sulfate',
    name: 'Potassium sulfate',
    density: 2660,
    waterUptake: 0,
    step: 0.001,
    most: 0.02,
    harmful: 0.03,
    sure: 'order of magnitude',
    does: 'Speeds the set strongly and takes away a third of the expansion.',
    harm: 'It sets before it is poured; crystals may bloom.',
    speed: c => 1 + 2 * c / (0.7 + c),
  },
  {
    id: 'ground-gypsum',
    name: 'Ground set plaster',
    density: 2317,
    waterUptake: 0.3,
    step: 0.001,
    most: 0.01,
    harmful: 0.02,
    sure: 'order of magnitude',
    does: 'Seeds the set: a hundredth about halves the time.',
    harm: 'It sets in the bucket. This is what a dirty bucket does.',
    seeds: 3,
  },
  {
    id: 'citrate',
    name: 'Citric acid or citrate',
    density: 1760,
    waterUptake: 0,
    step: 0.0005,
    most: 0.002,
    harmful: 0.003,
    sure: 'order of magnitude',
    does: 'Slows the set: a thousandth makes it about two and a half times as long.',
    harm: 'It may never harden right through, and stays chalky.',
    speed: c => 1 / (1 + 15 * c),
  },
  {
    id: 'borax',
    name: 'Borax',
    density: 1730,
    waterUptake: 0,
    step: 0.0005,
    most: 0.005,
    harmful: 0.01,
    sure: 'order of magnitude',
    does: 'Slows the set; half a percent makes it about three and a half times as long.',
    harm: 'Soft faces. In more places than not it is sold with a warning about fertility.',
    speed: c => 1 / (1 + 5 * c),
    caution: 'Borax may harm fertility: gloves, no dust, away from children.',
  },
  {
    id: 'polymer',
    name: 'Polymer, counted dry',
    density: 1100,
    waterUptake: 0,
    step: 0.005,
    most: 0.1,
    harmful: 0.15,
    sure: 'direction only',
    does: 'Tougher, less chalky, sheds water; it may slow the set. A liquid polymer brings water: count it as water.',
    harm: 'Foams, stays rubbery, sticks to polyurethane moulds; release is needed.',
    speed: c => 1 / (1 + 0.04 * c),
  },
]

const BY_ID = new Map(ADDITIONS.map(a => [a.id, a]))

export interface Addition { readonly id: AdditionId, /** Share of the powder's mass. */ readonly share: number }

/** @throws RangeError for an unknown id: ids are checked at the boundary. */
export function additionKind(id: AdditionId): AdditionKind {
  const found = BY_ID.get(id)
  if (!found) throw new RangeError(`no addition ${id}`)
  return found
}

/** Multiplier of the hydration rate by everything that was added; effects of several multiply (engineering guess). */
export function speedOf(additions: readonly Addition[]): number {
  return additions.reduce((speed, { id, share }) => speed * (additionKind(id).speed?.(100 * share) ?? 1), 1)
}

/** Seeds brought in by additions, per kilogram of powder. */
export function seedsOf(additions: readonly Addition[]): number {
  return additions.reduce((seeds, { id, share }) => seeds + share * (additionKind(id).seeds ?? 0), 0)
}

/**
 * Standard deviation of the logarithm of `speedOf`, as a share of that logarithm: how little an effect is known
 * (engineering guess).
 */
export function speedDoubt(additions: readonly Addition[]): number {
  const acting = additions.filter(a => a.share > 0 && additionKind(a.id).speed !== undefined)
  return acting.length === 0
    ? 0
    : Math.max(...acting.map(a => additionKind(a.id).sure === 'direction only' ? 0.8 : 0.4))
}
