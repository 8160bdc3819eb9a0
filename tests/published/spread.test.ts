import { describe, expect, it } from 'vitest'
import { bagSpread, readSpread, spreadExpected } from '../../core/forecast/spread-test'
import { pattyThickness, spreadOf, yieldOfSpread } from '../../core/setting/spread'
import { cupInput } from '../../core/forecast/cup-test'
import { settingCurve } from '../../core/setting/hydration'
import { freshStiffness, settingMix } from '../../core/setting/setting-mix'
import { powderClass } from '../../core/gypsum/powders'
import { solveMix } from '../../core/gypsum/mix'
import { generator } from '../../core/numeric/generator'
import { normalQuantile } from '../../core/numeric/sampling'

/** The spread test. Figures worked out once by code that shares nothing with the product. */
const mm = (m: number) => 1000 * m

describe('diameter and yield stress', () => {
  it.each([[5, 131.9], [10, 114.8], [25, 95.6], [40, 87.0], [80, 75.7]])('%f Pa runs to %f mm', (tau, wide) => {
    expect(mm(spreadOf(tau, 1542, 0))).toBeCloseTo(wide, 0)
  })
  it.each([[80, 60.9, 9.6], [100, 19.9, 6.1], [120, 8.02, 4.3]])('%f mm is %f Pa, %f mm thick', (wide, tau, thick) => {
    expect(Math.abs(yieldOfSpread(wide / 1000, 1542, 0) / tau - 1)).toBeLessThan(0.01)
    expect(mm(pattyThickness(wide / 1000))).toBeCloseTo(thick, 1)
  })
  it.each([[0.6, 108.5], [0.65, 118.9], [0.7, 128.3], [0.75, 137.3], [0.8, 145.9]])('plaster of Paris at %f, fresh: %f mm', (w, wide) => {
    const { yieldStress } = freshStiffness(powderClass('plaster-of-paris'), w, [])
    const recipe = { powder: powderClass('plaster-of-paris'), ratio: w, waterTemperature: 20 }
    const { slurryDensity } = solveMix(recipe, { what: 'powder', amount: 1 })
    expect(Math.abs(mm(spreadOf(yieldStress, slurryDensity, 0)) / wide - 1)).toBeLessThan(0.02)
  })
  it('after three minutes at 21 degC it runs to 123 mm, and 3 % more water is 3 % more', () => {
    expect(Math.abs(mm(spreadExpected('plaster-of-paris', 0.7, 21)) / 123.2 - 1)).toBeLessThan(0.03)
    const more = Math.log(spreadExpected('plaster-of-paris', 0.721, 21) / spreadExpected('plaster-of-paris', 0.7, 21))
    expect(more / Math.log(1.03)).toBeGreaterThan(0.8)
    expect(more / Math.log(1.03)).toBeLessThan(1.3)
  })
})

describe('the minute', () => {
  it.each([[120, 125.5], [180, 123.2], [240, 120.2], [300, 116.0]])('stirred 100 turns at once and lifted after %f s: %f mm', (after, wide) => {
    const stir = { tool: 'hand', minutes: 100 / 60 } as const
    const input = { ...cupInput('plaster-of-paris', 21), ratio: 0.7, stirFrom: 0, stir }
    const tau = settingCurve(input, after, 20).stiffness.at(-1)!, { slurryDensity } = settingMix(input).amounts
    expect(Math.abs(mm(spreadOf(tau, slurryDensity)) / wide - 1)).toBeLessThan(0.02)
  })
  it('a mix lifted late is not taken for a stiffer bag', () => {
    const late = { ratio: 0.7, celsius: 21, diameter: spreadExpected('plaster-of-paris', 0.7, 21, 660), after: 660 }
    const before = [1, 2, 3].map(() => ({ ...late, after: 180, diameter: spreadExpected('plaster-of-paris', 0.7, 21, 180) }))
    expect(readSpread('plaster-of-paris', late, before).code).toBe('as-it-was')
    expect(readSpread('plaster-of-paris', { ...late, after: 180 }, before).code).toBe('narrower')
  })
})

describe('a bag', () => {
  const at = (diameter: number, ratio = 0.7) => ({ ratio, celsius: 20, diameter: diameter / 1000 })
  const usual = mm(spreadExpected('plaster-of-paris', 0.7, 20))
  it('a first test names the flow; three know the bag to 2 to 3 %', () => {
    expect(readSpread('plaster-of-paris', at(usual * 1.1), []).code).toBe('first')
    expect(bagSpread('plaster-of-paris', []).sd).toBeCloseTo(0.07, 6)
    const { sd } = bagSpread('plaster-of-paris', [at(usual), at(usual), at(usual)])
    expect(sd).toBeGreaterThan(0.015)
    expect(sd).toBeLessThan(0.03)
  })
  it('wider than it was is asked about, with the ratio it is like; as it was is not', () => {
    const before = [at(usual), at(usual * 1.01), at(usual * 0.99)]
    expect(readSpread('plaster-of-paris', at(usual * 1.02), before).code).toBe('as-it-was')
    const wide = readSpread('plaster-of-paris', at(usual * 1.12), before)
    expect(wide.code).toBe('wider')
    expect(wide.like).toBeGreaterThan(0.75)
    expect(wide.like).toBeLessThan(0.82)
    expect(readSpread('plaster-of-paris', at(usual * 0.88), before).code).toBe('narrower')
    expect(readSpread('plaster-of-paris', at(60), before).code).toBe('stiff')
    expect(readSpread('plaster-of-paris', at(160), before).code).toBe('too-thin')
  })
  it('warns of a bag that is as it was one time in twenty, whatever the bag', () => {
    const draw = generator(11), normal = () => normalQuantile(Math.min(1 - 1e-9, Math.max(1e-9, draw())))
    let warned = 0
    for (let bag = 0; bag < 150; bag++) {
      const own = 0.07 * normal(), read = () => at(usual * Math.exp(own + 0.03 * normal() + 0.02 * normal()))
      const code = readSpread('plaster-of-paris', read(), [read(), read(), read()]).code
      if (code === 'wider' || code === 'narrower') warned++
    }
    expect(warned / 150).toBeLessThan(0.11)
  })
})
