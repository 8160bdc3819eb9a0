import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { OFFERED_CLASSES, powderClass, type PowderClassId } from '../../core/gypsum/powders'
import { clearing, freeBubble, LARGEST_BUBBLE, shareAtYield, type Driving } from '../../core/setting/flow'
import { NEEDLE, runSetting } from '../../core/setting/hydration'
import { settingMix, type SettingInput } from '../../core/setting/setting-mix'
import { isothermalTime } from '../../core/setting/kinetics'
import { outcomeOf } from '../../core/setting/outcome'

/** Worked out once by code that shares nothing with the product; laws and sources stand in core/setting. */
const input = (id: PowderClassId, ratio: number, t = 21): SettingInput => ({
  powder: powderClass(id), ratio, waterTemperature: t, roomTemperature: t,
  stir: { tool: 'hand', minutes: 100 / 60 }, section: 0.025, mould: 'plastic',
})
const within = (value: number, wanted: number, part = 0.005) => expect(Math.abs(value / wanted - 1)).toBeLessThan(part)
function minutesTo(mix: ReturnType<typeof settingMix>, alpha: number): number {
  return isothermalTime(mix.k, mix.seedsAt(Infinity), alpha) / 60
}

describe('what a needle calls set (ASTM C266 and C191, from memory), isothermal at 21 degC', () => {
  const mix = settingMix(input('plaster-of-paris', 0.7))
  it('pressures: light 315 kPa and heavy 5.04 MPa of Gillmore, 3.75 MPa of Vicat', () => {
    const pressure = (kilograms: number, millimetres: number) =>
      kilograms * 9.80665 / (Math.PI * (millimetres / 2000) ** 2)
    within(pressure(0.45359237 / 4, 25.4 / 12), 315e3)
    within(pressure(0.45359237, 25.4 / 24), 5.04e6)
    within(pressure(0.3, 1), 3.75e6)
    expect(NEEDLE.finalHigh * 1e6).toBeLessThan(5.04e6)
    expect(NEEDLE.initial).toBeGreaterThan(315e3 / 9)
    expect(NEEDLE.initial).toBeLessThan(315e3 / 6)
  })
  it('initial: 45 kPa at 0.4015 of it, after 14.36 min; the gloss goes at 13.91', () => {
    const alpha = mix.alphaSet * shareAtYield(mix.fresh, NEEDLE.initial)
    within(alpha, 0.4015)
    within(minutesTo(mix, alpha), 14.36)
    within(minutesTo(mix, mix.alphaSet), 13.91)
  })
  it.each([[1.7, 17.96], [2.5, 19.01], [3.4, 20.24], [5.0, 23.23]])('%f MPa after %f min', (mpa, minutes) => {
    within(minutesTo(mix, mix.alphaSet + (1 - mix.alphaSet) * Math.sqrt(mpa / mix.strength)), minutes)
  })
  it.each([
    ['gypsum-cement', 0.42, 34.0],
    ['high-strength-gypsum-cement', 0.31, 29.3],
    ['dental-type-3', 0.30, 11.1],
    ['dental-type-4', 0.24, 13.8],
  ] as const)('final of %s at %f: %f min, at least half hydrated', (id, ratio, minutes) => {
    const one = settingMix(input(id, ratio))
    const alpha = one.alphaSet + (1 - one.alphaSet) * Math.sqrt(NEEDLE.final / one.strength)
    within(minutesTo(one, Math.max(0.5, alpha)), minutes, 0.01)
  })
  it('come in their order, and opening a flexible mould keeps its own limits', () => {
    for (const powder of OFFERED_CLASSES) {
      const { glossGone, initialSet, finalSet } = runSetting(input(powder.id, powder.ratio.recommended)).moments
      expect(glossGone).toBeLessThan(initialSet)
      expect(initialSet).toBeLessThan(finalSet)
    }
  })
})

describe('bubbles', () => {
  /** As fresh as it was for so long. */
  const still = (seconds: number) => ({ time: [0, seconds], share: [0, 0], temperature: [20, 20] })
  it.each([
    ['plaster-of-paris', 0.7, 5.73, 1542, 5.30, 0.42, 0.34],
    ['gypsum-cement', 0.42, 12.08, 1775, 9.7, 0.54, 0.45],
    ['dental-type-3', 0.30, 19.3, 1939, 14.2, 0.58, 0.51],
    ['dental-type-4', 0.24, 37.0, 2034, 25.9, 0.89, 0.97],
  ] as const)('%s at %f: %f Pa, %f kg/m3; at rest %f mm, vibrated %f, knocked %f', (id, ratio, tau, rho, rest, shaken, knocked) => {
    const { fresh } = settingMix(input(id, ratio, 20))
    within(fresh.yieldStress, tau, 0.01)
    within(fresh.density, rho)
    within(1000 * freeBubble(fresh), rest, 0.01)
    within(1000 * clearing(fresh, still(60), 'vibrated', 0.020, 0).smallest, shaken, 0.03)
    within(1000 * clearing(fresh, still(60), 'tapped', 0.012, 0).smallest, knocked, 0.03)
  })
  it('none is above what the section holds, above 3 mm, or beyond number, for any mix', () => {
    const mix = fc.record({
      powder: fc.constantFrom(...OFFERED_CLASSES), lean: fc.double({ min: -1.3, max: 1.5, noNaN: true }),
      section: fc.double({ min: 0.002, max: 0.3, noNaN: true }), driving: fc.constantFrom<Driving>('none', 'tapped', 'vibrated'),
      sand: fc.double({ min: 0, max: 2, noNaN: true }), t: fc.double({ min: 1, max: 45, noNaN: true }),
    })
    fc.assert(fc.property(mix, ({ powder, lean, section, driving, sand, t }) => {
      const { low, recommended, high } = powder.ratio
      const ratio = recommended + lean * (lean < 0 ? recommended - low : high - recommended)
      const one: SettingInput = { ...input(powder.id, ratio, t), section, additions: [{ id: 'sand', share: sand }] }
      const found = outcomeOf(one, runSetting(one), driving)
      expect(found.bubble).toBeGreaterThan(0)
      expect(found.bubble).toBeLessThanOrEqual(Math.min(section, LARGEST_BUBBLE))
      expect(found.freeBubble).toBeLessThanOrEqual(section)
      for (const value of Object.values(found)) expect(Number.isFinite(value) && value >= 0).toBe(true)
    }), { numRuns: 60 })
  })
  it('left alone nothing small leaves; shaking never leaves larger ones in', () => {
    for (const powder of OFFERED_CLASSES) {
      const one = input(powder.id, powder.ratio.recommended), run = runSetting(one)
      const [none, tapped, table] = (['none', 'tapped', 'vibrated'] as const).map(d => outcomeOf(one, run, d).bubble)
      expect(none).toBe(LARGEST_BUBBLE)
      expect(tapped!).toBeLessThanOrEqual(none!)
      expect(table!).toBeLessThanOrEqual(tapped!)
    }
  })
})

describe('where the mix begins', () => {
  const start = (id: PowderClassId, ratio: number, powder: number, water: number, bucket = 0) =>
    settingMix({ ...input(id, ratio, powder), waterTemperature: water, bucket }).start
  it('1 kg of plaster of Paris at 21 degC and 0.7 kg of water at 5: 8.48, with 0.4 kg of plastic bucket 10.50', () => {
    within(start('plaster-of-paris', 0.7, 21, 5), 8.48)
    within(start('plaster-of-paris', 0.7, 21, 5, 0.4 * 1800), 10.50)
  })
  it('powder at 5 and water at 40: 32.38; Type 3 at 30, powder 22, water 10: 14.74', () => {
    within(start('plaster-of-paris', 0.7, 5, 40), 32.38)
    within(start('dental-type-3', 0.30, 22, 10), 14.74)
  })
})
