import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dryingOf, type Body } from '../../core/drying/cast'
import { whyNotHere } from '../../core/drying/here'
import { PLACES, SKIES, USUAL_WEATHER, WINDS, type Standing, type Weather } from '../../core/drying/places'
import { skyPower, sunHeight, sunOnGround } from '../../core/drying/sun'
import { dayFace, wetFace } from '../../core/drying/wet-face'
import { BREATHES, END_USES } from '../../core/gypsum/end-use'
import { forecastDrying } from '../../core/drying/weighings'

/**
 * Drying outdoors. Figures worked out once by code that shares nothing with the product, from formulas whose authors
 * are named where they stand (from memory); a face of .2 m, middle of Europe (50 degrees north).
 */
const L = 0.2, AREA = L * L, DAY = 86_400
const night: Weather = { swing: 0, wind: 'light', sky: 'sun' }
const grams = (flux: number) => flux * 3.6e6

describe('sun and sky', () => {
  it.each([[172, 922], [80, 640], [355, 256]])('noon of day %i, clear: %i W/m²', (day, wanted) => {
    expect(Math.abs(sunOnGround(sunHeight(50, day, 12), 'sun') / wanted - 1)).toBeLessThan(0.005)
  })
  it('at midsummer 16.15 hours of day, and a mean over all 24 of 364 W/m²', () => {
    const steps = Array.from({ length: 9600 }, (_, i) => sunHeight(50, 172, i / 400))
    expect(Math.abs(steps.filter(h => h > 0).length / 400 - 16.15)).toBeLessThan(0.02)
    const mean = steps.reduce((s, h) => s + sunOnGround(h, 'sun'), 0) / steps.length
    expect(Math.abs(mean / 364 - 1)).toBeLessThan(0.005)
  })
  it('a sky nine tenths clouded lets less than half of it through, the equator’s year has no winter', () => {
    expect(sunOnGround(1, 'cloud') / sunOnGround(1, 'sun')).toBeCloseTo(1 - 0.75 * 0.9 ** 3.4, 9)
    expect(sunHeight(0, 172, 12)).toBeCloseTo(sunHeight(0, 355, 12), 2)
    expect(sunHeight(-50, 355, 12)).toBeGreaterThan(3 * sunHeight(-50, 172, 12))
  })
  it('a clear sky over air of 10 °C is like one of −10.1 °C', () => {
    expect(skyPower(10, 'sun') ** 0.25 - 273.15).toBeCloseTo(-10.1, 1)
  })
})

describe('one wet face', () => {
  const face = (standing: Standing) => wetFace(AREA, standing)
  it('20 °C, 50 %, still, indoors: 15.56 °C, 57.0 g/(m² h)', () => {
    const { celsius, flux } = face({ place: 'rack', air: { celsius: 20, humidity: 0.5 } })
    expect(Math.abs(celsius - 15.56)).toBeLessThan(0.03)
    expect(Math.abs(grams(flux) / 57.0 - 1)).toBeLessThan(0.005)
  })
  it('6 °C indoors at 95 %, 98 % and 100 %: 2.6, 1.0 and nothing', () => {
    for (const [humidity, wanted] of [[0.95, 2.6], [0.98, 1.0], [1, 0]] as const)
      expect(Math.abs(grams(wetFace(0.19 ** 2, { place: 'rack', air: { celsius: 6, humidity } }).flux) - wanted)).toBeLessThan(0.06)
  })
  it('by night under a clear sky it gathers dew, the upper face most, under a roof none', () => {
    const at = (celsius: number, humidity: number, wind: Weather['wind'], look: 'up' | 'upright' | 'free') =>
      dayFace(L, { celsius, humidity }, { ...night, wind, latitude: 90 }, 355, look)
    for (const [air, humidity, wind, look, t, flux] of [
      [10, 0.85, 'light', 'up', 4.3, -30.8], [10, 0.85, 'light', 'upright', NaN, -8.1],
      [10, 0.95, 'still', 'up', 3.1, -37.1], [10, 0.95, 'still', 'free', 9.7, 3.2],
    ] as const) {
      const known = at(air, humidity, wind, look)
      expect(Math.abs(grams(known.flux) - flux), `${air} ${look}`).toBeLessThan(0.15)
      if (!Number.isNaN(t)) expect(Math.abs(known.celsius - t)).toBeLessThan(0.06)
    }
  })
})

describe('what a day takes, g/m² (within 5 %)', () => {
  const day = (celsius: number, swing: number, humidity: number, wind: Weather['wind'], n: number) =>
    (['up', 'upright', 'free'] as const).map(look => dayFace(L, { celsius, humidity }, { swing, wind, sky: 'sun' }, n, look))
  it.each([
    [18, 6, 0.60, 'light', 172, [2633, 1693, 1547], [-184, -40, 0]],
    [10, 5, 0.75, 'light', 80, [622, 481, 701], undefined],
    [2, 4, 0.90, 'still', 355, [-380, -147, 156], undefined],
  ] as const)('%i ± %i °C, %f, %s, day %i', (t, swing, humidity, wind, n, sums, dew) => {
    day(t, swing, humidity, wind, n).forEach((face, i) => {
      const sum = face.flux * DAY * 1000
      expect(Math.abs(sum - sums[i]!), `face ${i}: ${sum}`).toBeLessThan(0.05 * Math.abs(sums[i]!))
      if (dew) expect(Math.abs(face.dew * DAY * 1000 - dew[i]!)).toBeLessThan(0.05 * Math.abs(dew[i]!) + 1)
    })
  })
})

/** A tile 30 mm thick of plaster of Paris at 70: what a slab of this size holds. */
const slab: Body = { dryMass: 1.2, freeWater: 0.54, area: 0.0972, half: 0.015 }
const why = (standing: Standing) => whyNotHere(slab, standing, BREATHES, slab.freeWater)?.code

describe('not here', () => {
  const out = (place: Standing['place'], celsius: number, humidity: number, change: Partial<Weather> = {}, day = 172): Standing =>
    ({ place, air: { celsius, humidity }, weather: { ...USUAL_WEATHER, ...change }, day })
  it('is said of damp ground, of rain, of frost, of dew and of air that takes none, and of nothing that dries', () => {
    expect(why(out('wet-ground', 18, 0.6))).toBe('damp-ground')
    expect(why(out('sky', 18, 0.6, { sky: 'rain' }))).toBe('rain')
    expect(why(out('roof', -3, 0.9))).toBe('freezes')
    expect(why(out('sky-board', 2, 0.9, { swing: 4, wind: 'still', sky: 'sun' }, 355))).toBe('dew')
    expect(why({ place: 'rack', air: { celsius: 12, humidity: 1 } })).toBe('air-takes-none')
    expect(why({ place: 'board', air: { celsius: 4, humidity: 0.95 } })).toBe('too-slow')
    const damp: Standing = { place: 'rack', air: { celsius: 20, humidity: 0.9 } }
    expect(whyNotHere(slab, damp, { left: 0 }, 0.54)?.code).toBe('air-too-damp')
    const room: Standing = { place: 'rack', air: { celsius: 20, humidity: 0.5 } }
    for (const fine of [out('sky', 18, 0.6), out('roof', 10, 0.75, {}, 80), room])
      expect(why(fine)).toBeUndefined()
  })
  it('says how long a room would take, from what it holds by now', () => {
    const [all, half] = [0.54, 0.3].map(holds => whyNotHere(slab, out('wet-ground', 18, 0.6), BREATHES, holds)!)
    expect(all!.room).toBeGreaterThan(2 * DAY)
    expect(half!.room).toBeLessThan(all!.room)
  })
  it('in the cold half of the year a roof beats the open sky, at midsummer the sky wins', () => {
    const flux = (place: Standing['place'], t: number, h: number, day: number) =>
      wetFace(AREA, out(place, t, h, { sky: 'sun' }, day)).flux
    expect(flux('roof', 4, 0.85, 355)).toBeGreaterThan(flux('sky', 4, 0.85, 355))
    expect(flux('sky', 18, 0.6, 172)).toBeGreaterThan(flux('roof', 18, 0.6, 172))
  })
})

describe('any place and weather that the fields take', () => {
  const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
  const standing = fc.record({
    place: fc.constantFrom(...PLACES.map(p => p.id)),
    air: fc.record({ celsius: number(-20, 50), humidity: number(0.02, 1) }),
    weather: fc.record({
      swing: number(0, 20),
      wind: fc.constantFrom(...WINDS),
      sky: fc.constantFrom(...SKIES),
      latitude: number(-70, 70),
    }),
    day: fc.integer({ min: 1, max: 366 }),
  })
  it('gives a date or says why not, and never a figure that is none', () => {
    fc.assert(fc.property(standing, fc.constantFrom(...END_USES), (where, { dryTo }) => {
      if (!dryTo) return
      const f = forecastDrying({ body: slab, stays: [{ ...where, from: 0 }], weighed: [], felt: [] }).dries(dryTo)
      const here = whyNotHere(slab, where, dryTo, slab.freeWater)
      if (!here && where.place !== 'damp') expect(f.value).toBeLessThan(200 * DAY)
      for (const t of [f.value, f.low, f.high]) expect(t >= 0 && !Number.isNaN(t)).toBe(true)
      expect(here ? here.room > 0 && Number.isFinite(here.room) : true).toBe(true)
    }), { numRuns: 60, seed: 16 })
  }, 120_000)
  it('damper air is never drier, indoors and out', () => {
    fc.assert(fc.property(standing, fc.double({ min: 0.01, max: 0.3, noNaN: true }), (where, more) => {
      const damper = { ...where, air: { ...where.air, humidity: where.air.humidity + more } }
      expect(wetFace(AREA, damper).flux).toBeLessThanOrEqual(wetFace(AREA, where).flux + 1e-12)
    }), { numRuns: 60, seed: 17 })
  }, 120_000)
  it('a thicker piece is never sooner dry', () => {
    const thick = (half: number) => ({ dryMass: 80 * half, freeWater: 36 * half, area: 0.08, half })
    const at = (half: number) => dryingOf(thick(half), [
      { place: 'roof', air: { celsius: 15, humidity: 0.6 }, weather: USUAL_WEATHER, day: 120, from: 0 },
    ]).dries(BREATHES)
    for (let half = 0.005; half < 0.06; half += 0.005) expect(at(half + 0.005)).toBeGreaterThan(at(half))
  })
})
