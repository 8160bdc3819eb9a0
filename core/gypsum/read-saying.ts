import { UNITS, type Unit } from '../units/units'
import { waterDensity } from './mix'
import type { PowderClass, Span } from './powders'
import { SAID, spread, type Reading } from './sayings'
import { ratioOf, type Scoop } from './schools'

/** Reads a rule of thumb as people type it. */

type Understood
  = | { readonly ok: true, readonly readings: readonly Reading[] }
    | { readonly ok: false, readonly code: UnreadSaying }
/** Why what was typed says no ratio. */
export type UnreadSaying = 'not-two-amounts' | 'nothing' | 'water-without-unit' | 'powder-without-unit'

const NUMBERS: Readonly<Record<string, number>> = {
  half: 0.5,
  a: 1,
  an: 1,
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
}
/** Words for an amount that has no size of its own: equal measures by volume. */
const MEASURE = /^(scoops?|measures?)$/
const NAMED = new Map<string, Unit>()
for (const unit of Object.values<Unit>(UNITS))
  if (unit.kind === 'mass' || unit.kind === 'volume') {
    for (const name of unit.names) if (/^[a-z]{1,}$/.test(name) && name !== 'c' && !NAMED.has(name)) NAMED.set(
      name,
      unit,
    )
  }
const AMOUNT = new RegExp(
  `(?<![a-z\\d.,])(\\d+(?:[.,]\\d+)?|${Object.keys(NUMBERS).join('|')})\\s*(${
    [...NAMED.keys(), 'scoops?', 'measures?', 'parts?'].sort((a, b) => b.length - a.length).join('|')
  })?\\b`,
  'g',
)

interface Amount {
  readonly count: number
  readonly word: string
  readonly unit?: Unit
  readonly of?: 'water' | 'powder'
}

function amountsIn(said: string): Amount[] {
  const found = [...said.matchAll(AMOUNT)].filter(m => !/^an?$/.test(m[1]!) || m[2] !== undefined)
  return found.map((m, i) => {
    const after = said.slice(m.index + m[0].length, found[i + 1]?.index ?? said.length)
    const word = m[2] ?? ''
    return {
      count: NUMBERS[m[1]!] ?? Number(m[1]!.replace(',', '.')),
      word,
      unit: NAMED.get(word),
      of: /\bwater\b/.test(after) ? 'water' : /\b(powder|plaster|gypsum)\b/.test(after) ? 'powder' : undefined,
    }
  })
}

/** kg of water in an amount that has a unit. */
function waterMass({ count, unit }: Amount, t: number): number | undefined {
  if (!unit) return undefined
  return unit.kind === 'mass' ? unit.toSi(count) : unit.toSi(count) * waterDensity(t)
}

/**
 * `2:1`, `three to one by volume`, `10 lb to a gallon`, `2 cups powder to 1 cup water`, `70 water to 100 powder`.
 * The first amount is powder unless the words say which is water. Said without “of what”, it is read both ways.
 */
export function readSaying(
  text: string,
  powder: PowderClass,
  filling: Scoop['filling'],
  bulk?: Span,
  t = 20,
): Understood {
  const said = text.toLowerCase().replace(/[:/]/g, ' to ')
  const amounts = amountsIn(said)
  if (amounts.length !== 2)
    return { ok: false, code: 'not-two-amounts' }
  const [first, second] = amounts as [Amount, Amount]
  const waterFirst = first.of === 'water' || second.of === 'powder'
  const [dry, water] = waterFirst ? [second, first] : [first, second]
  if (!(dry.count > 0 && water.count > 0)) return { ok: false, code: 'nothing' }
  const byVolume = (parts: number): Reading => ({
    code: 'by-volume',
    ratio: ratioOf('scoops', powder, 0, t, { volume: 2.5e-4, filling, perWater: parts }, bulk),
  })
  const byWeight = (ratio: number): Reading => ({ code: 'by-weight', ratio: spread(ratio, 0.015, SAID) })
  const mass = waterMass(water, t)
  if (dry.unit?.kind === 'mass') {
    return mass === undefined
      ? { ok: false, code: 'water-without-unit' }
      : { ok: true, readings: [byWeight(mass / dry.unit.toSi(dry.count))] }
  }
  if (dry.unit?.kind === 'volume') {
    const volume = mass === undefined ? dry.unit.toSi(water.count) : mass / waterDensity(t)
    return { ok: true, readings: [byVolume(dry.unit.toSi(dry.count) / volume)] }
  }
  if (water.unit)
    return { ok: false, code: 'powder-without-unit' }
  const volume = byVolume(dry.count / water.count), weight = byWeight(water.count / dry.count)
  if (/\b(weight|weighed|mass)\b/.test(said)) return { ok: true, readings: [weight] }
  if (/\b(volume|eye)\b/.test(said) || MEASURE.test(dry.word) || MEASURE.test(water.word))
    return { ok: true, readings: [volume] }
  return { ok: true, readings: [volume, weight] }
}
