import type { KilogramsPerCubicMetre } from '../units/quantity'
import { ADDITION_WORDS, type AdditionWords } from './words'

export type AdditionId
  = | 'dry-pigment' | 'sand' | 'silica-flour' | 'glass-fibre'
    | 'salt' | 'potassium-sulfate' | 'ground-gypsum' | 'citrate' | 'borax' | 'polymer'

/** How well the effect on the set is known; it widens the ranges and is said beside the dose. */
type Sureness = 'physics' | 'order of magnitude' | 'direction only'

interface AdditionKind extends AdditionWords {
  readonly id: AdditionId
  /** Someone can be hurt by it: its words have a caution. */
  readonly cautioned?: true
  readonly density: KilogramsPerCubicMetre
  /**
   * It lies in the set plaster as grains: `fine` ones (below 75 um) thicken the paste itself, `coarse` ones crowd it,
   * `drinking` ones hold water. What dissolves, and fibre, is none.
   */
  readonly grain?: 'fine' | 'coarse' | 'drinking'
  /** Water each kilogram holds on to, so that it no longer thins the mix, kg/kg (engineering guess). */
  readonly waterUptake: number
  /** Water that clings to coarse grains: it thins the mix no more, but is still there to react, kg/kg. */
  readonly film?: number
  /** Smallest dose anyone weighs, as a share of the powder's mass: the step of the field that sets it. */
  readonly step: number
  /** Most that is commonly added, as a share of the powder's mass (common practice). */
  readonly most: number
  /** From this share on it does more harm than good (common practice). */
  readonly harmful: number
  readonly sure: Sureness
  /** Multiplier of the hydration rate at a dose in percent of the powder; 1 when it does not take part. */
  readonly speed?: (percent: number) => number
  /** Seeds it brings, per kilogram of it. */
  readonly seeds?: number
}

/**
 * What people put in beside powder and water. Densities: handbook values from memory; uptake: engineering guess
 * (sand holds a film, .02 to .10; fine grains count among those that thicken the mix and drink nothing more); doses:
 * common practice, no source.
 * Rate factors are orders of magnitude shaped on handbook statements from memory (salt and potassium sulfate speed up,
 * citrate and borax
 * slow down, salt loses its effect again at high dose): try a cup before relying on them.
 */
const ADDITION_FACTS: readonly Omit<AdditionKind, keyof AdditionWords>[] = [
  {
    id: 'dry-pigment',
    density: 4500,
    grain: 'drinking',
    waterUptake: 0.5,
    step: 0.005,
    most: 0.05,
    harmful: 0.05,
    sure: 'physics',
  },
  {
    id: 'sand',
    density: 2650,
    grain: 'coarse',
    waterUptake: 0,
    film: 0.05,
    step: 0.05,
    most: 1,
    harmful: 1,
    sure: 'physics',
  },
  {
    id: 'silica-flour',
    cautioned: true,
    density: 2650,
    grain: 'fine',
    waterUptake: 0,
    step: 0.05,
    most: 1,
    harmful: 1.2,
    sure: 'physics',
  },
  {
    id: 'glass-fibre',
    cautioned: true,
    density: 2550,
    waterUptake: 0,
    step: 0.005,
    most: 0.03,
    harmful: 0.03,
    sure: 'direction only',
  },
  {
    id: 'salt',
    density: 2165,
    waterUptake: 0,
    step: 0.001,
    most: 0.02,
    harmful: 0.03,
    sure: 'order of magnitude',
    speed: c => 1 + 0.38 * c * Math.exp(1 - c / 2),
  },
  {
    id: 'potassium-sulfate',
    density: 2660,
    waterUptake: 0,
    step: 0.001,
    most: 0.02,
    harmful: 0.03,
    sure: 'order of magnitude',
    speed: c => 1 + 2 * c / (0.7 + c),
  },
  {
    id: 'ground-gypsum',
    density: 2317,
    grain: 'drinking',
    waterUptake: 0.3,
    step: 0.001,
    most: 0.01,
    harmful: 0.02,
    sure: 'order of magnitude',
    seeds: 3,
  },
  {
    id: 'citrate',
    density: 1760,
    waterUptake: 0,
    step: 0.0005,
    most: 0.002,
    harmful: 0.003,
    sure: 'order of magnitude',
    speed: c => 1 / (1 + 15 * c),
  },
  {
    id: 'borax',
    cautioned: true,
    density: 1730,
    waterUptake: 0,
    step: 0.0005,
    most: 0.005,
    harmful: 0.01,
    sure: 'order of magnitude',
    speed: c => 1 / (1 + 5 * c),
  },
  {
    id: 'polymer',
    density: 1100,
    waterUptake: 0,
    step: 0.005,
    most: 0.1,
    harmful: 0.15,
    sure: 'direction only',
    speed: c => 1 / (1 + 0.04 * c),
  },
]

export const ADDITIONS: readonly AdditionKind[] = ADDITION_FACTS.map(x => ({ ...x, ...ADDITION_WORDS[x.id] }))

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
