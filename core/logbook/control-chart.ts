/**
 * Chart of individual values with moving ranges: limits at the mean ± 3 σ, σ the mean moving range of two over d₂ =
 * 1.128
 * (NIST/SEMATECH e-Handbook of Statistical Methods, §6.3.2.2, from memory). Runs are counted about the median, which
 * one value far out does not move.
 */
interface ControlChart {
  readonly centre: number
  readonly low: number
  readonly high: number
  /** Places of values outside the limits, and of values that end a run of at least eight on one side of the median. */
  readonly outside: readonly number[]
  readonly drifting: readonly number[]
}

const D2 = 1.128
export const FEWEST_FOR_LIMITS = 8
const RUN = 8

/** @returns undefined with fewer than FEWEST_FOR_LIMITS values: limits of fewer would be guesses. */
export function controlChart(values: readonly number[]): ControlChart | undefined {
  if (values.length < FEWEST_FOR_LIMITS) return undefined
  const centre = values.reduce((a, b) => a + b, 0) / values.length
  const sigma = values.slice(1).reduce((s, v, i) => s + Math.abs(v - values[i]!), 0) / (values.length - 1) / D2
  const low = centre - 3 * sigma, high = centre + 3 * sigma, outside: number[] = [], drifting: number[] = []
  const sorted = [...values].sort((a, b) => a - b),
    half = sorted.length / 2,
    median = (sorted[Math.ceil(half) - 1]! + sorted[Math.floor(half)]!) / 2
  let run = 0, side = 0
  for (const [i, v] of values.entries()) {
    if (v < low || v > high) outside.push(i)
    const now = Math.sign(v - median)
    run = now !== 0 && now === side ? run + 1 : 1
    side = now
    if (run >= RUN) drifting.push(i)
  }
  return { centre, low, high, outside, drifting }
}

/** Share with its 95 % interval (Wilson's score interval; Wilson 1927). @returns undefined of none. */
export function shareOf(
  hits: number,
  of: number,
): { readonly value: number, readonly low: number, readonly high: number } | undefined {
  if (of === 0) return undefined
  const z = 1.959964,
    p = hits / of,
    scale = 1 + z * z / of,
    middle = (p + z * z / (2 * of)) / scale,
    half = z / scale * Math.sqrt(p * (1 - p) / of + z * z / (4 * of * of))
  return { value: p, low: Math.max(0, middle - half), high: Math.min(1, middle + half) }
}
