import { UNITS, defaultUnit, type Unit, type UnitKind, type UnitPreferences, METRIC } from './units'

export type Parsed = { readonly ok: true, readonly value: number } | { readonly ok: false, readonly sentence: string }

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
const EXAMPLE: Record<UnitKind, string> = {
  mass: '1 240 g or 2 1/2 lb',
  volume: '750 ml or 1 1/2 cup',
  length: '120 mm or 4 3/4 in',
  temperature: '18 °C or 65 F',
  time: '4 min or 90 s',
}
const KIND_WORD: Record<UnitKind, string> = {
  mass: 'a weight', volume: 'a volume', length: 'a length', temperature: 'a temperature', time: 'a time',
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
 * @returns SI value, or a sentence that says what to type instead.
 */
export function parseQuantity(text: string, kind: UnitKind, prefs: UnitPreferences = METRIC): Parsed {
  let rest = text.toLowerCase().replace(/[½⅓⅔¼¾⅛⅜⅝⅞⅕]/g, c => ` ${VULGAR[c]}`).replace(/−/g, '-').trim()
  if (rest === '') return { ok: false, sentence: `Type ${KIND_WORD[kind]}, such as ${EXAMPLE[kind]}.` }
  let total = 0
  let parts = 0
  while (rest !== '') {
    NUMBER.lastIndex = 0
    const number = NUMBER.exec(rest)
    const value = number ? parseNumber(number[0]) : undefined
    if (!number || value === undefined || !Number.isFinite(value)) {
      return {
        ok: false,
        sentence: `“${text.trim()}” is not ${KIND_WORD[kind]} this field can read. Type it like ${EXAMPLE[kind]}.`,
      }
    }
    rest = rest.slice(number[0].length).trim()
    const name = (/^[^\d\s.,+-][^\d,+-]*/.exec(rest)?.[0] ?? '').trim().replace(/\.$/, '')
    rest = rest.slice(/^[^\d\s.,+-][^\d,+-]*/.exec(rest)?.[0].length ?? 0).trim()
    if (name === '' && parts > 0) {
      return {
        ok: false,
        sentence: `“${text.trim()}” has a number without a unit after another with one. Type it like ${EXAMPLE[kind]}.`,
      }
    }
    const { unit, otherKind } = name === ''
      ? { unit: UNITS[defaultUnit(kind, prefs)] as Unit, otherKind: undefined }
      : findUnit(name, kind)
    if (!unit) {
      return otherKind
        ? {
            ok: false,
            sentence: `“${name}” measures ${KIND_WORD[otherKind]}; this field needs ${KIND_WORD[kind]}, such as ${
              EXAMPLE[kind]
            }.`,
          }
        : { ok: false, sentence: `“${name}” is not a unit known here. Type ${KIND_WORD[kind]} like ${EXAMPLE[kind]}.` }
    }
    if (parts > 0 && kind === 'temperature')
      return { ok: false, sentence: `Type one temperature, such as ${EXAMPLE.temperature}.` }
    total += unit.toSi(value)
    parts++
  }
  if (total < 0 && kind !== 'temperature')
    return {
      ok: false,
      sentence: `${KIND_WORD[kind][0]!.toUpperCase()}${KIND_WORD[kind].slice(1)} cannot be less than nothing here.`,
    }
  return { ok: true, value: total }
}
