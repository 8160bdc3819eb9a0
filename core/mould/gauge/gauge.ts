import type { Basis, Celsius, CubicMetres, Kilograms, Metres } from '../../units/quantity'
import { Z80 } from '../../units/quantity'
import { formatVolume } from '../../units/format'
import { METRIC, type UnitPreferences } from '../../units/units'
import { waterDensity } from '../../gypsum/mix'
import { shapeDoubt, shapeProblem, shapeVolume, type Shape } from './shapes'

/** Two sides of a rectangle, m. */
export interface Sides { readonly width: Metres, readonly length: Metres }

/** What is measured in each way of gauging: lengths m, areas m2, volumes m3, masses kg. */
interface GaugeMeasures {
  'water-weight': { readonly mass: Kilograms, readonly temperature: Celsius }
  'water-jug': { readonly reading: CubicMetres, readonly step: CubicMetres }
  'water-part': { readonly water: CubicMetres, readonly share: number }
  'gravel': { readonly reading: CubicMetres, readonly step: CubicMetres, readonly grain: Metres, readonly gap: Metres }
  'shapes': { readonly stack: readonly Shape[], readonly error: Metres }
  'model-weight': { readonly mass: Kilograms, readonly density: { readonly low: number, readonly high: number } }
  /** The areas lead; the sides are what was measured, where that is known. */
  'dam': {
    readonly area: number
    readonly sides?: Sides
    readonly printArea: number
    readonly printSides?: Sides
    readonly printDepth: Metres
    readonly cover: Metres
  }
  'shell': {
    readonly area: number
    readonly sides?: Sides
    readonly relief: number
    readonly thickness: Metres
    readonly layers: number
    readonly radius?: Metres
  }
  'mesh': { readonly volume: CubicMetres, readonly trusted: boolean }
  'pours': { readonly volume: CubicMetres, readonly casts: number }
  'told': { readonly volume: CubicMetres, readonly percent: number }
}

/**
 * How a mould was gauged, as it was measured: kept with the mould, so that the volume can always be worked out again.
 */
export type Gauge = { [H in keyof GaugeMeasures]: { readonly how: H } & GaugeMeasures[H] }[keyof GaugeMeasures]

export type GaugeHow = Gauge['how']

export interface GaugeResult {
  readonly volume: CubicMetres
  /** Relative standard deviation. */
  readonly doubt: number
  readonly basis: Basis
}

/** Volume that holds in eight of ten (log-normal). */
export function gaugeRange(
  { volume, doubt }: Pick<GaugeResult, 'volume' | 'doubt'>,
): { readonly low: CubicMetres, readonly value: CubicMetres, readonly high: CubicMetres } {
  return { low: volume * Math.exp(-Z80 * doubt), value: volume, high: volume * Math.exp(Z80 * doubt) }
}

export interface GaugeWay { readonly how: GaugeHow, readonly name: string, readonly tells: string }

/** The ways people gauge, the surest first. Common practice, no source. */
export const GAUGE_WAYS: readonly GaugeWay[] = [
  {
    how: 'water-weight',
    name: 'Water on a scale',
    tells:
      'Fill it with water to where the plaster should stand, pour that onto a scale. Then let the mould drain dry.',
  },
  { how: 'water-jug', name: 'Water in a jug', tells: 'Fill it with water and pour that into a jug.' },
  {
    how: 'gravel',
    name: 'Gravel in a jug',
    tells:
      'Fill it level with fine gravel or rice and pour that into a jug: the jug reading is the volume, since the gaps are the same in both.',
  },
  { how: 'shapes', name: 'Measure it', tells: 'As a box, cup, bowl or turned profile, or several of them stacked.' },
  {
    how: 'water-part',
    name: 'By eye, with some water',
    tells: 'Pour in a known amount and judge what share of it is full.',
  },
  { how: 'model-weight', name: 'Weigh the model', tells: 'Weight over density of what the mould was made from.' },
  {
    how: 'dam',
    name: 'Ring or dam over a print',
    tells: 'The ground inside the ring, the print, and the plaster above it.',
  },
  {
    how: 'shell',
    name: 'Shell or jacket',
    tells: 'Area times thickness; carved relief has more area than its outline.',
  },
  { how: 'told', name: 'I know it', tells: 'Told, or read off the mould.' },
]

// Relative standard deviations, engineering guesses but where the physics gives them.
const LEFT_IN_MOULD = 0.01,
  JUG = 0.01,
  EYE = 0.12,
  GRAVEL = 0.03,
  PRINT_SHAPE = 0.15,
  SHELL_EVENNESS = 0.15,
  MESH = 0.005,
  ONE_POUR = 0.08
/**
 * Air buoyancy on a scale: water weighs a thousandth less in air (density of air over that of water, first principles).
 */
const BUOYANCY = 1.00105
/**
 * How much of a print's outline times depth is hollow: heel, ball and toes average out at about half (engineering
 * guess).
 */
const PRINT_FULLNESS = 0.5

/** A sentence when a gauge cannot be worked out; undefined when it can. */
export function gaugeProblem(g: Gauge): string | undefined {
  const all = (...values: number[]) => values.every(v => v > 0 && Number.isFinite(v))
  switch (g.how) {
    case 'water-weight':
      return !all(g.mass)
        ? 'Say what the water weighed.'
        : g.temperature > 0 && g.temperature < 60
          ? undefined
          : 'Gauge with liquid water you can put a hand in.'
    case 'water-jug':
      return all(g.reading, g.step) ? undefined : 'Say what the jug read, and how fine its marks are.'
    case 'water-part':
      return !all(g.water)
        ? 'Say how much water you poured in.'
        : g.share > 0.02 && g.share <= 1
          ? undefined
          : 'The share that is full lies between a fiftieth and all of it.'
    case 'gravel':
      return !all(g.reading, g.step, g.grain, g.gap)
        ? 'Say what the jug read, how coarse the gravel is and how narrow the mould gets.'
        : g.grain < g.gap / 3
          ? undefined
          : 'The gravel is too coarse: it bridges the narrowest part. Take grains of a tenth of it, rice or sand.'
    case 'shapes':
      return g.stack.length === 0 ? 'Add a shape.' : g.stack.map(shapeProblem).find(Boolean)
    case 'model-weight':
      return all(g.mass, g.density.low, g.density.high) && g.density.low <= g.density.high
        ? undefined
        : 'Say what the model weighs and the range of its density.'
    case 'dam':
      return !all(g.area, g.cover)
        ? 'Say how large the ring is and how much plaster stands above the ground.'
        : g.printArea >= 0 && g.printDepth >= 0 && g.printArea <= g.area
          ? undefined
          : 'The print lies inside the ring.'
    case 'shell':
      return all(g.area, g.relief, g.thickness, g.layers) ? undefined : 'Say the area, the thickness and the layers.'
    case 'mesh':
      return all(g.volume) ? undefined : 'This model has no volume.'
    case 'pours':
      return all(g.volume, g.casts) ? undefined : 'No pours have told anything yet.'
    case 'told':
      return all(g.volume, g.percent) && g.percent <= 90 ? undefined : 'Say how much it holds and how sure that is.'
  }
}

/** Volume that one gauge gives, with its doubt. Call with what `gaugeProblem` lets through. */
export function gaugeResult(g: Gauge): GaugeResult {
  const result = (volume: CubicMetres, doubt: number, kind: Basis['kind'], note: string): GaugeResult => ({
    volume,
    doubt,
    basis: { kind, note },
  })
  switch (g.how) {
    case 'water-weight':
      return result(
        g.mass * BUOYANCY / waterDensity(g.temperature),
        Math.hypot(LEFT_IN_MOULD, 0.001 / g.mass),
        'physics',
        'water by weight over its density; about a hundredth stays behind or overfills',
      )
    case 'water-jug':
      return result(
        g.reading,
        Math.hypot(JUG, LEFT_IN_MOULD, g.step / Math.sqrt(12) / g.reading),
        'physics',
        'jug reading, to its marks',
      )
    case 'water-part':
      return result(g.water / g.share, EYE, 'engineering guess', 'an eye judges a share to about an eighth')
    case 'gravel':
      return result(
        g.reading,
        Math.hypot(GRAVEL, 0.3 * g.grain / g.gap, g.step / Math.sqrt(12) / g.reading),
        'engineering guess',
        'gaps are alike in mould and jug; coarse grains pack looser along walls',
      )
    case 'shapes':
      return result(
        g.stack.reduce((v, s) => v + shapeVolume(s), 0),
        Math.max(0.005, shapeDoubt(g.stack, g.error)),
        'physics',
        'solid geometry, measures carried through',
      )
    case 'model-weight':
      return result(
        g.mass / Math.sqrt(g.density.low * g.density.high),
        Math.max(0.01, Math.log(g.density.high / g.density.low) / (2 * Z80)),
        'physics',
        'weight of the model over the range of its density',
      )
    case 'dam': {
      const hollow = g.printArea * g.printDepth * PRINT_FULLNESS, cover = g.area * g.cover
      return result(
        hollow + cover,
        Math.hypot(PRINT_SHAPE * 2 * hollow, 0.05 * cover) / (hollow + cover),
        'engineering guess',
        'ground inside the ring times the cover, and half of the print’s outline times its depth',
      )
    }
    case 'shell': {
      const t = g.thickness, curved = g.radius ? 1 + t / g.radius + t * t / (3 * g.radius * g.radius) : 1
      return result(
        g.area * g.relief * t * g.layers * curved,
        SHELL_EVENNESS,
        'engineering guess',
        `area times thickness${
          g.radius ? ', grown outwards over a curve' : ''
        }; a shell by hand is even to about a seventh`,
      )
    }
    case 'mesh':
      return result(
        g.volume,
        g.trusted ? MESH : 0.1,
        'physics',
        g.trusted ? 'sum over the triangles of a closed model' : 'a model with holes: only roughly',
      )
    case 'pours':
      return result(
        g.volume,
        Math.max(0.02, ONE_POUR / Math.sqrt(g.casts)),
        'your own record',
        `what ${g.casts} ${g.casts === 1 ? 'cast' : 'casts'} really took, when nothing was left over`,
      )
    case 'told':
      return result(g.volume, g.percent / 100 / Z80, 'your own record', 'as told')
  }
}

export interface Gauged {
  readonly value: CubicMetres
  readonly low: CubicMetres
  readonly high: CubicMetres
  /** Set when the gauges contradict each other by more than their doubts allow. */
  readonly disagree?: string
}

/**
 * All gauges of a mould as one: means of logarithms, weighted by one over the variance, so that the surest speaks
 * loudest. When they
 * scatter more than their doubts allow, the range is widened by how much they do (Birge ratio) and that is said.
 * @throws RangeError without any usable gauge.
 */
export function combineGauges(gauges: readonly Gauge[], prefs: UnitPreferences = METRIC): Gauged {
  const results = gauges.filter(g => gaugeProblem(g) === undefined).map(g => ({ ...gaugeResult(g), how: g.how }))
  if (results.length === 0) throw new RangeError('no gauge')
  const weights = results.map(r => 1 / r.doubt ** 2)
  const total = weights.reduce((a, b) => a + b)
  const mean = results.reduce((sum, r, i) => sum + weights[i]! * Math.log(r.volume), 0) / total
  const chi = results.reduce((sum, r, i) => sum + weights[i]! * (Math.log(r.volume) - mean) ** 2, 0)
  const birge = results.length > 1 ? Math.sqrt(chi / (results.length - 1)) : 0
  const sd = Math.sqrt(1 / total) * Math.max(1, birge)
  const value = Math.exp(mean)
  const [least, most] = [
    results.reduce((a, b) => b.volume < a.volume ? b : a),
    results.reduce((a, b) => b.volume > a.volume ? b : a),
  ]
  return {
    value,
    low: value * Math.exp(-Z80 * sd),
    high: value * Math.exp(Z80 * sd),
    disagree: birge > 2
      ? `These do not agree: ${formatVolume(least.volume, prefs)} against ${
        formatVolume(most.volume, prefs)
      }. Look at the odd one again; until then the range is wide.`
      : undefined,
  }
}
