import { generator } from '../numeric/generator'
import { plainly, type Standing, type Wanted } from './board'
import { anyOf, CHANGES } from './changes'
import { compareFor, possibleMixes, sumOf, type Round } from './round'
import {
  byRule, groundOf, leftAfter, planByRule, planOf, repairPlan, SOONER, soaksFor, type Ground, type Rule,
} from './rules'
import type { RoundPlan } from './timetable'

/**
 * A first plan by rule, at once, and better ones by iterated local search while somebody watches (Lourenço, Martin and
 * Stützle 2003; Ruiz and Stützle 2007 for taking the tail apart and building it anew; from memory). The same seed and
 * the same number of tries give the same plan everywhere.
 */

/** Tries without a better plan after which it goes back to the best. */
const FRUITLESS = 400
/** A plan of so few buckets is left sooner: there is little to change one by one. */
const FEW = 6
/** From so many pieces on, mostly the tail is built anew. */
const MANY = 30
/** A small round has no more lists of buckets than this: all are tried. */
const SHORT_LISTS = 2500

/** What a search begins with: what stands already, and the buckets of a plan that was made before. */
export interface Beginning {
  readonly standing?: Standing
  readonly before?: readonly Wanted[] | undefined
}

/** The tail is taken apart and built anew by a rule that is drawn. */
function newTail(ground: Ground, list: readonly Wanted[], draw: () => number): RoundPlan {
  const keep = Math.floor(draw() * list.length), most = 1 + Math.floor(draw() * ground.largest)
  const wait = draw() < 0.25 ? Infinity : Math.floor(draw() ** 2 * 40), soakFor = anyOf(soaksFor(ground), draw)!
  const rule: Rule = { most, wait, soakFor, sooner: anyOf(SOONER, draw)! }
  return planOf(ground, list.slice(0, keep), byRule(ground, rule, draw))
}

/** One change, or several small ones at once: they find what one alone does not. */
function changed(ground: Ground, list: readonly Wanted[], draw: () => number): RoundPlan | undefined {
  let next = anyOf(Object.values(CHANGES), draw)!(list, ground, draw)
  while (next && draw() < 0.3) next = anyOf(Object.values(CHANGES), draw)!(next, ground, draw)
  return next && planOf(ground, next)
}

/** Every list of buckets of a small round, the shortest first; of a larger one none. */
function* shortLists(ground: Ground): Generator<readonly Wanted[]> {
  const mixes = possibleMixes(ground.round, Math.sqrt(SHORT_LISTS))
  let lists: readonly (readonly Wanted[])[] = mixes.length > 0 ? [[]] : []
  for (let made = 0; lists.length > 0 && made + lists.length * mixes.length <= SHORT_LISTS;) {
    const longer: (readonly Wanted[])[] = []
    for (const list of lists) {
      for (const counts of mixes) {
        const next = [...list, plainly(counts)]
        if (leftAfter(ground, next).some(n => n < 0)) continue
        longer.push(next)
        yield next
      }
    }
    made += longer.length
    lists = longer
  }
}

/**
 * Better and better plans, the first at once. Whoever asks for them one after the other may stop at any time; between
 * two, at most one timetable is made. @param seed a whole number from 1 on
 * @param before buckets of an earlier plan: mended, they are the first that is shown
 */
export function* searchPlans(
  round: Round, seed: number, { standing, before }: Beginning = {},
): Generator<RoundPlan, never> {
  const ground = groundOf(round, standing), better = compareFor(round.goal), draw = generator(seed)
  const mended = before && repairPlan(ground, before)
  if (mended) yield mended
  const rule = planByRule(round, standing)
  let best = mended && better(mended.table, rule.table) <= 0 ? mended : rule
  let now = best, fruitless = 0
  const many = sumOf(round.shapes.map(s => s.pieces)) > MANY
  for (const list of shortLists(ground)) {
    for (const cleanAfter of [0, Infinity]) {
      yield best
      const next = planOf(ground, list.map(w => ({ ...w, cleanAfter })))
      if (better(next.table, best.table) < 0) best = now = next
    }
  }
  for (;;) {
    yield best
    const next = many && draw() < 0.5 ? newTail(ground, now.list, draw) : changed(ground, now.list, draw)
    if (!next) continue
    const won = better(next.table, now.table)
    if (won < 0 || (won === 0 && draw() < 0.5)) now = next
    if (better(now.table, best.table) < 0) [best, fruitless] = [now, 0]
    else if (++fruitless > (best.list.length > FEW ? FRUITLESS : FRUITLESS / 5)) {
      now = draw() < 0.5 ? best : newTail(ground, [], draw)
      fruitless = 0
    }
  }
}

interface Tried extends Beginning {
  readonly seed?: number
  readonly tries?: number
}

/** The best plan after so many tries: the same in the browser and on the server. */
export function planRound(round: Round, { seed = 1, tries = 2000, ...beginning }: Tried = {}): RoundPlan {
  const plans = searchPlans(round, seed, beginning)
  let best = plans.next().value
  for (let i = 0; i < tries; i++) best = plans.next().value
  return best
}
