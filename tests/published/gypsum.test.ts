import { describe, expect, it } from 'vitest'
import { adiabaticRise } from '../../core/setting/setting-mix'
import { CP, HEAT, HEAT_SLOPE, isothermalTime, temperatureFactor } from '../../core/setting/kinetics'
import {
  CHEMICAL_WATER,
  GYPSUM_YIELD,
  chemicalShrinkage,
  saturationRatio,
  solveMix,
  waterDensity,
} from '../../core/gypsum/mix'
import { powderClass, type PowderClass } from '../../core/gypsum/powders'
import { ratioOf } from '../../core/gypsum/schools'

const PURE_BETA: PowderClass = { ...powderClass('plaster-of-paris'), purity: 1, handAir: 0 }

describe('first principles (IUPAC atomic masses, densities 2630, 2757, 2317 kg/m3)', () => {
  it('hemihydrate binds 18.617 g of water per 100 g and makes 1.18617 kg of gypsum per kg', () => {
    expect(CHEMICAL_WATER).toBeCloseTo(0.18617, 4)
    expect(GYPSUM_YIELD).toBeCloseTo(1.18617, 5)
  })

  it('volume change of the reaction is the handbook figure, -7.11 % (handbook, from memory)', () => {
    expect(100 * chemicalShrinkage('beta', CHEMICAL_WATER, 2750, 2320, 997)).toBeCloseTo(-7.1, 1)
    expect(100 * chemicalShrinkage('beta', 0.7)).toBeCloseTo(-5.07, 1)
  })

  it('a mix of pure beta powder at 70 has the density and yield worked out by hand', () => {
    const mix = solveMix({ powder: PURE_BETA, ratio: 0.7, waterTemperature: 21, air: 0 }, { what: 'powder', amount: 1 })
    expect(mix.slurryDensity / 1571.7).toBeCloseTo(1, 3)
    expect(mix.slurry * 1000).toBeCloseTo(1.0816, 3)
    expect(mix.dryMass / mix.slurry / 1096.6).toBeCloseTo(1, 3)
    expect(mix.dryPorosity).toBeCloseTo(0.5267, 3)
  })

  it('two litres at 65 take 1.939 kg of powder and 1.260 kg of water', () => {
    const mix = solveMix({ powder: PURE_BETA, ratio: 0.65, waterTemperature: 21, air: 0 }, {
      what: 'slurry',
      amount: 2e-3,
    })
    expect(mix.powder).toBeCloseTo(1.939, 2)
    expect(mix.water).toBeCloseTo(1.260, 2)
  })

  it('heats of hydration follow from standard enthalpies of formation at 25 degC (NBS tables 1982, kJ/mol, from memory)', () => {
    const hydration = (hemihydrate: number) => -2022.63 - (hemihydrate + 1.5 * -285.83)
    expect(hydration(-1574.65)).toBeCloseTo(-19.235, 2) // beta
    expect(hydration(-1576.74)).toBeCloseTo(-17.145, 2) // alpha
    expect(HEAT.beta / 1000).toBeCloseTo(19.235 / 0.1451485, 0)
    expect(HEAT.alpha / 1000).toBeCloseTo(17.145 / 0.1451485, 0)
  })

  it('heat capacities balance: what goes in less what comes out is the slope of the heat (Kirchhoff)', () => {
    expect(CP.hemihydrate + CHEMICAL_WATER * CP.water - GYPSUM_YIELD * 1080).toBeCloseTo(HEAT_SLOPE, 0)
  })

  it('without losses a mix at 60 warms by 44 K', () => {
    expect(adiabaticRise({ powder: PURE_BETA, ratio: 0.6 }, 25)).toBeCloseTo(44.0, 0)
  })

  it('the closed form of the rate law reproduces its hand-worked times', () => {
    const minutes = [0.2, 0.5, 0.9].map(a => isothermalTime(0.3 / 60, 0.005, a) / 60)
    expect(minutes[0]).toBeCloseTo(13.06, 1)
    expect(minutes[1]).toBeCloseTo(17.61, 1)
    expect(minutes[2]).toBeCloseTo(24.88, 1)
  })
})

describe('handbook values', () => {
  it.each([[4, 999.97], [21, 998.00], [40, 992.22]])('water at %i degC (CRC handbook, from memory)', (t, rho) => {
    expect(waterDensity(t)).toBeCloseTo(rho, 1)
  })

  it('setting is fastest near 36 degC, as slow at 50 as at 21, and stops at 100 (handbook shape, from memory)', () => {
    const warmest = Array.from({ length: 90 }, (_, t) => t).reduce((a, b) =>
      temperatureFactor(b) > temperatureFactor(a) ? b : a,
    )
    expect(temperatureFactor(21)).toBeCloseTo(1, 6)
    expect(warmest).toBeGreaterThanOrEqual(34)
    expect(warmest).toBeLessThanOrEqual(40)
    expect(temperatureFactor(50)).toBeLessThan(temperatureFactor(37))
    expect(temperatureFactor(60)).toBeLessThan(temperatureFactor(50))
    expect(temperatureFactor(90)).toBeLessThan(0.1)
    expect(temperatureFactor(100)).toBe(0)
  })
})

describe('sayings of the trade (common practice, no source)', () => {
  it('two scoops of loose plaster to one of water is about 71 by weight', () => {
    const powder: PowderClass = { ...PURE_BETA, bulkLoose: { low: 620, high: 790 } }
    const ratio = ratioOf('scoops', powder, 0.7, 20, { volume: 1e-3, filling: 'loose', perWater: 2 })
    expect(ratio.value).toBeCloseTo(0.713, 2)
    expect(Math.log(ratio.high / ratio.low) / 2.563).toBeGreaterThan(0.08)
  })

  it('sifting to islands lands on the recommended consistency of every plaster', () => {
    expect(saturationRatio(PURE_BETA)).toBeCloseTo(0.72, 2)
    for (const id of ['plaster-of-paris', 'casting-plaster', 'pottery-plaster'] as const) {
      const powder = powderClass(id)
      expect(Math.abs(saturationRatio(powder) / powder.ratio.recommended - 1)).toBeLessThan(0.12)
    }
  })

  it('ten pounds to a gallon is a thinner mix than two to one by volume', () => {
    const tenPounds = 3.785411784 * 0.998 / (10 * 0.45359237)
    expect(tenPounds).toBeCloseTo(0.83, 2)
    expect(tenPounds).toBeGreaterThan(ratioOf('scoops', powderClass('plaster-of-paris'), 0.7, 20).value)
  })
})
