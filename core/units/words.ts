import { capital, sentenceOf, type Sentences } from './sentences'
import type { Unread } from './parse'
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
  'one-temperature': `Type one temperature, such as ${EXAMPLE.temperature}.`,
  'below-nothing': ({ kind }) => `${capital(KIND_WORD[kind])} cannot be less than nothing here.`,
}
/** What to type instead. */
export const unreadWords = (unread: Unread) => sentenceOf(UNREAD, unread)
