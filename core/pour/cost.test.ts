import { describe, expect, it } from 'vitest'
import { costOf, powderUsed } from './cost'
import type { FrozenRun } from '../plan/run'
import type { PourState } from './fold'

const mould = { id: 'm', material: 'silicone', cost: 120, life: 60 }
const run = (bag: object | undefined, batches = 2) =>
  ({
    world: { bag, moulds: [] },
    batches: Array.from({ length: batches }, () => ({ mix: { powder: 2 } })),
  }) as unknown as FrozenRun
const state = (casts: object[], batches: object[]) =>
  ({ batches, casts: casts.map(c => ({ cast: { mould }, filledAt: 1, ...c })) }) as unknown as PourState
const wet = (powder?: number) => ({ wetAt: 1, weighed: { powder } })

describe('what a pour cost', () => {
  it('powder as weighed, else as planned, and only what was wetted', () => {
    expect(powderUsed(run(undefined, 3), state([], [wet(1.9), wet(), { weighed: { powder: 5 } }]))).toBeCloseTo(3.9, 12)
  })

  it('powder and wear of moulds, shared by the pieces that can be used: waste makes them dearer', () => {
    const cost = costOf(
      run({ price: 1.5 }),
      state([{ verdict: 'good' }, { verdict: 'second' }, { verdict: 'waste' }], [wet(2), wet(2)]),
    )!
    expect(cost).toMatchObject({ powder: 6, moulds: 6, total: 12, pieces: 2, each: 6, unknown: [] })
  })

  it('names what it does not know instead of taking it for nothing', () => {
    expect(costOf(run(undefined), state([{ verdict: 'good' }], [wet(2)]))).toMatchObject({
      total: 2,
      unknown: ['powder'],
    })
    expect(costOf(run({ price: 1 }), state([{ cast: { mould: { ...mould, cost: undefined } } }], [wet(2)])))
      .toMatchObject({ total: 2, each: undefined, unknown: ['moulds'] })
    expect(costOf(run(undefined), state([], []))).toBeUndefined()
  })

  it('a mould without a stated life lasts as its material usually does', () => {
    expect(costOf(run(undefined), state([{ cast: { mould: { ...mould, life: undefined } } }], []))!.moulds).toBeCloseTo(
      2,
      12,
    )
  })
})
