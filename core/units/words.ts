import { capital, sentenceOf, type Sentences } from './sentences'
import type { Unread } from './parse'
import type { Region } from './reading/unit-names'
import type { UnitKind } from './units'

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

const REGION_WORD: Readonly<Record<Region, string>> = { us: 'a US', imperial: 'an imperial', metric: 'a metric' }
const UNIT_WORD: Readonly<Record<string, string>> = { qt: 'quart', gal: 'gallon', floz: 'fluid ounce' }
const likeThis = (kind: UnitKind) => `Type it like ${EXAMPLE[kind]}.`
const UNREAD: Sentences<Unread> = {
  'nothing-typed': ({ kind }) => `Type ${KIND_WORD[kind]}, such as ${EXAMPLE[kind]}.`,
  'not-a-quantity': ({ kind, typed }) => `“${typed}” is not ${KIND_WORD[kind]} this field can read. ${likeThis(kind)}`,
  'number-without-unit': ({ kind, typed }) =>
    `“${typed}” has a number without a unit after another with one. ${likeThis(kind)}`,
  'other-unit': ({ kind, unit, measures }) =>
    `“${unit}” measures ${KIND_WORD[measures]}; this field needs ${KIND_WORD[kind]}, such as ${EXAMPLE[kind]}.`,
  'unknown-unit': ({ kind, unit }) =>
    `“${unit}” is not a unit known here. Type ${KIND_WORD[kind]} like ${EXAMPLE[kind]}.`,
  'two-meanings': ({ options }) => {
    const told = options.map(({ parts: [first], value }) =>
      ({ region: first!.unit.region ?? 'metric', unit: UNIT_WORD[first!.unit.id] ?? first!.unit.id, ml: Math.round(1e6 * value) }))
    const each = told.map(({ region, unit, ml }) => `${REGION_WORD[region]} ${unit} (${ml} ml)`)
    return `${capital(each.join(' or '))}? Type ${told.map(t => t.region === 'us' ? 'US' : t.region).join(' or ')} before it.`
  },
  'range': ({ typed }) => `“${typed}” is more than one amount. Type the one you will use.`,
  'brackets': ({ typed }) => `“${typed}” says it twice. Type it once, without brackets.`,
  'two-measures': ({ typed }) => `“${typed}” is two measures. Type one.`,
  'two-numbers': ({ typed }) => `“${typed}” is two numbers with one unit. Type one number.`,
  'comma-and-space': ({ kind, typed }) => `“${typed}” may be one number or two. ${likeThis(kind)}`,
  'one-temperature': `Type one temperature, such as ${EXAMPLE.temperature}.`,
  'below-nothing': ({ kind }) => `${capital(KIND_WORD[kind])} cannot be less than nothing here.`,
}
/** What to type instead. */
export const unreadWords = (unread: Unread) => sentenceOf(UNREAD, unread)
