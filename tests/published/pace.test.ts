import { describe, expect, it } from 'vitest'
import { learnPace, pouringTime, siftingTime, stepTimes } from '../../core/plan/batches/pace'
import { makeIds, planOf, WISHES } from '../../demo/saltmarsh'
import { chance } from '../../demo/random'

/** Customs are common practice, no source; the points between them follow from the two forms. */
const minutes = (seconds: number) => seconds / 60
const sifted = (kilograms: number) => minutes(siftingTime({ school: 'weighed' }, kilograms))

describe('the pace of one person', () => {
  it.each([[0.1, 0.33], [0.5, 0.79], [1, 1.20], [5, 3.15], [20, 7.24]])('%f kg is sifted in %f min', (kg, wanted) => {
    expect(sifted(kg)).toBeCloseTo(wanted, 2)
  })
  it.each([[0.5, 1, 0.39], [1, 6, 1.33], [5, 1, 1.04], [20, 1, 2.18]])('%f l into %i moulds in %f min', (l, n, wanted) => {
    expect(minutes(pouringTime(l / 1000, n))).toBeCloseTo(wanted, 2)
  })
  it('customs lie within its range: a bag of 20 kg in 2 to 8 min', () => {
    expect(sifted(20)).toBeGreaterThan(2)
    expect(sifted(20)).toBeLessThan(8)
    expect(siftingTime({ school: 'dumped' }, 20)).toBe(12)
    expect(siftingTime({ school: 'bag' }, 1)).toBe(0)
  })
  it.each([0.3, 0.45, 0.6])('%f kg by hand or spoon in 80 to 100 s is within its eight of ten', (kg) => {
    const { low, high } = stepTimes(planOf(makeIds(chance(3)), WISHES.lanterns), { powder: kg, slurry: 1e-3 }, 1).sifted
    expect(low).toBeLessThan(80)
    expect(high).toBeGreaterThanOrEqual(100)
  })
  it('its ranges are wider to the late side, and each step ends after the one before', () => {
    const plan = planOf(makeIds(chance(3)), WISHES.lanterns)
    const { sifted: a, soaked: b, stirred: c, poured: d } = stepTimes(plan, { powder: 1, slurry: 1e-3 }, 3)
    for (const e of [a, b, c, d]) expect(e.high - e.value).toBeGreaterThan(e.value - e.low)
    expect([a, b, c, d].map(e => e.value)).toEqual([a, b, c, d].map(e => e.value).sort((x, y) => x - y))
  })
})

describe('a pace that is learnt', () => {
  const three = learnPace('sift', [1, 2, 3].map(() => Math.log(0.6))), one = learnPace('pour', [Math.log(2)])
  it('three siftings at .6 make a factor of .627, known to .138; one pour at 2 makes 1.77, known to .227', () => {
    expect(Math.exp(three.mean)).toBeCloseTo(0.627, 3)
    expect(three.sd).toBeCloseTo(0.138, 3)
    expect(Math.exp(one.mean)).toBeCloseTo(1.77, 2)
    expect(one.sd).toBeCloseTo(0.227, 3)
  })
  it('moves the steps it is of, narrows them, and says whose it is; tipping in at once is nobody’s pace', () => {
    const plan = planOf(makeIds(chance(3)), WISHES.lanterns), batch = { powder: 5, slurry: 5e-3 }
    const usual = stepTimes(plan, batch, 2), own = stepTimes(plan, batch, 2, { sift: three, pour: one })
    expect(own.sifted.value / usual.sifted.value).toBeCloseTo(0.627, 3)
    expect(own.sifted.high / own.sifted.value).toBeLessThan(usual.sifted.high / usual.sifted.value)
    expect(own.sifted.basis.note).toContain('your own pace, from 3 steps')
    expect(own.pouring / usual.pouring).toBeCloseTo(1.77, 2)
    const dumped = { ...plan, school: 'dumped' as const }
    expect(stepTimes(dumped, batch, 2, { sift: three }).sifted.value).toBe(stepTimes(dumped, batch, 2).sifted.value)
  })
})
