import { Z80, type KilogramsPerCubicMetre } from '../units/quantity'
import { ADDITION_WORDS, type AdditionWords } from './words'
import type { WayIn } from './ways-in'

export type AdditionId
  = | 'dry-pigment' | 'liquid-colour' | 'liquid-paint' | 'sand' | 'silica-flour' | 'glass-fibre'
    | 'salt' | 'potassium-sulfate' | 'ground-gypsum' | 'citrate' | 'borax' | 'polymer'
    | 'alum' | 'vinegar' | 'sugar' | 'white-glue' | 'washing-up'
    | 'sea-water' | 'hard-water' | 'found-water' | 'milk' | 'tea'

/** How well the effect on the set is known; it widens the ranges and is said beside the dose. */
export type Sureness = 'physics' | 'order of magnitude' | 'direction only' | 'saying'

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
  /** It is put in for its colour: as a dry powder, or wet. */
  readonly colours?: 'dry' | 'wet'
  /** Share of it that is water, which thins the mix and has to dry. */
  readonly water?: number
  /** It takes the place of all the water: it has no dose, and a share of one. */
  readonly instead?: true
  /** Air that it makes a stirred mix hold, as a share of the mix. */
  readonly foam?: number
  /** Seeds it brings, per kilogram of it. */
  readonly seeds?: number
}

/** What takes the place of all the water. */
const INSTEAD = { density: 1000, instead: true, step: 1, most: 1, harmful: Infinity } as const

/**
 * What people put in beside powder and water. Densities: handbook values from memory; uptake: engineering guess
 * (sand holds a film, .02 to .10; fine grains count among those that thicken the mix and drink nothing more); doses:
 * common practice, no source.
 * Rate factors are orders of magnitude shaped on handbook statements from memory (salt and potassium sulfate speed up,
 * citrate and borax
 * slow down, salt loses its effect again at high dose): try a cup before relying on them. From the kitchen: the middle
 * of what is told of each, from memory; where it is a saying, that is said.
 */
const ADDITION_FACTS: readonly Omit<AdditionKind, keyof AdditionWords>[] = [
  {
    id: 'dry-pigment',
    colours: 'dry',
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
  {
    id: 'alum', density: 1757, waterUptake: 0, step: 0.001, most: 0.02, harmful: 0.03, sure: 'order of magnitude',
    speed: c => 1 + 2 * c / (0.7 + c),
  },
  {
    id: 'vinegar', density: 1050, water: 0.95, waterUptake: 0, step: 0.01, most: 0.1, harmful: 0.15, sure: 'saying',
    speed: c => 1 / (1 + 0.03 * c),
  },
  {
    id: 'sugar', density: 1590, waterUptake: 0, step: 0.0025, most: 0.01, harmful: 0.02, sure: 'saying',
    speed: c => 1 / (1 + 0.2 * c),
  },
  // Craft and poster paints: about six tenths water, a tenth binder, the rest pigment and chalk (engineering guess).
  {
    id: 'liquid-paint',
    colours: 'wet',
    density: 2000,
    water: 0.6,
    waterUptake: 0.1,
    step: 0.01,
    most: 0.1,
    harmful: 0.15,
    sure: 'direction only',
    speed: c => 1 / (1 + 0.02 * c),
  },
  // Pigment ground in water without a binder.
  {
    id: 'liquid-colour',
    colours: 'wet',
    density: 3500,
    water: 0.6,
    waterUptake: 0.2,
    step: 0.005,
    most: 0.06,
    harmful: 0.1,
    sure: 'physics',
  },
  {
    id: 'white-glue', density: 1190, water: 0.5, waterUptake: 0, step: 0.005, most: 0.07, harmful: 0.1,
    sure: 'direction only',
    speed: c => 1 / (1 + 0.04 * c),
  },
  {
    id: 'washing-up', density: 1030, waterUptake: 0, step: 0.0005, most: 0.001, harmful: 0.001, sure: 'direction only',
    foam: 0.10,
  },
  { ...INSTEAD, id: 'sea-water', waterUptake: 0, sure: 'order of magnitude', speed: () => 1 / 0.57 },
  { ...INSTEAD, id: 'hard-water', waterUptake: 0, sure: 'saying', speed: () => 1 / 0.95 },
  { ...INSTEAD, id: 'found-water', waterUptake: 0, sure: 'direction only' },
  // A tenth of the powder's mass is what is solid in milk at the usual ratio.
  { ...INSTEAD, id: 'milk', waterUptake: 0.09, sure: 'order of magnitude', speed: () => 1 / 2.4 },
  { ...INSTEAD, id: 'tea', waterUptake: 0, sure: 'direction only', speed: () => 1 / 1.7 },
]

export const ADDITIONS: readonly AdditionKind[] = ADDITION_FACTS.map(x => ({ ...x, ...ADDITION_WORDS[x.id] }))

const BY_ID = new Map(ADDITIONS.map(a => [a.id, a]))

export interface Addition {
  readonly id: AdditionId
  /** Share of the powder's mass. */
  readonly share: number
  /** How a colour goes in, where that was chosen. */
  readonly way?: WayIn
}

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
    : Math.max(...acting.map(a => DOUBT[additionKind(a.id).sure]))
}

/** How little an effect is known, as a share of its logarithm. */
const DOUBT: Readonly<Record<Sureness, number>> = {
  'physics': 0.4, 'order of magnitude': 0.4, 'direction only': 0.8, 'saying': 0.9,
}

/** Seeds of a hundredth of set plaster shorten the set to about two thirds: (1 + .5 c)^-1 at c percent, from memory. */
const SEEDED = 0.5

/** What an addition alone does to the time to set: a factor with its range of eight in ten, and how sure that is. */
export interface SetEffect {
  readonly factor: number
  readonly low: number
  readonly high: number
  readonly sure: Sureness
}
/**
 * @returns nothing for what takes no part in setting
 * @example setEffect({ id: 'borax', share: 0.005 })!.factor // 3.5
 */
export function setEffect({ id, share }: Addition): SetEffect | undefined {
  const { speed, seeds, sure } = additionKind(id)
  if (!speed && !seeds) return undefined
  const factor = 1 / (speed?.(100 * share) ?? 1 + SEEDED * 100 * share)
  const [a, b] = [-1, 1].map(side => factor ** Math.max(0, 1 + side * Z80 * DOUBT[sure])) as [number, number]
  return { factor, low: Math.min(a, b), high: Math.max(a, b), sure }
}

/** Air that additions make a mix hold beside what is stirred in; never more than three tenths in all. */
export function foamOf(additions: readonly Addition[]): number {
  return Math.min(0.25, additions.reduce((air, { id, share }) => air + (share > 0 ? additionKind(id).foam ?? 0 : 0), 0))
}
