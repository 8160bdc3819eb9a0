import type { Shift } from './windows'

/**
 * A round: many pieces out of few moulds, by few hands. All times are whole minutes from one zero; a day is 1440.
 * Durations are rounded up before they come here and deadlines down, so that a timetable of minutes can be kept.
 */

/** One shape to be made, and the moulds there are of it. */
export interface RoundShape {
  readonly id: string
  /** How many are wanted; with the goal `most`, how many at most. */
  readonly pieces: number
  readonly copies: number
  /** Mix that one takes, in the unit of the bucket. */
  readonly volume: number
  /** Filling one, min. */
  readonly fill: number
  /** Finishing its back while it is soft, right after all are filled, min. */
  readonly finish?: number
  /** From what `setFrom` says to when it can be opened, min; the late end of the forecast. */
  readonly set: number
  /** Opening one and making its mould ready again, min. */
  readonly open: number
  /** Shelf that a filled mould takes, in the unit of the shelf. */
  readonly shelf: number
  /** Powder that one takes, in the unit of the stock. */
  readonly powder?: number
  /** By when its pieces have to be out, min. */
  readonly due?: number
}

/** What mixing one bucket takes. */
export interface MixTimes {
  readonly weigh: number
  readonly sift: number
  /** The least and the longest soak, min. */
  readonly soak: number
  readonly soakMax: number
  readonly stir: number
  readonly clean: number
  /** From the start of sifting to the end of filling at most, min; the early end of the forecast. */
  readonly pourBy: number
  /** From the start of sifting to the end of finishing the backs at most, min. */
  readonly finishBy?: number
  /** From the end of filling to the start of cleaning at most, min. */
  readonly cleanWithin?: number
}

/**
 * From when a mould sets, and from when it has to be there: `own`, its own fill and its own fill; `batch`, the end of
 * the whole fill and the first fill; `wet`, the moment powder meets water and its own fill.
 */
export type SetFrom = 'own' | 'batch' | 'wet'

/** In a person's words: soonest; as many as possible by then; as little work as will do, on time. */
export type Goal = 'soonest' | 'most' | 'least work'

export interface Round {
  /** Nothing is planned from here on, min. */
  readonly horizon: number
  /** Each person's hours; a task lies wholly in one shift of one person. */
  readonly persons: readonly (readonly Shift[])[]
  readonly buckets: number
  /** Mix that a bucket holds safely. */
  readonly bucketVolume: number
  /** How many buckets can be poured at once: tables, or places at one. */
  readonly tables: number
  readonly shelf?: number
  readonly powder?: number
  readonly shapes: readonly RoundShape[]
  readonly setFrom: SetFrom
  readonly goal: Goal
  /** What a bucket for so many of each shape takes. Asked once for each. */
  readonly mixing: (counts: Counts) => MixTimes
}

/** How many of each shape. */
export type Counts = readonly number[]

/** One task of one person. `mix` is the bucket's number; an opening names its shape and copy. */
export interface Task {
  readonly kind: 'weigh' | 'sift' | 'fill' | 'clean' | 'open'
  readonly mix: number
  readonly person: number
  readonly from: number
  readonly to: number
  readonly shape?: number
  readonly copy?: number
}

/** One mould in one bucket's round. */
export interface Filled {
  readonly shape: number
  readonly copy: number
  readonly from: number
  readonly to: number
  /** From when it can be opened. */
  readonly set: number
  /** When its opening ends; not known of one that stays shut. */
  readonly opened?: number
}

/** One bucket: what is filled with it, and when. */
export interface Mixing {
  readonly counts: Counts
  readonly bucket: number
  readonly wet: number
  readonly stir: number
  readonly filled: number
  readonly cleaned: number
  readonly moulds: readonly Filled[]
}

export interface Timetable {
  readonly mixings: readonly Mixing[]
  readonly tasks: readonly Task[]
  /** Opened within the horizon, of each shape. */
  readonly opened: Counts
  /** Of those, how many later than due. */
  readonly late: number
  /** Wanted and not opened. */
  readonly missing: number
  /** End of the last opening; 0 where nothing is opened. */
  readonly end: number
}

export const sumOf = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0)

/** Whether so many fit into one bucket and pour in time, by the shortest way of mixing them. */
export function fitsBucket(round: Round, counts: Counts): boolean {
  const { shapes, bucketVolume, powder = Infinity, mixing } = round
  let volume = 0, dust = 0, fills = 0, backs = 0, moulds = 0
  for (const [s, n] of counts.entries()) {
    if (n === 0) continue
    const shape = shapes[s]!
    if (n > shape.copies || n > shape.pieces) return false
    moulds += n
    volume += n * shape.volume
    dust += n * (shape.powder ?? 0)
    fills += n * shape.fill
    backs += n * (shape.finish ?? 0)
  }
  if (moulds === 0 || volume > bucketVolume + 1e-9 || dust > powder + 1e-9) return false
  const { sift, soak, stir, pourBy, finishBy = Infinity } = mixing(counts)
  return sift + soak + stir + fills <= pourBy && sift + soak + stir + fills + backs <= finishBy
}

/** The same round, which asks only once how each bucket is mixed. */
export function remembering(round: Round): Round {
  const known = new Map<string, MixTimes>()
  return {
    ...round,
    mixing(counts) {
      const key = counts.join(), times = known.get(key) ?? round.mixing(counts)
      known.set(key, times)
      return times
    },
  }
}

/** Every bucket that is possible, or nothing where there are more than `most`. */
export function possibleMixes(round: Round, most: number): readonly Counts[] {
  const found: Counts[] = []
  const place = (counts: readonly number[]): void => {
    const shape = round.shapes[counts.length]
    if (found.length > most) return
    if (!shape) return void (fitsBucket(round, counts) && found.push(counts))
    for (let n = Math.min(shape.copies, shape.pieces); n >= 0; n--) place([...counts, n])
  }
  if (round.shapes.reduce((n, s) => n * (1 + Math.min(s.copies, s.pieces)), 1) <= 50 * most) place([])
  return found.length > most ? [] : found
}

/**
 * Which of two timetables is better for the goal: negative when `a` is. *Soonest*: fewest missing, fewest late, the
 * last opening. *Most*: most opened, then the last opening. *Least work*: fewest missing, fewest late, fewest buckets,
 * then the last opening. Never a weighted sum.
 */
export function compareFor(goal: Goal): (a: Timetable, b: Timetable) => number {
  const keys: (t: Timetable) => readonly number[] = goal === 'most'
    ? t => [-sumOf(t.opened), t.end, t.mixings.length]
    : goal === 'soonest'
      ? t => [t.missing, t.late, t.end, t.mixings.length]
      : t => [t.missing, t.late, t.mixings.length, t.end]
  return (a, b) => {
    const x = keys(a), y = keys(b), at = x.findIndex((n, i) => n !== y[i])
    return at < 0 ? 0 : x[at]! - y[at]!
  }
}
