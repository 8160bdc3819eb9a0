import { fitsBucket, remembering, sumOf, type Round, type RoundShape } from './round'
import type { Shift } from './windows'

/**
 * How soon a round can possibly be out, whatever plan is made: lower bounds on the last opening, each from one thing
 * that there is too little of. The largest counts; a plan is at most so far from the best as it is from this. Checked
 * against proved optima, never above one.
 */

/** What holds a round back most. */
export type Bottleneck = 'moulds' | 'hands' | 'buckets' | 'hands-and-moulds'
export interface LowerBound {
  /** Minutes; no plan can open its last piece sooner. */
  readonly end: number
  readonly by: Bottleneck
}

interface Staffed {
  readonly from: number
  readonly to: number
  readonly hands: number
}

/** The hours of all persons as spans with so many of them there, in order. */
function staffed(persons: readonly (readonly Shift[])[]): readonly Staffed[] {
  const edges = [...new Set(persons.flat(2))].sort((a, b) => a - b)
  return edges.slice(0, -1).flatMap((from, i) => {
    const to = edges[i + 1]!
    const hands = persons.filter(shifts => shifts.some(([a, b]) => a <= from && to <= b)).length
    return hands > 0 ? [{ from, to, hands }] : []
  })
}

/** When so many minutes of work are over at the soonest, everybody at work from `from` on; Infinity if never. */
function workedBy(spans: readonly Staffed[], work: number, from = 0): number {
  let left = work
  for (const span of spans) {
    const start = Math.max(span.from, from), here = (span.to - start) * span.hands
    if (here <= 0) continue
    if (left <= here) return start + left / span.hands
    left -= here
  }
  return left <= 0 ? from : Infinity
}

/** The next start of a task of that length for anybody. */
function nextTask(persons: readonly (readonly Shift[])[], length: number, t: number): number {
  const starts = persons.flatMap(shifts => shifts.flatMap(([from, to]) => {
    const start = Math.max(from, t)
    return start + length <= to ? [start] : []
  }))
  return Math.min(Infinity, ...starts)
}

/** The least that a bucket takes of everything, and the most that goes into one of each shape alone. */
function leastMixing(round: Round) {
  const alone = round.shapes.map((shape, s) => {
    let n = 0
    while (n < shape.copies && fitsBucket(round, round.shapes.map((_, i) => i === s ? n + 1 : 0))) n++
    return n
  })
  const one = round.shapes.map((_, s) => round.mixing(round.shapes.map((_, i) => i === s ? 1 : 0)))
  const least = (of: (m: typeof one[number]) => number) => Math.min(...one.map(of))
  return {
    alone, weigh: least(m => m.weigh), sift: least(m => m.sift), soak: least(m => m.soak), stir: least(m => m.stir),
    clean: least(m => m.clean),
    pourBy: Math.max(...one.map(m => m.pourBy)),
    soakMax: Math.max(...one.map(m => m.soakMax)),
  }
}

/** No fewer buckets than this: by volume, by pot life, and by what each shape alone lets in. */
function fewestBuckets(round: Round, { alone, sift, soak, stir, pourBy }: ReturnType<typeof leastMixing>): number {
  const { shapes, bucketVolume } = round
  const volume = sumOf(shapes.map(s => s.pieces * s.volume)) / bucketVolume
  const fills = sumOf(shapes.map(s => s.pieces * s.fill)), pot = pourBy - sift - soak - stir
  const each = shapes.map((s, i) => alone[i]! > 0 ? s.pieces / alone[i]! : Infinity)
  return Math.ceil(Math.max(volume, pot > 0 ? fills / pot : Infinity, ...each) - 1e-9)
}

/** How long a mould is shut at least, from the end of its fill to when it may be opened. */
function shutFor({ setFrom }: Round, { set, fill }: RoundShape, { pourBy }: ReturnType<typeof leastMixing>): number {
  // From wetting: it may have been wet for all its pot life when it is filled.
  return setFrom === 'wet' ? Math.max(0, set - Math.max(fill, pourBy)) : set
}

/** One shape's copies, used again and again: fill, set, open, through everybody's hours. */
function mouldBound(round: Round, s: number, mixing: ReturnType<typeof leastMixing>): number {
  const shape = round.shapes[s]!, { persons } = round, shut = shutFor(round, shape, mixing)
  const alone = persons.length === 1, cycles = Math.ceil(shape.pieces / shape.copies)
  // One person alone stirs between an opening and the fill; the mould is not needed before the fill.
  const between = alone && round.setFrom !== 'batch' ? mixing.stir : 0
  let t = nextTask(persons, mixing.weigh, 0) + mixing.weigh
  t = nextTask(persons, mixing.sift, t) + mixing.sift + mixing.soak + mixing.stir
  for (let cycle = 0; cycle < cycles; cycle++) {
    if (cycle > 0) t += between
    t = nextTask(persons, shape.fill, t) + shape.fill + shut
    t = nextTask(persons, shape.open, t) + shape.open
  }
  return t
}

/** All that hands have to do before the last piece can be shut up, and before the last is opened. */
function handsBound(round: Round, mixes: number, mixing: ReturnType<typeof leastMixing>): number {
  const { shapes, persons, buckets } = round, spans = staffed(persons), { weigh, sift, stir, clean } = mixing
  const backs = sumOf(shapes.map(s => s.pieces * (s.finish ?? 0)))
  const fills = sumOf(shapes.map(s => s.pieces * s.fill)), opens = sumOf(shapes.map(s => s.pieces * s.open))
  const mixed = mixes * (weigh + sift + stir)
  const all = workedBy(spans, mixed + fills + backs + opens + Math.max(0, mixes - buckets) * clean)
  // Each copy's last opening, and the last buckets' cleaning, may come after the last fill.
  const later = sumOf(shapes.map(s => Math.min(s.copies, s.pieces) * s.open))
  const lastBacks = Math.max(0, ...shapes.map(s => s.copies * (s.finish ?? 0)))
  const cleaned = Math.max(0, mixes - buckets) * clean
  const filled = workedBy(spans, mixed + fills + Math.max(0, backs - lastBacks) + opens - later + cleaned)
  const after = Math.min(...shapes.map(s => shutFor(round, s, mixing))), open = Math.min(...shapes.map(s => s.open))
  return Math.max(all, nextTask(persons, open, Math.ceil(filled - 1e-9) + after) + open)
}

/**
 * The buckets, each in use from the first grain to the last rinse: what hands do in them within somebody's hours, and
 * all of it, the soak too, by the clock. A soak may fall into a break.
 */
function bucketsBound(round: Round, mixes: number, mixing: ReturnType<typeof leastMixing>): number {
  const { shapes, persons, buckets } = round, { weigh, sift, soak, stir, clean } = mixing
  const last = Math.min(buckets, mixes) * clean
  const handled = mixes * (sift + stir + clean) + sumOf(shapes.map(s => s.pieces * s.fill)) - last
  const spans = staffed(persons).map(s => ({ ...s, hands: buckets }))
  const first = nextTask(persons, weigh, 0) + weigh
  const filled = Math.max(workedBy(spans, handled, first), first + (handled + mixes * soak) / buckets)
  const after = Math.min(...shapes.map(s => shutFor(round, s, mixing))), open = Math.min(...shapes.map(s => s.open))
  return nextTask(persons, open, Math.ceil(filled - 1e-9) + after) + open
}

/** How many minutes of a span list are over by `t`, each counted by its hands. */
const over = (spans: readonly Staffed[], t: number): number =>
  sumOf(spans.map(s => Math.max(0, Math.min(t, s.to) - s.from) * s.hands))

/**
 * How long `n` moulds of one shape, filled from one bucket, are in use together at least. Their openings follow one
 * another, as many at a time as there are people. One person alone cannot open between stirring and the last fill, so
 * that every mould is there from the start of stirring.
 */
function useTogether(round: Round, s: number, n: number, mixing: ReturnType<typeof leastMixing>): number {
  const { fill, set, open } = round.shapes[s]!, people = round.persons.length
  const { sift, soak, soakMax, stir, pourBy } = mixing
  const wet = sift + Math.max(soak, Math.min(soakMax, pourBy - sift - stir - n * fill))
  let opened = 0, needed = 0
  for (let i = 0; i < n; i++) {
    const from = round.setFrom === 'wet' ? -wet : stir + (round.setFrom === 'own' ? (i + 1) * fill : n * fill)
    // From the start of stirring on, as all else here: each in its turn behind those of the same bucket.
    const first = round.setFrom === 'own' ? stir + fill + set : from + set
    opened += Math.max(from + set + open, first + Math.ceil((i + 1) / people) * open, stir + fill + open)
    if (people > 1) needed += round.setFrom === 'batch' ? stir : stir + i * fill
  }
  return opened - needed
}

/** The fewest buckets whose moulds are in use for no more than `room` minutes in all; Infinity if there are none. */
function fewestWithin(pieces: number, room: number, uses: readonly number[]): number {
  let fewest = Infinity
  const each = uses.map((use, i) => ({ n: i + 1, use }))
  for (const a of each) {
    if (a.use * pieces / a.n <= room) fewest = Math.min(fewest, pieces / a.n)
    for (const b of each) {
      // A share of the pieces in buckets of a, the rest in buckets of b, so that the room is just used up.
      const [x, y] = [a.use / a.n, b.use / b.n]
      if (a.n <= b.n || x <= y || x * pieces <= room || y * pieces > room) continue
      const share = (room - y * pieces) / (x - y)
      fewest = Math.min(fewest, share / a.n + (pieces - share) / b.n)
    }
  }
  return Math.ceil(fewest - 1e-6)
}

/**
 * Hands and moulds together: large buckets keep their moulds waiting for one another, small ones cost weighing, sifting
 * and cleaning. The soonest end by which neither is too much; a night lets each mould set once for nothing.
 */
function togetherBound(round: Round, mixes: number, mixing: ReturnType<typeof leastMixing>, least: number): number {
  const { shapes, persons, horizon, buckets } = round, spans = staffed(persons)
  const { weigh, sift, soak, stir, clean, alone } = mixing
  const anybody = spans.map(s => ({ ...s, hands: 1 }))
  const uses = shapes.map((_, s) => Array.from({ length: alone[s]! }, (_, i) => useTogether(round, s, i + 1, mixing)))
  const begin = nextTask(persons, sift, nextTask(persons, weigh, 0) + weigh) + sift + soak
  const fills = sumOf(shapes.map(s => s.pieces * (s.fill + (s.finish ?? 0))))
  const opens = sumOf(shapes.map(s => s.pieces * s.open))
  const later = sumOf(shapes.map(s => Math.min(s.copies, s.pieces) * s.open))
  const lastBacks = Math.max(0, ...shapes.map(s => s.copies * (s.finish ?? 0)))
  const after = Math.min(...shapes.map(s => shutFor(round, s, mixing) + s.open))
  const possible = (end: number): boolean => {
    const nights = anybody.filter((s, i) => i > 0 && s.from > anybody[i - 1]!.to && s.from < end).length
    const here = over(anybody, end) - over(anybody, begin)
    const counts = shapes.map((s, i) => fewestWithin(s.pieces, s.copies * (here + nights * s.set), uses[i]!))
    const all = Math.max(mixes, ...counts), mixed = all * (weigh + sift + stir) + Math.max(0, all - buckets) * clean
    return all < Infinity && mixed + fills + opens <= over(spans, end)
      && mixed + fills - lastBacks + opens - later <= over(spans, end - after)
  }
  let low = Math.floor(least), high = horizon
  if (!possible(high)) return Infinity
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (possible(middle)) high = middle
    else low = middle
  }
  return possible(low) ? low : high
}

/**
 * The soonest that all pieces can be out by any plan. Infinity: they cannot be, in these hours.
 * @param given a round whose pieces are all wanted
 */
export function boundRound(given: Round): LowerBound {
  const round = remembering({ ...given, shapes: given.shapes.filter(s => s.pieces > 0) })
  if (round.shapes.length === 0) return { end: 0, by: 'moulds' }
  const kept = given.shapes.flatMap((s, i) => s.pieces > 0 ? [i] : [])
  const asGiven = (counts: readonly number[]) => given.shapes.map((_, i) => counts[kept.indexOf(i)] ?? 0)
  const whole: Round = { ...round, mixing: counts => given.mixing(asGiven(counts)) }
  const mixing = leastMixing(whole), mixes = fewestBuckets(whole, mixing)
  const bounds: readonly LowerBound[] = [
    { end: Math.max(...whole.shapes.map((_, s) => mouldBound(whole, s, mixing))), by: 'moulds' },
    { end: handsBound(whole, mixes, mixing), by: 'hands' },
    { end: bucketsBound(whole, mixes, mixing), by: 'buckets' },
  ]
  const best = bounds.reduce((a, b) => b.end > a.end ? b : a)
  const together = togetherBound(whole, mixes, mixing, best.end)
  return together > best.end ? { end: together, by: 'hands-and-moulds' } : best
}
