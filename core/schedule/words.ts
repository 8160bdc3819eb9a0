import { problemWords } from '../plan/words'
import { listed } from '../units/sentences'
import type { UnitPreferences } from '../units/units'
import type { Bottleneck } from './bounds'
import type { Block, DayRow } from './day'
import type { HelpCode } from './help'
import type { OrderProblem } from './order'
import type { Goal } from './round'

/** What is said of orders and their rounds. Nothing reads these sentences. */

export const GOAL_WORDS: Readonly<Record<Goal, { readonly name: string, readonly how: string }>> = {
  'soonest': { name: 'Soonest', how: 'The last piece is out as soon as can be, whatever it takes in buckets.' },
  'most': { name: 'As many as possible', how: 'As many pieces as can be out by then.' },
  'least work': { name: 'Least work', how: 'On time, with as few buckets to weigh, sift and clean as will do.' },
}

export const BLOCK_WORDS: Readonly<Record<Block['what'], string>> = {
  'weigh': 'weigh', 'sift': 'sift', 'fill': 'stir and fill', 'clean': 'clean', 'open': 'open', 'set': 'setting', 'in-use': 'in use',
}

export const BOTTLENECK_WORDS: Readonly<Record<Bottleneck, string>> = {
  'moulds': 'The moulds hold it back: they are never free for long.',
  'hands': 'Hands hold it back: there is always something to do.',
  'buckets': 'The buckets hold it back.',
  'hands-and-moulds': 'Hands and moulds hold it back together.',
}

/** What stands in the way of an order, and what to do. @param nameOf a mould's name by its id */
export function orderProblemWords(
  problem: OrderProblem, nameOf: (mould: string) => string | undefined, units: UnitPreferences,
): string {
  switch (problem.code) {
    case 'no-lines': return 'Choose what is to be made.'
    case 'no-hours': return 'Nobody is there before it is due. Say who works, and when.'
    case 'mould-gone': return 'One of these moulds was put away. Take it out of the order, or bring it back under Moulds.'
    case 'pours-too-late':
      return `${nameOf(problem.mould) ?? 'A mould'}: even one alone is filled too late for this powder. Take colder water, a slower`
        + ' powder, or a smaller mould.'
    case 'plan': return problemWords(problem.problem, units)
  }
}

/** What would help, as a person would say it. @param more minutes that somebody begins earlier or stays longer */
export function helpWords(code: HelpCode, shape: string | undefined, more: number): string {
  switch (code) {
    case 'copy': return `One more mould of ${shape ?? 'it'}`
    case 'person': return 'A second pair of hands'
    case 'bucket': return 'One more bucket'
    case 'larger-bucket': return 'A bucket half as large again'
    case 'earlier': return `Begin ${more} min earlier each day`
    case 'longer': return `Stay ${more} min longer each day`
  }
}

/** One row of the drawing in one sentence, from its own numbers. */
export function rowWords({ blocks }: DayRow, name: string, timeOf: (unit: number) => string): string {
  const said = blocks.filter(b => b.what !== 'set').map(b => `${BLOCK_WORDS[b.what]} ${timeOf(b.from)}`)
  return said.length === 0 ? `${name}: not needed.` : `${name}: ${listed(said)}.`
}
