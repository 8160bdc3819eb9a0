import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  formatDuration,
  formatDurationRange,
  formatFine,
  formatFineRange,
  formatLength,
  formatMass,
  formatPercent,
  formatPosition,
  formatRoughMass,
  formatTemperature,
  formatVolume,
  roundTo,
} from './format'
import { parseNumber, parseQuantity } from './parse'
import { unreadWords } from './words'
import { latinCube, normalQuantile, sortedQuantile } from '../numeric/sampling'
import { METRIC, UNITS, US_CUSTOMARY, type Unit, type UnitKind } from './units'

const read = (text: string, kind: UnitKind, prefs = METRIC) => {
  const parsed = parseQuantity(text, kind, prefs)
  return parsed.ok ? parsed.value : unreadWords(parsed)
}

describe('conversions', () => {
  // NIST SP 811 (2008), appendix B.8: exact values.
  it.each([
    ['lb', 0.45359237], ['oz', 0.028349523125], ['gal', 3.785411784e-3], ['qt', 9.46352946e-4],
    ['cup', 2.365882365e-4], ['floz', 2.95735295625e-5], ['inch', 0.0254], ['foot', 0.3048],
  ] as const)('%s is exact', (id, factor) => {
    expect(UNITS[id].toSi(1)).toBeCloseTo(factor, 15)
  })

  it('agrees with the fixed points of the temperature scales', () => {
    expect(UNITS.F.toSi(32)).toBeCloseTo(0, 12)
    expect(UNITS.F.toSi(212)).toBeCloseTo(100, 12)
    expect(UNITS.F.toSi(-40)).toBeCloseTo(-40, 12)
  })

  it('gives back what was put in, for every unit', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(UNITS) as Unit[]),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        (unit, x) => {
          expect(unit.fromSi(unit.toSi(x))).toBeCloseTo(x, 6)
        },
      ),
    )
  })
})

describe('reading what people type', () => {
  it.each([
    ['1,240', 1240],
    ['1,5', 1.5],
    ['1.240,5', 1240.5],
    ['1,240.5', 1240.5],
    ['1 240', 1240],
    ['1/2', 0.5],
    ['1 1/2', 1.5],
    ['.5', 0.5],
    ['0,125', 0.125],
    ['3/0', undefined],
    ['', undefined],
    ['1.2.3', undefined],
    ['twelve', undefined],
  ])('number %s', (text, value) => {
    expect(parseNumber(text)).toBe(value)
  })

  it.each(
    [
      ['750', 'volume', 7.5e-4],
      ['1 l 200 ml', 'volume', 1.2e-3],
      ['1 1/2 lb', 'mass', 0.680388555],
      ['5 lb 4 oz', 'mass', 2.381359943],
      ['1,240', 'mass', 1.24],
      ['95F', 'temperature', 35],
      ['95 °F', 'temperature', 35],
      ['-4', 'temperature', -4],
      ['1 ft 2 in', 'length', 0.3556],
      ['12 cm', 'length', 0.12],
      ['90 s', 'time', 90],
      ['4', 'time', 240],
    ] as const,
  )('%s as %s', (text, kind, si) => {
    expect(read(text, kind)).toBeCloseTo(si, 9)
  })

  it.each([
    ['2 qt', 1.892705892e-3], ['1 1/2 cup', 3.5488235475e-4], ['½ cup', 1.1829411825e-4], ['64oz', 1.892705892e-3],
  ] as const)('%s where US measures are used', (text, si) => {
    expect(read(text, 'volume', US_CUSTOMARY)).toBeCloseTo(si, 9)
  })

  it('reads a bare number in the unit the workshop chose', () => {
    expect(read('2', 'mass', US_CUSTOMARY)).toBeCloseTo(0.90718474, 9)
    expect(read('70', 'temperature', US_CUSTOMARY)).toBeCloseTo(21.111, 3)
  })

  it.each(
    [
      ['2 qt', 'mass', 'measures a volume; this field needs a weight'],
      ['3 furlongs', 'mass', 'not a unit known here'],
      ['2 qt', 'volume', 'A US quart (1.89 l) or an imperial quart (2.27 l)?'],
      ['4–5 min', 'time', 'more than one amount'],
      ['4 min - 5 min', 'time', 'more than one amount'],
      ['500 g-600 g', 'mass', 'more than one amount'],
      ['1 lb 454 g', 'mass', 'two measures'],
      ['200 g 1 kg', 'mass', 'two measures'],
      ['10 50 g', 'mass', 'two numbers with one unit'],
      ['1, 5 kg', 'mass', 'may be one number or two'],
      ['10 x 12 cm', 'length', 'two measures'],
      ['2 l (2000 ml)', 'volume', 'says it twice'],
      ['', 'length', 'Type a length'],
      ['1/0 cup', 'volume', 'Type it like'],
      ['-3 g', 'mass', 'cannot be less than nothing'],
      ['1 kg 200', 'mass', 'without a unit'],
      ['12 C 5 F', 'temperature', 'one temperature'],
    ] as const,
  )('refuses %s as %s in a plain sentence', (text, kind, words) => {
    expect(read(text, kind)).toContain(words)
  })

  it('never throws and never returns a number that is not finite', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 20 }),
        fc.constantFrom<UnitKind>('mass', 'volume', 'length', 'temperature', 'time'),
        (text, kind) => {
          const parsed = parseQuantity(text, kind)
          expect(parsed.ok ? Number.isFinite(parsed.value) : unreadWords(parsed).length > 10).toBe(true)
        },
      ),
      { numRuns: 1000 },
    )
  })
})

describe('writing', () => {
  it('rounds to what the tool in hand can show', () => {
    expect(formatMass(1.2404, METRIC)).toBe('1\u2009240 g')
    expect(formatMass(0.0042, METRIC)).toBe('4.2 g')
    expect([0.634, 7.49, 31.6].map(kg => formatRoughMass(kg, METRIC))).toEqual(['630 g', '7.5 kg', '32 kg'])
    expect([0.2, 7.49, 31.6].map(kg => formatRoughMass(kg, US_CUSTOMARY))).toEqual(['7 oz', '16.5 lb', '70 lb'])
    expect([
      formatPosition({ latitude: 54.9784, longitude: -1.613 }),
      formatPosition({ latitude: -33.25, longitude: 151.5 }),
    ]).toEqual(['54.9784° N, 1.6130° W', '33.2500° S, 151.5000° E'])
    expect(formatMass(25, METRIC)).toBe('25.0 kg')
    expect([0.0012, 0.0302, 0.0921, 0.2, 0.6].map(m => formatLength(m, US_CUSTOMARY)))
      .toEqual(['47 thou', '1 3/16 in', '3 ⅝ in', '7 ⅞ in', '23 ½ in'])
    expect([2e-4, 0.0032].map(m => formatFine(m, US_CUSTOMARY))).toEqual(['8 thou', '⅛ in'])
    expect(formatFineRange(1e-4, 2.5e-4, METRIC)).toBe('0.10–0.25 mm')
    expect(formatFineRange(1e-4, 2.5e-4, US_CUSTOMARY)).toBe('4–10 thou')
    expect(formatFineRange(2e-3, 0.0064, US_CUSTOMARY)).toBe('79 thou–¼ in')
    expect(formatMass(2.381359943, US_CUSTOMARY)).toBe('5 lb 4 oz')
    expect(formatMass(0.4535, US_CUSTOMARY)).toBe('1 lb')
    expect(formatVolume(0.000412, METRIC)).toBe('410 ml')
    expect(formatVolume(3.5488e-4, US_CUSTOMARY)).toBe('1 ½ cups')
    expect(formatTemperature(35, US_CUSTOMARY)).toBe('95 °F')
    expect([0.003, 0.0005, 0.015, 0.02, 0.5, 0].map(formatPercent)).toEqual([
      '0.3 %',
      '0.05 %',
      '1.5 %',
      '2 %',
      '50 %',
      '0 %',
    ])
    expect(roundTo(-0.4, 1)).toBe('0')
  })

  it('writes durations that cannot be mistaken for times of day', () => {
    expect([40, 580, 1020, 3600, 3900, 90_000, 273_600].map(s => formatDuration(s))).toEqual([
      '40 s',
      '9 min 40 s',
      '17 min',
      '1 h',
      '1 h 5',
      '25 h',
      '3 d 4 h',
    ])
    expect(formatDuration(3599, 'minute')).toBe('1 h')
    expect(formatDurationRange(1020, 1320)).toBe('17–22 min')
    expect(formatDurationRange(3000, 5100)).toBe('50 min – 1 h 25')
    expect(formatDurationRange(3960, 11_280)).toBe('1 h 5 – 3 h 10')
    expect(formatDurationRange(9.2 * 3600, 30.7 * 3600)).toBe('9–31 h')
    expect(formatDurationRange(37 * 3600, 117 * 3600)).toBe('1½–5 d')
    fc.assert(fc.property(fc.double({ min: 0, max: 1e7, noNaN: true }), s => !formatDuration(s).includes(':')))
  })

  it('what is written is read back to within its rounding', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 19, noNaN: true }),
        fc.constantFrom(METRIC, US_CUSTOMARY),
        (kg, prefs) => {
          expect(Math.abs(read(formatMass(kg, prefs), 'mass', prefs) as number - kg)).toBeLessThan(0.0052)
        },
      ),
    )
  })
})

describe('quantiles without dice', () => {
  it('the inverse normal meets its tabled values', () => {
    expect(normalQuantile(0.9)).toBeCloseTo(1.2815515655, 7)
    expect(normalQuantile(0.001)).toBeCloseTo(-3.0902323062, 7)
    expect(normalQuantile(0.5)).toBeCloseTo(0, 12)
  })

  it('a latin cube gives the quantiles of each dimension, and its dimensions do not lean on each other', () => {
    const cube = latinCube(200, 12)
    expect(latinCube(200, 12)).toBe(cube)
    for (let d = 0; d < 12; d++) {
      const sorted = [...cube[d]!].map(normalQuantile).sort((a, b) => a - b)
      expect(sortedQuantile(sorted, 0.1)).toBeCloseTo(-1.28, 1)
      expect(sortedQuantile(sorted, 0.9)).toBeCloseTo(1.28, 1)
      for (let other = 0; other < d; other++) {
        const correlation = cube[d]!.reduce((sum, x, i) => sum + (x - 0.5) * (cube[other]![i]! - 0.5), 0) / 200 * 12
        expect(Math.abs(correlation)).toBeLessThan(0.15)
      }
    }
  })

  it('interpolates quantiles and keeps infinity legal', () => {
    expect(sortedQuantile([1, 2, 3, 4, 5], 0.25)).toBe(2)
    expect(sortedQuantile([1, 2], 0.5)).toBe(1.5)
    expect(sortedQuantile([1, Infinity, Infinity], 0.9)).toBe(Infinity)
    expect(() => sortedQuantile([], 0.5)).toThrow(RangeError)
  })
})
