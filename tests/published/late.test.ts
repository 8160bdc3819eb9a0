import { describe, expect, it } from 'vitest'
import { powderClass } from '../../core/gypsum/powders'
import { normalShare } from '../../core/numeric/distributions'
import { normalQuantile } from '../../core/numeric/sampling'
import { chanceLate, narrowestGap, pourLate } from '../../core/plan/late'
import { stepTimes } from '../../core/plan/batches/pace'
import { workOutPlan } from '../../core/plan/plan'
import type { MouldFacts, Plan } from '../../core/plan/types'
import { remedyWords } from '../../core/plan/words'
import { forecast } from '../../core/setting/moments'
import { METRIC } from '../../core/units/units'
import { Z80 } from '../../core/units/quantity'
import { pourableUntil } from '../../core/setting/hydration'

/** Pouring late. Figures worked out once by code that shares nothing with the product. */
const minutes = (t: number) => t / 60
const tile: MouldFacts = {
  id: 'tile', name: 'Tile', material: 'silicone', volume: { value: 5.4e-3, low: 5.3e-3, high: 5.5e-3 },
  mouth: { shape: 'rectangular', width: 0.4, length: 0.4 }, wall: 0.01, section: 0.03, fragile: false,
}
const small: MouldFacts = { ...tile, id: 'small', name: 'Small', volume: { value: 9e-4, low: 8.8e-4, high: 9.2e-4 } }
const world = { moulds: [tile, small], bucket: { id: 'tub', name: 'Tub', vessel: { bottom: 0.3, top: 0.35, height: 0.3 } } }
const plan: Plan = {
  name: 'Six', endUse: 'painted', fills: [{ mould: 'small', count: 6 }], classId: 'plaster-of-paris', school: 'weighed',
  ratio: 0.7, scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 }, waterTemperature: 21, roomTemperature: 21,
  bucket: 'tub', losses: 0, soakMinutes: 2, stir: { tool: 'hand', minutes: 2 }, additions: [],
  known: { what: 'moulds', amount: 0 },
}
const lateOf = (p: Plan) => {
  const { input } = workOutPlan(p, world).setting!
  return pourLate(p, world, forecast(input, 60).moments.pourBy)
}

describe('how likely it is', () => {
  it('the normal share is the inverse of its quantile', () => {
    for (let u = 0.01; u < 1; u += 0.03) expect(normalShare(normalQuantile(u))).toBeCloseTo(u, 6)
  })
  it.each([[8.25, 0.350], [6.86, 0.188], [6.67, 0.168]])('pour-by 9.5, low 6.4: poured at %f min, %f', (end, wanted) => {
    const high = end * Math.exp(0.2 * Z80)
    expect(chanceLate({ low: end, value: end, high }, { low: 6.4, value: 9.5, high: 14 })).toBeCloseTo(wanted, 2)
  })
  it('5 kg, soak 2, stir 2, one mould end at 8.25 min; half of it at 6.86; two who sift at 6.67', () => {
    const end = (kg: number, hands?: 2) =>
      minutes(stepTimes({ ...plan, hands }, { powder: kg, slurry: kg * 1.7 / 1542 }, 1).poured.value)
    expect(end(5)).toBeCloseTo(8.25, 1)
    expect(end(2.5)).toBeCloseTo(6.86, 1)
    expect(end(5, 2)).toBeCloseTo(6.67, 1)
  })
  it('at 10 degC it pours for 10.12 min in place of 7.91 (isothermal, no turns of its own)', () => {
    const until = (t: number) => minutes(pourableUntil({
      powder: powderClass('plaster-of-paris'), ratio: 0.7, waterTemperature: t, roomTemperature: t, additions: [],
      stir: { tool: 'hand', minutes: 100 / 60 }, section: 0.002, mould: 'metal', wall: 0.02,
    }))
    expect(until(10) / until(21)).toBeCloseTo(10.12 / 7.91, 1)
  })
})

describe('what it costs', () => {
  it('a gap of 20 mm under 50 mm of mix: 1.3 mm at the limit, 2.4 a minute late, 5.1 at two', () => {
    for (const [tau, mm] of [[25, 1.3], [44.7, 2.4], [95.7, 5.1]] as const)
      expect(Math.abs(1000 * narrowestGap(tau, 1542) - mm)).toBeLessThan(0.06)
  })
})

describe('what would help', () => {
  it('nothing is said of what is poured in time', () => {
    expect(lateOf({ ...plan, fills: [{ mould: 'small', count: 1 }], soakMinutes: 1 })).toBeUndefined()
  })
  it('each remedy is worked out, better than now, best first, and holds when it is taken', () => {
    const late = lateOf({ ...plan, soakMinutes: 4, stir: { tool: 'hand', minutes: 3 } })!
    expect(late.chance).toBeGreaterThan(0.1)
    expect(late.quick).toBeGreaterThan(late.inTime)
    expect(late.remedies.map(r => r.code)).toEqual(expect.arrayContaining(['second-person', 'colder-water', 'smaller-batches']))
    late.remedies.forEach((r, i) => {
      expect(r.chance).toBeLessThan(late.chance)
      if (i > 0) expect(r.chance).toBeGreaterThanOrEqual(late.remedies[i - 1]!.chance)
      expect(remedyWords(r, METRIC)).toMatch(/: (one chance in \d+|hardly any chance|an even chance|more likely)/)
      const after = lateOf({ ...plan, soakMinutes: 4, stir: { tool: 'hand', minutes: 3 }, ...r.change })
      expect(Math.abs((after?.chance ?? 0) - r.chance)).toBeLessThan(0.12)
    })
  })
  it('so many batches at least are as even as they can be', () => {
    const sizes = workOutPlan({ ...plan, batchesAtLeast: 3 }, world).batches.map(b => b.fills[0]!.copies)
    expect(sizes).toEqual([2, 2, 2])
    expect(workOutPlan({ ...plan, batchesAtLeast: 40 }, world).batches).toHaveLength(6)
  })
})
