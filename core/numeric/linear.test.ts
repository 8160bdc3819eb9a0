import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { generator } from './generator'
import { choleskyRoot, solveByRoot, solveLinear, symmetricEigen } from './linear'

const times = (a: readonly (readonly number[])[], x: ArrayLike<number>) =>
  a.map(row => row.reduce((s, v, j) => s + v * x[j]!, 0))
/** A matrix and its transpose multiplied, plus one on the diagonal: symmetric and positive. */
const positive = (m: readonly (readonly number[])[]) =>
  m.map((row, i) => m.map((other, j) => row.reduce((s, v, k) => s + v * other[k]!, 0) + (i === j ? 1 : 0)))
const square = (n: number) =>
  fc.array(fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: n, maxLength: n }), {
    minLength: n, maxLength: n,
  })

describe('small linear systems', () => {
  it('the answer of either way solves them, and the inverse undoes the matrix', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 6 }).chain(square), (m) => {
      const a = positive(m), n = a.length, b = a.map((_, i) => i - 1.5)
      const { x, inverse } = solveLinear(a, b)!
      times(a, x).forEach((v, i) => expect(v).toBeCloseTo(b[i]!, 6))
      a.forEach((row, i) => times(inverse, row).forEach((v, j) => expect(v).toBeCloseTo(i === j ? 1 : 0, 6)))
      const root = Float64Array.from(a.flat())
      choleskyRoot(root, n)
      solveByRoot(root, n, b).forEach((v, i) => expect(v).toBeCloseTo(x[i]!, 6))
    }))
  })

  it('by hand: 2x + y = 5 and x + 3y = 10 meet at 1 and 3; a row twice has no single answer', () => {
    expect(solveLinear([[2, 1], [1, 3]], [5, 10])!.x).toEqual([expect.closeTo(1, 12), expect.closeTo(3, 12)])
    expect(solveLinear([[1, 2], [2, 4]], [1, 2])).toBeUndefined()
  })
  it('eigenvectors of a symmetric matrix are turned into themselves, and stand square to each other', () => {
    [1, 3].forEach((value, k) => expect(symmetricEigen([[2, 1], [1, 2]]).values[k]).toBeCloseTo(value, 12))
    fc.assert(fc.property(fc.integer({ min: 1, max: 5 }).chain(square), (m) => {
      const a = m.map((row, i) => row.map((x, j) => x + m[j]![i]!)), { values, vectors } = symmetricEigen(a)
      values.forEach((value, k) => {
        const v = vectors.map(row => row[k]!), turned = times(a, v)
        turned.forEach((x, i) => expect(Math.abs(x - value * v[i]!)).toBeLessThan(1e-9))
        values.forEach((_, l) => {
          const dot = vectors.reduce((s, row) => s + row[k]! * row[l]!, 0)
          expect(Math.abs(dot - (k === l ? 1 : 0))).toBeLessThan(1e-9)
        })
      })
    }), { seed: 5 })
  })
})

describe('the generator', () => {
  it('has the published ten-thousandth number: 399268537 from a start of one (Park, Miller and Stockmeyer 1993)', () => {
    const next = generator(1)
    let last = 0
    for (let i = 0; i < 10_000; i++) last = next()
    expect(Math.round(last * 2_147_483_647)).toBe(399_268_537)
  })
})
