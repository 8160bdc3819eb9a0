import type { Taught } from '../plan/types'
import { choleskyRoot, solveLinear, symmetricEigen } from '../numeric/linear'
import {
  classRateSd,
  drawCharacter,
  SEEDS_SD,
  TAIL_SD,
  type BagCharacter,
  type KnownBag,
  type Six,
  type Three,
} from '../setting/bag-character'
import { MODEL_VERSION } from '../setting/moments'

/**
 * What pours teach of their bag, put together. All is normal in the logarithms of speed, seeds and tail: each pour
 * gives a precision and a pull (precision times mean), its own prior taken out, so that pours add up.
 */

type Matrix = readonly (readonly number[])[]
const THREE: readonly number[] = [0, 1, 2]

/**
 * Between one pour and the next from the same bag, in the logarithms of speed, seeds and tail: what is not the powder
 * (engineering guesses; how it was stirred is most of it).
 */
const BETWEEN_POURS: Three = [0.07, 0.3, 0.1]
/** Each later pour counts this much less for every one that came after it: bags change. */
const FADING = 0.9
/** What another version of the model read out of a pour says less to this one: its spread is taken this many times. */
const ACROSS_MODELS = 2

const fullOf = (h: Six): Matrix => [[h[0], h[1], h[3]], [h[1], h[2], h[4]], [h[3], h[4], h[5]]]
const halfOf = (m: Matrix): Six => [m[0]![0]!, m[1]![0]!, m[1]![1]!, m[2]![0]!, m[2]![1]!, m[2]![2]!]
const times = (a: Matrix, b: Matrix): Matrix =>
  THREE.map(i => THREE.map(j => THREE.reduce((s, k) => s + a[i]![k]! * b[k]![j]!, 0)))
const onto = (a: Matrix, v: ArrayLike<number>) => THREE.map(i => THREE.reduce((s, k) => s + a[i]![k]! * v[k]!, 0))
const diagonal = (d: ArrayLike<number>): Matrix => THREE.map(i => THREE.map(j => i === j ? d[i]! : 0))
const inverseOf = (a: Matrix): Matrix | undefined => solveLinear(a, [0, 0, 0])?.inverse
function covarianceOf({ root: r }: BagCharacter): Matrix {
  const L = [[r[0], 0, 0], [r[1], r[2], 0], [r[3], r[4], r[5]]]
  return THREE.map(i => THREE.map(j => THREE.reduce((s, k) => s + L[i]![k]! * L[j]![k]!, 0)))
}

/** What a pour told of each: of speed alone where an earlier version of the model read it. */
interface Told { readonly precision: Matrix, readonly pull: readonly number[] }
/**
 * A pour cannot unteach: directions in which it tells less than nothing are left out, of the precision and of the pull.
 */
function tellingPart(precision: Matrix, pull: readonly number[]): Told {
  const { values, vectors } = symmetricEigen(precision), kept = THREE.filter(k => values[k]! > 0)
  const along = kept.map(k => THREE.reduce((sum, i) => sum + vectors[i]![k]! * pull[i]!, 0))
  return {
    precision: THREE.map(i => THREE.map(j =>
      kept.reduce((sum, k) => sum + values[k]! * vectors[i]![k]! * vectors[j]![k]!, 0))),
    pull: THREE.map(i => kept.reduce((sum, k, n) => sum + vectors[i]![k]! * along[n]!, 0)),
  }
}

function toldBy({ mean, sd, model, character }: Taught): Told {
  const less = model === MODEL_VERSION ? 1 : 1 / ACROSS_MODELS ** 2
  const told: Told = character
    ? tellingPart(fullOf(character.precision), character.pull)
    : { precision: diagonal([1 / sd ** 2, 0, 0]), pull: [mean / sd ** 2, 0, 0] }
  return { precision: told.precision.map(row => row.map(x => less * x)), pull: told.pull.map(x => less * x) }
}

/** What a pour tells of its bag, when each pour differs from it a little: (P^-1 + B)^-1, without inverting P. */
function ofTheBag({ precision, pull }: Told): Told {
  const between = diagonal(BETWEEN_POURS.map(x => x * x)), spread = times(precision, between)
  const inverse = inverseOf(THREE.map(i => THREE.map(j => (i === j ? 1 : 0) + spread[i]![j]!)))!
  return { precision: times(inverse, precision), pull: onto(inverse, pull) }
}

/** Mean and covariance of a bag from its pours, the newest first, on top of what its class lets expect. */
function putTogether(
  classSd: number,
  taught: readonly Taught[],
): { readonly mean: readonly number[], readonly spread: Matrix } {
  let precision = diagonal([classSd, SEEDS_SD, TAIL_SD].map(sd => 1 / sd ** 2)), pull: readonly number[] = [0, 0, 0]
  taught.forEach((t, age) => {
    const told = ofTheBag(toldBy(t)), weight = FADING ** age
    precision = precision.map((row, i) => row.map((x, j) => x + weight * told.precision[i]![j]!))
    pull = pull.map((x, i) => x + weight * told.pull[i]!)
  })
  const spread = inverseOf(precision)!
  return { spread, mean: onto(spread, pull) }
}

/**
 * A bag's rate from what its pours taught, the newest first: normal distributions put together by their precisions, the
 * newest loudest, never surer than one pour from the next.
 * @returns mean and standard deviation of the logarithm of the rate against the class.
 */
export function bagRate(classSd: number, taught: readonly Taught[]): Pick<Taught, 'mean' | 'sd'> {
  const { mean, spread } = putTogether(classSd, taught)
  return { mean: mean[0]!, sd: Math.max(BETWEEN_POURS[0], Math.sqrt(spread[0]![0]!)) }
}

/** The character of the next pour from a bag: the bag's own, and what differs from pour to pour. */
export function bagCharacter(classSd: number, taught: readonly Taught[]): BagCharacter {
  const { mean, spread } = putTogether(classSd, taught)
  const root = Float64Array.from(
    spread.flatMap((row, i) => row.map((x, j) => x + (i === j ? BETWEEN_POURS[i]! ** 2 : 0))),
  )
  choleskyRoot(root, 3)
  const [speed, seeds, tail] = mean as [number, number, number]
  return { mean: [speed, seeds, tail], root: halfOf([0, 3, 6].map(i => [...root.slice(i, i + 3)])) }
}

/** What is known of a bag, with what its pours taught. @param doubt of its class, where less is known of that */
export function taughtRate(
  uncertain: boolean, taught: readonly Taught[], doubt?: number,
): NonNullable<KnownBag['bagRate']> {
  const sd = classRateSd(uncertain, doubt)
  return { ...bagRate(sd, taught), character: bagCharacter(sd, taught) }
}

/** To six figures: nothing finer was learnt, and it is kept with the pour. */
const short = (x: number) => Number(x.toPrecision(6))

/** A pour that leaves more than this of the variance of the speed has taught nothing; none is surer than this. */
const LEAST_LEARNT = 0.9, LEAST_SPREAD = 0.02
/**
 * What a pour taught: what is now believed of its bag, with what was believed before taken out again. Undefined when it
 * leaves the speed as uncertain as before.
 * @param before its prior @param z mean of the weighed pours in the prior's standard normal numbers @param spread their
 * covariance
 */
export function taughtFrom(before: BagCharacter, z: Three, spread: Matrix): Taught | undefined {
  if (!(spread[0]![0]! <= LEAST_LEARNT)) return undefined
  const own = (row: readonly number[]) => {
    const moved = drawCharacter(before, row as unknown as Three)
    return THREE.map(i => moved[i]! - before.mean[i]!)
  }
  // Rows, then columns, from the prior's numbers to logarithms.
  const half = spread.map(own), now = THREE.map(j => own(half.map(row => row[j]!)))
  const widened = now.map((row, i) => row.map((x, j) => x + (i === j ? LEAST_SPREAD ** 2 : 0)))
  const after = inverseOf(widened), prior = inverseOf(covarianceOf(before))
  if (!after || !prior) return undefined
  const mean = drawCharacter(before, z), held = onto(after, mean), begun = onto(prior, before.mean)
  const precision = after.map((row, i) => row.map((x, j) => x - prior[i]![j]!))
  const pull = THREE.map(i => held[i]! - begun[i]!)
  const variance = Math.max(0.01, spread[0]![0]!), speed = before.root[0], share = 1 / variance - 1
  return {
    mean: before.mean[0] + speed * z[0] / variance / share,
    sd: speed / Math.sqrt(share),
    model: MODEL_VERSION,
    character: { precision: halfOf(precision).map(short) as unknown as Six, pull: pull.map(short) as unknown as Three },
  }
}
