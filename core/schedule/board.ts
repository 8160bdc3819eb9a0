import type { Counts, Filled, Mixing, Round, Task } from './round'

/** What is taken when: everybody's minutes, buckets, moulds, table and shelf, into which a plan is put. */

/** One bucket to be mixed, and how it is fitted in. */
export interface Wanted {
  readonly counts: Counts
  /** Minutes that it is held back beyond what it could, min. */
  readonly hold: number
  /** Minutes that it soaks longer than it must, so that something else fits in. */
  readonly soakMore: number
  /** Minutes that cleaning waits after the fill, min; Infinity: until the bucket is needed, or to the end. */
  readonly cleanAfter: number
  /** Weighed as early as there is a gap, not as late. */
  readonly weighEarly: boolean
  /** Moulds are opened just before they are filled, not as soon as they are set. */
  readonly openLate: boolean
}

export const plainly = (counts: Counts): Wanted =>
  ({ counts, hold: 0, soakMore: 0, cleanAfter: 0, weighEarly: false, openLate: false })

/** A mould that is filled and shut until `set`, or that comes free only later. */
export interface StandingMould {
  readonly shape: number
  readonly copy: number
  readonly set?: number
  readonly freeAt?: number
}

/** What already is: from when on something new may be planned, and what stands. */
export interface Standing {
  readonly from: number
  readonly moulds: readonly StandingMould[]
  /** From when on each bucket is free. */
  readonly buckets: readonly number[]
  /** What is on each person's hands, until when. */
  readonly persons: readonly number[]
}
export const NOTHING: Standing = { from: 0, moulds: [], buckets: [], persons: [] }

export interface Copy {
  readonly shape: number
  readonly copy: number
  freeAt: number
  /** What stands in it, shut. */
  standing?: { readonly mix: number, readonly at: number, readonly set: number }
}
type MutableMixing = { -readonly [K in keyof Mixing]: K extends 'moulds' ? Filled[] : Mixing[K] }

export interface Dirty {
  readonly mix: number
  readonly bucket: number
  readonly from: number
  readonly length: number
}

/** Somebody who is free, and from when on. */
export interface Gap {
  readonly person: number
  readonly at: number
}

/** A day of hands, moulds, buckets and shelf that is filled in. */
export class Board {
  readonly busy: Uint8Array[]
  readonly table: Uint8Array
  /** Shelf that shut moulds take. */
  shelf = 0
  readonly bucketFree: number[]
  /** Buckets that are cleaned when they are needed, the longest dirty first. */
  readonly dirty: Dirty[] = []
  readonly copies: Copy[][]
  readonly tasks: Task[] = []
  readonly mixings: MutableMixing[] = []
  /** Opened when, of each shape. */
  readonly openings: number[][]
  powder = 0

  constructor(readonly round: Round, readonly standing: Standing) {
    const { horizon, persons, buckets, shapes } = round
    this.busy = persons.map((shifts, p) => {
      const free = new Uint8Array(horizon + 1).fill(1)
      for (const [from, to] of shifts) free.fill(0, Math.max(from, standing.from), Math.min(to, horizon))
      return free.fill(1, 0, Math.max(standing.from, standing.persons[p] ?? 0))
    })
    this.table = new Uint8Array(horizon + 1)
    this.bucketFree = Array.from({ length: buckets }, (_, i) => standing.buckets[i] ?? standing.from)
    this.copies = shapes.map((s, shape) =>
      Array.from({ length: s.copies }, (_, copy): Copy => ({ shape, copy, freeAt: standing.from })))
    this.openings = shapes.map(() => [])
    for (const { shape, copy, set, freeAt } of standing.moulds) {
      const mould = this.copies[shape]?.[copy]
      if (!mould) continue
      mould.freeAt = freeAt ?? standing.from
      if (set === undefined) continue
      mould.standing = { mix: -1, at: -1, set }
      this.shelf += shapes[shape]!.shelf
    }
  }

  /** The first minute that is taken of those, or -1. */
  taken(person: number, from: number, to: number): number {
    const busy = this.busy[person]!
    for (let t = to - 1; t >= from; t--) if (busy[t]) return t
    return -1
  }

  /** The earliest gap of anybody. @returns -1 if none ends by `before` */
  earliest(from: number, length: number, before: number): Gap | undefined {
    let best: Gap | undefined
    for (let person = 0; person < this.busy.length; person++) {
      let t = from
      const until = best ? Math.min(before, best.at + length - 1) : before
      while (t + length <= until) {
        const taken = this.taken(person, t, t + length)
        if (taken < 0) {
          best = { person, at: t }
          break
        }
        t = taken + 1
      }
    }
    return best
  }

  /** The latest gap of anybody that ends by `before`. */
  latest(from: number, length: number, before: number): Gap | undefined {
    let best: Gap | undefined
    for (let person = 0; person < this.busy.length; person++) {
      const busy = this.busy[person]!
      let t = before - length
      while (t >= from && t > (best?.at ?? -1)) {
        let taken = -1
        for (let k = t; k < t + length; k++) if (busy[k]) { taken = k; break }
        if (taken < 0) {
          best = { person, at: t }
          break
        }
        t = taken - length
      }
    }
    return best
  }

  reserve(task: Task): void {
    if (task.to > task.from) this.busy[task.person]!.fill(1, task.from, task.to)
    this.tasks.push(task)
  }

  /** Takes back what was reserved since there were so many tasks. */
  undo(tasks: number): void {
    while (this.tasks.length > tasks) {
      const { person, from, to } = this.tasks.pop()!
      if (to > from) this.busy[person]!.fill(0, from, to)
    }
  }
}
