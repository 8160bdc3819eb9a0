import { describe, expect, it } from 'vitest'
import { USUAL_LIFE } from '../mould/readiness'
import { costOfPiece, handsPerPiece, rejectsOf } from './piece'

describe('a piece of an order', () => {
  it('one in ten was waste: eleven are made for ten', () => {
    expect(rejectsOf([{ good: 7, second: 1, waste: 1 }, { good: 1, second: 0, waste: 0 }]))
      .toEqual({ waste: 1, of: 10, spare: 1 / 9 })
    expect(rejectsOf([{ good: 0, second: 0, waste: 4 }])).toMatchObject({ spare: 0.5 })
    expect(rejectsOf([{ good: 0, second: 0, waste: 0 }])).toBeUndefined()
    expect(rejectsOf([])).toBeUndefined()
  })
  it('costs its powder and its share of the mould; what has no price is left out', () => {
    const mould = { material: 'silicone' as const, cost: 60, life: 40 }
    expect(costOfPiece({ powder: 0.2, price: 1.5, mould })).toBeCloseTo(0.3 + 1.5, 12)
    expect(costOfPiece({ powder: 0.2, price: undefined, mould })).toBeCloseTo(1.5, 12)
    expect(costOfPiece({ powder: 0.2, price: 1.5, mould: { material: 'silicone' } })).toBeCloseTo(0.3, 12)
    expect(costOfPiece({ powder: 0.2, price: undefined, mould: { material: 'silicone' } })).toBeUndefined()
    const usual = costOfPiece({ powder: 0, price: 0, mould: { material: 'silicone', cost: USUAL_LIFE.silicone! } })
    expect(usual).toBeCloseTo(1, 12)
  })
  it('takes its share of all that hands do', () => {
    const task = (from: number, to: number) => ({ kind: 'open' as const, mix: 0, person: 0, from, to })
    expect(handsPerPiece({ tasks: [task(0, 3), task(5, 9)], opened: [2, 0] }, 20)).toBe(70)
    expect(handsPerPiece({ tasks: [task(0, 3)], opened: [0] }, 20)).toBeUndefined()
  })
})
