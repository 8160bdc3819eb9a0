import { describe, expect, it } from 'vitest'
import { quantiles } from './learning'

const equal = (n: number) => new Float64Array(n).fill(1 / n)

describe('weighted quantiles', () => {
  it('of equal weights are those of the sorted values', () => {
    const values = Float64Array.from({ length: 1001 }, (_, i) => (i * 8) % 1001)
    expect(quantiles(values, equal(1001), [0.1, 0.5, 0.9])).toEqual([100, 500, 900])
  })

  it('hold for values that never come, and for more than can be packed with their place', () => {
    const values = Float64Array.from([1, 2, 3e12, Infinity])
    expect(quantiles(values, equal(4), [0.2, 0.5, 0.9])).toEqual([1, 2, Infinity])
    expect(quantiles(Float64Array.from([-Infinity, 5]), equal(2), [0.4, 1])).toEqual([-Infinity, 5])
  })

  it('refuse more values than have a place', () => {
    expect(() => quantiles(new Float64Array(4097), equal(4097), [0.5])).toThrow(RangeError)
  })
})
