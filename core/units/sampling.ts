/** Quantiles of uncertain results without dice: the same inputs always give the same ranges, and they move smoothly as inputs move. */

const PRIMES = [2, 3, 5, 7, 11, 13] as const

/** Halton sequence (Halton 1960): point `index` (from 1) in the unit interval for the given dimension, 0 to 5. */
export function halton(index: number, dimension: number): number {
  const base = PRIMES[dimension]!
  let f = 1, result = 0
  for (let i = index; i > 0; i = Math.floor(i / base)) {
    f /= base
    result += f * (i % base)
  }
  return result
}

/** Inverse of the standard normal distribution; rational approximation of Acklam (relative error below 1.2e-9, from memory). */
export function normalQuantile(p: number): number {
  const a = [-39.69683028665376, 220.9460984245205, -275.9285104469687, 138.3577518672690, -30.66479806614716, 2.506628277459239]
  const b = [-54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572]
  const c = [-0.007784894002430293, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968, 2.938163982698783]
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
