import { growPlan, type Choose, type RoundPlan } from './timetable'
import { plainly, type Standing, type Wanted } from './board'
import { compareFor, fitsBucket, remembering, sumOf, type Counts, type Round } from './round'

/** First plans by rule: which moulds the next bucket fills. */

export interface Ground {
  readonly round: Round
  readonly standing?: Standing
  /** Already made of each shape: what stands in moulds. */
  readonly have: Counts
  /** The most moulds that one bucket fills. */
  readonly largest: number
}

export function groundOf(given: Round, standing?: Standing): Ground {
  const round = remembering(given)
  const shut = (s: number) => standing?.moulds.filter(m => m.shape === s && m.set !== undefined).length ?? 0
  const have = round.shapes.map((_, s) => shut(s))
  const ground = { round, standing, have, largest: Infinity }
  const most = fill(ground, leftAfter(ground, []), Infinity, s => 1 / round.shapes[s]!.volume)
  return { ...ground, largest: sumOf(most ?? []) }
}

export const planOf = ({ round, standing }: Ground, list: readonly Wanted[], choose?: Choose): RoundPlan =>
  growPlan(round, list, choose, standing)

/** What is still to be made after these buckets. */
export const leftAfter = ({ round, have }: Ground, list: readonly Wanted[]): number[] =>
  round.shapes.map((shape, s) => shape.pieces - have[s]! - sumOf(list.map(w => w.counts[s]!)))

/** One bucket of at most so many moulds, mould by mould of the shape that is worth most. */
export function fill(
  { round }: Ground, left: readonly number[], most: number, worth: (shape: number, n: number) => number,
): Counts | undefined {
  const counts = left.map(() => 0), open = new Set(left.flatMap((n, s) => n > 0 ? [s] : []))
  for (let moulds = 0; moulds < most && open.size > 0;) {
    let best = -1, value = -Infinity
    for (const s of open) {
      const v = worth(s, counts[s]!)
      if (v > value) [best, value] = [s, v]
    }
    counts[best]!++
    if (counts[best]! <= left[best]! && fitsBucket(round, counts)) moulds++
    else {
      counts[best]!--
      open.delete(best)
    }
  }
  return sumOf(counts) > 0 ? counts : undefined
}

export interface Rule {
  readonly most: number
  readonly wait: number
  readonly soakFor: number
  /** How much an hour that a mould comes free later counts against a cycle that its shape is behind. */
  readonly sooner: number
}

/**
 * Buckets of at most `most` moulds that wait at most `wait` minutes for further ones to come free; where the bucket is
 * too small for all, the shapes that are furthest behind: pieces left by copy, times what one takes, sooner due first.
 * @param soakFor what should fit into the soak, min
 */
export function byRule(ground: Ground, { most, wait, soakFor, sooner }: Rule, draw?: () => number): Choose {
  const { round } = ground, shuffled = round.shapes.map(() => draw ? 0.7 + 0.6 * draw() : 1)
  return (ready, left) => {
    const first = ready.find(r => left[r.shape]! > 0)
    if (!first) return undefined
    const there: number[][] = left.map(() => [])
    for (const r of ready) if (r.at <= first.at + wait) there[r.shape]!.push(r.at)
    const counts = fill(ground, left.map((n, s) => Math.min(n, there[s]!.length)), most, (i, n) => {
      const { copies, set, fill, open, due = round.horizon } = round.shapes[i]!
      const behind = (left[i]! - n) / copies * (set + fill + open) * round.horizon / Math.max(1, due)
      return behind * shuffled[i]! - sooner * (there[i]![n] ?? round.horizon)
    })
    return counts && { ...plainly(counts), soakMore: Math.max(0, soakFor - round.mixing(counts).soak) }
  }
}

/** What may be done while it soaks: nothing, an opening, weighing. */
export function soaksFor({ round: { persons, shapes, mixing } }: Ground): readonly number[] {
  if (persons.length > 1) return [0]
  const { weigh } = mixing(shapes.map((_, i) => i === 0 ? 1 : 0))
  return [...new Set([0, Math.min(...shapes.map(s => s.open)), weigh])]
}

/** How much sooner counts: not at all, as much as what is behind, alone. */
export const SOONER = [0, 3, 1000]
/** Waits that rules try, min: none, until a mould or two more are open, for all. */
const WAITS = [0, 8, 20, Infinity]

/** So few pieces are planned by all rules. */
const FEW_PIECES = 16

/** Rules worth trying at once, the most promising first: for a large round only those. */
function rulesFor(ground: Ground): readonly Rule[] {
  const { round, largest } = ground, soaks = soaksFor(ground), soakFor = soaks.at(-1)!
  const promising = [3, 0].map((sooner): Rule => ({ most: largest, wait: Infinity, soakFor, sooner }))
  const pieces = sumOf(round.shapes.map(s => s.pieces))
  if (pieces > 300) return promising
  const other: Rule = { most: largest, wait: 20, soakFor, sooner: 0 }
  const fewer = { ...other, most: Math.ceil(largest / 2) }
  if (pieces > FEW_PIECES) return [...promising, other, fewer, { ...promising[0]!, most: 1 }]
  const sizes = [...new Set([4, 3, 2, 1].map(quarters => Math.ceil(largest * quarters / 4)))]
  return sizes.flatMap(most => WAITS.flatMap(wait => soaks.flatMap(soak =>
    SOONER.map((sooner): Rule => ({ most, wait, soakFor: soak, sooner })))))
}

/**
 * A plan made before, for what is still to be made now: its buckets from the last one backwards as far as they are
 * wanted, since the first were begun; and what is missing by the most promising rule. One timetable, so it is there at
 * once when something came late or broke.
 */
export function repairPlan(ground: Ground, before: readonly Wanted[]): RoundPlan | undefined {
  if (before.some(w => w.counts.length !== ground.round.shapes.length)) return undefined
  const left = leftAfter(ground, [])
  const kept = [...before].reverse().flatMap((wanted) => {
    const counts = wanted.counts.map((n, s) => Math.max(0, Math.min(n, left[s]!)))
    for (const [s, n] of counts.entries()) left[s]! -= n
    return sumOf(counts) > 0 && fitsBucket(ground.round, counts) ? [{ ...wanted, counts }] : []
  }).reverse()
  return planOf(ground, kept, byRule(ground, rulesFor(ground)[0]!))
}

/** The best of the plans that rules give. */
export function planByRule(given: Round, standing?: Standing): RoundPlan {
  const ground = groundOf(given, standing), better = compareFor(given.goal)
  return rulesFor(ground).map(rule => planOf(ground, [], byRule(ground, rule)))
    .reduce((a, b) => better(b.table, a.table) < 0 ? b : a, planOf(ground, []))
}
