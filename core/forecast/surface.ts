import { choleskyRoot, solveByRoot } from '../numeric/linear'

/**
 * A smooth function of several standard normal numbers, as a quadratic with cubes through a few runs (response surface;
 * Box and Wilson 1951): thousands of
 * evaluations then cost no more than one run.
 */
export interface Surface { readonly dimensions: number, readonly coefficients: Float64Array }

/** Terms in n numbers: one, each, each product, each cube. */
export function termCount(n: number): number {
  return 1 + n + n * (n + 1) / 2 + n
}

function terms(z: ArrayLike<number>, n: number, into: Float64Array): void {
  into[0] = 1
  let k = 1
  for (let i = 0; i < n; i++) into[k++] = z[i]!
  for (let i = 0; i < n; i++) for (let j = i; j < n; j++) into[k++] = z[i]! * z[j]!
  for (let i = 0; i < n; i++) into[k++] = z[i]! ** 3
}

/**
 * Least squares through runs; squares and cubes are damped a little, so that a dimension that does nothing stays at
 * nothing.
 * @param points one list of `n` numbers a run. @throws RangeError with fewer runs than terms.
 */
export function fitSurfaces(
  points: readonly ArrayLike<number>[],
  values: readonly (readonly number[])[],
  n: number,
): Surface[] {
  const m = termCount(n), outputs = values[0]?.length ?? 0
  if (points.length < m) throw new RangeError('fewer runs than terms')
  // Normal equations by Cholesky: well enough conditioned for standard normal points.
  const a = new Float64Array(m * m),
    row = new Float64Array(m),
    b = Array.from({ length: outputs }, () => new Float64Array(m))
  points.forEach((z, r) => {
    terms(z, n, row)
    for (let i = 0; i < m; i++) {
      for (let j = 0; j <= i; j++) a[i * m + j]! += row[i]! * row[j]!
      for (let o = 0; o < outputs; o++) b[o]![i]! += row[i]! * values[r]![o]!
    }
  })
  for (let i = 1 + n; i < m; i++) a[i * m + i]! += 1e-3 * points.length
  choleskyRoot(a, m, 1e-12)
  return b.map(right => ({ dimensions: n, coefficients: solveByRoot(a, m, right) }))
}

/** Value of a surface at a point of which `at` is the first number in `z`. */
export function onSurface({ dimensions: n, coefficients: c }: Surface, z: Float64Array, at = 0): number {
  let value = c[0]!, k = 1 + n
  for (let i = 0; i < n; i++) {
    const zi = z[at + i]!
    value += c[1 + i]! * zi
    for (let j = i; j < n; j++) value += c[k++]! * zi * z[at + j]!
  }
  for (let i = 0; i < n; i++) {
    const zi = z[at + i]!
    value += c[k++]! * zi * zi * zi
  }
  return value
}
