import { describe, expect, it } from 'vitest'
import { generator } from '../../core/numeric/generator'
import { jugSd, leastPowder, measuredSd, scaleSd } from '../../core/gypsum/measuring'

/** Errors of scale and jug. Figures worked out once by code that shares nothing with the product. */
const grams = (kg: number) => Math.round(1000 * kg)

describe('a scale', () => {
  it.each([
    [1, 0.70, 142, 71], [1, 0.42, 211, 105], [1, 0.30, 284, 142], [1, 0.22, 380, 190], [5, 0.70, 712, 356],
  ])('of %i g at %f is good for 1 %% from %i g of powder, for 2 %% from %i', (step, ratio, one, two) => {
    expect(Math.abs(grams(leastPowder(step / 1000, ratio, 0.01)) - one)).toBeLessThanOrEqual(1)
    expect(Math.abs(grams(leastPowder(step / 1000, ratio, 0.02)) - two)).toBeLessThanOrEqual(1)
    expect(leastPowder(step / 10_000, ratio, 0.01)).toBeCloseTo(leastPowder(step / 1000, ratio, 0.01) / 10, 9)
  })
  it('of 1 g is out by 2.8 % at 100 g and .30', () => {
    expect(200 * scaleSd(0.001, 0.1, 0.3)).toBeCloseTo(2.8, 1)
  })
  it('is as it comes out when readings are drawn', () => {
    const draw = generator(14), read = () => (draw() - 0.5) * 0.001, drawn: number[] = []
    for (let i = 0; i < 20_000; i++) drawn.push(Math.log((0.03 + read() - read()) / (0.1 + read() - read()) / 0.3))
    const mean = drawn.reduce((a, b) => a + b) / drawn.length
    const sd = Math.sqrt(drawn.reduce((s, x) => s + (x - mean) ** 2, 0) / drawn.length)
    expect(Math.abs(sd / scaleSd(0.001, 0.1, 0.3) - 1)).toBeLessThan(0.03)
  })
})

describe('a jug', () => {
  it.each([[250, 25, 85, 3.7], [1000, 50, 110, 1.7]])('%i ml, a line each %i ml, %i mm wide: %f %%', (ml, step, width, wanted) => {
    expect(100 * jugSd({ step: step / 1e6, width: width / 1000 }, ml / 1e6)).toBeCloseTo(wanted, 1)
  })
  it('is never better than weighing the water', () => {
    const jug = { step: 25e-6, width: 0.085 }
    for (const kg of [0.1, 0.5, 2])
      expect(measuredSd({ scale: 0.001, jug }, kg, 0.7)).toBeGreaterThan(measuredSd({ scale: 0.001 }, kg, 0.7))
  })
})
