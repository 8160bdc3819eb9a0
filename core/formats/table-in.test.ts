import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { METRIC } from '../units/units'
import { csvRow } from './csv'
import { cellWords } from './words'
import { guessMapping, readDay, readTable, TABLE_FIELDS, type Reading, type TableKind } from './table-in'

const reading: Reading = {
  units: METRIC,
  dayFirst: true,
  today: '2026-11-25',
  known: { moulds: [{ id: 'm1', name: 'Garden tile' }], bags: [{ id: 'b1', name: 'Bag 9', classId: 'gypsum-cement' }] },
}
const read = <K extends TableKind>(kind: K, text: string, over: Partial<Reading> = {}) => {
  const [head, ...lines] = Papa.parse<string[]>(text, { skipEmptyLines: true }).data
  return readTable(kind, head!, lines, guessMapping(kind, head!), { ...reading, ...over })
}

describe('which column is what', () => {
  it('is guessed from the heads people write, each column once', () => {
    expect(
      guessMapping('pours', [
        'Date',
        'Mold',
        'No. of casts',
        'Plaster',
        'Water (g)',
        'Powder (g)',
        'Good',
        'Scrap',
        'Remarks',
      ]),
    ).toEqual({ date: 0, mould: 1, pieces: 2, powder: 3, water: 4, weight: 5, good: 6, waste: 7, note: 8 })
    expect(guessMapping('moulds', ['Mould', 'Volume ml', 'Rubber'])).toEqual({ name: 0, volume: 1, material: 2 })
    for (const kind of Object.keys(TABLE_FIELDS) as TableKind[])
      fc.assert(fc.property(fc.array(fc.string(), { maxLength: 12 }), (head) => {
        const columns = Object.values(guessMapping(kind, head))
        expect(new Set(columns).size).toBe(columns.length)
      }))
  })
})

describe('rows', () => {
  it('of pours: units from the cell or the head, names as they are here, and nothing invented', () => {
    const { rows, problems } = read(
      'pours',
      'Date,Mould,Casts,Bag,Water g,Powder,Good,Waste,Faults,Note\n2026-10-03,garden TILE,4,bag 9,"1,200",3 kg,3,1,crack; bubbles,"=2+2, dropped"\n3.11.2026,Garden tile,,pottery plaster,,,,,,\n',
    )
    expect(problems).toEqual([])
    expect(rows[0]).toEqual({
      line: 2,
      row: {
        date: '2026-10-03',
        mould: 'm1',
        pieces: 4,
        bag: 'b1',
        classId: 'gypsum-cement',
        water: 1.2,
        powder: 3,
        good: 3,
        second: undefined,
        waste: 1,
        defects: ['crack', 'surface-bubbles'],
        note: '=2+2, dropped',
      },
    })
    expect(rows[1]!.row).toMatchObject({
      date: '2026-11-03',
      pieces: 1,
      classId: 'pottery-plaster',
      water: undefined,
      defects: [],
    })
  })

  it('that cannot be are named by line and field, in words, and the others are read all the same', () => {
    const { rows, problems } = read(
      'pours',
      [
        'Date,Mould,Casts,Good,Water g,Powder g,Plaster,Defects',
        '2026-02-30,Garden tile,1,,,,bag 9,',
        '2027-01-01,Garden tile,1,,,,bag 9,',
        '2026-01-01,Gnome,1,,,,bag 9,',
        '2026-01-01,Garden tile,2,3,,,bag 9,',
        '2026-01-01,Garden tile,1,,70,10000,bag 9,',
        '2026-01-01,Garden tile,x,,,,bag 9,',
        '2026-01-01,Garden tile,1,,,,chalk,',
        '2026-01-01,Garden tile,1,,,,bag 9,ghosts',
        '2026-01-01,Garden tile,1,1,700,1000,bag 9,',
        ',,,,,,,',
        '2026-01-01,,1,,,,bag 9,',
        '2026-01-01,Garden tile,1,,,,,',
      ].join('\n'),
    )
    expect(problems.map(p => `${p.line} ${p.field}`)).toEqual([
      '2 date',
      '3 date',
      '4 mould',
      '5 pieces',
      '6 water',
      '7 pieces',
      '8 powder',
      '9 defects',
      '12 mould',
      '13 powder',
    ])
    expect(problems.every(p => /[.?]$/.test(cellWords(p.why)))).toBe(true)
    expect(rows.map(r => r.line)).toEqual([10])
  })

  it('of moulds and bags: what is here already is said, prices lose their sign', () => {
    const moulds = read(
      'moulds',
      'name;volume;material;cost;life\nFrog;0.4 l;Silicone;£ 38.50;60\nGarden tile;640 ml;silicone;;\nToad;12;wax;;\n',
    )
    expect(moulds.rows.map(r => r.row)).toEqual([{
      name: 'Frog',
      volume: 0.0004,
      material: 'silicone',
      copies: undefined,
      life: 60,
      cost: 38.5,
      note: '',
    }])
    expect(moulds.problems.map(p => p.field)).toEqual(['name', 'material'])
    const bags = read('bags', 'Bag,Type,Price,Left kg,Opened\nNew one,moulding plaster,1.20 €,12.5,1 Nov 2026\n')
    expect(bags.rows[0]!.row).toEqual({
      name: 'New one',
      classId: 'casting-plaster',
      price: 1.2,
      left: 12.5,
      opened: '2026-11-01',
      note: '',
    })
  })

  it('days are read in every order that can be told apart, and by choice where it cannot', () => {
    expect(readDay('3/11/2026', true)).toBe('2026-11-03')
    expect(readDay('3/11/2026', false)).toBe('2026-03-11')
    expect(readDay('2026-11-03T08:00', true)).toBe('2026-11-03')
    for (const bad of ['31.2.2026', '13/13/2026', '1 Foo 2026', 'soon', '03/11/26', '1999-01-01'])
      expect(readDay(bad, true)).toBeUndefined()
  })

  it('what this product writes as a table can be read back, formulas and quotes too', () => {
    fc.assert(fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), (note) => {
      const text = csvRow(['name', 'class', 'note']) + csvRow(['x', 'pottery plaster', note])
      const { rows } = read('bags', text)
      expect(rows[0]!.row.note).toBe((/^[=+\-@\t\r]/.test(note) ? `'${note}` : note).trim().slice(0, 2000))
    }))
  })
})
