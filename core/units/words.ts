import { capital, sentenceOf, type Sentences } from './sentences'
import type { Unread } from './parse'
import { formatQuantity, roundTo } from './format'
import type { Reading } from './reading/read-quantity'
import type { Basis } from './quantity'
import { METRIC, type Region, type UnitKind, type UnitPreferences } from './units'

/** What is said of a quantity that could not be read. */

const EXAMPLE: Readonly<Record<UnitKind, string>> = {
  mass: '1 240 g or 2 1/2 lb',
  volume: '750 ml or 1 1/2 cup',
  length: '120 mm or 4 3/4 in',
  temperature: '18 °C or 65 F',
  time: '4 min or 90 s',
}
const KIND_WORD: Readonly<Record<UnitKind, string>> = {
  mass: 'a weight', volume: 'a volume', length: 'a length', temperature: 'a temperature', time: 'a time',
}

const REGION_WORD: Readonly<Record<Region, string>> = { us: 'US', imperial: 'imperial', metric: 'metric' }
/** How a unit is written after one and after several; the others by their own name. */
const UNIT_WORD: Readonly<Record<string, readonly [string, string]>> = {
  floz: ['fl oz', 'fl oz'], cup: ['cup', 'cups'], gill: ['gill', 'gills'], pint: ['pint', 'pints'],
  qt: ['quart', 'quarts'], gal: ['gallon', 'gallons'], tbsp: ['tablespoon', 'tablespoons'],
  tsp: ['teaspoon', 'teaspoons'], in3: ['in³', 'in³'], ft3: ['ft³', 'ft³'], inch: ['in', 'in'], foot: ['ft', 'ft'],
  st: ['stone', 'stone'], t: ['tonne', 'tonnes'], m3: ['m³', 'm³'], C: ['°C', '°C'], F: ['°F', '°F'], day: ['day', 'days'], week: ['week', 'weeks'],
}
const METRIC_UNITS: ReadonlySet<string> = new Set(['mg', 'g', 'kg', 't', 'ml', 'cl', 'dl', 'l', 'm3', 'mm', 'cm', 'm', 'C'])
const GLYPHS = [[1 / 2, '½'], [1 / 4, '¼'], [3 / 4, '¾'], [1 / 3, '⅓'], [2 / 3, '⅔'], [1 / 8, '⅛'], [3 / 8, '⅜'],
  [5 / 8, '⅝'], [7 / 8, '⅞']] as const

/** A number as it was typed: fractions as such where the unit is counted in them. */
function amountWords(amount: number, inFractions: boolean): string {
  const size = Math.abs(amount), whole = Math.floor(size)
  const glyph = inFractions && GLYPHS.find(([part]) => Math.abs(size - whole - part) < 1e-9)?.[1]
  if (glyph) return `${amount < 0 ? '−' : ''}${whole > 0 ? whole : ''}${glyph}`
  const digits = Math.max(0, 3 - Math.floor(Math.log10(Math.max(size, 1))))
  const plain = roundTo(amount, 10 ** -digits)
  return plain.includes('.') ? plain.replace(/\.?0+$/, '') : plain
}

/** Millilitres as they are, not as a jug shows them: `473 ml`, `4.55 l`. */
const millilitres = (m3: number) =>
  m3 < 1e-3 ? `${amountWords(Math.round(m3 * 1e6), false)} ml` : `${amountWords(Math.round(m3 * 1e5) / 100, false)} l`
function shownAs(kind: UnitKind, value: number, prefs: UnitPreferences): string {
  if (kind === 'volume' && prefs.volume === 'ml' && value >= 1e-5) return millilitres(value)
  return formatQuantity(kind, value, prefs).replace(/(\d)\.0(?=\s)/, '$1')
}

/** `1½ US cups`, `1 lb 4 oz`. */
function partsWords({ parts }: Reading): string {
  return parts.map(({ amount, unit: { id, region } }) => {
    const [one, many] = UNIT_WORD[id] ?? [id, id], word = Math.abs(amount) > 1 ? many : one
    return `${amountWords(amount, !METRIC_UNITS.has(id))} ${region ? `${REGION_WORD[region]} ` : ''}${word}`
  }).join(' ')
}

/**
 * What was understood, and what it is in grams, millilitres, millimetres or degrees Celsius, or in the workshop's own
 * units where it was typed in those: `1 lb 4 oz = 567 g`.
 */
export function readingWords(reading: Reading, kind: UnitKind, prefs: UnitPreferences): string {
  const said = partsWords(reading), metric = reading.parts.every(p => METRIC_UNITS.has(p.unit.id))
  const shown = shownAs(kind, reading.value, metric ? prefs : METRIC)
  const fluid = reading.parts.some(p => p.unit.id === 'floz') ? ', a volume' : ''
  // The same unit, rounded for a scale or a jug, says nothing more.
  const sameUnit = reading.parts.length === 1 && said.split(' ').at(-1) === shown.split(' ').at(-1)
  return sameUnit ? said : `${said} = ${shown}${fluid}`
}

/** Whether what was typed says more than it seems to: in another unit than the workshop's, or in several. */
export const wantsEcho = ({ parts }: Reading, kind: UnitKind, prefs: UnitPreferences): boolean =>
  parts.length > 1 || parts.some(({ unit: { id, region } }) => region !== undefined
    || (kind !== 'time' && id !== prefs[kind] && METRIC_UNITS.has(id) !== METRIC_UNITS.has(prefs[kind])))

/** Of two readings that both make sense, how each is called on its button: `473 ml`. */
export const optionWords = ({ value }: Reading, kind: UnitKind, prefs: UnitPreferences) =>
  shownAs(kind, value, kind === 'volume' ? METRIC : prefs)

const likeThis = (kind: UnitKind) => `Type it like ${EXAMPLE[kind]}.`
const UNREAD: Sentences<Unread, [UnitPreferences]> = {
  'nothing-typed': ({ kind }) => `Type ${KIND_WORD[kind]}, such as ${EXAMPLE[kind]}.`,
  'not-a-quantity': ({ kind, typed }) => `“${typed}” is not ${KIND_WORD[kind]} this field can read. ${likeThis(kind)}`,
  'number-without-unit': ({ kind, typed }) =>
    `“${typed}” has a number without a unit after another with one. ${likeThis(kind)}`,
  'other-unit': ({ kind, unit, measures }) =>
    `“${unit}” measures ${KIND_WORD[measures]}; this field needs ${KIND_WORD[kind]}, such as ${EXAMPLE[kind]}.`,
  'unknown-unit': ({ kind, unit }) =>
    `“${unit}” is not a unit known here. Type ${KIND_WORD[kind]} like ${EXAMPLE[kind]}.`,
  'two-meanings': ({ kind, options, plain }, prefs) => {
    const [first] = options, like = options.map(o => optionWords(o, kind, prefs))
    if (plain !== undefined)
      return `${shownAs(kind, plain, prefs)} makes no sense here. ${capital(like.join(' or '))}?`
    if (!first?.parts[0]?.unit.region) return `${capital(like.join(' or '))}?`
    return `${capital(options.map((o, i) => {
      const { id, region = 'metric' } = o.parts[0]!.unit
      return `${region === 'imperial' ? 'an' : 'a'} ${REGION_WORD[region]} ${UNIT_WORD[id]?.[0] ?? id} (${like[i]})`
    }).join(' or '))}?`
  },
  'too-little': ({ kind, value, limit }, prefs) =>
    `${shownAs(kind, value, prefs)} is less than this takes (from ${shownAs(kind, limit, prefs)}).`,
  'too-much': ({ kind, value, limit }, prefs) =>
    `${shownAs(kind, value, prefs)} is more than this takes (up to ${shownAs(kind, limit, prefs)}).`,
  'range': ({ typed }) => `“${typed}” is more than one amount. Type the one you will use.`,
  'brackets': ({ typed }) => `“${typed}” says it twice. Type it once, without brackets.`,
  'two-measures': ({ typed }) => `“${typed}” is two measures. Type one.`,
  'two-numbers': ({ typed }) => `“${typed}” is two numbers with one unit. Type one number.`,
  'comma-and-space': ({ kind, typed }) => `“${typed}” may be one number or two. ${likeThis(kind)}`,
  'one-temperature': `Type one temperature, such as ${EXAMPLE.temperature}.`,
  'below-nothing': ({ kind }) => `${capital(KIND_WORD[kind])} cannot be less than nothing here.`,
}
/** What to type instead. */
export const unreadWords = (unread: Unread, prefs: UnitPreferences = METRIC) => sentenceOf(UNREAD, unread, prefs)

/** Where a number comes from, as it is said beside it. */
export const BASIS_KIND_WORDS: Readonly<Record<Basis['kind'], string>> = {
  'physics': 'worked out',
  'published': 'published',
  'handbook from memory': 'handbook value, unchecked',
  'common practice': 'common practice',
  'engineering guess': 'a guess',
  'your own record': 'your own record',
  'model': 'by the model',
}
