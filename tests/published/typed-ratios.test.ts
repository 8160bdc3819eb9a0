import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { POWDER_CLASSES, powderClass, type PowderClass, type PowderClassId } from '../../core/gypsum/powders'
import { readSaying } from '../../core/gypsum/saying/read-saying'
import { writingOf } from '../../core/units/reading/read-quantity'
import { METRIC, US_CUSTOMARY } from '../../core/units/units'
import { campaign } from '../campaign'
import CASES from './typed-ratios.json'

/** What people say of a ratio, and what it must become; gathered and worked out without the product. */
interface Case {
  readonly text: string
  readonly powder: string
  readonly units: string
  readonly scoops?: string
  readonly expect: string
  readonly ratio?: number
  readonly options?: readonly number[]
  readonly school?: string
}
const UNITS = { metric: METRIC, us: US_CUSTOMARY, uk: { ...METRIC, region: 'imperial' } } as const
const near = (value: number, wanted: number) =>
  expect(Math.abs(value / wanted - 1), `${value} for ${wanted}`).toBeLessThanOrEqual(2e-4)

describe('what is said of a ratio', () => {
  it.each(CASES as readonly Case[])('$text | $powder, $units: $expect', (one) => {
    const found = readSaying(one.text, {
      powder: powderClass(one.powder as PowderClassId),
      filling: one.scoops === 'tapped' ? 'tapped' : 'loose',
      writing: writingOf(UNITS[one.units as keyof typeof UNITS]),
    })
    const readings = found.code === 'read' ? found.readings.map(r => r.ratio.value) : []
    if (one.expect === 'value' || one.expect === 'ask') {
      const wanted = one.options ?? [one.ratio!]
      expect(readings.length, JSON.stringify(found)).toBe(wanted.length)
      readings.forEach((r, i) => near(r, wanted[i]!))
    }
    else if (one.expect === 'school') expect(found).toEqual({ code: 'school', school: one.school })
    else expect(['read', 'school', 'saying']).not.toContain(found.code)
  })
})

describe('drawn sayings', () => {
  const piece = fc.constantFrom(
    '1', '2', '10', '70', '100', '1,250', '1.5', '½', ' ', '-', '–', '/', ':', ' to ', 'kg', 'g', 'lb', 'oz', 'ml', 'cup', 'pints',
    ' us ', ' of ', ' water ', ' plaster ', ' silica ', ' by weight', ' by volume', 'scoops', ' parts', 'a ', 'half ', ',', '.', '%',
    'consistency ', 'w/p ', 'é', '1e9', '0', '-2', '٣', '∞', 'twice as much ', ' as ', 'per ',
  )
  const string = fc.oneof(fc.array(piece, { maxLength: 8 }).map(p => p.join('')), fc.string({ maxLength: 14 }))
  const { seed, of } = campaign(20_000)
  it('never crash, and are no ratio that nobody mixes', () => {
    const powder = fc.constantFrom(...POWDER_CLASSES), units = fc.constantFrom(...Object.values(UNITS))
    fc.assert(fc.property(string, powder, units, (text, p, u) => {
      const found = readSaying(text, { powder: p, writing: writingOf(u) })
      if (found.code !== 'read') return
      expect(found.readings.length).toBeGreaterThan(0)
      for (const { ratio } of found.readings) {
        expect(ratio.value, text).toBeGreaterThanOrEqual(0.05)
        expect(ratio.value, text).toBeLessThanOrEqual(3)
        expect(ratio.low <= ratio.value && ratio.value <= ratio.high).toBe(true)
      }
      // Less than nothing is no amount of anything.
      expect(text).not.toMatch(/(^|[:/]|to)\s*[-–]\s*\d/)
    }), { numRuns: of, seed })
  })
  it('two amounts mean the same whether each has its word or both are named behind them', () => {
    const amount = fc.integer({ min: 1, max: 9 }), powder = fc.constantFrom(...POWDER_CLASSES)
    const values = (text: string, of: PowderClass) => {
      const found = readSaying(text, { powder: of })
      return found.code === 'read' ? found.readings.map(r => r.ratio.value) : found.code
    }
    fc.assert(fc.property(amount, amount, powder, (dry, wet, of) => {
      const plain = values(`${dry} plaster to ${wet} water`, of)
      for (const text of [`${dry}:${wet} plaster to water`, `${wet}:${dry} water to plaster`, `plaster to water ${dry}:${wet}`])
        expect(values(text, of), text).toEqual(plain)
    }), { numRuns: Math.ceil(of / 20), seed })
  })
  it('whatever is written as a ratio reads back as it was written', () => {
    fc.assert(fc.property(fc.integer({ min: 15, max: 200 }), fc.constantFrom(...POWDER_CLASSES), (n, powder) => {
      for (const text of [`${n}`, `${n} %`, `consistency ${n}`, `${n} water to 100 powder`, `${n / 100} by weight to 1`]) {
        const found = readSaying(text.replace(' by weight to 1', ' water to 1 powder by weight'), { powder })
        expect(found.code === 'read' && found.readings.map(r => Math.round(100 * r.ratio.value)), text).toEqual([n])
      }
    }), { numRuns: Math.ceil(of / 20), seed })
  })
})
