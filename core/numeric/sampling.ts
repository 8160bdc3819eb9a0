import { generator } from './generator'

/**
 * Quantiles of uncertain results without dice: the same inputs always give the same ranges, and they move smoothly as
 * inputs move.
 */

const CUBES = new Map<string, readonly Float64Array[]>()

/**
 * Latin hypercube (McKay, Beckman and Conover 1979, Technometrics 21:239): one list of `n` values in the unit interval
 * for each dimension,
 * each the middles of n equal parts in an order of its own. The orders are shuffled by a fixed generator, so that the
 * cube is always the same.
 */
export function latinCube(n: number, dimensions: number): readonly Float64Array[] {
  const key = `${n},${dimensions}`
  const known = CUBES.get(key)
  if (known) return known
  // Of three thousand starts, the one whose dimensions lean least on each other.
  const next = generator(2832)
  const cube = Array.from({ length: dimensions }, () => {
    const values = Float64Array.from({ length: n }, (_, i) => (i + 0.5) / n)
    for (let i = n - 1; i > 0; i--) {
      const j = Math.floor(next() * (i + 1))
      const kept = values[i]!
      values[i] = values[j]!
      values[j] = kept
    }
    return values
  })
  CUBES.set(key, cube)
  return cube
}

const NORMAL_CUBES = new WeakMap<readonly Float64Array[], readonly Float64Array[]>()
/** The same points as standard normal numbers, worked out once. */
export function normalCube(n: number, dimensions: number): readonly Float64Array[] {
  const cube = latinCube(n, dimensions)
  const normal = NORMAL_CUBES.get(cube) ?? cube.map(values => values.map(normalQuantile))
  NORMAL_CUBES.set(cube, normal)
  return normal
}

/**
 * Inverse of the standard normal distribution; rational approximation of Acklam (relative error below 1.2e-9, from
 * memory).
 */
export function normalQuantile(p: number): number {
  const a = [
    -39.69683028665376,
    220.9460984245205,
    -275.9285104469687,
    138.3577518672690,
    -30.66479806614716,
    2.506628277459239,
  ]
  const b = [-54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572]
  const c = [
    -0.007784894002430293,
    -0.3223964580411365,
    -2.400758277161838,
    -2.549732539343734,
    4.374664141464968,
    2.938163982698783,
  ]
  const d = [0.007784695709041462, 0.3224671290700398, 2.445134137142996, 3.754408661907416]
  const horner = (k: readonly number[], x: number) => k.reduce((sum, ki) => sum * x + ki, 0)
  if (p < 0.02425) {
    const q = Math.sqrt(-2 * Math.log(p))
    return horner(c, q) / (horner(d, q) * q + 1)
  }
  if (p > 1 - 0.02425) return -normalQuantile(1 - p)
  const q = p - 0.5, r = q * q
  return horner(a, r) * q / (horner(b, r) * r + 1)
}

/** Quantile of a sample that is already sorted, by linear interpolation; Infinity is a legal value. */
export function sortedQuantile(sorted: readonly number[], p: number): number {
  if (sorted.length === 0) throw new RangeError('no sample')
  const x = (sorted.length - 1) * p
  const i = Math.floor(x), low = sorted[i]!, high = sorted[Math.min(i + 1, sorted.length - 1)]!
  return low === high || x === i ? low : low + (high - low) * (x - i)
}
