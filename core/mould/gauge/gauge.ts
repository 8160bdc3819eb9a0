import type { Basis, Celsius, CubicMetres, Kilograms, Metres } from '../../units/quantity'
import { Z80 } from '../../units/quantity'
import { waterDensity } from '../../gypsum/mix'
import { shellLayers, type ShellGauge } from './shells'
import { shapeDoubt, shapeProblem, shapeVolume, type Shape, type ShapeProblem } from './shapes'

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
  'shell': ShellGauge & { readonly sides?: Sides }
  /** `surface`: all of the model's own, m2. */
  'mesh': { readonly volume: CubicMetres, readonly trusted: boolean, readonly surface?: number }
  'pours': { readonly volume: CubicMetres, readonly casts: number }
  'told': { readonly volume: CubicMetres, readonly percent: number }
}

/**
 * How a mould was gauged, as it was measured: kept with the mould, so that the volume can always be worked out again.
 */
export type Gauge = { [H in keyof GaugeMeasures]: { readonly how: H } & GaugeMeasures[H] }[keyof GaugeMeasures]

export type GaugeHow = Gauge['how']

/** Why a gauge cannot be worked out: what is missing of it, or what it cannot be. */
export type GaugeProblem
  = | ShapeProblem
    | 'no-water-weight'
    | 'not-liquid'
    | 'no-jug'
    | 'no-water-part'
    | 'no-share'
    | 'no-gravel'
    | 'gravel-coarse'
    | 'no-shape'
    | 'no-model-weight'
    | 'no-ring'
    | 'print-outside'
    | 'no-shell'
    | 'no-volume'
    | 'no-pours'
    | 'not-told'

interface GaugeResult {
  readonly volume: CubicMetres
  /** Relative standard deviation. */
  readonly doubt: number
  readonly kind: Basis['kind']
}

/** Volume that holds in eight of ten (log-normal). */
export function gaugeRange(
  { volume, doubt }: Pick<GaugeResult, 'volume' | 'doubt'>,
): { readonly low: CubicMetres, readonly value: CubicMetres, readonly high: CubicMetres } {
  return { low: volume * Math.exp(-Z80 * doubt), value: volume, high: volume * Math.exp(Z80 * doubt) }
}

/** The ways people gauge, the surest first. Common practice, no source. */
export const GAUGE_WAYS = [
  'water-weight',
  'water-jug',
  'gravel',
  'shapes',
  'water-part',
  'model-weight',
  'dam',
  'shell',
  'told',
] as const satisfies readonly GaugeHow[]

// Relative standard deviations, engineering guesses but where the physics gives them.
const LEFT_IN_MOULD = 0.01,
  JUG = 0.01,
  EYE = 0.12,
  GRAVEL = 0.03,
  PRINT_SHAPE = 0.15,
  SHELL_EVENNESS = 0.15,
  MESH = 0.005,
  MESH_WITH_HOLES = 0.1,
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

const above = (...values: number[]) => values.every(v => v > 0 && Number.isFinite(v))

interface Rule<G> {
  readonly problem: (gauge: G) => GaugeProblem | undefined
  /** Of what has no problem. */
  readonly result: (gauge: G) => GaugeResult
}
const physics = (volume: CubicMetres, doubt: number): GaugeResult => ({ volume, doubt, kind: 'physics' })
const guess = (volume: CubicMetres, doubt: number): GaugeResult => ({ volume, doubt, kind: 'engineering guess' })
const record = (volume: CubicMetres, doubt: number): GaugeResult => ({ volume, doubt, kind: 'your own record' })
/** A jug is read to its marks: evenly within one of them. */
const toItsMarks = (step: CubicMetres, reading: CubicMetres) => step / Math.sqrt(12) / reading

const RULES: { readonly [H in GaugeHow]: Rule<Extract<Gauge, { readonly how: H }>> } = {
  // Water by weight over its density; about a hundredth stays behind or overfills.
  'water-weight': {
    problem(g) {
      if (!above(g.mass)) return 'no-water-weight'
      return g.temperature > 0 && g.temperature < 60 ? undefined : 'not-liquid'
    },
    result: g =>
      physics(g.mass * BUOYANCY / waterDensity(g.temperature), Math.hypot(LEFT_IN_MOULD, 0.001 / g.mass)),
  },
  'water-jug': {
    problem: g => above(g.reading, g.step) ? undefined : 'no-jug',
    result: g => physics(g.reading, Math.hypot(JUG, LEFT_IN_MOULD, toItsMarks(g.step, g.reading))),
  },
  'water-part': {
    problem(g) {
      if (!above(g.water)) return 'no-water-part'
      return g.share > 0.02 && g.share <= 1 ? undefined : 'no-share'
    },
    result: g => guess(g.water / g.share, EYE),
  },
  // Gaps are alike in mould and jug; coarse grains pack looser along walls.
  'gravel': {
    problem(g) {
      if (!above(g.reading, g.step, g.grain, g.gap)) return 'no-gravel'
      return g.grain < g.gap / 3 ? undefined : 'gravel-coarse'
    },
    result: g => guess(g.reading, Math.hypot(GRAVEL, 0.3 * g.grain / g.gap, toItsMarks(g.step, g.reading))),
  },
  // Solid geometry, measures carried through.
  'shapes': {
    problem: g => g.stack.length === 0 ? 'no-shape' : g.stack.map(shapeProblem).find(Boolean),
    result: ({ stack, error }) =>
      physics(stack.reduce((v, s) => v + shapeVolume(s), 0), Math.max(0.005, shapeDoubt(stack, error))),
  },
  'model-weight': {
    problem: ({ mass, density: { low, high } }) => above(mass, low, high) && low <= high ? undefined : 'no-model-weight',
    result: ({ mass, density: { low, high } }) =>
      physics(mass / Math.sqrt(low * high), Math.max(0.01, Math.log(high / low) / (2 * Z80))),
  },
  // Ground inside the ring times the cover, and half of the print's outline times its depth.
  'dam': {
    problem(g) {
      if (!above(g.area, g.cover)) return 'no-ring'
      return g.printArea >= 0 && g.printDepth >= 0 && g.printArea <= g.area ? undefined : 'print-outside'
    },
    result(g) {
      const hollow = g.printArea * g.printDepth * PRINT_FULLNESS, cover = g.area * g.cover
      return guess(hollow + cover, Math.hypot(PRINT_SHAPE * 2 * hollow, 0.05 * cover) / (hollow + cover))
    },
  },
  // Layers grown outwards; a shell by hand is even to about a seventh.
  'shell': {
    problem: g => above(g.area, g.relief, g.thickness, g.layers) ? undefined : 'no-shell',
    result: g => guess(shellLayers(g).reduce((sum, v) => sum + v, 0), SHELL_EVENNESS),
  },
  'mesh': {
    problem: g => above(g.volume) ? undefined : 'no-volume',
    result: g => physics(g.volume, g.trusted ? MESH : MESH_WITH_HOLES),
  },
  'pours': {
    problem: g => above(g.volume, g.casts) ? undefined : 'no-pours',
    result: g => record(g.volume, Math.max(0.02, ONE_POUR / Math.sqrt(g.casts))),
  },
  'told': {
    problem: g => above(g.volume, g.percent) && g.percent <= 90 ? undefined : 'not-told',
    result: g => record(g.volume, g.percent / 100 / Z80),
  },
}
const ruleOf = <G extends Gauge>(g: G) => RULES[g.how] as unknown as Rule<G>

/** Why a gauge cannot be worked out; undefined when it can. */
export function gaugeProblem(g: Gauge): GaugeProblem | undefined {
  return ruleOf(g).problem(g)
}

/** Volume that one gauge gives, with its doubt. Call with what `gaugeProblem` lets through. */
export function gaugeResult(g: Gauge): GaugeResult {
  return ruleOf(g).result(g)
}

export interface Gauged {
  readonly value: CubicMetres
  readonly low: CubicMetres
  readonly high: CubicMetres
  /** The least and the most that was gauged, when they contradict each other by more than their doubts allow. */
  readonly disagree?: { readonly least: CubicMetres, readonly most: CubicMetres }
}

/**
 * All gauges of a mould as one: means of logarithms, weighted by one over the variance, so that the surest speaks
 * loudest. When they
 * scatter more than their doubts allow, the range is widened by how much they do (Birge ratio) and that is said.
 * @throws RangeError without any usable gauge.
 */
export function combineGauges(gauges: readonly Gauge[]): Gauged {
  const results = gauges.filter(g => gaugeProblem(g) === undefined).map(gaugeResult)
  if (results.length === 0) throw new RangeError('no gauge')
  const weights = results.map(r => 1 / r.doubt ** 2)
  const total = weights.reduce((a, b) => a + b)
  const mean = results.reduce((sum, r, i) => sum + weights[i]! * Math.log(r.volume), 0) / total
  const chi = results.reduce((sum, r, i) => sum + weights[i]! * (Math.log(r.volume) - mean) ** 2, 0)
  const birge = results.length > 1 ? Math.sqrt(chi / (results.length - 1)) : 0
  const sd = Math.sqrt(1 / total) * Math.max(1, birge)
  const value = Math.exp(mean)
  const volumes = results.map(r => r.volume)
  return {
    value,
    low: value * Math.exp(-Z80 * sd),
    high: value * Math.exp(Z80 * sd),
    disagree: birge > 2 ? { least: Math.min(...volumes), most: Math.max(...volumes) } : undefined,
  }
}
