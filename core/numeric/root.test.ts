import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bisect } from './root'

describe('bisection', () => {
  it('finds where a rising function crosses nothing, and the end of an interval that it does not cross', () => {
    expect(bisect(0, 2, x => x * x - 2)).toBeCloseTo(Math.SQRT2, 14)
    expect(bisect(0, 1, () => 1)).toBeCloseTo(0, 14)
    expect(bisect(0, 1, () => -1)).toBeCloseTo(1, 14)
    fc.assert(fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (at) => {
      expect(Math.abs(bisect(-1e6, 1e6, x => x - at) - at)).toBeLessThan(1e-9)
    }))
  })
})
