import { describe, expect, it } from 'vitest'
import { dampStrength, dryStrength, settingExpansion, wetStrength } from '../../core/setting/hardening'
import { solveMix } from '../../core/gypsum/mix'
import { pasteOf } from '../../core/gypsum/paste'
import { powderClass, type PowderClassId } from '../../core/gypsum/powders'
import { bleedShare } from '../../core/setting/flow'

const porosity = (id: PowderClassId, ratio: number) =>
  solveMix({ powder: powderClass(id), ratio, waterTemperature: 21 }, { what: 'powder', amount: 1 }).dryPorosity
const neat = (id: PowderClassId, ratio: number) => ({ porosity: porosity(id, ratio), grains: 0 })
const wet = (id: PowderClassId, ratio: number) => wetStrength(powderClass(id), neat(id, ratio))
const dry = (id: PowderClassId, ratio: number) => dryStrength(powderClass(id), neat(id, ratio))

describe('wet strength after one hour, MPa (dental materials handbook, from memory)', () => {
  const published = [
    ['dental-type-2', 0.45, 12.5],
    ['dental-type-2', 0.50, 11],
    ['dental-type-2', 0.55, 9],
    ['dental-type-3', 0.27, 31],
    ['dental-type-3', 0.30, 20.5],
    ['dental-type-3', 0.50, 10.5],
    ['dental-type-4', 0.24, 38],
    ['dental-type-4', 0.30, 21.5],
    ['dental-type-4', 0.50, 10.5],
  ] as const
  it.each(published)('%s at %f: %f, within a fifth', (id, ratio, mpa) => {
    expect(Math.abs(wet(id, ratio) / mpa - 1)).toBeLessThan(0.2)
  })
  it('one law for all classes misses by about a tenth (root mean square)', () => {
    expect(
      Math.sqrt(
        published.reduce((sum, [id, ratio, mpa]) => sum + Math.log(wet(id, ratio) / mpa) ** 2, 0) / published.length,
      ),
    ).toBeLessThan(0.11)
  })
  it('gypsum cement at 45: 13.1 (data-sheet figure of the class, low confidence, from memory; not in the fit)', () => {
    expect(Math.abs(wet('gypsum-cement', 0.45) / 13.1 - 1)).toBeLessThan(0.15)
  })
})

describe('ISO 6873 limits by type (from memory; 10 % tolerance, since one law serves all classes)', () => {
  it.each([['dental-type-2', 9], ['dental-type-3', 20], ['dental-type-4', 35], ['dental-type-5', 35]] as const)(
    '%s reaches %i MPa at one hour',
    (id, least) => {
      expect(wet(id, powderClass(id).ratio.recommended)).toBeGreaterThan(0.9 * least)
    },
  )
  it('Type 4 is the one that misses its limit as it stands: the law gives it a few percent too little', () => {
    expect(wet('dental-type-4', 0.24)).toBeLessThan(35)
  })
  it.each(
    [['dental-type-2', 0, 0.30], ['dental-type-3', 0, 0.20], ['dental-type-4', 0, 0.15], [
      'dental-type-5',
      0.16,
      0.30,
    ]] as const,
  )('%s expands between %f and %f %%', (id, low, high) => {
    const percent = 100 * settingExpansion(pasteOf(powderClass(id), powderClass(id).ratio.recommended), 100)
    expect(percent).toBeGreaterThanOrEqual(low)
    expect(percent).toBeLessThanOrEqual(high)
  })
})

describe('dry strength against ratio, MPa (pottery plaster handbook, low confidence, from memory)', () => {
  it.each([[0.3, 80.5], [0.4, 47.4], [0.5, 32.2], [0.6, 22.8], [0.7, 17.2], [0.8, 12.5], [0.9, 9.0], [1.0, 6.3]])(
    'at %f: %f, within an eighth',
    (ratio, mpa) => {
      expect(Math.abs(dry('pottery-plaster', ratio) / mpa - 1)).toBeLessThan(1 / 8)
    },
  )
  it('a few percent of water take the gain away (engineering guess on handbook statements)', () => {
    const [w, d] = [wet('pottery-plaster', 0.7), dry('pottery-plaster', 0.7)]
    expect(dampStrength(w, d, 0)).toBeCloseTo(d, 9)
    expect((dampStrength(w, d, 0.02) - w) / (d - w)).toBeLessThan(0.2)
    expect((dampStrength(w, d, 0.05) - w) / (d - w)).toBeLessThan(0.02)
  })
})

describe('growth and bleed', () => {
  it('thicker and longer stirred mixes grow more; potassium sulfate takes a third away', () => {
    const at = (ratio: number, sulfate = 0) =>
      pasteOf(powderClass('gypsum-cement'), ratio, [{ id: 'potassium-sulfate', share: sulfate }])
    const usual = settingExpansion(at(0.42), 100)
    expect(100 * usual).toBeCloseTo(0.35, 9)
    expect(settingExpansion(at(0.38), 100)).toBeGreaterThan(usual)
    expect(settingExpansion(at(0.42), 200)).toBeGreaterThan(usual)
    expect(settingExpansion(at(0.42, 0.02), 100) / usual).toBeCloseTo(0.65, 9)
  })

  it('water stands on a mix thinner than its settled bed holds, and never more than the excess', () => {
    const p = powderClass('plaster-of-paris')
    expect(bleedShare(p, 0.70, 20, 600, 0.05)).toBe(0)
    const at = [0.8, 0.9, 1.0].map(ratio => bleedShare(p, ratio, 20, 600, 0.05))
    expect(at[0]).toBeGreaterThan(0)
    expect([...at].sort((a, b) => a - b)).toEqual(at)
    const grains = 0.9 / 2630 + 0.1 / 2700
    expect(bleedShare(p, 1, 20, 1e9, 0.05)).toBeCloseTo(
      (1 - 0.998 * grains * 1000 * (1 - 0.345) / 0.345) / 998.2 / (grains + 1 / 998.2),
      2,
    )
  })
})
