import { sumOf, type Counts, type Filled, type MixTimes, type Round, type Task } from './round'
import type { Board, Copy, Dirty, Gap, Wanted } from './board'

/** One bucket fitted into a board: the first minute at which hands, bucket, table, moulds and shelf are all there. */

/** A mould that a bucket fills, and when, counted from the start of stirring. */
interface Use {
  readonly copy: Copy
  readonly from: number
  readonly to: number
}

/** The copies of each shape that come free first. */
function copiesFor(board: Board, counts: Counts): Copy[] | undefined {
  const chosen: Copy[] = []
  for (const [shape, n] of counts.entries()) {
    if (n === 0) continue
    const soonest = [...board.copies[shape]!]
      .sort((a, b) => (a.standing?.set ?? -1) - (b.standing?.set ?? -1) || a.freeAt - b.freeAt || a.copy - b.copy)
    if (soonest.length < n) return undefined
    chosen.push(...soonest.slice(0, n))
  }
  return chosen
}

interface Opening {
  readonly copy: Copy
  readonly task: Task
}
interface Fitted {
  readonly openings: readonly Opening[]
  readonly bucket: number
  readonly done: number
  /** Not known yet of one that is cleaned later. */
  readonly cleaned?: number
}

/** Tries to fit one bucket in, stirred from `stir` on after so long a soak; on failure nothing stays reserved. */
function fit(board: Board, wanted: Wanted, times: MixTimes, uses: readonly Use[], stir: number, soak: number) {
  const before = board.tasks.length, fitted = reserveAll(board, wanted, times, uses, stir, soak)
  if (!fitted) board.undo(before)
  return fitted
}

function reserveAll(
  board: Board, wanted: Wanted, times: MixTimes, uses: readonly Use[], stir: number, soak: number,
): Fitted | undefined {
  const { round } = board, mix = board.mixings.length
  const backs = sumOf(wanted.counts.map((n, s) => n * (round.shapes[s]!.finish ?? 0)))
  const wet = stir - soak - times.sift, filled = stir + uses.at(-1)!.to, done = filled + backs
  const bucket = board.bucketFree.findIndex(free => free <= wet)
  if (wet < 0 || bucket < 0) return undefined
  if (filled - wet > times.pourBy || done - wet > (times.finishBy ?? Infinity)) return undefined
  for (let t = stir + times.stir; t < filled; t++) if (board.table[t]! >= round.tables) return undefined
  const pourer = board.busy.findIndex((_, p) => board.taken(p, stir, done) < 0)
  if (pourer < 0) return undefined
  board.reserve({ kind: 'fill', mix, person: pourer, from: stir, to: done })
  const sifter = board.busy.findIndex((_, p) => board.taken(p, wet, wet + times.sift) < 0)
  if (sifter < 0) return undefined
  board.reserve({ kind: 'sift', mix, person: sifter, from: wet, to: wet + times.sift })
  const openings = openBefore(board, wanted, uses, stir + uses[0]!.from, stir)
  if (!openings) return undefined
  if (times.weigh > 0) {
    const at = board[wanted.weighEarly ? 'earliest' : 'latest'](board.standing.from, times.weigh, wet)
    if (!at) return undefined
    board.reserve({ kind: 'weigh', mix, person: at.person, from: at.at, to: at.at + times.weigh })
  }
  const within = Math.min(times.cleanWithin ?? Infinity, round.horizon)
  const until = Math.min(round.horizon, filled + within + times.clean)
  if (wanted.cleanAfter === Infinity && times.cleanWithin === undefined) return { openings, bucket, done }
  const cleaned = board.earliest(Math.max(done, filled + Math.min(wanted.cleanAfter, within)), times.clean, until)
  if (!cleaned) return undefined
  board.reserve({ kind: 'clean', mix, person: cleaned.person, from: cleaned.at, to: cleaned.at + times.clean })
  return { openings, bucket, done, cleaned: cleaned.at + times.clean }
}

export function openingOf({ shape, copy, standing }: Copy, { person, at }: Gap, length: number): Task {
  return { kind: 'open', mix: standing!.mix, person, from: at, to: at + length, shape, copy }
}

/** Opens what has to be opened first: the moulds to be filled, and others where the shelf is full. */
function openBefore(board: Board, { openLate, counts }: Wanted, uses: readonly Use[], first: number, stir: number) {
  const { round } = board, openings: Opening[] = []
  const put = (copy: Copy, needed: number): boolean => {
    const { standing } = copy, length = round.shapes[copy.shape]!.open
    if (!standing) return copy.freeAt <= needed
    const at = openLate ? board.latest(standing.set, length, needed) : board.earliest(standing.set, length, needed)
    if (!at) return false
    const task = openingOf(copy, at, length)
    board.reserve(task)
    openings.push({ copy, task })
    return true
  }
  const soonest = [...uses].sort((a, b) => (a.copy.standing?.set ?? 0) - (b.copy.standing?.set ?? 0))
  for (const use of soonest) if (!put(use.copy, round.setFrom === 'batch' ? first : stir + use.from)) return undefined
  if (round.shelf === undefined) return openings
  const freed = sumOf(openings.map(o => round.shapes[o.copy.shape]!.shelf))
  const needed = sumOf(counts.map((n, s) => n * round.shapes[s]!.shelf))
  let over = board.shelf - freed + needed - round.shelf
  const others = board.copies.flat().filter(c => c.standing && !uses.some(u => u.copy === c))
    .sort((a, b) => a.standing!.set - b.standing!.set)
  for (const other of others) {
    if (over <= 1e-9) break
    if (!put(other, first)) return undefined
    over -= round.shapes[other.shape]!.shelf
  }
  return over <= 1e-9 ? openings : undefined
}

export function take(board: Board, opening: Opening): void {
  const { copy, task } = opening, { shelf } = board.round.shapes[copy.shape]!
  const { mix, at } = copy.standing!
  if (mix >= 0) {
    const { moulds } = board.mixings[mix]!
    moulds[at] = { ...moulds[at]!, opened: task.to }
  }
  board.openings[copy.shape]!.push(task.to)
  board.shelf -= shelf
  copy.standing = undefined
  copy.freeAt = task.to
}

/** When all moulds of a bucket set, in minutes from the start of stirring; from `setFrom`. */
function setOf(round: Round, use: Use, uses: readonly Use[], wet: number): number {
  const from = round.setFrom === 'own' ? use.to : round.setFrom === 'batch' ? uses.at(-1)!.to : wet
  return from + round.shapes[use.copy.shape]!.set
}

function stand(
  board: Board, { counts }: Wanted, times: MixTimes, uses: readonly Use[], stir: number, soak: number, fitted: Fitted,
): void {
  const { round } = board, mix = board.mixings.length
  for (const opening of fitted.openings) take(board, opening)
  const filled = stir + uses.at(-1)!.to, wet = stir - soak - times.sift
  const { bucket, done, cleaned = Infinity } = fitted
  if (cleaned === Infinity) board.dirty.push({ mix, bucket, from: done, length: times.clean })
  for (let t = stir + times.stir; t < filled; t++) board.table[t]!++
  board.bucketFree[bucket] = cleaned
  const moulds = uses.map((use, at): Filled => {
    const set = Math.max(stir + setOf(round, use, uses, wet - stir), stir + use.to)
    use.copy.standing = { mix, at, set }
    board.shelf += round.shapes[use.copy.shape]!.shelf
    return { shape: use.copy.shape, copy: use.copy.copy, from: stir + use.from, to: stir + use.to, set }
  })
  board.powder += sumOf(counts.map((n, s) => n * (round.shapes[s]!.powder ?? 0)))
  board.mixings.push({ counts, bucket, wet, stir, filled, cleaned, moulds })
}

/** Fits one bucket in at the first minute at which everything it needs is there. @returns whether there is one */
export function place(board: Board, wanted: Wanted): boolean {
  const { round } = board, copies = copiesFor(board, wanted.counts)
  const powder = sumOf(wanted.counts.map((n, s) => n * (round.shapes[s]!.powder ?? 0)))
  if (!copies || board.powder + powder > (round.powder ?? Infinity) + 1e-9) return false
  if (!board.bucketFree.some(Number.isFinite) && !cleanNext(board)) return false
  const times = round.mixing(wanted.counts)
  let at = times.stir
  const uses = copies.map((copy): Use => {
    const from = at
    at += round.shapes[copy.shape]!.fill
    return { copy, from, to: at }
  })
  const { start, first } = soonestStir(board, times, uses)
  const last = round.horizon - at
  let { hold } = wanted
  for (let stir = Math.max(first, start); stir <= last; stir++) {
    const free = nextFree(board, stir, at)
    if (free > stir) {
      stir = free - 1
      continue
    }
    for (let soak = Math.min(times.soak + wanted.soakMore, times.soakMax); soak <= times.soakMax; soak++) {
      const before = board.tasks.length, fitted = fit(board, wanted, times, uses, stir, soak)
      if (!fitted) continue
      if (hold > 0) {
        board.undo(before)
        stir += hold - 1
        hold = 0
        break
      }
      stand(board, wanted, times, uses, stir, soak, fitted)
      return true
    }
  }
  return false
}

/** From when on it can be stirred: a bucket, and moulds that are set and opened before their fill. */
function soonestStir({ bucketFree, round, standing }: Board, times: MixTimes, uses: readonly Use[]) {
  const first = Math.min(...bucketFree) + times.sift + times.soak
  const needed = round.setFrom === 'batch' ? uses[0]!.from : undefined
  const ready = uses.map(({ copy, from }) => copy.standing
    ? copy.standing.set + round.shapes[copy.shape]!.open - (needed ?? from)
    : copy.freeAt - (needed ?? from))
  const start = Math.max(0, ...ready)
  if (round.persons.length > 1) return { first: Math.max(first, standing.from), start }
  // One person alone has opened all of them before stirring.
  const shut = uses.flatMap(({ copy: { standing: shut, shape } }) =>
    shut ? [{ set: shut.set, open: round.shapes[shape]!.open }] : [])
  const opened = shut.sort((a, b) => a.set - b.set).reduce((t, { set, open }) => Math.max(t, set) + open, 0)
  return { first: Math.max(first, standing.from), start: Math.max(start, opened) }
}

/** The first minute from `t` on at which somebody has so long without a break. */
function nextFree(board: Board, t: number, length: number): number {
  let soonest = Infinity
  for (let p = 0; p < board.busy.length; p++) {
    const taken = board.taken(p, t, t + length)
    if (taken < 0) return t
    soonest = Math.min(soonest, taken + 1)
  }
  return soonest
}

/** Cleans the bucket that has been dirty longest, in the first gap. */
function cleanNext(board: Board): boolean {
  const next = board.dirty.shift()
  return next !== undefined && cleanAt(board, next, board.earliest(next.from, next.length, board.round.horizon))
}

export function cleanAt(board: Board, { mix, bucket, length }: Dirty, at: Gap | undefined): boolean {
  if (!at) return false
  board.reserve({ kind: 'clean', mix, person: at.person, from: at.at, to: at.at + length })
  board.bucketFree[bucket] = board.mixings[mix]!.cleaned = at.at + length
  return true
}
