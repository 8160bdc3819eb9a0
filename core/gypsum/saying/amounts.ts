import { normalise } from '../../units/reading/normalise'
import { numberAt, readNumber, type Decimal } from '../../units/reading/numbers'
import { unitAt, type ReadUnit } from '../../units/reading/unit-names'

/** The amounts that a saying names, with their units and of what they are. */

export type Stuff = 'water' | 'powder' | 'silica'
export interface Amount {
  readonly count: number
  /** What its unit may be; none where it is a number alone. */
  readonly units: readonly ReadUnit[]
  /** It is counted in scoops or measures: equal volumes. */
  readonly scoops?: boolean
  readonly of?: Stuff
}
export interface Said {
  readonly amounts: readonly Amount[]
  /** Two amounts where one is wanted: `2-3 to 1`. */
  readonly range?: true
  /** Something in it looks like a number and is none: `1,1,1`. */
  readonly unread?: true
}

const STUFF: readonly (readonly [Stuff, RegExp])[] = [
  ['water', /\bwater\b/], ['silica', /\b(silica|sand|flint)\b/],
  ['powder', /\b(powder|plaster|gypsum|stone|cement|investment)\b/],
]
const SCOOPS = /^(scoops?|scoopfuls?|measures?|handfuls?|buckets?|volumes?)\b/
/** A fraction of a whole, and not two amounts with a stroke between them. */
const FRACTION = /^(?:(\d+)[ -])?(\d+)\/(\d+)$/

/** All that some text says of what amounts are, in its order. */
function stuffsIn(text: string): readonly Stuff[] {
  const at = STUFF.map(([stuff, name]) => ({ stuff, index: text.search(name) })).filter(f => f.index >= 0)
  return at.sort((a, b) => a.index - b.index).map(f => f.stuff)
}
/** What stands first in some text that says of what an amount is. */
const stuffIn = (text: string): Stuff | undefined => stuffsIn(text)[0]

/** `twice as much plaster as water`, `equal parts`: as two numbers. */
function comparison(text: string): string {
  return text
    .replace(/\btwice (?:as|the)\b/g, '2 times as')
    .replace(/\b(?:half|1\/2) as (?:much|many) (\w+) as (\w+)/g, '1 $1 2 $2')
    .replace(/\b(?:half|1\/2) as (?:much|many) water$/g, '1 water 2 powder')
    .replace(/^(?:2 times as|double the) (powder|plaster|stone)$/g, '2 $1 1 water')
    .replace(/\bhalf (?:its|the) weight (?:in|of) water\b/g, '1 water 2 powder by weight')
    .replace(/(\d+(?:[.,]\d+)?|\d+ \d+\/\d+) times as (?:much|many)? ?(\w+) (?:as|of) (\w+)/g, '$1 $2 1 $3')
    .replace(/\b(?:equal|same) weights?(?: of)?\b/g, '1 to 1 by weight')
    .replace(/\b(?:equal (?:parts|amounts|measures)|same amount|as much \w+ as \w+|half and half|like for like)\b/g, '1 to 1')
}

/** One way of writing for all that stands between two amounts: `10#/gal` is `10 lb to 1 gal`. */
export function plainSaying(text: string): string {
  const said = comparison(normalise(text))
  // “Quart to 2¾ pounds”: one of it.
  const counted = unitAt(said, ['mass', 'volume']) || SCOOPS.test(said) ? `1 ${said}` : said
  return counted
    .replace(/(\d)\s*#/g, '$1 lb')
    .replace(/\s*(?:\/|\bper\b|\bto the\b)\s*(?=[a-z])/g, (between, at: number, whole: string) =>
      unitAt(whole.slice(at + between.length), ['mass', 'volume']) ? ' to 1 ' : between)
}

/** The number at the beginning of some text: a fraction only where it is one. */
function numberIn(text: string): string | undefined {
  const written = numberAt(text)
  if (written === undefined) return undefined
  const fraction = FRACTION.exec(written)
  if (!fraction) return written
  const [, whole, over, under] = fraction, isPart = Number(over) < Number(under) && Number(under) <= 16
  return isPart ? written : whole === undefined ? over! : `${whole}`
}

interface Found extends Omit<Amount, 'of'> { readonly from: number, readonly to: number }

/** Every amount of a plain saying, in its order; nothing where a number cannot be read. */
function found(said: string, decimal: Decimal): readonly Found[] | undefined {
  const all: Found[] = []
  let at = 0
  while (at < said.length) {
    const before = said[at - 1] ?? ' '
    const written = /[\d.,]/.test(said[at]!) && !/[a-z\d]/.test(before) ? numberIn(said.slice(at)) : undefined
    if (written === undefined) {
      at++
      continue
    }
    const number = readNumber(written, decimal)
    if (!number) return undefined
    const after = said.slice(at + written.length), gap = /^\s*/.exec(after)![0].length, rest = after.slice(gap)
    const scoops = SCOOPS.exec(rest)?.[0], unit = scoops ? undefined : unitAt(rest, ['mass', 'volume'])
    const to = at + written.length + gap + (scoops ?? unit?.written ?? '').length
    all.push({ count: number.value, units: unit?.units ?? [], ...scoops && { scoops: true }, from: at, to })
    // 1e3, 2x: what hangs on a number is a unit, or nothing is known of it.
    if (scoops === undefined && unit === undefined && gap === 0 && /^[a-z]/.test(rest)) return undefined
    at = to
  }
  return all
}

/** What goes on with the next smaller weight: `2 lb 12 oz`. */
const NEXT_DOWN: Readonly<Record<string, readonly [string, number]>> = { lb: ['oz', 16], kg: ['g', 1000] }
function compounded(all: readonly Found[], said: string): readonly Found[] {
  return all.reduce<readonly Found[]>((before, now) => {
    const last = before.at(-1), down = last && NEXT_DOWN[last.units[0]?.id ?? '']
    if (!last || !down || now.units[0]?.id !== down[0] || now.count >= down[1]) return [...before, now]
    if (!/^\s*(?:and|,)?\s*$/.test(said.slice(last.to, now.from))) return [...before, now]
    return [...before.slice(0, -1), { ...last, count: last.count + now.count / down[1], to: now.to }]
  }, [])
}

/**
 * Two amounts with nothing but words behind them: `2:1 plaster to water` names both in their order; `2 to 1 plaster`
 * says of plain numbers no more than that they are about plaster.
 */
function namedAfter(all: readonly Found[], tail: string): readonly (Stuff | undefined)[] | undefined {
  const named = stuffsIn(tail)
  if (named.length > 1) return named
  return all.every(f => f.units.length === 0 && !f.scoops) ? [] : undefined
}

/**
 * What a saying names. Where its first amount comes after its own word (`water 700 plaster 1000`), so do all; else the
 * word follows (`700 g water to 1 kg plaster`).
 */
export function amountsOf(said: string, decimal: Decimal = '.'): Said {
  const each = /(?:^|[:/]|\bto)\s*-\s*\d/.test(said) ? undefined : found(said, decimal)
  if (!each) return { amounts: [], unread: true }
  const all = compounded(each, said)
  const between = all.map((f, i) => said.slice(f.to, all[i + 1]?.from ?? said.length))
  const ahead = [said.slice(0, all[0]?.from ?? 0), ...between.slice(0, -1)]
  const wordsAhead = stuffIn(ahead[0]!) !== undefined && stuffIn(between.at(-1) ?? '') === undefined
  const bareBefore = all.length === 2 && ![ahead[0]!, between[0]!].some(text => stuffIn(text))
  const after = bareBefore ? namedAfter(all, between[1]!) : undefined
  const amounts = all.map(({ from: _, to: __, ...amount }, i): Amount => {
    const of = after ? after[i] : stuffIn((wordsAhead ? ahead : between)[i]!)
    return of ? { ...amount, of } : amount
  })
  // 2-3 to 1 is a range; 2-1 is two to one.
  const range = amounts.length > 2 && between.some(b => b.trim() === '-')
  return { amounts, ...range && { range } }
}
