import psychrolib from 'psychrolib'
import { describe, expect, it } from 'vitest'
import { dryingOf, frontReaches, type Body } from '../../core/drying/cast'
import type { PlaceId } from '../../core/drying/places'
import { wetFace } from '../../core/drying/wet-face'
import { dewPoint, wetBulb } from '../../core/drying/air'
import { saturationPressure } from '../../core/numeric/vapour'
import { solveMix } from '../../core/gypsum/mix'
import { powderClass } from '../../core/gypsum/powders'

psychrolib.SetUnitSystem(psychrolib.SI)
const DAY = 86_400, room = { celsius: 20, humidity: 0.5 }
/** Plaster at a ratio, in a body of this many kilograms of powder. */
function body(powder: number, ratio: number, area: number, half: number): Body {
  const bound = 0.95 * 0.18618
  return { dryMass: powder * (1 + bound), freeWater: powder * (ratio - bound), area, half }
}

describe('humid air against an independent library (ASHRAE formulation) and published values', () => {
  it('saturation pressure within 0.05 % from 0.1 to 50 °C', () => {
    for (let t = 0.1; t <= 50; t += 0.7)
      expect(Math.abs(saturationPressure(t) / psychrolib.GetSatVapPres(t) - 1)).toBeLessThan(5e-4)
  })
  it('wet bulb within 0.02 K and dew point within 0.05 K, above freezing', () => {
    for (const t of [5, 12, 20, 27, 40]) {
      for (const h of [0.2, 0.5, 0.8, 0.97]) {
        const air = { celsius: t, humidity: h }, wet = psychrolib.GetTWetBulbFromRelHum(t, h, 101_325)
        if (wet > 0) expect(Math.abs(wetBulb(air) - wet), `${t} ${h}`).toBeLessThan(0.02)
        const dew = psychrolib.GetTDewPointFromRelHum(t, h)
        if (dew > 0) expect(Math.abs(dewPoint(air) - dew), `${t} ${h}`).toBeLessThan(0.05)
      }
    }
  })
  it('20 °C at half humidity: dew point 9.27 °C, wet bulb 13.8 °C (Stull 2011 gives 13.70 by his fit, J. Appl. Meteorol. Climatol. 50, 2267, from memory)', () => {
    expect(dewPoint(room)).toBeCloseTo(9.27, 1)
    expect(Math.abs(wetBulb(room) - 13.78)).toBeLessThan(0.05)
    expect(Math.abs(wetBulb(room) - 13.70)).toBeLessThan(0.12)
  })
})

describe('a wet face', () => {
  it('is a little warmer than the wet bulb and gives off about 57 g/(m2 h) in still room air (balance worked by another program)', () => {
    const { celsius, flux } = wetFace(0.04, { place: 'rack', air: room })
    expect(Math.abs(celsius - 15.58)).toBeLessThan(0.3)
    expect(Math.abs(flux * 3.6e6 / 56.8 - 1)).toBeLessThan(0.05)
    expect(celsius).toBeGreaterThan(wetBulb(room))
  })
  it('at four fifths humidity a third of that', () => {
    expect(Math.abs(wetFace(0.04, { place: 'rack', air: { celsius: 20, humidity: 0.8 } }).flux * 3.6e6 / 20.8 - 1))
      .toBeLessThan(0.05)
  })
  it('in air as humid as can be gives nothing off', () => {
    expect(Math.abs(wetFace(0.04, { place: 'rack', air: { celsius: 20, humidity: 1 } }).flux * 3.6e6)).toBeLessThan(0.5)
  })
  it('stays far below the air of a cabinet while it is wet: 24 °C in 40 °C', () => {
    expect(Math.abs(wetFace(0.06, { place: 'cabinet', air: { celsius: 40, humidity: 0.15 } }).celsius - 24))
      .toBeLessThan(1)
  })
})

describe('how long (worked by another program from the same equations, within 6 %)', () => {
  const cases: readonly (readonly [string, Body, PlaceId, typeof room, number, number])[] = [
    ['a kilogram of powder at 70, 600 cm2, 40 mm thick', body(1, 0.7, 0.06, 0.02), 'rack', room, 6.05, 7.79],
    ['the same in a cabinet at 40 °C', body(1, 0.7, 0.06, 0.02), 'cabinet', { celsius: 40, humidity: 0.15 }, 1.3, NaN],
  ]
  it.each(cases)('%s', (_, b, where, air, five, one) => {
    const dried = dryingOf(b, [{ place: where, air, from: 0 }])
    expect(Math.abs(dried.reaches(0.05) / DAY / five - 1)).toBeLessThan(0.06)
    if (!Number.isNaN(one)) expect(Math.abs(dried.reaches(0.01) / DAY / one - 1)).toBeLessThan(0.06)
  })
})

describe('how long, as practice has it (common practice, no source)', () => {
  const plaster = solveMix({ powder: powderClass('plaster-of-paris'), ratio: 0.7, waterTemperature: 20 }, {
    what: 'slurry',
    amount: 1,
  })
  /** A solid of this volume, faces and thickness, poured at 70. */
  const solid = (volume: number, area: number, half: number): Body => ({
    dryMass: plaster.dryMass * volume,
    freeWater: plaster.freeWater * volume,
    area,
    half,
  })
  const days = (b: Body, share: number, where: PlaceId = 'rack', air = room) =>
    dryingOf(b, [{ place: where, air, from: 0 }]).reaches(share) / DAY

  it('a small thin cast is dry enough for paint overnight to two days', () => {
    expect(days(solid(1e-4, 0.024, 0.005), 0.05)).toBeGreaterThan(0.5)
    expect(days(solid(1e-4, 0.024, 0.005), 0.05)).toBeLessThan(2)
  })
  it('a solid hump mould of 20 cm takes about a week', () => {
    const dome = solid(2 / 3 * Math.PI * 1e-3, 3 * Math.PI * 0.01, 0.045)
    expect(days(dome, 0.05)).toBeGreaterThan(5)
    expect(days(dome, 0.05)).toBeLessThan(11)
  })
  it('lying in cold damp air a slab hardly dries at all', () => {
    expect(days(solid(0.3 * 0.12 * 0.03, 0.0972, 0.015), 0.05, 'board', { celsius: 6, humidity: 0.95 }))
      .toBeGreaterThan(60)
  })
  it('the last per cent of a thick piece is slower by its receding front than by its falling rate', () => {
    const dome = solid(2 / 3 * Math.PI * 1e-3, 3 * Math.PI * 0.01, 0.045)
    expect(frontReaches(dome, { place: 'rack', air: room }, 0.01) / DAY).toBeGreaterThan(1.2 * days(dome, 0.01))
    expect(frontReaches(dome, { place: 'damp', air: room }, 0.01)).toBe(Infinity)
  })
})
