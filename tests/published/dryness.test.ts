import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { moistureAt, shareLeft } from '../../core/drying/cast'
import { forecastDrying, scaleTells } from '../../core/drying/weighings'
import { BONE_DRY, BREATHES, END_USES } from '../../core/gypsum/end-use'
import { solveMix } from '../../core/gypsum/mix'
import { OFFERED_CLASSES, powderClass, type PowderClassId } from '../../core/gypsum/powders'

/**
 * Dryness as the share of pore water left. Figures worked out once by code that shares nothing with the product: what a
 * room leaves (.10625 % of the dry mass) and the targets are engineering guesses, the rest first principles.
 */
const fresh = (id: PowderClassId, ratio: number, mass = 1) => {
  const { dryMass, freeWater } = solveMix({ powder: powderClass(id), ratio, waterTemperature: 20 }, { what: 'powder', amount: 1 })
  return { dryMass: mass, freeWater: mass * freeWater / dryMass }
}
const percent = (id: PowderClassId, ratio: number, left: number) => 100 * moistureAt(fresh(id, ratio), { left })
const within = (value: number, wanted: number, part = 0.005) => expect(Math.abs(value / wanted - 1)).toBeLessThan(part)

describe('a share of pore water means something else against dry mass for each powder', () => {
  it.each([
    ['plaster-of-paris', 0.70, 45.60, [[0.2, 9.21], [0.1, 4.66], [0.02, 1.02], [0.01, 0.561]]],
    ['gypsum-cement', 0.42, 21.04, [[0.2, 4.29], [0.1, 2.20], [0.02, 0.525], [0.01, 0.316]]],
    ['high-strength-gypsum-cement', 0.31, 11.49, [[0.2, 2.38], [0.1, 1.24], [0.02, 0.334], [0.01, 0.220]]],
    ['dental-type-3', 0.30, 10.46, [[0.1, 1.14], [0.02, 0.313]]],
    ['dental-type-4', 0.24, 5.20, [[0.1, 0.615], [0.02, 0.208]]],
    ['dental-type-5', 0.21, 2.65, [[0.1, 0.361], [0.02, 0.157]]],
  ] as const)('%s at %f holds %f %% when fresh', (id, ratio, all, shares) => {
    within(percent(id, ratio, 1), all)
    for (const [left, wanted] of shares) within(percent(id, ratio, left), wanted)
  })
  it('a scale to the gram tells 2.2 % of the water of 100 g of plaster of Paris, 19.6 % of a die stone’s', () => {
    within(scaleTells(fresh('plaster-of-paris', 0.70, 0.1)), 0.022, 0.01)
    within(scaleTells(fresh('dental-type-4', 0.24, 0.1)), 0.196, 0.01)
  })
  it('heat counts the whole mass too: no more than 0.6 % of it', () => {
    for (const { id, ratio } of OFFERED_CLASSES)
      expect(moistureAt(fresh(id, ratio.high), BONE_DRY)).toBeLessThanOrEqual(0.006)
  })
})

describe('what is left', () => {
  const anyCast = fc.constantFrom(...OFFERED_CLASSES).chain(({ id, ratio }) =>
    fc.double({ min: ratio.low, max: ratio.high, noNaN: true }).map(w => fresh(id, w)),
  )
  const share = fc.double({ min: 0, max: 1, noNaN: true })
  it('and the moisture it stands for are one, both ways', () => {
    fc.assert(fc.property(anyCast, share, (body, left) => {
      expect(shareLeft(body, moistureAt(body, { left }) * body.dryMass)).toBeCloseTo(left, 9)
    }))
  })
  it('no cast is dry when it is opened, and none is sooner dry for more', () => {
    fc.assert(fc.property(anyCast, (body) => {
      // A die stone at its very least of water binds all of it: there is nothing to dry.
      fc.pre(body.freeWater > 0.01 * body.dryMass)
      const stays = [{ place: 'rack' as const, air: { celsius: 20, humidity: 0.5 }, from: 0 }]
      const forecast = forecastDrying({ body: { ...body, area: 0.06, half: 0.02 }, stays, weighed: [], felt: [] })
      const when = [{ left: 0.2 }, BREATHES, { left: 0.02 }, BONE_DRY].map(to => forecast.dries(to))
      for (const { low, value, high } of when) expect(0 < low && low <= value && value <= high).toBe(true)
      expect(when.map(w => w.value)).toEqual(when.map(w => w.value).sort((a, b) => a - b))
    }), { numRuns: 20 })
  })
  it('every end use that is dried says how dry', () => {
    expect(END_USES.filter(u => u.dryTo === undefined).map(u => u.id)).toEqual(['kept-damp'])
  })
})
