import { UNITS, defaultUnit, type Unit, type UnitKind, type UnitPreferences, METRIC } from './units'

/** Why what was typed is no quantity of this kind. */
export type Unread = { readonly kind: UnitKind } & (
  | { readonly code: 'nothing-typed' | 'one-temperature' | 'below-nothing' }
  | { readonly code: 'not-a-quantity' | 'number-without-unit', readonly typed: string }
  | { readonly code: 'unknown-unit', readonly unit: string }
  | { readonly code: 'other-unit', readonly unit: string, readonly measures: UnitKind }
)
export type Parsed = { readonly ok: true, readonly value: number } | ({ readonly ok: false } & Unread)

const VULGAR: Record<string, string> = {
  '½': '1/2',
  '⅓': '1/3',
  '⅔': '2/3',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅕': '1/5',
}
// mixed fraction | fraction | decimal number with optional grouping
const NUMBER
  = /[-+]?(?:\d+\s+\d+\s*\/\s*\d+|\d+\s*\/\s*\d+|(?:\d{1,3}(?:[ \u2009\u00a0]\d{3})+|\d[\d.,]*|[.,]\d+)(?:[.,]\d+)?)/y

/**
 * Reads a bare number as people type it: `1,240` (grouped), `1,5` (decimal comma), `1.240,5`, `1 240`, `1/2`, `1 1/2`,
 * `.5`.
 * A single comma followed by exactly three digits groups thousands; any other single comma is a decimal one.
 * @returns the number, or undefined when it is not one (a zero denominator included).
 */
export function parseNumber(text: string): number | undefined {
  let t = text.trim().replace(/[\u2009\u00a0]/g, ' ')
  let sign = 1
  if (/^[-+−]/.test(t)) {
    sign = t[0] === '+' ? 1 : -1
    t = t.slice(1).trim()
  }
  const fraction = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(t)
  if (fraction) {
    const denominator = Number(fraction[3])
    return denominator === 0 ? undefined : sign * (Number(fraction[1] ?? 0) + Number(fraction[2]) / denominator)
  }
  t = t.replace(/ (?=\d{3}(\D|$))/g, '')
  const comma = t.lastIndexOf(','), point = t.lastIndexOf('.')
  if (comma >= 0 && point >= 0) {
    t = comma > point ? t.replace(/\./g, '').replace(',', '.') : t.replace(/,/g, '')
  }
  else if (comma >= 0) {
    t = /^\d{1,3}(,\d{3})+$/.test(t) && !t.startsWith('0') ? t.replace(/,/g, '') : t.replace(',', '.')
  }
  return /^(\d+\.?\d*|\.\d+)$/.test(t) ? sign * Number(t) : undefined
}

function findUnit(name: string, kind: UnitKind): { unit?: Unit, otherKind?: UnitKind } {
  let otherKind: UnitKind | undefined
  for (const unit of Object.values(UNITS) as Unit[]) {
    if (!unit.names.includes(name)) continue
    if (unit.kind === kind) return { unit }
    otherKind ??= unit.kind
  }
  return { otherKind }
}

/**
 * Reads a quantity typed by a person, with or without a unit; compound forms add up (`5 lb 4 oz`, `1 ft 2 in`).
 * @param kind what the field holds; `oz` means fluid ounces in a volume field and ounces of weight in a weight field.
 * @returns SI value, or why it cannot be read.
 */
export function parseQuantity(text: string, kind: UnitKind, prefs: UnitPreferences = METRIC): Parsed {
  let rest = text.toLowerCase().replace(/[½⅓⅔¼¾⅛⅜⅝⅞⅕]/g, c => ` ${VULGAR[c]}`).replace(/−/g, '-').trim()
  if (rest === '') return { ok: false, kind, code: 'nothing-typed' }
  let total = 0
  let parts = 0
  while (rest !== '') {
    NUMBER.lastIndex = 0
    const number = NUMBER.exec(rest)
    const value = number ? parseNumber(number[0]) : undefined
    if (!number || value === undefined || !Number.isFinite(value)) {
      return { ok: false, kind, code: 'not-a-quantity', typed: text.trim() }
    }
    rest = rest.slice(number[0].length).trim()
    const name = (/^[^\d\s.,+-][^\d,+-]*/.exec(rest)?.[0] ?? '').trim().replace(/\.$/, '')
    rest = rest.slice(/^[^\d\s.,+-][^\d,+-]*/.exec(rest)?.[0].length ?? 0).trim()
    if (name === '' && parts > 0) {
      return { ok: false, kind, code: 'number-without-unit', typed: text.trim() }
    }
    const { unit, otherKind } = name === ''
      ? { unit: UNITS[defaultUnit(kind, prefs)] as Unit, otherKind: undefined }
      : findUnit(name, kind)
    if (!unit) {
      return otherKind
        ? { ok: false, kind, code: 'other-unit', unit: name, measures: otherKind }
        : { ok: false, kind, code: 'unknown-unit', unit: name }
    }
    if (parts > 0 && kind === 'temperature')
      return { ok: false, kind, code: 'one-temperature' }
    total += unit.toSi(value)
    parts++
  }
  if (total < 0 && kind !== 'temperature') return { ok: false, kind, code: 'below-nothing' }
  return { ok: true, value: total }
}
