import { regionOf, type Region, type UnitKind, type UnitPreferences } from '../units'
import { normalise } from './normalise'
import { numberAt, readNumber, type Decimal, type NumberRead } from './numbers'
import { scaleOf, unitsNamed, type ReadUnit } from './unit-names'

/**
 * One reader for everything that is typed as an amount. What can be two things is settled by the workshop's own choice
 * and by what makes sense in its field; where both do, it is asked; what makes none is refused, never summed.
 */

/** What a field holds: SI, and what makes sense in it. */
export interface Field {
  readonly kind: UnitKind
  readonly from?: number
  readonly to?: number
  /** What a bare number of time is. */
  readonly bare?: 'min' | 'day'
}
/** How a workshop writes. */
export interface Writing {
  readonly prefs: UnitPreferences
  /** Whose cups and pints; not told yet where it is left out. */
  readonly region?: Region
  readonly decimal?: Decimal
}
/** A workshop's way of writing: who shows volumes in cups has said whose. */
export function writingOf(prefs: UnitPreferences): Writing {
  const region = regionOf(prefs)
  return { prefs, ...region && { region }, ...prefs.decimal && { decimal: prefs.decimal } }
}

export interface Part { readonly amount: number, readonly unit: ReadUnit }
export interface Reading { readonly value: number, readonly parts: readonly Part[] }
/** Why nothing was read. */
export type UnreadCode
  = | 'nothing-typed' | 'no-number' | 'comma-and-space' | 'two-numbers' | 'range' | 'two-measures' | 'brackets'
    | 'number-without-unit' | 'unknown-unit' | 'other-unit' | 'below-nothing' | 'one-temperature' | 'too-little'
    | 'too-much'
type OtherUnread = Exclude<UnreadCode, 'too-little' | 'too-much'>
export type Read
  = | { readonly code: 'read', readonly reading: Reading, readonly other?: Reading }
    /** `plain` is how it reads by the workshop's habit, where that makes no sense here. */
    | { readonly code: 'ask', readonly options: readonly Reading[], readonly plain?: number }
    | { readonly code: 'too-little' | 'too-much', readonly value: number, readonly limit: number }
    | { readonly code: OtherUnread, readonly unit?: string, readonly measures?: UnitKind }

interface Found {
  readonly number: NumberRead
  readonly units: readonly ReadUnit[]
  /** A temperature of which nobody said on what scale. */
  readonly scaleless?: boolean
  /** A fraction without a unit where lengths are metric: nobody divides a millimetre by eight. */
  readonly inchwise?: boolean
}
class Unreadable extends Error {
  constructor(readonly why: Exclude<Read, { code: 'read' | 'ask' }>) { super(why.code) }
}
const refuse = (code: OtherUnread, more: { readonly unit?: string, readonly measures?: UnitKind } = {}): never => {
  throw new Unreadable({ code, ...more })
}

const UNIT_TEXT = /^(?:(?:cm|dm|in|ft|m)3(?!\d)|(?:sq|cu)?[^\d,+\-:;()[\]/]+)/
const JOINER = /^(?:,|\+|-|&|;)\s*/
/** What a bare last number is after a unit, and how many of it there are in one. */
const NEXT_DOWN: Readonly<Record<string, readonly [string, number]>> = {
  h: ['min', 60], min: ['s', 60], lb: ['oz', 16], foot: ['in', 12],
}

/** What is plainly no single amount. */
function checkWhole(text: string): void {
  if (text === '') refuse('nothing-typed')
  if (/[()[\]]/.test(text)) refuse('brackets')
  if (/\d\s*,\s+\d/.test(text)) refuse('comma-and-space')
  if (/\d\s*(?:x|×|\*|by)\s*\d/.test(text)) refuse('two-measures')
  if (/\d\s*(?:to|or|bis|\.\.+|…)\s*\d/.test(text)) refuse('range')
}

/** The units of a name that this field can hold. */
function unitsOf(name: string, { kind }: Field): readonly ReadUnit[] {
  const all = unitsNamed(name), own = all.filter(u => u.kind === kind)
  if (all.length === 0) refuse('unknown-unit', { unit: name })
  if (own.length === 0) refuse('other-unit', { unit: name, measures: all[0]!.kind })
  return own
}
function bareUnits({ kind, bare = 'min' }: Field, { prefs }: Writing): readonly ReadUnit[] {
  if (kind === 'temperature') return [scaleOf(prefs.temperature)]
  return unitsNamed(kind === 'time' ? bare : prefs[kind]).filter(u => u.kind === kind)
}

/** `5:30`: minutes and seconds at the bench, hours and minutes of days. */
function readClock(text: string, { kind, bare = 'min' }: Field): readonly Found[] | undefined {
  const clock = kind === 'time' && /^(\d+):(\d\d)(?::(\d\d))?$/.exec(text)
  if (!clock) return undefined
  const names = clock[3] ? ['h', 'min', 's'] : bare === 'min' ? ['min', 's'] : ['h', 'min']
  return names.map((name, i) => {
    const value = Number(clock[i + 1])
    if (i > 0 && value >= 60) refuse('no-number')
    return { number: { value }, units: unitsNamed(name).filter(u => u.kind === kind) }
  })
}

/** Numbers with their units, one after the other. */
function partsOf(text: string, field: Field, writing: Writing): readonly Found[] {
  const clock = readClock(text, field)
  if (clock) return clock
  const found: Found[] = []
  let rest = text
  while (rest !== '') {
    const written = numberAt(rest)
    if (written === undefined) return refuse('no-number')
    const number = readNumber(written, writing.decimal ?? '.')
    if (!number || !Number.isFinite(number.value)) return refuse('no-number')
    rest = rest.slice(written.length).trimStart()
    if (/^-\s*\d/.test(rest)) refuse('range')
    const unit = UNIT_TEXT.exec(rest)?.[0] ?? ''
    const name = unit.replace(/\s+and\s*$/, '').trim().replace(/\.$/, '')
    rest = rest.slice(unit.length).replace(JOINER, '').trimStart()
    const before = found.at(-1)?.units[0]
    if (name === '°' && field.kind === 'temperature')
      found.push({ number, units: bareUnits(field, writing), scaleless: true })
    else if (name !== '') found.push({ number, units: unitsOf(name, field) })
    else if (rest !== '') refuse(/^\d/.test(rest) ? 'two-numbers' : 'no-number')
    else if (!before)
      found.push({
        number, units: bareUnits(field, writing), scaleless: field.kind === 'temperature',
        inchwise: field.kind === 'length' && writing.prefs.length === 'mm' && written.includes('/'),
      })
    else {
      const [next, many] = NEXT_DOWN[before.id] ?? refuse('number-without-unit')
      if (number.value >= many) refuse('number-without-unit')
      found.push({ number, units: unitsOf(next, field) })
    }
  }
  return found
}

const METRIC_IDS: ReadonlySet<string> = new Set(['mg', 'g', 'kg', 't', 'ml', 'cl', 'dl', 'l', 'm3', 'mm', 'cm', 'm'])
/** What adds up goes down from unit to unit of one kind; anything else is a range, or says one thing twice. */
function checkParts(found: readonly Found[]): void {
  found.slice(1).forEach(({ units: [unit] }, i) => {
    const before = found[i]!.units[0]!
    if (unit!.id === before.id) refuse('range')
    if (METRIC_IDS.has(unit!.id) !== METRIC_IDS.has(before.id) || unit!.toSi(1) >= before.toSi(1)) refuse('two-measures')
  })
}

/** Which of the sizes that a name has are meant; two where nobody has said. */
export function regional(units: readonly ReadUnit[], { region }: Writing): readonly ReadUnit[] {
  if (units.length < 2) return units
  const own = units.filter(u => u.region === region)
  if (region && own.length > 0) return own
  const metric = units.filter(u => u.region === 'metric')
  // A spoon of 15 or 5 ml is nearly the same everywhere; a cup is not.
  if (metric.length > 0 && (region !== undefined || units[0]!.id !== 'cup')) return metric
  return metric.length > 0 ? units.filter(u => u.region !== 'imperial') : units
}

function readingOf(parts: readonly Part[], sign: number): Reading {
  const signed = parts.map((p, i) => i === 0 && sign < 0 ? { ...p, amount: -p.amount } : p)
  return { parts: signed, value: signed.reduce((sum, p) => sum + p.unit.toSi(p.amount), 0) }
}

/** What one amount with its units may mean, the likeliest first. */
function meanings(found: readonly Found[], sign: number, writing: Writing): {
  readonly readings: readonly Reading[]
  readonly others: readonly Reading[]
} {
  const sizes = found.map(f => regional(f.units, writing))
  const choices = Math.max(...sizes.map(s => s.length))
  const readings = Array.from({ length: choices }, (_, c) => readingOf(
    found.map((f, i) => ({ amount: f.number.value, unit: sizes[i]![Math.min(c, sizes[i]!.length - 1)]! })), sign,
  ))
  const others: Reading[] = []
  const [only] = found
  if (found.length === 1 && only!.number.other !== undefined)
    others.push(...sizes[0]!.map(unit => readingOf([{ amount: only!.number.other!, unit }], sign)))
  if (found.length === 1 && only!.scaleless)
    others.push(readingOf([{ amount: only!.number.value, unit: scaleOf(sizes[0]![0]!.id === 'C' ? 'F' : 'C') }], sign))
  if (only!.inchwise && found.length === 1) {
    const inches = readingOf([{ amount: only!.number.value, unit: unitsNamed('inch')[0]! }], sign)
    return { readings: [inches], others: readings }
  }
  return { readings, others }
}

/**
 * Reads what was typed into a field: taken and to be echoed; asked, where two readings make sense or the plain one
 * makes none; or refused, with what is wrong.
 * @example readQuantity('1 lb 4', { kind: 'mass' }, { prefs: METRIC }) // read, 0.567 kg
 */
export function readQuantity(typed: string, field: Field, writing: Writing): Read {
  const { from = -Infinity, to = Infinity } = field
  // Nothing at all is no other reading of anything: whoever has the field says whether it will do.
  const makesSense = ({ value }: Reading) => value === 0 || (value >= from && value <= to)
  try {
    const text = normalise(typed), sign = text.startsWith('-') ? -1 : 1, plain = text.replace(/^[-+]\s*/, '')
    checkWhole(plain)
    const found = partsOf(plain, field, writing)
    if (found.length > 1 && field.kind === 'temperature') refuse('one-temperature')
    checkParts(found)
    const { readings, others } = meanings(found, sign, writing), [first] = readings
    if (first!.value < 0 && field.kind !== 'temperature') refuse('below-nothing')
    const sane = readings.filter(makesSense), second = others.filter(makesSense)
    if (sane.length > 1) return { code: 'ask', options: sane }
    if (sane.length === 1) return { code: 'read', reading: sane[0]!, ...second[0] && { other: second[0] } }
    if (second.length > 0) return { code: 'ask', options: second, plain: first!.value }
    const { value } = first!
    return value < from ? { code: 'too-little', value, limit: from } : { code: 'too-much', value, limit: to }
  }
  catch (error) {
    if (error instanceof Unreadable) return error.why
    throw error
  }
}
