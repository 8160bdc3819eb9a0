import { Board, NOTHING, type Wanted } from './board'
import { cleanAt, openingOf, place, take } from './fitting'
import { sumOf, type Counts, type Mixing, type Round, type Timetable } from './round'

/**
 * A list of buckets turned into a timetable, one after the other, each as early as everything it needs is free: serial
 * schedule generation with a search for gaps (Kolisch 1996; Hartmann and Kolisch 2000; from memory). Openings are put
 * into gaps after their set, also into the soak; weighing before, cleaning after.
 */

/**
 * Opens what is still shut and cleans what is still dirty: openings first, cleaning into the gaps that they leave;
 * where there are none, cleaning first as late as can be. @returns false if a bucket would stay dirty
 */
function finish(board: Board): boolean {
  const before = board.tasks.length, { dirty, round } = board
  let openings = reserveRest(board)
  if (!dirty.every(d => cleanAt(board, d, board.earliest(d.from, d.length, round.horizon)))) {
    board.undo(before)
    if (![...dirty].reverse().every(d => cleanAt(board, d, board.latest(d.from, d.length, round.horizon)))) return false
    openings = reserveRest(board)
  }
  for (const opening of openings) take(board, opening)
  return true
}

/** The openings of what is still shut, the earliest set first. */
function reserveRest(board: Board) {
  const { round, copies } = board
  const shut = copies.flat().filter(c => c.standing).sort((a, b) => a.standing!.set - b.standing!.set)
  return shut.flatMap((copy) => {
    const length = round.shapes[copy.shape]!.open, at = board.earliest(copy.standing!.set, length, round.horizon)
    if (!at) return []
    const task = openingOf(copy, at, length)
    board.reserve(task)
    return [{ copy, task }]
  })
}

/** A mould that could be filled again, and from when on. */
export interface Ready {
  readonly shape: number
  readonly at: number
}
/** What the next bucket fills, from the moulds in the order in which they come free and what is still to be made. */
export type Choose = (ready: readonly Ready[], left: readonly number[]) => Wanted | undefined

/** What was mixed in which order, to plan on from, and how it falls in time. */
export interface RoundPlan {
  readonly list: readonly Wanted[]
  readonly table: Timetable
}

/**
 * A list of buckets as a timetable, and more buckets as somebody chooses who sees how the moulds come free. Those that
 * do not fit any more are left out. What already stands is kept.
 * @param list in the order in which they are mixed
 */
export function growPlan(round: Round, list: readonly Wanted[], choose?: Choose, standing = NOTHING): RoundPlan {
  const board = new Board(round, standing), whole = [...list]
  // Counted before anything is placed: what stands is opened, and its mould filled again, on the way.
  const left = round.shapes.map((s, i) => s.pieces - board.copies[i]!.filter(c => c.standing?.mix === -1).length)
  for (const wanted of list) place(board, wanted)
  for (const { counts } of list) for (const [s, n] of counts.entries()) left[s]! -= n
  for (let next = choose?.(readyOf(board), left); next; next = choose?.(readyOf(board), left)) {
    whole.push(next)
    for (const [s, n] of next.counts.entries()) left[s]! -= n
    if (!place(board, next)) break
  }
  return { list: whole, table: finished(board) }
}

const readyOf = ({ copies, round }: Board): readonly Ready[] => copies
  .flatMap((own, shape) => own.map(({ standing, freeAt }): Ready =>
    ({ shape, at: standing ? standing.set + round.shapes[shape]!.open : freeAt })))
  .sort((a, b) => a.at - b.at)

/** The timetable of a list of buckets. */
export const makeTimetable = (round: Round, list: readonly Wanted[], standing = NOTHING): Timetable =>
  growPlan(round, list, undefined, standing).table

function finished(board: Board): Timetable {
  const { round } = board
  const clean = finish(board)
  const opened = clean ? board.openings.map(o => o.length) : round.shapes.map(() => 0)
  return summed(board, opened)
}

function summed(board: Board, opened: Counts): Timetable {
  const { round } = board
  const late = sumOf(board.openings.map((o, s) => {
    const { due } = round.shapes[s]!
    return due === undefined ? 0 : o.filter(t => t > due).length
  }))
  return {
    mixings: board.mixings as readonly Mixing[],
    tasks: board.tasks,
    opened,
    late,
    missing: sumOf(round.shapes.map((s, i) => Math.max(0, s.pieces - opened[i]!))),
    end: Math.max(0, ...board.openings.flat()),
  }
}
