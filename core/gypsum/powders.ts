import type { Basis, KilogramsPerCubicMetre, WaterRatio } from '../units/quantity'
import { POWDER_WORDS, type PowderWords } from './words'

export type PowderClassId
  = | 'plaster-of-paris' | 'casting-plaster' | 'pottery-plaster' | 'gypsum-cement' | 'high-strength-gypsum-cement'
    | 'dental-type-2' | 'dental-type-3' | 'dental-type-4' | 'dental-type-5' | 'investment-plaster' | 'plaster-silica'
    | 'other'

/** A span of values people meet in practice; read as an 80 % range where a distribution is needed. */
export interface Span { readonly low: number, readonly high: number }

/** What is worked out from a class: kept with each run, so that it stays what it was. */
export type PowderFacts = Omit<
  PowderClass,
  keyof PowderWords | 'id' | 'alsoCalled' | 'bulkLoose' | 'bulkTapped' | 'nominalSet' | 'retired' | 'composition'
>

/** The facts of a class as they are now. What it is mixed of stands in its id. */
export function factsOf(powder: PowderClass): PowderFacts {
  const {
    family, crystal, purity, inertDensity, ratio, settledFraction, jammingFraction, rate, yieldScale, viscosityExponent,
    handAir, strengthFactor, expansion,
  } = powder
  return {
    family, crystal, purity, inertDensity, ratio, settledFraction, jammingFraction, rate, yieldScale, viscosityExponent,
    handAir, expansion, ...strengthFactor !== undefined && { strengthFactor },
  }
}

interface Composition { readonly plaster: PowderClass, readonly filler: 'silica-flour', readonly share: number }

export interface PowderClass extends PowderWords {
  readonly id: PowderClassId
  /** Everyday words that the same class goes by; search only. */
  readonly alsoCalled: readonly string[]
  readonly family: 'plaster' | 'cement' | 'dental' | 'investment'
  readonly crystal: 'alpha' | 'beta'
  /** Mass share of hemihydrate in the powder; the rest is inert. */
  readonly purity: number
  readonly inertDensity: KilogramsPerCubicMetre
  /** Recommended consistency and the range in which the class is usable, water/powder by mass. */
  readonly ratio: { readonly recommended: WaterRatio, readonly low: WaterRatio, readonly high: WaterRatio }
  /** Bulk density as scooped loosely and as tapped down, kg/m3. */
  readonly bulkLoose: Span
  readonly bulkTapped: Span
  /** Solid volume fraction of a bed sifted into still water: sets the saturation consistency. */
  readonly settledFraction: number
  /** Solid volume fraction at which the mix jams and no longer flows. */
  readonly jammingFraction: number
  /** Hydration rate constant at 21 degC and the recommended ratio, 1/min. */
  readonly rate: number
  /** Yield stress scale of the fresh mix, Pa, and exponent of its plastic viscosity. */
  readonly yieldScale: number
  readonly viscosityExponent: number
  /** Air left in a hand-stirred mix, volume share. */
  readonly handAir: number
  /** It is sold mixed: so many kilograms of a filler to one of a plaster. All but masses is worked out from these. */
  readonly composition?: Composition
  /** How much less is known of it than of a class: standard deviations of the logarithm of its speed and strength. */
  readonly doubt?: { readonly rate: number, readonly strength: number }
  /** No longer to be chosen: kept for what was made from it, as that was worked out. */
  readonly retired?: true
  /** Wet and dry strength against the common law of porosity, of a retired class. */
  readonly strengthFactor?: number
  /**
   * Linear expansion on setting at the recommended ratio after 100 spatula turns, percent, and the range met in
   * practice.
   */
  readonly expansion: { readonly usual: number, readonly low: number, readonly high: number }
  /** Loss of gloss at the recommended ratio, 21 degC, in minutes: the figure `rate` was fitted to. */
  readonly nominalSet: { readonly minutes: number, readonly basis: Basis }
}

const CP: Basis = { kind: 'common practice', note: 'workshop custom for this class, no published source' }
const ISO: Basis = {
  kind: 'handbook from memory',
  note: 'dental materials handbook table of setting times; check before relying on it',
}

function span(low: number, high: number): Span {
  return { low: low * 1000, high: high * 1000 }
}

/**
 * The classes of powder. Purity, bulk densities and ratios: handbook values from memory and common practice;
 * `settledFraction`, `jammingFraction`, `yieldScale` and `viscosityExponent`: engineering guesses fitted to practice;
 * expansions: handbook values from memory (the dental ones inside the ISO 6873 limits);
 * `rate`: fitted to `nominalSet`. See docs/model.md.
 */
const SIMPLE_FACTS: readonly Omit<PowderClass, keyof PowderWords>[] = [
  {
    id: 'plaster-of-paris',
    alsoCalled: ['gauging plaster', 'craft plaster'],
    family: 'plaster',
    crystal: 'beta',
    purity: 0.90,
    inertDensity: 2700,
    ratio: { recommended: 0.70, low: 0.60, high: 0.90 },
    bulkLoose: span(0.60, 0.80),
    bulkTapped: span(0.95, 1.15),
    settledFraction: 0.345,
    jammingFraction: 0.45,
    rate: 0.3376,
    yieldScale: 18,
    viscosityExponent: 4,
    handAir: 0.02,
    expansion: { usual: 0.25, low: 0.15, high: 0.4 },
    nominalSet: { minutes: 14, basis: CP },
  },
  {
    id: 'casting-plaster',
    alsoCalled: ['moulding plaster'],
    family: 'plaster',
    crystal: 'beta',
    purity: 0.92,
    inertDensity: 2700,
    ratio: { recommended: 0.67, low: 0.60, high: 0.75 },
    bulkLoose: span(0.65, 0.85),
    bulkTapped: span(0.95, 1.15),
    settledFraction: 0.352,
    jammingFraction: 0.46,
    rate: 0.2570,
    yieldScale: 18,
    viscosityExponent: 4,
    handAir: 0.02,
    expansion: { usual: 0.2, low: 0.15, high: 0.3 },
    nominalSet: { minutes: 18, basis: CP },
  },
  {
    id: 'pottery-plaster',
    alsoCalled: ['potter’s plaster'],
    family: 'plaster',
    crystal: 'beta',
    purity: 0.93,
    inertDensity: 2700,
    ratio: { recommended: 0.70, low: 0.60, high: 0.80 },
    bulkLoose: span(0.65, 0.85),
    bulkTapped: span(0.95, 1.15),
    settledFraction: 0.345,
    jammingFraction: 0.47,
    rate: 0.3014,
    yieldScale: 20,
    viscosityExponent: 4.3,
    handAir: 0.02,
    expansion: { usual: 0.2, low: 0.15, high: 0.25 },
    nominalSet: { minutes: 16, basis: CP },
  },
  {
    id: 'gypsum-cement',
    alsoCalled: ['hard plaster'],
    family: 'cement',
    crystal: 'alpha',
    purity: 0.93,
    inertDensity: 2700,
    ratio: { recommended: 0.42, low: 0.38, high: 0.48 },
    bulkLoose: span(0.90, 1.10),
    bulkTapped: span(1.30, 1.50),
    settledFraction: 0.475,
    jammingFraction: 0.54,
    rate: 0.1672,
    yieldScale: 11,
    viscosityExponent: 3.4,
    handAir: 0.02,
    expansion: { usual: 0.35, low: 0.25, high: 0.45 },
    nominalSet: { minutes: 24, basis: CP },
  },
  {
    id: 'high-strength-gypsum-cement',
    alsoCalled: ['casting stone'],
    family: 'cement',
    crystal: 'alpha',
    purity: 0.94,
    inertDensity: 2700,
    ratio: { recommended: 0.31, low: 0.28, high: 0.34 },
    bulkLoose: span(1.00, 1.20),
    bulkTapped: span(1.45, 1.65),
    settledFraction: 0.56,
    jammingFraction: 0.58,
    rate: 0.1790,
    yieldScale: 6,
    viscosityExponent: 2.5,
    handAir: 0.02,
    expansion: { usual: 0.22, low: 0.15, high: 0.3 },
    nominalSet: { minutes: 18, basis: CP },
  },
  {
    id: 'dental-type-2',
    alsoCalled: ['model plaster'],
    family: 'dental',
    crystal: 'beta',
    purity: 0.93,
    inertDensity: 2700,
    ratio: { recommended: 0.50, low: 0.45, high: 0.55 },
    bulkLoose: span(0.70, 0.90),
    bulkTapped: span(1.05, 1.25),
    settledFraction: 0.425,
    jammingFraction: 0.4769,
    rate: 0.3181,
    yieldScale: 12,
    viscosityExponent: 3,
    handAir: 0.02,
    expansion: { usual: 0.2, low: 0.06, high: 0.3 },
    nominalSet: { minutes: 11, basis: ISO },
  },
  {
    id: 'dental-type-3',
    alsoCalled: ['model stone'],
    family: 'dental',
    crystal: 'alpha',
    purity: 0.95,
    inertDensity: 2700,
    ratio: { recommended: 0.30, low: 0.27, high: 0.33 },
    bulkLoose: span(0.95, 1.15),
    bulkTapped: span(1.40, 1.60),
    settledFraction: 0.555,
    jammingFraction: 0.5853,
    rate: 0.4707,
    yieldScale: 5,
    viscosityExponent: 2.5,
    handAir: 0.01,
    expansion: { usual: 0.12, low: 0.02, high: 0.2 },
    nominalSet: { minutes: 7, basis: ISO },
  },
  {
    id: 'dental-type-4',
    alsoCalled: [],
    family: 'dental',
    crystal: 'alpha',
    purity: 0.96,
    inertDensity: 2700,
    ratio: { recommended: 0.24, low: 0.22, high: 0.26 },
    bulkLoose: span(1.05, 1.25),
    bulkTapped: span(1.55, 1.75),
    settledFraction: 0.615,
    jammingFraction: 0.6280,
    rate: 0.3789,
    yieldScale: 5,
    viscosityExponent: 2.4,
    handAir: 0.01,
    expansion: { usual: 0.09, low: 0.02, high: 0.15 },
    nominalSet: { minutes: 7, basis: ISO },
  },
  {
    id: 'dental-type-5',
    alsoCalled: [],
    family: 'dental',
    crystal: 'alpha',
    purity: 0.96,
    inertDensity: 2700,
    ratio: { recommended: 0.21, low: 0.18, high: 0.22 },
    bulkLoose: span(1.05, 1.25),
    bulkTapped: span(1.55, 1.75),
    settledFraction: 0.64,
    jammingFraction: 0.675,
    rate: 0.3442,
    yieldScale: 5,
    viscosityExponent: 2.3,
    handAir: 0.01,
    expansion: { usual: 0.25, low: 0.16, high: 0.3 },
    nominalSet: { minutes: 9, basis: CP },
  },
  {
    id: 'plaster-silica',
    retired: true,
    alsoCalled: [],
    family: 'investment',
    crystal: 'beta',
    purity: 0.46,
    inertDensity: 2650,
    ratio: { recommended: 0.45, low: 0.38, high: 0.55 },
    bulkLoose: span(0.80, 1.00),
    bulkTapped: span(1.15, 1.40),
    settledFraction: 0.49,
    jammingFraction: 0.53,
    rate: 0.3893,
    yieldScale: 14,
    viscosityExponent: 3.6,
    handAir: 0.02,
    strengthFactor: 0.45,
    expansion: { usual: 0.2, low: 0.1, high: 0.4 },
    nominalSet: { minutes: 13, basis: CP },
  },
  // A kit, a fortified or an expanding cement: only its pack knows. In the middle of all of them, with all their width.
  {
    id: 'other',
    alsoCalled: ['none of these', 'kit powder', 'polymer-fortified', 'expanding cement', 'unknown'],
    family: 'cement',
    crystal: 'alpha',
    purity: 0.85,
    inertDensity: 2600,
    ratio: { recommended: 0.45, low: 0.30, high: 0.80 },
    bulkLoose: span(0.60, 1.00),
    bulkTapped: span(1.00, 1.60),
    settledFraction: 0.46,
    jammingFraction: 0.62,
    rate: 0.2373,
    yieldScale: 13,
    viscosityExponent: 3.6,
    handAir: 0.02,
    expansion: { usual: 0.3, low: 0.05, high: 1.2 },
    doubt: { rate: 0.6, strength: 0.4 },
    nominalSet: { minutes: 20, basis: { kind: 'engineering guess', note: 'no class: the middle of all; go by the pack' } },
  },
]

const SIMPLE: readonly PowderClass[] = SIMPLE_FACTS.map(x => ({ ...x, ...POWDER_WORDS[x.id] }))
const casting = SIMPLE.find(p => p.id === 'casting-plaster')!

/** As much silica flour as casting plaster: its own are what a scoop or a bed of both holds, and what is usual. */
const INVESTMENT: PowderClass = {
  ...casting,
  ...POWDER_WORDS['investment-plaster'],
  id: 'investment-plaster',
  alsoCalled: ['investment', 'kiln mould mix'],
  family: 'investment',
  composition: { plaster: casting, filler: 'silica-flour', share: 1 },
  purity: casting.purity / 2,
  inertDensity: restDensity(casting, 1, 2650),
  ratio: { recommended: 0.45, low: 0.38, high: 0.55 },
  bulkLoose: span(0.80, 1.00),
  bulkTapped: span(1.15, 1.40),
  settledFraction: 0.49,
  expansion: { usual: 0.2, low: 0.1, high: 0.4 },
  nominalSet: { minutes: 13, basis: CP },
}

/** Density of all that is not hemihydrate in a plaster with a share of filler. */
function restDensity(plaster: PowderClass, share: number, filler: KilogramsPerCubicMetre): KilogramsPerCubicMetre {
  const impure = 1 - plaster.purity
  return (impure + share) / (impure / plaster.inertDensity + share / filler)
}

/** All classes, with those that are kept for what was made from them. */
export const POWDER_CLASSES: readonly PowderClass[] = [
  ...SIMPLE.filter(p => !p.retired), INVESTMENT, ...SIMPLE.filter(p => p.retired),
]
/** Those that can be chosen. */
export const OFFERED_CLASSES: readonly PowderClass[] = POWDER_CLASSES.filter(p => !p.retired)

/** Those that can be chosen in the place of one: a retired one stays while it is what stands there. */
export function classesBeside(now: PowderClassId | undefined): readonly PowderClass[] {
  return POWDER_CLASSES.filter(p => !p.retired || p.id === now)
}

const BY_ID = new Map(POWDER_CLASSES.map(p => [p.id, p]))

/** @throws RangeError for an id that is no class: ids are checked at the boundary, so this is a programming error. */
export function powderClass(id: PowderClassId): PowderClass {
  const found = BY_ID.get(id)
  if (!found) throw new RangeError(`no powder class ${id}`)
  return found
}

/** The name within a sentence: `plaster of Paris`, `dental stone, Type 3`. */
export function powderInSentence(powder: PowderClass): string {
  return powder.name.charAt(0).toLowerCase() + powder.name.slice(1)
}
