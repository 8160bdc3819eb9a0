/** Small dense linear systems: the one solver and the one triangular root of the core. Checked in linear.test.ts. */

/** Below this a pivot counts as none: the system has no single answer. */
const NO_PIVOT = 1e-12

/**
 * Solves a x = b by Gauss and Jordan's elimination with row pivoting (any textbook of numerical linear algebra); the
 * inverse of `a` comes with it.
 * @param a square, row by row @returns undefined when a pivot is below 1e-12: scale the rows to about one before
 * @example solveLinear([[2, 0], [0, 4]], [2, 2])!.x // [1, 0.5]
 */
export function solveLinear(
  a: readonly (readonly number[])[],
  b: readonly number[],
): { readonly x: readonly number[], readonly inverse: readonly (readonly number[])[] } | undefined {
  const n = b.length
  const m = a.map((row, i) => [...row, b[i]!, ...Array.from({ length: n }, (_, j) => i === j ? 1 : 0)])
  for (let i = 0; i < n; i++) {
    let pivot = i
    for (let k = i + 1; k < n; k++) if (Math.abs(m[k]![i]!) > Math.abs(m[pivot]![i]!)) pivot = k
    ;[m[i], m[pivot]] = [m[pivot]!, m[i]!]
    const d = m[i]![i]!
    if (!(Math.abs(d) >= NO_PIVOT)) return undefined
    m[i] = m[i]!.map(v => v / d)
    for (let k = 0; k < n; k++) if (k !== i) m[k] = m[k]!.map((v, j) => v - m[k]![i]! * m[i]![j]!)
  }
  return { x: m.map(row => row[n]!), inverse: m.map(row => row.slice(n + 1)) }
}

/**
 * Lower root L of a symmetric matrix, L Lᵀ = a (Cholesky), in place: rows of `n` one after the other, of which the
 * lower
 * half is read and written. A pivot that rounding took below `least` is taken for it, so that a matrix that is only
 * just
 * not positive has a root too.
 */
export function choleskyRoot(a: Float64Array, n: number, least = 0): void {
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = a[i * n + j]!
      for (let k = 0; k < j; k++) sum -= a[i * n + k]! * a[j * n + k]!
      if (i === j) a[i * n + i] = Math.sqrt(Math.max(least, sum))
      else a[i * n + j] = a[j * n + j]! > 0 ? sum / a[j * n + j]! : 0
    }
  }
}

/** Solves L Lᵀ x = b, given the root of `choleskyRoot`. */
export function solveByRoot(root: Float64Array, n: number, b: ArrayLike<number>): Float64Array {
  const x = Float64Array.from(b)
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= root[i * n + k]! * x[k]!
    x[i]! /= root[i * n + i]!
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= root[k * n + i]! * x[k]!
    x[i]! /= root[i * n + i]!
  }
  return x
}

/** Below this share of the largest entry an entry beside the diagonal counts as none. */
const NEARLY_NONE = 1e-14
/**
 * Eigenvalues of a small symmetric matrix and its eigenvectors, which are the columns of `vectors`, by Jacobi's
 * rotations (any textbook of numerical linear algebra).
 * @example symmetricEigen([[2, 1], [1, 2]]).values // [1, 3]
 */
export function symmetricEigen(
  m: readonly (readonly number[])[],
): { readonly values: readonly number[], readonly vectors: readonly (readonly number[])[] } {
  const n = m.length, a = m.map(row => [...row]), v = m.map((row, i) => row.map((_, j): number => i === j ? 1 : 0))
  const tiny = NEARLY_NONE * Math.max(...m.flat().map(Math.abs))
  for (let sweep = 0; sweep < 30; sweep++) {
    let turned = false
    for (let p = 0; p < n; p++)
      for (let q = p + 1; q < n; q++) {
        if (!(Math.abs(a[p]![q]!) > tiny)) continue
        turned = true
        const theta = (a[q]![q]! - a[p]![p]!) / (2 * a[p]![q]!)
        const t = (theta < 0 ? -1 : 1) / (Math.abs(theta) + Math.hypot(theta, 1)), c = 1 / Math.hypot(t, 1), s = t * c
        const turn = (x: number, y: number): [number, number] => [c * x - s * y, s * x + c * y]
        for (let k = 0; k < n; k++) [a[k]![p], a[k]![q]] = turn(a[k]![p]!, a[k]![q]!)
        for (let k = 0; k < n; k++) [a[p]![k], a[q]![k]] = turn(a[p]![k]!, a[q]![k]!)
        for (let k = 0; k < n; k++) [v[k]![p], v[k]![q]] = turn(v[k]![p]!, v[k]![q]!)
      }
    if (!turned) break
  }
  return { values: a.map((row, i) => row[i]!), vectors: v }
}
