import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readQuantity, type Field, type Writing } from '../../core/units/reading/read-quantity'
import { METRIC, US_CUSTOMARY } from '../../core/units/units'
import CASES from './typed-quantities.json'

/** What people type, and what it must become; gathered and worked out without the product. */
const DAY = 86_400
const FIELDS: Readonly<Record<string, Field>> = {
  mass: { kind: 'mass', from: 0.005, to: 200 },
  dose: { kind: 'mass', from: 5e-5, to: 5 },
  volume: { kind: 'volume', from: 5e-6, to: 0.2 },
  length: { kind: 'length', from: 1e-3, to: 3 },
  temperature: { kind: 'temperature', from: 0, to: 60 },
  air: { kind: 'temperature', from: -40, to: 60 },
  time: { kind: 'time', from: 1, to: 3 * 3600 },
  days: { kind: 'time', from: 600, to: 120 * DAY, bare: 'day' },
}
const WRITING: Readonly<Record<string, Writing>> = {
  metric: { prefs: METRIC }, us: { prefs: US_CUSTOMARY, region: 'us' }, uk: { prefs: METRIC, region: 'imperial' },
}
interface Case {
  readonly text: string
  readonly field: string
  readonly units: string
  readonly decimal?: string
  readonly expect: string
  readonly value?: number
  readonly options?: readonly number[]
}
const read = ({ text, field, units, decimal }: Pick<Case, 'text' | 'field' | 'units' | 'decimal'>) =>
  readQuantity(text, FIELDS[field]!, { ...WRITING[units]!, ...decimal === 'comma' && { decimal: ',' as const } })
const near = (value: number, wanted: number) =>
  expect(Math.abs(value - wanted), `${value} for ${wanted}`).toBeLessThanOrEqual(1e-9 * Math.max(1e-9, Math.abs(wanted)) + 1e-15)

describe('what is typed into a field', () => {
  it.each(CASES as readonly Case[])('$text | $field, $units: $expect', (one) => {
    const found = read(one)
    if (one.expect === 'value') {
      expect(found.code).toBe('read')
      if (found.code === 'read') near(found.reading.value, one.value!)
    }
    else if (one.expect === 'ask') {
      expect(found.code).toBe('ask')
      if (found.code === 'ask') {
        expect(found.options.length).toBe(one.options!.length)
        found.options.forEach((o, i) => near(o.value, one.options![i]!))
      }
    }
    else expect(['read', 'ask']).not.toContain(found.code)
  })
})

describe('drawn strings', () => {
  const piece = fc.constantFrom(
    '1', '2', '10', '250', '1,250', '1.5', '½', ' ', '-', '–', '/', ':', 'kg', 'g', 'lb', 'oz', '#', 'cup', 'pints', '°', 'C',
    'F', 'h', 'min', 'm', '"', '\'', 'and', 'a', 'half', 'to', 'x', '(', ')', ',', '.', '٣', 'é', '1e9', '0', '٠', '∞', 'NaN',
  )
  const string = fc.oneof(fc.array(piece, { maxLength: 7 }).map(p => p.join('')), fc.string({ maxLength: 12 }))
  it('never crash, never fall outside of the field, and sum only what has a unit each', () => {
    const field = fc.constantFrom(...Object.keys(FIELDS)), units = fc.constantFrom(...Object.keys(WRITING))
    fc.assert(fc.property(string, field, units, (text, f, u) => {
      const found = read({ text, field: f, units: u }), { from = -Infinity, to = Infinity } = FIELDS[f]!
      const told = found.code === 'read' ? [found.reading] : found.code === 'ask' ? found.options : []
      for (const { value, parts } of told) {
        expect(value).toBeGreaterThanOrEqual(from)
        expect(value).toBeLessThanOrEqual(to)
        expect(parts.every(p => p.unit.kind === FIELDS[f]!.kind && Number.isFinite(p.amount))).toBe(true)
      }
    }), { numRuns: 1000, seed: 20 })
  })
})
