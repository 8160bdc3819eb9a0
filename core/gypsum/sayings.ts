import { Z80, type Basis, type CubicMetres, type Estimate, type Metres, type WaterRatio } from '../units/quantity'
import { formatConsistency, formatLength, formatVolume, roundTo } from '../units/format'
import { METRIC, UNITS, type UnitPreferences } from '../units/units'
import { solveMix, waterDensity } from './mix'
import { powderClass, powderInSentence, type PowderClass, type Span } from './powders'
import { ratioOf, spanSd, type Scoop } from './schools'

/**
 * Rules of thumb of the trade (common practice, no source), translated into what they truly give with a powder and a
 * scoop.
 */

export type SayingId
  = | 'two-to-one-volume'
    | 'two-to-one-weight'
    | 'three-to-one-volume'
    | 'one-to-one-eye'
    | 'ten-pounds-a-gallon'
    | 'one-one-one'
    | 'two-thirds-water'
    | 'third-to-half-water'
    | 'quart-a-square-foot'
    | 'depth-is-depth'
    | 'it-doubles'
    | 'third-of-bucket'

export interface Saying {
  readonly id: SayingId
  readonly words: string
  /** The same for where there is little room. */
  readonly short: string
  /** What it claims to say: how much powder for some water, or how much mix comes of some water. */
  readonly about: 'ratio' | 'yield'
  /** Mix that comes of one volume of water, as the saying has it. */
  readonly claims?: { readonly low: number, readonly high: number }
}

const HALF_INCH_ON_A_FOOT = 0.3048 * 0.3048 * 0.0127 / UNITS.qt.toSi(1)

export const SAYINGS: readonly Saying[] = [
  { id: 'two-to-one-volume', words: 'Two to one by volume', short: 'Two to one by volume', about: 'ratio' },
  { id: 'two-to-one-weight', words: 'Two to one by weight', short: 'Two to one by weight', about: 'ratio' },
  { id: 'three-to-one-volume', words: 'Three scoops to one', short: 'Three scoops to one', about: 'ratio' },
  { id: 'one-to-one-eye', words: 'One to one by eye', short: 'One to one by eye', about: 'ratio' },
  {
    id: 'ten-pounds-a-gallon',
    words: 'Ten pounds of powder to a gallon of water',
    short: 'Ten pounds to a gallon',
    about: 'ratio',
  },
  { id: 'one-one-one', words: 'Plaster, silica, water: one, one, one', short: 'One, one, one', about: 'ratio' },
  {
    id: 'two-thirds-water',
    words: 'Two thirds of the mould in water, then sift to islands',
    short: 'Two thirds of the mould in water',
    about: 'yield',
    claims: { low: 1.5, high: 1.5 },
  },
  {
    id: 'third-to-half-water',
    words: 'Fill the mould a third to a half with water',
    short: 'A third to a half in water',
    about: 'yield',
    claims: { low: 2, high: 3 },
  },
  {
    id: 'quart-a-square-foot',
    words: 'A quart of water covers a square foot at half an inch',
    short: 'A quart a square foot',
    about: 'yield',
    claims: { low: HALF_INCH_ON_A_FOOT, high: HALF_INCH_ON_A_FOOT },
  },
  {
    id: 'depth-is-depth',
    words: 'The depth of the water is the depth of the cast',
    short: 'Depth of water, depth of cast',
    about: 'yield',
    claims: { low: 1, high: 1 },
  },
  { id: 'it-doubles', words: 'It doubles', short: 'It doubles', about: 'yield', claims: { low: 2, high: 2 } },
  {
    id: 'third-of-bucket',
    words: 'Never start with more than a third of the bucket in water',
    short: 'At most a third of the bucket',
    about: 'yield',
    claims: { low: 2, high: 3 },
  },
]

/** One reading of a saying; most have one, some have two, because nobody says of what. */
export interface Reading {
  readonly label: string
  readonly ratio: Estimate<WaterRatio>
}

const EYE_SD = 0.15
export const SAID: Basis = { kind: 'common practice', note: 'as it is said, weighed on a scale' }

/** A ratio with a relative scatter. */
export function spread(value: number, sd: number, basis: Basis): Estimate {
  return { value, low: value * Math.exp(-Z80 * sd), high: value * Math.exp(Z80 * sd), basis }
}

/** The powder a saying is about: one of them names its own. */
export function powderOfSaying(id: SayingId, chosen: PowderClass): PowderClass {
  return id === 'one-one-one' ? powderClass('plaster-silica') : chosen
}

/** Bulk density of silica flour as scooped, kg/m3 (handbook range from memory). */
const SILICA_BULK: Span = { low: 650, high: 950 }

/**
 * What ratio, water to powder by weight, a saying gives. A yield saying leaves the ratio to the powder: sifted to
 * islands where that is
 * its custom, the recommended one else.
 */
export function readingsOf(
  id: SayingId,
  powder: PowderClass,
  filling: Scoop['filling'],
  bulk?: Span,
  t = 20,
): readonly Reading[] {
  const byVolume = (perWater: number): Estimate<WaterRatio> =>
    ratioOf('scoops', powder, 0, t, { volume: 2.5e-4, filling, perWater }, bulk)
  switch (id) {
    case 'two-to-one-volume': return [{ label: 'two scoops to one', ratio: byVolume(2) }]
    case 'three-to-one-volume': return [{ label: 'three scoops to one', ratio: byVolume(3) }]
    case 'two-to-one-weight': return [{ label: 'two kilograms to one', ratio: spread(0.5, 0.015, SAID) }]
    case 'one-to-one-eye': {
      const even = byVolume(1)
      const sd = Math.hypot(Math.log(even.high / even.low) / (2 * Z80), EYE_SD)
      return [{
        label: 'as much powder as water, by eye',
        ratio: spread(even.value, sd, {
          kind: 'engineering guess',
          note: `${even.basis.note}; and an eye is out by about a seventh`,
        }),
      }]
    }
    case 'ten-pounds-a-gallon':
      return [{
        label: 'ten pounds to a US gallon',
        ratio: spread(UNITS.gal.toSi(1) * waterDensity(t) / UNITS.lb.toSi(10), 0.015, SAID),
      }]
    case 'one-one-one': {
      const plaster = powder.crystal === 'beta' && powder.family === 'plaster'
        ? powder
        : powderClass('plaster-of-paris')
      const own = bulk ?? (filling === 'loose' ? plaster.bulkLoose : plaster.bulkTapped)
      const density = Math.sqrt(own.low * own.high) + Math.sqrt(SILICA_BULK.low * SILICA_BULK.high)
      return [
        { label: 'by weight', ratio: spread(0.5, 0.015, SAID) },
        {
          label: 'by volume',
          ratio: spread(waterDensity(t) / density, Math.hypot(spanSd(own), spanSd(SILICA_BULK)) / Math.SQRT2, {
            kind: 'physics',
            note: 'bulk densities of plaster and of silica flour as scooped; water to both powders together',
          }),
        },
      ]
    }
    default:
      return [{
        label: yieldsAtIslands(powder) ? 'sifted to islands' : 'at its recommended ratio',
        ratio: yieldRatio(powder, t),
      }]
  }
}

function yieldsAtIslands(powder: PowderClass): boolean {
  return powder.family === 'plaster' || powder.id === 'gypsum-cement'
}

function yieldRatio(powder: PowderClass, t: number): Estimate<WaterRatio> {
  return yieldsAtIslands(powder)
    ? ratioOf('saturation', powder, 0, t)
    : spread(powder.ratio.recommended, 0.015, { kind: 'common practice', note: 'recommended for this class' })
}

/** Volume of mix that comes of one volume of water at a ratio. First principles. */
export function mixPerWater(powder: PowderClass, ratio: WaterRatio, t = 20): number {
  const mix = solveMix({ powder, ratio, waterTemperature: t }, { what: 'powder', amount: 1 })
  return mix.slurry / mix.waterVolume
}

/** What really comes of one volume of water with this powder, with the range of its ratio. */
export function trueYield(
  powder: PowderClass,
  ratio: Estimate<WaterRatio>,
  t = 20,
): { readonly value: number, readonly low: number, readonly high: number } {
  return {
    value: mixPerWater(powder, ratio.value, t),
    low: mixPerWater(powder, ratio.high, t),
    high: mixPerWater(powder, ratio.low, t),
  }
}

/** Depth at which a volume stands in a round bowl (a cap of a sphere), m. Bisection on pi h^2 (3R - h) / 3. */
export function bowlDepth(radius: Metres, volume: CubicMetres): Metres {
  let low = 0, high = 2 * radius
  for (let i = 0; i < 60; i++) {
    const h = (low + high) / 2
    if (Math.PI * h * h * (3 * radius - h) / 3 < volume) low = h
    else high = h
  }
  return (low + high) / 2
}

export interface SayingVerdict { readonly fit: 'right' | 'near' | 'wrong', readonly words: string }

/** How a ratio sits with a powder. @returns right within the usable range, near when its range reaches it. */
export function ratioVerdict(powder: PowderClass, ratio: Estimate<WaterRatio>): SayingVerdict {
  const { low, high, recommended } = powder.ratio
  const said = `${formatConsistency(ratio.low)} to ${formatConsistency(ratio.high)}`,
    usable = `${formatConsistency(low)} to ${formatConsistency(high)}`
  const name = powderInSentence(powder)
  if (ratio.value >= low && ratio.value <= high) {
    return ratio.low >= low - 1e-9 && ratio.high <= high + 1e-9
      ? { fit: 'right', words: `Right for ${name}: ${said} lies within its ${usable}.` }
      : {
          fit: 'near',
          words: `In the middle right for ${name}, but how it is scooped or judged can carry it out of its ${usable}.`,
        }
  }
  const thin = ratio.value > recommended
  const reaches = thin ? ratio.low <= high : ratio.high >= low
  return {
    fit: reaches ? 'near' : 'wrong',
    words: `${reaches ? 'On the edge' : 'Wrong'} for ${name}: ${said} is ${
      thin ? 'thinner' : 'thicker'
    } than its ${usable}${
      thin ? '; weak, slow to dry, and water may stand on it.' : '; it may not pour, and traps air.'
    }`,
  }
}

/**
 * What a yield saying does to a mould of this volume, in plain numbers.
 * @param volume the mould, or for the bucket its brim.
 */
export function yieldVerdict(
  id: SayingId,
  powder: PowderClass,
  volume: CubicMetres,
  prefs: UnitPreferences = METRIC,
  t = 20,
): SayingVerdict {
  const ratio = yieldRatio(powder, t)
  const { value, low, high } = trueYield(powder, ratio, t)
  const name = powderInSentence(powder)
  const times = `Water makes ${roundTo(low, 0.01)} to ${roundTo(high, 0.01)} times its volume of mix with ${name}`
  const fitOf = (share: number): SayingVerdict['fit'] =>
    Math.abs(share - 1) < 0.05 ? 'right' : Math.abs(share - 1) < 0.15 ? 'near' : 'wrong'
  const against = (made: number, wanted: number) => {
    const off = Math.round((made / wanted - 1) * 100)
    return Math.abs(off) < 2 ? 'which fits' : `${Math.abs(off)} % ${off > 0 ? 'over' : 'short'}`
  }
  switch (id) {
    case 'two-thirds-water': {
      const made = volume * 2 / 3 * value
      return {
        fit: fitOf(made / volume),
        words: `${times}: two thirds of this mould in water make ${formatVolume(made, prefs)} for ${
          formatVolume(volume, prefs)
        }, ${against(made, volume)}.`,
      }
    }
    case 'third-to-half-water': {
      const [less, more] = [volume / 3 * value, volume / 2 * value]
      return {
        fit: more < 0.95 * volume ? 'wrong' : less > 1.05 * volume ? 'wrong' : 'near',
        words: `${times}: a third makes ${formatVolume(less, prefs)}, a half ${formatVolume(more, prefs)} for ${
          formatVolume(volume, prefs)
        }. ${more < 0.95 * volume ? 'Even half underfills it.' : 'Somewhere between them is right.'}`,
      }
    }
    case 'quart-a-square-foot': {
      const made = UNITS.qt.toSi(1) * value, wanted = UNITS.qt.toSi(1) * HALF_INCH_ON_A_FOOT
      return {
        fit: fitOf(made / wanted),
        words: `${times}: a quart of water makes ${formatVolume(made, prefs)} for the ${
          formatVolume(wanted, prefs)
        } of the slab, ${against(made, wanted)}. That is spare, not shortage.`,
      }
    }
    case 'depth-is-depth': {
      const depth = 0.06, radius = 0.15
      const bowl = bowlDepth(radius, Math.PI * depth * depth * (3 * radius - depth) / 3 * value)
      return {
        fit: 'wrong',
        words: `${times}: ${formatLength(depth, prefs)} of water make ${
          formatLength(depth * value, prefs)
        } of cast between upright walls, and about ${formatLength(bowl, prefs)} in a round bowl of ${
          formatLength(2 * radius, prefs)
        }.`,
      }
    }
    case 'it-doubles':
      return {
        fit: fitOf(value / 2),
        words: `${times}, so it ${
          Math.abs(value - 2) < 0.1
            ? 'does double'
            : value < 2
              ? 'does not quite double: you run short'
              : 'more than doubles'
        }.`,
      }
    case 'third-of-bucket': {
      const [third, half] = [value / 3, value / 2]
      return {
        fit: third <= 0.875 ? 'right' : 'near',
        words: `${times}: a third of the bucket ends ${roundTo(third * 100, 1)} % full, a half ${
          roundTo(half * 100, 1)
        } %. ${half > 0.95 ? 'Half would run over or leave no room to stir.' : 'Half still leaves some room to stir.'}`,
      }
    }
    default: return ratioVerdict(powder, ratio)
  }
}
