import { OFFERED_CLASSES } from '../gypsum/powders'
import { DEFECTS } from '../pour/defects'
import { MOULD_MATERIALS } from '../setting/body'
import { sentenceOf, type Sentences } from '../units/sentences'
import { unreadWords } from '../units/words'
import type { CellProblem, TableKind } from './table-in'

/** What is said of somebody's own table. */

const COMMON = { name: 'Name', note: 'Note' }
const FIELDS: Readonly<Record<TableKind, Readonly<Record<string, string>>>> = {
  moulds: {
    ...COMMON,
    volume: 'Volume',
    material: 'Material',
    copies: 'How many of it',
    life: 'Casts it lasts',
    cost: 'What it cost',
  },
  bags: { ...COMMON, class: 'Class of powder', price: 'Price of a kilogram', left: 'What is left', opened: 'Opened on' },
  pours: {
    ...COMMON,
    date: 'Day',
    mould: 'Mould',
    pieces: 'Pieces',
    powder: 'Bag or class of powder',
    water: 'Water, weighed',
    weight: 'Powder, weighed',
    good: 'Good',
    second: 'Seconds',
    waste: 'Waste',
    defects: 'What was wrong',
  },
}
/** What a column is called. */
export const fieldWords = (kind: TableKind, id: string) => FIELDS[kind][id]!

const named = (list: readonly string[]) => list.map(n => n.toLowerCase()).join(', ')
const CLASSES = named(OFFERED_CLASSES.map(p => p.name))
const CELL: Sentences<CellProblem> = {
  'missing': ({ kind, field }) => `${fieldWords(kind, field)} is missing.`,
  'unread': ({ unread }) => unread.code === 'two-meanings' && unread.options[0]?.parts[0]?.unit.region
    ? `${unreadWords(unread)} Write which before it, or choose in Workshop.`
    : unreadWords(unread),
  'no-size': 'It has to measure more than zero.',
  'name-long': 'Keep the name under 80 characters.',
  'volume-large': 'A mould holds at most 1 000 l here.',
  'pieces-many': 'At most 200 pieces of one pour.',
  'not-whole': ({ typed, above }) => `“${typed}” is no whole number${above ? ' above nothing' : ''}.`,
  'no-price': ({ typed }) => `“${typed}” is no price.`,
  'no-day': ({ typed }) => `“${typed}” is no day that can be read. Write it like 2026-11-03.`,
  'no-material': ({ typed }) =>
    `“${typed}” is no material known here: ${named(Object.values(MOULD_MATERIALS).map(m => m.name))}.`,
  'no-class': ({ typed }) => `“${typed}” is no class of powder known here: ${CLASSES}.`,
  'no-mould': ({ typed }) => `There is no mould “${typed}” in the library. Bring the moulds in first.`,
  'no-powder': ({ typed }) => `“${typed}” is neither a bag of the library nor a class of powder: ${CLASSES}.`,
  'no-defect': ({ typed }) => `“${typed}” is no defect known here: ${named(DEFECTS.map(d => d.words))}.`,
  'known': ({ typed }) => `“${typed}” is here already.`,
  'not-been': ({ day }) => `${day} has not been yet.`,
  'pieces-more': ({ judged, pieces }) => `${judged} pieces came out of ${pieces}.`,
  'no-mix': ({ ratio }) =>
    `${Math.round(100 * ratio)} water to 100 powder is no mix of plaster. Are both in the same unit?`,
}
/** Why a cell of a table cannot be taken in, and what to write instead. */
export const cellWords = (problem: CellProblem) => sentenceOf(CELL, problem)
