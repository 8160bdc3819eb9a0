import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { csvCell, csvRow } from './csv'
import { LOGBOOK_HEAD, logbookRows } from './logbook-table'
import type { CastSummary, PourSummary } from '../pour/projection'

describe('comma-separated values', () => {
  it('an independent parser reads back what was written', () => {
    const word = fc.string().filter(s => !/^[=+\-@|\t\r\n＝＋－＠｜]/.test(s))
    fc.assert(
      fc.property(fc.array(fc.array(word, { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 6 }), (rows) => {
        expect(
          Papa.parse<string[]>(rows.map(csvRow).join('').replace(/\r\n$/, ''), { delimiter: ',', newline: '\r\n' })
            .data,
        ).toEqual(rows)
      }),
    )
  })
  it.each(['=1+1', '+44', '-2', '@sum(a1)', '\t=1', '\r=1', '\n=1', '|cmd', '＝1+1', '＋44', '－2', '＠sum(a1)', '｜cmd'])(
    'what a spreadsheet would run is made plain: %j',
    (text) => {
      expect(csvCell(text).replace(/^"/, '')).toMatch(/^'/)
    },
  )
  it('numbers stay numbers, and what is none is left empty', () => {
    expect(csvRow([-1.5, Number.NaN, undefined, 'a"b'])).toBe('-1.5,,,"a""b"\r\n')
  })
})

it('of a pour of the past only what a table told of it is told again', () => {
  const noon = Date.UTC(2024, 4, 3, 12),
    pour = {
      name: 'Tiles',
      status: 'finished',
      school: 'weighed',
      ratio: { planned: 0.67 },
      daysOnly: true,
      startedAt: noon,
    } as unknown as PourSummary
  const cast = {
    label: 'Tile 1',
    mould: 'Tile',
    powder: 'Casting plaster',
    endUse: 'painted',
    status: 'finished',
    verdict: 'good',
    defects: [],
    note: '',
    filledAt: noon + 720_000,
    finishedAt: noon + 9e6,
  } as unknown as CastSummary
  expect(
    Object.entries(Object.fromEntries(LOGBOOK_HEAD.map((h, i) => [h, logbookRows(pour, [cast])[0]![i]]))).filter((
      [, v],
    ) => v !== undefined && v !== ''),
  ).toEqual([
    ['pour', 'Tiles'],
    ['cast', 'Tile 1'],
    ['mould', 'Tile'],
    ['poured', '2024-05-03'],
    ['powder', 'Casting plaster'],
    ['status', 'finished'],
    ['verdict', 'good'],
  ])
})

it('the logbook has a cell for every head, and a note cannot become a formula', () => {
  const pour = {
    name: 'Tiles',
    status: 'drying',
    school: 'weighed',
    ratio: { planned: 0.45, low: 0.44, high: 0.46, actual: 0.4963 },
    causes: [{ defect: 'soft', cause: 'too-thin' }],
  } as unknown as PourSummary
  const cast = {
    id: '1.1',
    label: 'Tile 1',
    mould: 'Tile',
    powder: 'Casting plaster',
    endUse: 'painted',
    status: 'judged',
    verdict: 'second',
    defects: ['soft'],
    note: '=HYPERLINK("x")',
    openedAt: 0,
  } as unknown as CastSummary
  const [row] = logbookRows(pour, [cast])
  expect(row).toHaveLength(LOGBOOK_HEAD.length)
  expect(row!.slice(8, 14)).toEqual([45, 49.6, 'judged', 'second', 'soft or chalky', 'mixed too thin'])
  expect(csvRow(row!)).toContain('"\'=HYPERLINK(""x"")"')
})
