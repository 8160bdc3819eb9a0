import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { SCHOOL_ADVICE_WORDS } from './words'
import { advisedRatio, END_USES, endUse } from './end-use'
import { pourableUntil, runSetting, settingCurve, settingMoments } from '../setting/hydration'
import { freshStiffness, type SettingInput } from '../setting/setting-mix'
import { fastTemperatureFactor, stirredSeeds, tailCorrection, temperatureFactor } from '../setting/kinetics'
import { outcomeOf } from '../setting/outcome'
import { additionKind, ADDITIONS, seedsOf, speedDoubt, speedOf } from './additions'
import { solveMix } from './mix'
import { POWDER_CLASSES, powderClass } from './powders'
import { jugOf, ratioOf, schoolAdvice, SCHOOLS, scoopsFor } from './schools'

const anyPowder = fc.constantFrom(...POWDER_CLASSES)
const usual: SettingInput = {
  powder: powderClass('casting-plaster'),
  ratio: 0.67,
  waterTemperature: 20,
  roomTemperature: 20,
  stir: { tool: 'hand', minutes: 2 },
  section: 0.02,
  mould: 'silicone',
}

describe('mix', () => {
  it('any one known amount gives back the other two', () => {
    fc.assert(
      fc.property(
        anyPowder,
        fc.double({ min: 0.2, max: 1.2, noNaN: true }),
        fc.double({ min: 1, max: 60, noNaN: true }),
        fc.double({ min: 1e-5, max: 0.2, noNaN: true }),
        fc.array(
          fc.record({
            id: fc.constantFrom(...ADDITIONS.map(a => a.id)),
            share: fc.double({ min: 0, max: 1, noNaN: true }),
          }),
          { maxLength: 2 },
        ),
        (powder, ratio, waterTemperature, amount, additions) => {
          const recipe = { powder, ratio, waterTemperature, additions }
          const bySlurry = solveMix(recipe, { what: 'slurry', amount })
          for (const what of ['powder', 'water'] as const) {
            expect(solveMix(recipe, { what, amount: bySlurry[what] }).slurry / amount).toBeCloseTo(1, 9)
          }
          const everything = bySlurry.powder + bySlurry.water + bySlurry.additions.reduce((m, a) => m + a.mass, 0)
          expect(everything / (bySlurry.slurryDensity * amount)).toBeCloseTo(1, 9)
          expect(bySlurry.dryMass + bySlurry.freeWater).toBeCloseTo(everything, 9)
        },
      ),
    )
  })

  it('entrained air makes the same powder fill more', () => {
    const recipe = { powder: powderClass('pottery-plaster'), ratio: 0.7, waterTemperature: 20 }
    const without = solveMix({ ...recipe, air: 0 }, { what: 'powder', amount: 1 }),
      withAir = solveMix({ ...recipe, air: 0.05 }, { what: 'powder', amount: 1 })
    expect(withAir.slurry / without.slurry).toBeCloseTo(1 / 0.95, 9)
  })

  it.each([-1, NaN, Infinity])('an amount of %f is refused', (amount) => {
    expect(() =>
      solveMix({ powder: powderClass('dental-type-3'), ratio: 0.3, waterTemperature: 20 }, { what: 'powder', amount }),
    ).toThrow(RangeError)
  })
})

describe('powders and schools', () => {
  it('every class is usable within its own range and flows at its recommended ratio', () => {
    for (const powder of POWDER_CLASSES) {
      expect(powder.ratio.low).toBeLessThan(powder.ratio.recommended)
      expect(powder.ratio.recommended).toBeLessThan(powder.ratio.high)
      expect(freshStiffness(powder, powder.ratio.recommended, []).flows).toBe(true)
      expect(powder.bulkLoose.high).toBeLessThan(powder.bulkTapped.low + 1)
    }
  })

  it('the set time each class was fitted to comes back', () => {
    for (const powder of POWDER_CLASSES.filter(p => p.family !== 'dental')) {
      const m = settingMoments({
        ...usual,
        powder,
        ratio: powder.ratio.recommended,
        waterTemperature: 21,
        roomTemperature: 21,
        stir: { tool: 'spatula', minutes: 100 / 110 },
      })
      expect(Math.abs(m.glossGone / 60 / powder.nominalSet.minutes - 1), powder.name).toBeLessThan(0.15)
    }
  })

  it('a class that is none is refused', () => {
    expect(() => powderClass('cement' as never)).toThrow(RangeError)
  })

  it('every school states its ratio with a range that holds it', () => {
    for (const school of SCHOOLS) {
      for (const powder of POWDER_CLASSES) {
        const r = ratioOf(school.id, powder, powder.ratio.recommended, 20)
        expect(r.low < r.value && r.value < r.high).toBe(true)
        expect(SCHOOL_ADVICE_WORDS[schoolAdvice(school.id, powder).code].length).toBeGreaterThan(20)
      }
    }
    expect(schoolAdvice('saturation', powderClass('dental-type-4')).fit).toBe('against')
  })

  it('by feel a mix ends thin rather than thick, and a stone should not be mixed so', () => {
    const { value, low, high } = ratioOf('powder-first', powderClass('casting-plaster'), 0.6, 20)
    expect(value).toBe(0.6)
    expect(high / value).toBeGreaterThan(value / low)
    expect(schoolAdvice('powder-first', powderClass('casting-plaster')).fit).toBe('possible')
    for (const id of ['dental-type-3', 'high-strength-gypsum-cement', 'plaster-silica'] as const)
      expect(schoolAdvice('powder-first', powderClass(id)).fit).toBe('against')
    // Enough in the jug that the mix does not wait for more, and less at first than it will take.
    const jug = jugOf(0.6)
    expect([jug.first, jug.full]).toEqual([expect.closeTo(0.48, 9), expect.closeTo(0.66, 9)])
  })

  it('a measured bulk density narrows what a scoop gives', () => {
    const powder = powderClass('plaster-of-paris'), scoop = { volume: 2e-4, filling: 'loose' as const, perWater: 2 }
    const loose = ratioOf('scoops', powder, 0.7, 20, scoop),
      measured = ratioOf('scoops', powder, 0.7, 20, scoop, { low: 690, high: 710 })
    expect(measured.high / measured.low).toBeLessThan(loose.high / loose.low)
    expect(scoopsFor(powder, 0.7, 'loose')).toBe(2)
  })
})

describe('end use', () => {
  it('steers the ratio within the usable range', () => {
    for (const powder of POWDER_CLASSES) {
      for (const use of END_USES) {
        const r = advisedRatio(powder, use)
        expect(r).toBeGreaterThanOrEqual(powder.ratio.low - 0.005)
        expect(r).toBeLessThanOrEqual(powder.ratio.high + 0.005)
      }
    }
    const powder = powderClass('plaster-of-paris')
    expect(advisedRatio(powder, endUse('meant-to-break'))).toBeGreaterThan(advisedRatio(powder, endUse('outdoors')))
  })
})

describe('setting', () => {
  it('moments come in the order of the trade', () => {
    fc.assert(
      fc.property(
        anyPowder,
        fc.double({ min: 5, max: 40, noNaN: true }),
        fc.double({ min: 5, max: 35, noNaN: true }),
        fc.double({ min: 0.004, max: 0.12, noNaN: true }),
        (powder, waterTemperature, roomTemperature, section) => {
          const m = settingMoments({
            ...usual,
            powder,
            ratio: powder.ratio.recommended,
            waterTemperature,
            roomTemperature,
            section,
          })
          const order = [m.pourBy, m.webbing, m.glossGone, m.initialSet, m.finalSet]
          expect([...order].sort((a, b) => a - b)).toEqual(order)
          expect(m.openFlexible).toBeGreaterThan(m.glossGone)
          expect(m.coolAgain).toBeGreaterThanOrEqual(m.finalSet)
        },
      ),
      { numRuns: 60 },
    )
  })

  it.each(
    [
      ['warmer water', { waterTemperature: 33 }, -1],
      ['a colder room and water', { waterTemperature: 8, roomTemperature: 8 }, 1],
      ['longer stirring', { stir: { tool: 'drill', minutes: 4 } }, -1],
      ['more water', { ratio: 0.75 }, 1],
      ['a dirty bucket', { dirt: 0.01 }, -1],
    ] as const,
  )('%s moves the set the way practice says', (_, change, direction) => {
    const changed = settingMoments({ ...usual, ...change } as SettingInput).glossGone,
      before = settingMoments(usual).glossGone
    expect(Math.sign(changed - before)).toBe(direction)
    expect(Math.abs(changed - before)).toBeGreaterThan(20)
  })

  it('a thick cast runs hotter than a thin one, and later', () => {
    const thin = settingMoments({ ...usual, section: 0.006 }), thick = settingMoments({ ...usual, section: 0.06 })
    expect(thick.warmestTemperature).toBeGreaterThan(thin.warmestTemperature + 5)
    expect(thick.coolAgain).toBeGreaterThan(thin.coolAgain)
  })

  it('the time to pour alone, and the table and tails behind it, agree with the whole run', () => {
    expect(pourableUntil(usual) / settingMoments(usual).pourBy).toBeCloseTo(1, 2)
    for (const t of [-5, 3.1, 20.07, 36.4, 71.9, 99])
      expect(Math.abs(fastTemperatureFactor(t) - temperatureFactor(t))).toBeLessThan(2e-4)
    const gloss = ([0.6, 1, 1.6] as const).map(tail =>
      settingMoments({ ...usual, section: 0.002, mould: 'metal', shape: 'closed-slab' }, { rate: 1, seeds: 1, tail }),
    )
    for (const m of gloss) expect(Math.abs(m.glossGone / gloss[1]!.glossGone - 1)).toBeLessThan(0.02)
    expect(gloss[2]!.openThin).toBeGreaterThan(gloss[0]!.openThin + 60)
    expect(tailCorrection(1, 0.005, 0.5, 1)).toBe(1)
  })

  it('additions act as they say: salt peaks at two percent, citrate slows, ground gypsum seeds, sand only fills', () => {
    const salt = [0.01, 0.02, 0.03, 0.1].map(share => speedOf([{ id: 'salt', share }]))
    expect(Math.max(...salt)).toBe(salt[1])
    expect(salt[3]).toBeLessThan(1.1)
    expect(speedOf([{ id: 'citrate', share: 0.001 }, { id: 'sand', share: 0.5 }])).toBeCloseTo(1 / 2.5, 9)
    expect(seedsOf([{ id: 'ground-gypsum', share: 0.01 }])).toBeCloseTo(0.03, 9)
    expect([speedDoubt([]), speedDoubt([{ id: 'sand', share: 1 }])]).toEqual([0, 0])
    for (const a of ADDITIONS) expect(a.most).toBeLessThanOrEqual(a.harmful)
    expect(() => additionKind('moon dust' as never)).toThrow(RangeError)
  })

  it('more is said of a run than its moments, and all of it hangs together', () => {
    for (const powder of POWDER_CLASSES) {
      const input = { ...usual, powder, ratio: powder.ratio.recommended }
      const run = runSetting(input), o = outcomeOf(input, run, 'tapped')
      expect(o.hourStrength).toBeLessThanOrEqual(o.wetStrength)
      expect(o.wetStrength).toBeLessThan(o.dampStrength)
      expect(o.dampStrength).toBeLessThan(o.dryStrength)
      expect(o.tapUntil).toBeLessThan(run.moments.glossGone)
      expect(o.bubble).toBeLessThan(o.freeBubble)
      expect(Object.values(o).every(Number.isFinite)).toBe(true)
    }
  })

  it('stirring has no further effect beyond 400 turns', () => {
    expect(stirredSeeds(800)).toBe(stirredSeeds(400))
  })

  it('the curve starts at the mixed temperature, hydrates to the end and never jumps', () => {
    const curve = settingCurve(usual, 7200)
    expect(curve.temperature[0]).toBeCloseTo(20, 6)
    expect(curve.hydration.at(-1)).toBeGreaterThan(0.99)
    expect(curve.stiffness.at(-1)).toBe(20_000)
    for (let i = 1; i < curve.time.length; i++)
      expect(Math.abs(curve.temperature[i]! - curve.temperature[i - 1]!)).toBeLessThan(4)
  })
})
