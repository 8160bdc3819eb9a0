import { readQuantity, writingOf, type Read, type Reading } from './reading/read-quantity'
import { METRIC, type UnitKind, type UnitPreferences } from './units'

/** Why what was typed is no quantity of this kind. */
export type Unread = { readonly kind: UnitKind } & (
  | { readonly code: 'nothing-typed' | 'one-temperature' | 'below-nothing' }
  | {
    readonly code: 'not-a-quantity' | 'number-without-unit' | 'range' | 'brackets' | 'two-measures' | 'two-numbers'
      | 'comma-and-space'
    readonly typed: string
  }
  | { readonly code: 'two-meanings', readonly options: readonly Reading[], readonly plain?: number }
  | { readonly code: 'too-little' | 'too-much', readonly value: number, readonly limit: number }
  | { readonly code: 'unknown-unit', readonly unit: string }
  | { readonly code: 'other-unit', readonly unit: string, readonly measures: UnitKind }
)
export type Parsed = { readonly ok: true, readonly value: number } | ({ readonly ok: false } & Unread)

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

/** Why nothing was read, with what its sentence needs; none when it was. */
export function unreadOf(found: Exclude<Read, { code: 'read' }>, kind: UnitKind, typed: string): Unread {
  switch (found.code) {
    case 'ask': return { kind, ...found, code: 'two-meanings' }
    case 'unknown-unit': return { kind, code: 'unknown-unit', unit: found.unit ?? '' }
    case 'other-unit': return { kind, code: 'other-unit', unit: found.unit ?? '', measures: found.measures ?? kind }
    case 'no-number': return { kind, code: 'not-a-quantity', typed }
    case 'too-little':
    case 'too-much': return { kind, ...found }
    case 'nothing-typed':
    case 'one-temperature':
    case 'below-nothing': return { kind, code: found.code }
    default: return { kind, code: found.code, typed }
  }
}

/**
 * Reads a quantity typed by a person, with or without a unit; compound forms add up (`5 lb 4 oz`, `1 ft 2 in`).
 * @param kind what the field holds; `oz` means fluid ounces in a volume field and ounces of weight in a weight field.
 * @returns SI value, or why it cannot be read.
 */
export function parseQuantity(text: string, kind: UnitKind, prefs: UnitPreferences = METRIC): Parsed {
  const found = readQuantity(text, { kind }, writingOf(prefs))
  return found.code === 'read'
    ? { ok: true, value: found.reading.value }
    : { ok: false, ...unreadOf(found, kind, text.trim()) }
}
