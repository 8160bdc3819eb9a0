import { MOULD_MATERIALS, type MouldMaterial } from '../setting/body'
import { POWDER_CLASSES, type PowderClassId } from '../gypsum/powders'
import { DEFECTS, type DefectId } from '../pour/defects'
import { wordsOf } from '../logbook/tallies'
import { parseNumber, parseQuantity, type Unread } from '../units/parse'
import { UNITS, type Unit, type UnitKind, type UnitPreferences } from '../units/units'

/**
 * Somebody's own table read as moulds, bags or pours of the past: which column is what, and each row or what is wrong
 * with it.
 */

export type TableKind = 'moulds' | 'bags' | 'pours'
interface TableField {
  readonly id: string
  readonly required?: boolean
  /** Beginnings of words that a head may have. */
  readonly heads: readonly string[]
}

export const TABLE_FIELDS: Readonly<Record<TableKind, readonly TableField[]>> = {
  moulds: [
    { id: 'name', required: true, heads: ['name', 'mould', 'mold', 'form'] },
    { id: 'volume', required: true, heads: ['vol', 'content', 'holds'] },
    { id: 'material', required: true, heads: ['material', 'made', 'rubber'] },
    { id: 'copies', heads: ['copies', 'number', 'count', 'how many', 'pieces'] },
    { id: 'life', heads: ['life', 'lasts'] },
    { id: 'cost', heads: ['cost', 'price'] },
    { id: 'note', heads: ['note', 'remark', 'comment'] },
  ],
  bags: [
    { id: 'name', required: true, heads: ['name', 'bag'] },
    { id: 'class', required: true, heads: ['class', 'powder', 'kind', 'type'] },
    { id: 'price', heads: ['price', 'cost'] },
    { id: 'left', heads: ['left', 'stock', 'remain', 'weight'] },
    { id: 'opened', heads: ['open', 'date'] },
    { id: 'note', heads: ['note', 'remark', 'comment'] },
  ],
  pours: [
    { id: 'date', required: true, heads: ['date', 'day', 'poured', 'when'] },
    { id: 'mould', required: true, heads: ['mould', 'mold', 'form'] },
    { id: 'pieces', heads: ['piece', 'cast', 'number', 'count', 'qty'] },
    {
      id: 'powder',
      required: true,
      heads: ['bag', 'class', 'plaster', 'material', 'powder used'],
    },
    { id: 'water', heads: ['water'] },
    { id: 'weight', heads: ['powder weight', 'powder g', 'powder kg', 'powder', 'weight'] },
    { id: 'good', heads: ['good', 'ok'] },
    { id: 'second', heads: ['second', 'b grade'] },
    { id: 'waste', heads: ['waste', 'scrap', 'broken', 'reject'] },
    { id: 'defects', heads: ['defect', 'fault', 'problem', 'wrong'] },
    { id: 'note', heads: ['note', 'remark', 'comment'] },
  ],
}

/** Column of each field, from 0; a field without one is left out. */
export type Mapping = Readonly<Record<string, number>>

/** What the heads of a table probably mean: each column is taken once, exact words before beginnings. */
export function guessMapping(kind: TableKind, head: readonly string[]): Mapping {
  const plain = head.map(h => wordsOf(h).join(' ')), taken = new Set<number>(), mapping: Record<string, number> = {}
  for (
    const fits of [(h: string, w: string) => h === w, (h: string, w: string) =>
      h.startsWith(w), (h: string, w: string) =>
      h.includes(w)]
  ) {
    for (const field of TABLE_FIELDS[kind]) {
      if (field.id in mapping) continue
      const column = field.heads.map(w => plain.findIndex((h, i) => !taken.has(i) && fits(h, w))).find(i => i >= 0)
      if (column === undefined) continue
      mapping[field.id] = column
      taken.add(column)
    }
  }
  return mapping
}

export interface MouldRow {
  readonly name: string
  readonly volume: number
  readonly material: MouldMaterial
  readonly copies?: number
  readonly life?: number
  readonly cost?: number
  readonly note: string
}
export interface BagRow {
  readonly name: string
  readonly classId: PowderClassId
  readonly price?: number
  readonly left?: number
  readonly opened?: string
  readonly note: string
}
/** Masses in kg; `bag` or else `classId` says what was poured. */
export interface PourRow {
  readonly date: string
  readonly mould: string
  readonly pieces: number
  readonly bag?: string
  readonly classId: PowderClassId
  readonly water?: number
  readonly powder?: number
  readonly good?: number
  readonly second?: number
  readonly waste?: number
  readonly defects: readonly DefectId[]
  readonly note: string
}
interface RowOf { readonly moulds: MouldRow, readonly bags: BagRow, readonly pours: PourRow }

/** What is here already, to which names of a table can belong. */
export interface Known {
  readonly moulds: readonly { readonly id: string, readonly name: string }[]
  readonly bags: readonly { readonly id: string, readonly name: string, readonly classId: PowderClassId }[]
}
export interface Reading {
  readonly units: UnitPreferences /** Of dates such as 3/11/2026. */
  readonly dayFirst: boolean
  readonly known: Known /** Of the day before which a row may have been poured, `2026-11-25`. */
  readonly today: string
}

interface RowProblem {
  /** Line of the table as a spreadsheet counts it, the head being 1. */ readonly line: number
  readonly field: string
  readonly why: CellProblem
}
/** Why a cell cannot be read; `typed` is what stands in it. */
export type CellProblem
  = | { readonly code: 'missing', readonly field: string, readonly kind: TableKind }
    | { readonly code: 'unread', readonly unread: Unread }
    | { readonly code: 'no-size' | 'name-long' | 'volume-large' | 'pieces-many' }
    | { readonly code: 'not-whole', readonly typed: string, readonly above: boolean }
    | {
      readonly code: 'no-price' | 'no-day' | 'no-material' | 'no-class' | 'no-mould' | 'no-powder' | 'no-defect' | 'known'
      readonly typed: string
    }
    | { readonly code: 'not-been', readonly day: string }
    | { readonly code: 'pieces-more', readonly judged: number, readonly pieces: number }
    | { readonly code: 'no-mix', readonly ratio: number }
interface ReadTable<K extends TableKind> {
  readonly rows: readonly { readonly line: number, readonly row: RowOf[K] }[]
  readonly problems: readonly RowProblem[]
}

class Wrong extends Error {
  constructor(readonly field: string, readonly why: CellProblem) {
    super(why.code)
  }
}

/** A unit that stands in the head counts for cells that name none: `volume (ml)`, `water g`. */
function unitOfHead(head: string, kind: UnitKind): string {
  const names = (Object.values(UNITS) as Unit[]).filter(u => u.kind === kind).flatMap(u => u.names)
  return head.toLowerCase().split(/[^a-z°]+/).find(w => names.includes(w)) ?? ''
}

/** Everything of a table that can be read, and of the rest why not; nothing is guessed into a row. */
export function readTable<K extends TableKind>(
  kind: K,
  head: readonly string[],
  lines: readonly (readonly string[])[],
  mapping: Mapping,
  reading: Reading,
): ReadTable<K> {
  const rows: { line: number, row: RowOf[K] }[] = [], problems: RowProblem[] = []
  lines.forEach((cells, i) => {
    const line = i + 2
    if (cells.every(c => c.trim() === '')) return
    const cell = (id: string) => mapping[id] === undefined ? '' : (cells[mapping[id]] ?? '').trim()
    try {
      rows.push({
        line,
        row: READ[kind]({
          ...reading,
          cell,
          head: id => mapping[id] === undefined ? '' : head[mapping[id]] ?? '',
        }) as RowOf[K],
      })
    }
    catch (error) {
      if (!(error instanceof Wrong)) throw error
      problems.push({ line, field: error.field, why: error.why })
    }
  })
  return { rows, problems }
}

interface Line extends Reading { cell(id: string): string, head(id: string): string }

function needed(l: Line, kind: TableKind, id: string): string {
  const text = l.cell(id)
  if (text === '') throw new Wrong(id, { code: 'missing', field: id, kind })
  return text
}
function quantity(l: Line, id: string, kind: UnitKind): number | undefined {
  const text = l.cell(id)
  if (text === '') return undefined
  const unit = unitOfHead(l.head(id), kind),
    parsed = parseQuantity(parseNumber(text) !== undefined && unit ? `${text} ${unit}` : text, kind, l.units)
  if (!parsed.ok) throw new Wrong(id, { code: 'unread', unread: parsed })
  if (parsed.value <= 0) throw new Wrong(id, { code: 'no-size' })
  return parsed.value
}
function whole(l: Line, id: string, least: number): number | undefined {
  const text = l.cell(id)
  if (text === '') return undefined
  const value = parseNumber(text)
  if (value === undefined || !Number.isInteger(value) || value < least || value > 100_000)
    throw new Wrong(id, { code: 'not-whole', typed: text, above: least > 0 })
  return value
}
function money(l: Line, id: string): number | undefined {
  const text = l.cell(id).replace(/^[^\d.,-]+|[^\d.,]+$/g, '')
  if (l.cell(id) === '') return undefined
  const value = parseNumber(text)
  if (value === undefined || value < 0) throw new Wrong(id, { code: 'no-price', typed: l.cell(id) })
  return value
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

/** Year, month and day as they are written, in any order that is understood. */
function dayParts(text: string, dayFirst: boolean): readonly (string | undefined)[] {
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/.exec(text)
  if (iso) return iso.slice(1)
  const dots = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/.exec(text)
  if (dots) return [dots[3], dots[2], dots[1]]
  const slashes = /^(\d{1,2})\/(\d{1,2})\/(\d{4})$/.exec(text)
  if (slashes) return [slashes[3], slashes[dayFirst ? 2 : 1], slashes[dayFirst ? 1 : 2]]
  const named = /^(\d{1,2})\.?\s+([a-z]{3})[a-z]*\.?,?\s+(\d{4})$/i.exec(text)
  return named ? [named[3], String(MONTHS.indexOf(named[2]!.toLowerCase()) + 1), named[1]] : []
}

/** @returns the day as `2026-11-03`, or undefined: ISO, `3.11.2026`, `3/11/2026` by its order, `3 Nov 2026`. */
export function readDay(text: string, dayFirst: boolean): string | undefined {
  const [year, month, day] = dayParts(text, dayFirst)
  if (!year) return undefined
  const date = new Date(Date.UTC(Number(year), Number(month) - 1, Number(day)))
  return date.getUTCMonth() === Number(month) - 1 && date.getUTCDate() === Number(day) && Number(year) >= 2000
    && Number(year) < 2100
    ? date.toISOString().slice(0, 10)
    : undefined
}
function day(l: Line, id: string): string | undefined {
  const text = l.cell(id)
  if (text === '') return undefined
  const read = readDay(text, l.dayFirst)
  if (!read) throw new Wrong(id, { code: 'no-day', typed: text })
  if (read > l.today) throw new Wrong(id, { code: 'not-been', day: read })
  return read
}

const same = (a: string, b: string) => wordsOf(a).join(' ') === wordsOf(b).join(' ')
function classNamed(text: string): PowderClassId | undefined {
  return POWDER_CLASSES.find(p => [p.id, p.name, ...p.alsoCalled].some(n => same(n, text)))?.id
}
function noteOf(l: Line): string {
  return l.cell('note').slice(0, 2000)
}
function nameOf(l: Line, kind: TableKind): string {
  const name = needed(l, kind, 'name')
  if (name.length > 80) throw new Wrong('name', { code: 'name-long' })
  return name
}

const READ: { readonly [K in TableKind]: (l: Line) => RowOf[K] } = {
  moulds(l) {
    const name = nameOf(l, 'moulds'),
      words = needed(l, 'moulds', 'material'),
      material = (Object.keys(MOULD_MATERIALS) as MouldMaterial[]).find(m =>
        same(m, words) || same(MOULD_MATERIALS[m].name, words)
        || wordsOf(MOULD_MATERIALS[m].name)[0] === wordsOf(words)[0],
      )
    needed(l, 'moulds', 'volume')
    if (!material) throw new Wrong('material', { code: 'no-material', typed: words })
    if (l.known.moulds.some(m => same(m.name, name))) throw new Wrong('name', { code: 'known', typed: name })
    const volume = quantity(l, 'volume', 'volume')!
    if (volume > 1) throw new Wrong('volume', { code: 'volume-large' })
    return {
      name,
      material,
      volume,
      copies: whole(l, 'copies', 1),
      life: whole(l, 'life', 1),
      cost: money(l, 'cost'),
      note: noteOf(l),
    }
  },
  bags(l) {
    const name = nameOf(l, 'bags'), words = needed(l, 'bags', 'class'), classId = classNamed(words)
    if (!classId) throw new Wrong('class', { code: 'no-class', typed: words })
    if (l.known.bags.some(b => same(b.name, name))) throw new Wrong('name', { code: 'known', typed: name })
    return {
      name,
      classId,
      price: money(l, 'price'),
      left: quantity(l, 'left', 'mass'),
      opened: day(l, 'opened'),
      note: noteOf(l),
    }
  },
  pours(l) {
    needed(l, 'pours', 'date')
    const date = day(l, 'date')!,
      words = needed(l, 'pours', 'mould'),
      mould = l.known.moulds.find(m => same(m.name, words))
    if (!mould) throw new Wrong('mould', { code: 'no-mould', typed: words })
    const named = needed(l, 'pours', 'powder'),
      bag = l.known.bags.find(b => same(b.name, named)),
      classId = bag?.classId ?? classNamed(named)
    if (!classId) throw new Wrong('powder', { code: 'no-powder', typed: named })
    const good = whole(l, 'good', 0),
      second = whole(l, 'second', 0),
      waste = whole(l, 'waste', 0),
      judged = (good ?? 0) + (second ?? 0) + (waste ?? 0),
      pieces = whole(l, 'pieces', 1) ?? Math.max(1, judged)
    if (judged > pieces) throw new Wrong('pieces', { code: 'pieces-more', judged, pieces })
    if (pieces > 200) throw new Wrong('pieces', { code: 'pieces-many' })
    const water = quantity(l, 'water', 'mass'), powder = quantity(l, 'weight', 'mass')
    if (water !== undefined && powder !== undefined && (water / powder < 0.1 || water / powder > 2))
      throw new Wrong('water', { code: 'no-mix', ratio: water / powder })
    const defects = l.cell('defects').split(/[;,|]/).map(t => t.trim()).filter(Boolean).map((t) => {
      const found = DEFECTS.find(d =>
        same(d.id, t) || same(d.words, t) || wordsOf(d.words).some(w => w.length > 3 && wordsOf(t).includes(w)),
      )
      if (!found) throw new Wrong('defects', { code: 'no-defect', typed: t })
      return found.id
    })
    return {
      date,
      mould: mould.id,
      pieces,
      bag: bag?.id,
      classId,
      water,
      powder,
      good,
      second,
      waste,
      defects: [...new Set(defects)],
      note: noteOf(l),
    }
  },
}
