import { Z80, type Basis, type Celsius, type CubicMetres, type Estimate, type Kilograms, type WaterRatio } from '../units/quantity'
import { SCHOOL_WORDS, type SchoolWords } from './words'
import { CARE_SD, measuredSd, USUAL_SCALE, type Measures } from './measuring'
import { saturationRatio, waterDensity } from './mix'
import type { EndUseId } from './end-use'
import type { PowderClass, Span } from './powders'

/** How people measure and bring powder and water together. */
export type SchoolId = 'weighed' | 'saturation' | 'scoops' | 'bag' | 'dumped' | 'powder-first'

interface School extends SchoolWords {
  readonly id: SchoolId
}

const SCHOOL_FACTS: readonly Omit<School, keyof SchoolWords>[] = [
  { id: 'weighed' },
  {
    id: 'saturation',
  },
  { id: 'scoops' },
  { id: 'bag' },
  {
    id: 'dumped',
  },
  { id: 'powder-first' },
]

export const SCHOOLS: readonly School[] = SCHOOL_FACTS.map(x => ({ ...x, ...SCHOOL_WORDS[x.id] }))

export interface Scoop {
  readonly volume: CubicMetres
  readonly filling: 'loose' | 'tapped'
  /** Scoops of powder to one scoop of water. */
  readonly perWater: number
}

// Engineering guesses of relative scatter (one standard deviation of ln ratio).
const FIELD_JUG_SD = 0.05
const SCOOP_FILL_SD = 0.08
const SCOOP_WATER_SD = 0.02
/** Where a person stops letting water in: further to the thin side, since what is in does not come out again. */
const THICKER_SD = 0.06, THINNER_SD = 0.13

function lognormal(value: WaterRatio, sd: number, basis: Basis): Estimate<WaterRatio> {
  return { value, low: value * Math.exp(-Z80 * sd), high: value * Math.exp(Z80 * sd), basis }
}

/** Relative standard deviation of a span that is read as an 80 % range. */
export function spanSd(span: Span): number {
  return Math.log(span.high / span.low) / (2 * Z80)
}

/**
 * The true water-per-powder ratio by mass that a school gives, with its range.
 * @param target the ratio aimed at where the school can aim (weighed, dumped, bag, powder first); the others follow
 *   from scoop or saturation.
 * @param measuredBulk the bag's own bulk density with its span when someone has measured it, kg/m3.
 */
export function ratioOf(
  school: SchoolId,
  powder: PowderClass,
  target: WaterRatio,
  waterTemperature: Celsius,
  scoop?: Scoop,
  measuredBulk?: Span,
): Estimate<WaterRatio> {
  switch (school) {
    case 'weighed':
    case 'dumped':
      return lognormal(target, CARE_SD, { kind: 'engineering guess', note: 'both weighed, with a jug of care' })
    case 'powder-first':
      return {
        value: target, low: target * Math.exp(-Z80 * THICKER_SD), high: target * Math.exp(Z80 * THINNER_SD),
        basis: { kind: 'engineering guess', note: 'water by feel, until it runs; more often too thin than too thick' },
      }
    case 'bag':
      return lognormal(target, FIELD_JUG_SD, {
        kind: 'engineering guess',
        note: 'powder weighed beforehand, water by a marked bottle in the field: about 5 %',
      })
    case 'saturation':
      return lognormal(saturationRatio(powder, waterTemperature), powder.crystal === 'beta' ? 0.12 : 0.10, {
        kind: 'engineering guess',
        note: 'water held by a settled bed of this powder; where a person stops scatters by about a tenth',
      })
    case 'scoops': {
      const used = scoop ?? { volume: 0.25e-3, filling: 'loose', perWater: 2 }
      const bulk = measuredBulk ?? (used.filling === 'loose' ? powder.bulkLoose : powder.bulkTapped)
      const density = Math.sqrt(bulk.low * bulk.high)
      const sd = Math.hypot(spanSd(bulk), SCOOP_FILL_SD / Math.sqrt(used.perWater), SCOOP_WATER_SD)
      return lognormal(waterDensity(waterTemperature) / (used.perWater * density), sd, {
        kind: 'physics',
        note: `a ${used.filling} scoop holds ${Math.round(bulk.low)} to ${
          Math.round(bulk.high)
        } g of this powder a litre`,
      })
    }
  }
}

/**
 * The same ratio with what scale and jug leave open, once it is known how little is weighed; of schools that weigh.
 * @param least powder of the smallest batch, kg
 */
export function asMeasured(
  school: SchoolId, ratio: Estimate<WaterRatio>, measures: Measures | undefined, least: Kilograms,
): Estimate<WaterRatio> {
  if (!weighsBoth(school)) return ratio
  const used = measures ?? { scale: USUAL_SCALE }, sd = measuredSd(used, least, ratio.value)
  return lognormal(ratio.value, sd, {
    kind: 'engineering guess',
    note: `${used.jug ? 'powder weighed, water in a jug' : 'both weighed'}${measures ? '' : ', on a usual scale'}; ${
      `out by about ${(100 * sd).toFixed(1)} %`
    }`,
  })
}

/** Scoops of powder per scoop of water that come nearest to the target ratio, to the half scoop. */
export function scoopsFor(powder: PowderClass, target: WaterRatio, filling: Scoop['filling']): number {
  const bulk = filling === 'loose' ? powder.bulkLoose : powder.bulkTapped
  return Math.max(0.5, Math.round(2 * 998 / (target * Math.sqrt(bulk.low * bulk.high))) / 2)
}

export type SchoolAdviceCode
  = | 'pottery-alike'
    | 'outdoors-dense'
    | 'weighed'
    | 'islands-dental'
    | 'islands-investment'
    | 'islands-stiff'
    | 'islands'
    | 'scoops-stiff'
    | 'scoops'
    | 'bag'
    | 'dumped-investment'
    | 'dumped'
    | 'by-feel-dental'
    | 'by-feel'

interface SchoolAdvice {
  readonly fit: 'suits' | 'possible' | 'against'
  readonly code: SchoolAdviceCode
}

/** Which school suits which powder and purpose, and why. Common practice, no published source. */
export function schoolAdvice(school: SchoolId, powder: PowderClass, use?: EndUseId): SchoolAdvice {
  if (use === 'absorbent' && school !== 'weighed')
    return { fit: school === 'saturation' ? 'possible' : 'against', code: 'pottery-alike' }
  if (use === 'outdoors' && (school === 'saturation' || school === 'scoops'))
    return { fit: 'against', code: 'outdoors-dense' }
  const stiff = powder.ratio.recommended < 0.4
  switch (school) {
    case 'weighed': return { fit: 'suits', code: 'weighed' }
    case 'saturation':
      if (powder.family === 'dental') return { fit: 'against', code: 'islands-dental' }
      if (powder.family === 'investment') return { fit: 'against', code: 'islands-investment' }
      return stiff ? { fit: 'against', code: 'islands-stiff' } : { fit: 'suits', code: 'islands' }
    case 'scoops': return stiff ? { fit: 'against', code: 'scoops-stiff' } : { fit: 'possible', code: 'scoops' }
    case 'bag': return { fit: powder.family === 'dental' ? 'against' : 'possible', code: 'bag' }
    case 'dumped':
      return powder.family === 'investment'
        ? { fit: 'suits', code: 'dumped-investment' }
        : { fit: 'possible', code: 'dumped' }
    case 'powder-first':
      return stiff || powder.family === 'dental' || powder.family === 'investment'
        ? { fit: 'against', code: 'by-feel-dental' }
        : { fit: 'possible', code: 'by-feel' }
  }
}

/** Schools that weigh water and powder on the day: the ratio is as good as scale and jug. */
export const weighsBoth = (school: SchoolId): boolean => school === 'weighed' || school === 'dumped'

/** Schools that know the powder's mass while mixing: weighed on the day. */
export const needsScale = (school: SchoolId): boolean => weighsBoth(school) || school === 'powder-first'

/** Schools whose powder is strewn into still water: what takes one person so long. */
export const siftsPowder = (school: SchoolId): boolean =>
  school === 'weighed' || school === 'saturation' || school === 'scoops'

/** Schools that let the powder wet through before it is stirred. */
export const soaksPowder = (school: SchoolId): boolean => siftsPowder(school) || school === 'dumped'

/**
 * Water for powder that stands in the bucket already: a tenth more in the jug than is aimed at, so that it need not be
 * filled again with a mix in hand, and four fifths of what is aimed at in at first (common practice, no source; the
 * shares are guesses).
 */
const JUG = { inHand: 0.1, first: 0.8 } as const

/** @param aimed water of the mix as planned, kg */
export const jugOf = (aimed: Kilograms): { readonly full: Kilograms, readonly first: Kilograms } =>
  ({ full: aimed * (1 + JUG.inHand), first: aimed * JUG.first })
