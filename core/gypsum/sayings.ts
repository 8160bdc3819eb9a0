import { bisect } from '../numeric/root'
import { Z80, type Basis, type CubicMetres, type Estimate, type Metres, type WaterRatio } from '../units/quantity'
import { UNITS, type Region } from '../units/units'
import { solveMix, waterDensity } from './mix'
import { powderClass, type PowderClass, type Span } from './powders'
import { ratioOf, spanSd, type Scoop } from './schools'
import { SAYING_WORDS } from './words'

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
  readonly claims?: Span
}

const HALF_INCH_ON_A_FOOT = 0.3048 * 0.3048 * 0.0127 / UNITS.qt.toSi(1)

const exactly = (volumes: number): Span => ({ low: volumes, high: volumes })
/** What each yield saying claims; the others are about the ratio. */
const CLAIMS = {
  'two-thirds-water': exactly(1.5),
  'third-to-half-water': { low: 2, high: 3 },
  'quart-a-square-foot': exactly(HALF_INCH_ON_A_FOOT),
  'depth-is-depth': exactly(1),
  'it-doubles': exactly(2),
  'third-of-bucket': { low: 2, high: 3 },
} as const satisfies Partial<Record<SayingId, Span>>
type YieldSaying = keyof typeof CLAIMS
const isYield = (id: SayingId): id is YieldSaying => id in CLAIMS

export const SAYINGS: readonly Saying[] = (Object.keys(SAYING_WORDS) as SayingId[]).map(id => ({
  id,
  ...SAYING_WORDS[id],
  ...isYield(id) ? { about: 'yield' as const, claims: CLAIMS[id] } : { about: 'ratio' as const },
}))

/** Of what a saying speaks, where it can be read in more than one way. */
export type ReadingCode
  = | 'two-scoops'
    | 'three-scoops'
    | 'two-kilograms'
    | 'even-by-eye'
    | 'ten-pounds'
    | 'by-weight'
    | 'by-volume'
    | 'to-islands'
    | 'by-feel'
    | 'recommended'

/** One reading of a saying; most have one, some have two, because nobody says of what. */
export interface Reading {
  readonly code: ReadingCode
  readonly ratio: Estimate<WaterRatio>
  /** Whose pint, quart or gallon of water it is read with, where that makes it another. */
  readonly region?: Region
  /** By volume and by weight it comes to the same. */
  readonly alike?: true
}

const EYE_SD = 0.15
export const SAID: Basis = { kind: 'common practice', note: 'as it is said, weighed on a scale' }

/** A ratio with a relative scatter. */
export function spread(value: number, sd: number, basis: Basis): Estimate {
  return { value, low: value * Math.exp(-Z80 * sd), high: value * Math.exp(Z80 * sd), basis }
}

/** The powder a saying is about: one of them names its own. */
export function powderOfSaying(id: SayingId, chosen: PowderClass): PowderClass {
  return id === 'one-one-one' ? powderClass('investment-plaster') : chosen
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
    case 'two-to-one-volume': return [{ code: 'two-scoops', ratio: byVolume(2) }]
    case 'three-to-one-volume': return [{ code: 'three-scoops', ratio: byVolume(3) }]
    case 'two-to-one-weight': return [{ code: 'two-kilograms', ratio: spread(0.5, 0.015, SAID) }]
    case 'one-to-one-eye': {
      const even = byVolume(1)
      const sd = Math.hypot(Math.log(even.high / even.low) / (2 * Z80), EYE_SD)
      return [{
        code: 'even-by-eye',
        ratio: spread(even.value, sd, {
          kind: 'engineering guess',
          note: `${even.basis.note}; and an eye is out by about a seventh`,
        }),
      }]
    }
    case 'ten-pounds-a-gallon':
      return [{
        code: 'ten-pounds',
        ratio: spread(UNITS.gal.toSi(1) * waterDensity(t) / UNITS.lb.toSi(10), 0.015, SAID),
      }]
    case 'one-one-one': {
      const plaster = powder.crystal === 'beta' && powder.family === 'plaster'
        ? powder
        : powderClass('plaster-of-paris')
      const own = bulk ?? (filling === 'loose' ? plaster.bulkLoose : plaster.bulkTapped)
      const density = Math.sqrt(own.low * own.high) + Math.sqrt(SILICA_BULK.low * SILICA_BULK.high)
      return [
        { code: 'by-weight', ratio: spread(0.5, 0.015, SAID) },
        {
          code: 'by-volume',
          ratio: spread(waterDensity(t) / density, Math.hypot(spanSd(own), spanSd(SILICA_BULK)) / Math.SQRT2, {
            kind: 'physics',
            note: 'bulk densities of plaster and of silica flour as scooped; water to both powders together',
          }),
        },
      ]
    }
    default:
      return [{
        code: yieldsAtIslands(powder) ? 'to-islands' : 'recommended',
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
  return bisect(0, 2 * radius, h => Math.PI * h * h * (3 * radius - h) / 3 - volume)
}

type Fit = 'right' | 'near' | 'wrong'
/** How a ratio sits with a powder. */
export type RatioVerdict
  = | { readonly code: 'within' | 'scatters', readonly fit: Fit, readonly powder: PowderClass, readonly said: Span }
    | { readonly code: 'thinner' | 'thicker', readonly fit: Fit, readonly powder: PowderClass, readonly said: Span }

/** @returns right within the usable range, near when its range reaches it. */
export function ratioVerdict(powder: PowderClass, said: Estimate<WaterRatio>): RatioVerdict {
  const { low, high, recommended } = powder.ratio
  if (said.value >= low && said.value <= high) {
    return said.low >= low - 1e-9 && said.high <= high + 1e-9
      ? { code: 'within', fit: 'right', powder, said }
      : { code: 'scatters', fit: 'near', powder, said }
  }
  const thin = said.value > recommended, reaches = thin ? said.low <= high : said.high >= low
  return { code: thin ? 'thinner' : 'thicker', fit: reaches ? 'near' : 'wrong', powder, said }
}

/** What really comes of a yield saying: its numbers as each needs them; volumes m3, lengths m, shares of 1. */
type YieldOutcome
  = | { readonly code: 'two-thirds-water', readonly made: CubicMetres, readonly wanted: CubicMetres }
    | {
      readonly code: 'third-to-half-water'
      readonly less: CubicMetres
      readonly more: CubicMetres
      readonly wanted: CubicMetres
      readonly short: boolean
    }
    | { readonly code: 'quart-a-square-foot', readonly made: CubicMetres, readonly wanted: CubicMetres }
    | {
      readonly code: 'depth-is-depth'
      readonly water: Metres
      readonly upright: Metres
      readonly bowl: Metres
      readonly across: Metres
    }
    | { readonly code: 'it-doubles', readonly per: number, readonly doubles: boolean }
    | { readonly code: 'third-of-bucket', readonly third: number, readonly half: number, readonly room: boolean }
export type YieldVerdict = YieldOutcome & {
  readonly fit: Fit
  readonly powder: PowderClass
  /** Mix of one volume of water. */
  readonly yields: Span
}
export type SayingVerdict = RatioVerdict | YieldVerdict

const fitOf = (share: number): Fit =>
  Math.abs(share - 1) < 0.05 ? 'right' : Math.abs(share - 1) < 0.15 ? 'near' : 'wrong'
/** Of a mould, or a bucket to its brim, what a saying makes when water gives `per` of its volume. */
type Outcome = (volume: CubicMetres, per: number) => YieldOutcome & { readonly fit: Fit }

const OUTCOMES: Readonly<Record<YieldSaying, Outcome>> = {
  'two-thirds-water': (wanted, per) => {
    const made = wanted * 2 / 3 * per
    return { code: 'two-thirds-water', fit: fitOf(made / wanted), made, wanted }
  },
  'third-to-half-water': (wanted, per) => {
    const [less, more] = [wanted / 3 * per, wanted / 2 * per], short = more < 0.95 * wanted
    return {
      code: 'third-to-half-water',
      fit: short || less > 1.05 * wanted ? 'wrong' : 'near',
      less,
      more,
      wanted,
      short,
    }
  },
  'quart-a-square-foot': (_, per) => {
    const made = UNITS.qt.toSi(1) * per, wanted = UNITS.qt.toSi(1) * HALF_INCH_ON_A_FOOT
    return { code: 'quart-a-square-foot', fit: fitOf(made / wanted), made, wanted }
  },
  'depth-is-depth': (_, per) => {
    const water = 0.06, radius = 0.15
    const bowl = bowlDepth(radius, Math.PI * water * water * (3 * radius - water) / 3 * per)
    return { code: 'depth-is-depth', fit: 'wrong', water, upright: water * per, bowl, across: 2 * radius }
  },
  'it-doubles': (_, per) => ({ code: 'it-doubles', fit: fitOf(per / 2), per, doubles: Math.abs(per - 2) < 0.1 }),
  'third-of-bucket': (_, per) => {
    const [third, half] = [per / 3, per / 2]
    return { code: 'third-of-bucket', fit: third <= 0.875 ? 'right' : 'near', third, half, room: half <= 0.95 }
  },
}

/**
 * What a yield saying does to a mould of this volume, in plain numbers; of another saying, how its ratio sits.
 * @param volume the mould, or for the bucket its brim.
 */
export function yieldVerdict(id: SayingId, powder: PowderClass, volume: CubicMetres, t = 20): SayingVerdict {
  const ratio = yieldRatio(powder, t)
  if (!isYield(id)) return ratioVerdict(powder, ratio)
  const { value, low, high } = trueYield(powder, ratio, t)
  return { ...OUTCOMES[id](volume, value), powder, yields: { low, high } }
}
