import { Z80, type Basis, type Celsius, type CubicMetres, type Estimate, type WaterRatio } from '../units/quantity'
import { saturationRatio, waterDensity } from './mix'
import type { EndUseId } from './end-use'
import type { PowderClass, Span } from './powders'

/** How people measure and bring powder and water together. */
export type SchoolId = 'weighed' | 'saturation' | 'scoops' | 'bag' | 'dumped'

export interface School {
  readonly id: SchoolId
  readonly name: string
  /** One word, for where there is little room. */
  readonly short: string
  readonly how: string
}

export const SCHOOLS: readonly School[] = [
  { id: 'weighed', name: 'Weigh', short: 'Weigh', how: 'Water and powder on a scale, then sift the powder in.' },
  {
    id: 'saturation',
    name: 'Sift to islands',
    short: 'Islands',
    how: 'Measure the water, sift until dry islands stay on top.',
  },
  { id: 'scoops', name: 'Scoops', short: 'Scoops', how: 'Count scoops of powder to scoops of water.' },
  { id: 'bag', name: 'The bag', short: 'Bag', how: 'Water into a bag of measured powder, knead, cut a corner.' },
  {
    id: 'dumped',
    name: 'All at once',
    short: 'At once',
    how: 'Weighed powder goes in together, so that all of it meets water at the same time.',
  },
]

export interface Scoop {
  readonly volume: CubicMetres
  readonly filling: 'loose' | 'tapped'
  /** Scoops of powder to one scoop of water. */
  readonly perWater: number
}

// Engineering guesses of relative scatter (one standard deviation of ln ratio).
const SCALE_SD = 0.015
const FIELD_JUG_SD = 0.05
const SCOOP_FILL_SD = 0.08
const SCOOP_WATER_SD = 0.02

function lognormal(value: WaterRatio, sd: number, basis: Basis): Estimate<WaterRatio> {
  return { value, low: value * Math.exp(-Z80 * sd), high: value * Math.exp(Z80 * sd), basis }
}

/** Relative standard deviation of a span that is read as an 80 % range. */
export function spanSd(span: Span): number {
  return Math.log(span.high / span.low) / (2 * Z80)
}

/**
 * The true water-per-powder ratio by mass that a school gives, with its range.
 * @param target the ratio aimed at where the school can aim (weighed, dumped, bag); the others follow from scoop or
 *   saturation.
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
      return lognormal(target, SCALE_SD, {
        kind: 'engineering guess',
        note: 'both weighed; a kitchen scale and a jug of care leave about 1.5 %',
      })
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

/** Scoops of powder per scoop of water that come nearest to the target ratio, to the half scoop. */
export function scoopsFor(powder: PowderClass, target: WaterRatio, filling: Scoop['filling']): number {
  const bulk = filling === 'loose' ? powder.bulkLoose : powder.bulkTapped
  return Math.max(0.5, Math.round(2 * 998 / (target * Math.sqrt(bulk.low * bulk.high))) / 2)
}

export interface SchoolAdvice { readonly fit: 'suits' | 'possible' | 'against', readonly why: string }

/** Which school suits which powder and purpose, in a sentence. Common practice, no published source. */
export function schoolAdvice(school: SchoolId, powder: PowderClass, use?: EndUseId): SchoolAdvice {
  if (use === 'absorbent' && school !== 'weighed')
    return {
      fit: school === 'saturation' ? 'possible' : 'against',
      why: 'Pottery moulds that work side by side must drink alike: weigh, so that each has the same pores.',
    }
  if (use === 'outdoors' && (school === 'saturation' || school === 'scoops'))
    return { fit: 'against', why: 'Outdoors density is what lasts, and that needs a thick, weighed mix.' }
  const stiff = powder.ratio.recommended < 0.4
  switch (school) {
    case 'weighed':
      return { fit: 'suits', why: 'Repeatable with any powder; the ratio is known to a percent or two.' }
    case 'saturation':
      if (powder.family === 'dental')
        return {
          fit: 'against',
          why: 'A dental product is weighed: sifting to islands leaves the ratio, expansion and strength to chance.',
        }
      if (powder.family === 'investment')
        return {
          fit: 'against',
          why: 'Plaster and silica settle at different speeds, so islands tell nothing about the ratio; weigh both.',
        }
      if (stiff)
        return {
          fit: 'against',
          why: 'Sifted to islands this powder gives a thin mix and much waste; weigh it if you can.',
        }
      return {
        fit: 'suits',
        why: 'Made for this powder: forgiving, no scale needed; the ratio lands within about a tenth.',
      }
    case 'scoops':
      return stiff
        ? { fit: 'against', why: 'A thick mix has little room for error and a scoop can be out by a sixth; weigh it.' }
        : { fit: 'possible', why: 'Quick; how the scoop was filled moves the ratio by a tenth or more.' }
    case 'bag':
      return {
        fit: powder.family === 'dental' ? 'against' : 'possible',
        why: 'For the field, kits and classes: clean and quick, one bag one pour.',
      }
    case 'dumped':
      return powder.family === 'investment'
        ? { fit: 'suits', why: 'Custom for investment: all of it meets water together.' }
        : { fit: 'possible', why: 'Fast, but lumps stay dry inside unless it soaks; sift where the surface matters.' }
  }
}

/** Schools that know the powder's mass while mixing: weighed on the day. */
export function needsScale(school: SchoolId): boolean {
  return school === 'weighed' || school === 'dumped'
}
