import type { Celsius, Seconds } from '../units/quantity'

/** How fast hemihydrate turns into gypsum: d alpha/dt = k D(T) (s + alpha) (1 - alpha/alphaMax)^q. */

const GAS = 8.314462618
const ACTIVATION = 60_000 // J/mol, fitted

/** Heat of hydration at 25 degC, J per kg of hemihydrate, from standard enthalpies of formation (see docs/model.md). */
export const HEAT = { alpha: 118.1e3, beta: 132.5e3 } as const
/** Growth of that heat with temperature by the heat capacities of what goes in and comes out (Kirchhoff), J/(kg K). */
export const HEAT_SLOPE = 320.5
/**
 * Specific heats, J/(kg K): handbook values from memory. Gypsum's follows: 823 - 320.5 + 0.18617 x 4182 = 1080 x
 * 1.18617.
 */
export const CP = { hemihydrate: 823, water: 4182, inert: 740 } as const

/**
 * Solubility gap between hemihydrate and gypsum, g CaSO4 per litre; it drives the reaction and closes at 100 degC
 * (shape from handbook curves, from memory).
 */
function solubilityGap(t: Celsius): number {
  const hemihydrate = 10 * Math.exp(-0.018202 * t)
  const x = (t - 40) / 60
  const gypsum = t <= 40 ? 2.10 - 0.34 * ((t - 40) / 40) ** 2 : 2.10 - 0.48 * x * x * (1.3 - 0.3 * x)
  return Math.max(0, hemihydrate - gypsum)
}

/**
 * Speed of hydration against 21 degC. Fastest near 36 degC, none at 100 degC.
 * Arrhenius rate times a power of the solubility gap; exponents fitted, see docs/model.md.
 */
export function temperatureFactor(t: Celsius): number {
  if (t >= 100) return 0
  const kelvin = t + 273.15
  return Math.exp(-(ACTIVATION / GAS) * (1 / kelvin - 1 / 294.15)) * (solubilityGap(t) / solubilityGap(21)) ** 2.42
}

const TABLE_STEP = 0.25, TABLE_FROM = -20
const TABLE = Float64Array.from({ length: 4 * 130 }, (_, i) => temperatureFactor(TABLE_FROM + i * TABLE_STEP))

/** The same from a table, a quarter of a degree apart, -20 to 109 degC: within 0.01 % of the formula. */
export function fastTemperatureFactor(t: Celsius): number {
  const x = Math.max(0, Math.min(TABLE.length - 1.001, (t - TABLE_FROM) / TABLE_STEP))
  const i = x | 0
  return TABLE[i]! + (TABLE[i + 1]! - TABLE[i]!) * (x - i)
}

const SEEDS = 0.0052

/** Spatula turns beyond which stirring makes no more seeds in the model; its tables reach from 20 to 200. */
export const MOST_TURNS = 400

/** Seed share that stirring makes; n in equivalent spatula turns. Fitted to tables between 20 and 200 turns. */
export function stirredSeeds(turns: number): number {
  return SEEDS * ((1 + Math.min(turns, MOST_TURNS) / 300) / (1 + 100 / 300)) ** 5.2
}

/**
 * Time to reach a degree of hydration at one constant temperature.
 * @param k rate 1/s at that temperature; @param s seed share; @param alpha 0..1.
 * Closed form of d alpha/dt = k (s + alpha)(1 - alpha).
 */
export function isothermalTime(k: number, s: number, alpha: number): Seconds {
  return Math.log((alpha + s) / (s * (1 - alpha))) / (k * (1 + s))
}

/** Exponent of the late tail; 1 is the centre, ranges are drawn from 0.6, 1 and 1.6. */
export type TailExponent = number

const TAIL_POINTS = 1024
const TAILS = new Map<TailExponent, Float64Array>()
function powers(q: TailExponent): Float64Array {
  const table = TAILS.get(q)
    ?? Float64Array.from({ length: TAIL_POINTS + 2 }, (_, i) => Math.max(0, 1 - i / TAIL_POINTS) ** q)
  TAILS.set(q, table)
  return table
}

/** (1 - u)^q from a table of u in [0, 1]. */
export function tailTable(q: TailExponent): (u: number) => number {
  if (q === 1) return u => u >= 1 ? 0 : 1 - u
  const table = powers(q)
  return (u) => {
    if (u >= 1) return 0
    const x = u * TAIL_POINTS, i = x | 0
    return table[i]! + (table[i + 1]! - table[i]!) * (x - i)
  }
}

/**
 * Rate multiplier that leaves the loss of gloss where it was when the tail exponent changes: the ratio of the two time
 * integrals up to
 * `alphaSet`, by Simpson's rule in ln(s + alpha).
 */
export function tailCorrection(q: TailExponent, s: number, alphaSet: number, alphaMax: number): number {
  if (q === 1) return 1
  const integral = (exponent: number) => {
    const from = Math.log(s), to = Math.log(s + alphaSet), n = 24, h = (to - from) / n
    let sum = 0
    for (let i = 0; i <= n; i++) {
      const alpha = Math.exp(from + i * h) - s
      sum += (i === 0 || i === n ? 1 : i % 2 ? 4 : 2) * (1 - alpha / alphaMax) ** -exponent
    }
    return sum * h / 3
  }
  return integral(q) / integral(1)
}
