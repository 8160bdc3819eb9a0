/**
 * How a bag of powder is, beyond its class: the logarithms of its speed, of what stirring seeds in it, and of how long
 * its late tail is, together: the three are told apart only in part.
 */
export interface BagCharacter {
  /** Speed, seeds, tail: natural logarithms against the class. */
  readonly mean: Three
  /** Lower root of their covariance, row by row. */
  readonly root: Six
}
export type Three = readonly [number, number, number]
/** Lower half of a symmetric or triangular matrix of three, row by row. */
export type Six = readonly [number, number, number, number, number, number]

/** Standard deviations of a bag against its class, and of one whose age is not known (engineering guesses). */
const RATE_SD = 0.30, UNCERTAIN_RATE_SD = 0.45
export const SEEDS_SD = 0.80
/**
 * Median and deviation of the tail's exponent, in its logarithm: a little slower than the plan's centre, since practice
 * opens later than the model (engineering guess).
 */
export const TAIL_MEDIAN = 1.02, TAIL_SD = 0.41

/** What an input says of its bag. */
export interface KnownBag {
  readonly bagUncertain: boolean
  /** What earlier pours from this bag taught: mean and standard deviation of the logarithm of its rate. */
  readonly bagRate?: { readonly mean: number, readonly sd: number, readonly character?: BagCharacter }
}

/** @param doubt of a class of which less is known */
export function classRateSd(uncertain: boolean, doubt = 0): number {
  return Math.max(doubt, uncertain ? UNCERTAIN_RATE_SD : RATE_SD)
}

/** The character to draw from: what its pours taught, or only its speed, or what its class lets expect. */
export function characterOf(
  { bagRate, bagUncertain, powder }: KnownBag & { readonly powder?: { readonly doubt?: { readonly rate: number } } },
): BagCharacter {
  if (bagRate?.character) return bagRate.character
  return {
    mean: [bagRate?.mean ?? 0, 0, 0],
    root: [bagRate?.sd ?? classRateSd(bagUncertain, powder?.doubt?.rate), 0, SEEDS_SD, 0, 0, TAIL_SD],
  }
}

/** One bag of that character. @param z three standard normal numbers */
export function drawCharacter({ mean, root: r }: BagCharacter, z: Three): Three {
  return [
    mean[0] + r[0] * z[0],
    mean[1] + r[1] * z[0] + r[2] * z[1],
    mean[2] + r[3] * z[0] + r[4] * z[1] + r[5] * z[2],
  ]
}
