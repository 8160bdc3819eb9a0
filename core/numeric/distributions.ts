import { bisect } from './root'

/** The few distributions that verdicts need. */

const LANCZOS = [
  676.5203681218851,
  -1259.1392167224028,
  771.32342877765313,
  -176.61502916214059,
  12.507343278686905,
  -0.13857109526572012,
  9.9843695780195716e-6,
  1.5056327351493116e-7,
]

/** ln Γ(x), x > 0: Lanczos, g = 7, nine terms (relative error about 1e-15). */
export function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x)
  const t = x + 6.5
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t
    + Math.log(LANCZOS.reduce((sum, c, i) => sum + c / (x + i), 0.99999999999980993))
}

/**
 * Regularised incomplete beta function I_x(a, b), by its continued fraction (modified Lentz; Press et al., Numerical
 * Recipes, §6.4).
 */
export function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0
  if (x >= 1) return 1
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x))
  return x < (a + 1) / (a + b + 2) ? front * betaFraction(x, a, b) / a : 1 - front * betaFraction(1 - x, b, a) / b
}

function betaFraction(x: number, a: number, b: number): number {
  const tiny = 1e-300
  let c = 1, d = 1 / (Math.abs(1 - (a + b) * x / (a + 1)) < tiny ? tiny : 1 - (a + b) * x / (a + 1)), h = d
  for (let m = 1; m < 500; m++) {
    for (
      const term of [
        m * (b - m) * x / ((a + 2 * m - 1) * (a + 2 * m)),
        -(a + m) * (a + b + m) * x / ((a + 2 * m) * (a + 2 * m + 1)),
      ]
    ) {
      d = 1 / (Math.abs(1 + term * d) < tiny ? tiny : 1 + term * d)
      c = Math.abs(1 + term / c) < tiny ? tiny : 1 + term / c
      h *= d * c
    }
    if (Math.abs(d * c - 1) < 1e-15) break
  }
  return h
}

/** P(T ≤ t) of Student's t with `df` degrees of freedom, which need not be whole. */
export function studentCdf(t: number, df: number): number {
  const tail = incompleteBeta(df / (df + t * t), df / 2, 0.5) / 2
  return t > 0 ? 1 - tail : tail
}

/** The t below which a share `p` lies, by bisection. @param p between 0 and 1 */
export function studentQuantile(p: number, df: number): number {
  if (p === 0.5) return 0
  let low = -1, high = 1
  while (studentCdf(low, df) > p) low *= 2
  while (studentCdf(high, df) < p) high *= 2
  return bisect(low, high, t => studentCdf(t, df) - p)
}

/**
 * Share of a standard normal distribution below z, within 1e-7 (Abramowitz and Stegun 26.2.17, from memory; checked
 * against its inverse in tests).
 */
export function normalShare(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z))
  const poly = t * (0.319381530 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  const upper = Math.exp(-z * z / 2) / Math.sqrt(2 * Math.PI) * poly
  return z < 0 ? upper : 1 - upper
}
