import { describe, expect, it } from 'vitest'
import { POWDER_CLASSES, powderClass } from '../gypsum/powders'
import { bulkDensity, cupExpected, cupInput, cupRecipe } from './cup-test'
import { learn, priorOf } from './learning'
import { bagShift, taughtBag } from './observations'
import { bagShiftWords } from './words'

describe('a cup', () => {
  it('is mixed as its class is mixed, and loses its gloss near the time that is printed for the class', () => {
    expect(cupRecipe('pottery-plaster').water / 0.1).toBeCloseTo(powderClass('pottery-plaster').ratio.recommended, 6)
    for (const { id, nominalSet } of POWDER_CLASSES) {
      // Handbook times are of larger mixes stirred by their standard; the same order is what can be asked.
      expect(cupExpected(id, 21) / 60 / nominalSet.minutes).toBeGreaterThan(0.6)
      expect(cupExpected(id, 21) / 60 / nominalSet.minutes).toBeLessThan(1.7)
      expect(cupExpected(id, 12)).toBeGreaterThan(cupExpected(id, 24))
    }
  })

  it('teaches the bag its speed: sooner than its class, and more certain than before', () => {
    const expected = cupExpected('casting-plaster', 20),
      { taught } = learn([priorOf(cupInput('casting-plaster', 20))], [{
        what: 'mark',
        sign: 'gloss-gone',
        at: 0.75 * expected,
      }])
    expect(taught!.mean).toBeGreaterThan(0.1)
    const bag = { id: 'b', name: 'B', classId: 'casting-plaster' as const, uncertain: true },
      known = taughtBag({ ...bag, cups: [{ at: 2, ...taught! }] }, [])
    expect(known.rate!.mean).toBeGreaterThan(0.05)
    expect(known.rate!.batches).toBe(1)
    // What came later counts more, whichever it was.
    const other = { mean: -0.4, sd: 0.1, at: 1 }
    expect(taughtBag({ ...bag, cups: [{ at: 2, mean: 0.4, sd: 0.1 }] }, [other]).rate!.mean).toBeGreaterThan(0)
    expect(taughtBag({ ...bag, cups: [{ at: 0, mean: 0.4, sd: 0.1 }] }, [other]).rate!.mean).toBeLessThan(0)
  })
})

describe('a level measure', () => {
  it('gives the bulk density with what levelling scatters', () => {
    const d = bulkDensity(0.00025, [0.19, 0.194, 0.186])!
    expect(d.mean).toBeCloseTo(760, 6)
    expect(d.high - d.mean).toBeCloseTo(1.2816 * 16, 1)
    expect(bulkDensity(0.00025, [0.19, 0.19])!.low).toBeCloseTo(760 * (1 - 1.2816 * 0.02), 1)
    expect(bulkDensity(0.001, [])).toBeUndefined()
    expect(bulkDensity(0.00025, [0.9])).toBeUndefined()
  })
})

describe('what is known of a bag, in words', () => {
  it('tells batches and cups apart', () => {
    const rate = (batches: number) => ({ mean: 0.2, sd: 0.1, batches }), cup = { at: 1, mean: 0.2, sd: 0.1 }
    expect(bagShiftWords(bagShift({ rate: rate(3), cups: [cup] })!)).toMatch(/^In 2 mixes and 1 cup it set about 18 % sooner/)
    expect(bagShiftWords(bagShift({ rate: rate(2), cups: [cup, cup] })!)).toMatch(/^In 2 cups/)
    expect(bagShift({})).toBeUndefined()
  })
})
