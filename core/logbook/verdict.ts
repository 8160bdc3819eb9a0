import { studentCdf, studentQuantile } from '../numeric/distributions'

export interface Sample { readonly n: number, readonly mean: number, readonly variance: number }

/** Mean and variance (n − 1) of some values. */
export function sampleOf(values: readonly number[]): Sample {
  const n = values.length, mean = values.reduce((a, b) => a + b, 0) / n
  return { n, mean, variance: n < 2 ? NaN : values.reduce((s, v) => s + (v - mean) ** 2, 0) / (n - 1) }
}

/**
 * Normal quantiles of the usual promise: a difference that is none is called one in 5 % of cases, one of the size asked
 * for is found in 80 %.
 */
const Z_TWO_SIDED_5 = 1.959964, Z_80 = 0.841621
/** Fewer pours than this on a side say nothing, whatever they look like. */
const FEWEST = 3
/** More pours than this on a side nobody makes to settle a question. */
const MOST = 2000

/** What two ways of doing it differ by: b − a, with its 95 % interval (Welch's t, unequal variances). */
export interface Difference { readonly value: number, readonly low: number, readonly high: number, readonly p: number }

/**
 * @returns undefined with fewer than two values on a side. Two sides without any spread differ for certain or not at
 * all.
 */
export function welch(a: Sample, b: Sample): Difference | undefined {
  if (a.n < 2 || b.n < 2) return undefined
  const ea = a.variance / a.n, eb = b.variance / b.n, error = Math.sqrt(ea + eb), value = b.mean - a.mean
  if (error === 0) return { value, low: value, high: value, p: value === 0 ? 1 : 0 }
  const df = (ea + eb) ** 2 / (ea ** 2 / (a.n - 1) + eb ** 2 / (b.n - 1)), half = studentQuantile(0.975, df) * error
  return { value, low: value - half, high: value + half, p: 2 * studentCdf(-Math.abs(value) / error, df) }
}

/**
 * Pours wanted on each side so that a true difference of `delta` is found in four of five trials: 2 (z₀.₉₇₅ + z₀.₈)² s²
 * / δ², the usual formula for two means
 * (normal approximation), never fewer than FEWEST.
 */
export function wanted(sd: number, delta: number): number {
  return Math.max(FEWEST, Math.ceil(2 * ((Z_TWO_SIDED_5 + Z_80) * sd / delta) ** 2))
}

export type TwoVerdict
  /** Too few to say anything. */
  = | { readonly says: 'too-few', readonly more: number }
    | { readonly says: 'differs', readonly difference: Difference }
    /** The interval lies within what would not matter. */
    | { readonly says: 'same', readonly difference: Difference }
    /** Cannot tell yet; `more` a side to find a difference that would matter, undefined if that is out of reach. */
    | { readonly says: 'open', readonly difference: Difference, readonly more?: number }

/**
 * Whether two ways differ, told as it is. One pour is one value, however many casts it filled: casts of one bucket are
 * not independent.
 * @param matters the smallest difference worth changing anything for, in the values' own unit
 */
export function judgeTwo(a: readonly number[], b: readonly number[], matters: number): TwoVerdict {
  const fewer = Math.min(a.length, b.length)
  if (fewer < FEWEST) return { says: 'too-few', more: FEWEST - fewer }
  const sa = sampleOf(a), sb = sampleOf(b), difference = welch(sa, sb)!
  // All alike on both sides is luck as long as there are few: no spread seen is not no spread.
  const sd = Math.sqrt(((sa.n - 1) * sa.variance + (sb.n - 1) * sb.variance) / (sa.n + sb.n - 2))
  if (sd > 0 && (difference.low > 0 || difference.high < 0)) return { says: 'differs', difference }
  if (sd > 0 && difference.low > -matters && difference.high < matters) return { says: 'same', difference }
  const each = sd > 0 ? wanted(sd, matters) : 2 * FEWEST
  const more = Math.max(1, each - fewer)
  return { says: 'open', difference, more: each > MOST ? undefined : more }
}
