import { decimated } from './mesh'
import { columnSpans, directions, dot, normalised, spanVolume, type Spans, type Vector } from './spans'

/** Whether a rigid form lets go along a direction: what is locked behind something else, by visibility. */

export interface Locked {
  readonly pull: Vector
  /**
   * Volume that a rigid form would have to pass through, in the mesh's units cubed: out of one side, and out of two
   * opposite halves.
   */
  readonly onePiece: number
  readonly twoPart: number
  /** Share of the whole surface that faces less than the wanted draft, for one piece and for two. */
  readonly lowDraft: number
  readonly lowDraftTwoPart: number
  /** Volume of the piece, by the same columns. */
  readonly volume: number
}

/** Gaps of a column count from one column's width on: below that they are the raster's own. */
function lockedIn(s: Spans): { readonly gaps: number, readonly under: number } {
  let gaps = 0, under = 0
  for (let c = 0; c < s.nu * s.nv; c++) {
    const from = s.start[c]!, to = s.start[c + 1]!
    if (to <= from) continue
    under += s.lo[from]! - s.bottom
    for (let i = from + 1; i < to; i++) {
      const gap = s.lo[i]! - s.hi[i - 1]!
      if (gap > s.h) gaps += gap
    }
  }
  return { gaps: gaps * s.h * s.h, under: under * s.h * s.h }
}

/**
 * What is locked when the mould leaves the piece along `pull`. The piece stands on its lowest plane: everything between
 * it and that plane that the
 * piece overhangs is locked in one piece; two halves meet where they like, so only gaps between parts of the piece
 * itself lock them.
 * @param draft least angle between wall and pull that lets go, radians.
 */
export function lockedAlong(positions: Float32Array, pull: Vector, cells: number, draft = 3 * Math.PI / 180): Locked {
  const s = columnSpans(positions, pull, cells)
  const { gaps, under } = lockedIn(s)
  const p = normalised(pull)
  const least = Math.sin(draft)
  const base = s.bottom + 0.01 * (s.top - s.bottom)
  let all = 0, low = 0, lowTwo = 0
  for (let i = 0; i < positions.length; i += 9) {
    const ux = positions[i + 3]! - positions[i]!,
      uy = positions[i + 4]! - positions[i + 1]!,
      uz = positions[i + 5]! - positions[i + 2]!
    const vx = positions[i + 6]! - positions[i]!,
      vy = positions[i + 7]! - positions[i + 1]!,
      vz = positions[i + 8]! - positions[i + 2]!
    const n: Vector = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx]
    const area = Math.hypot(...n)
    if (area === 0) continue
    const slope = dot(n, p) / area
    all += area
    // The face it stands on is not a wall.
    const standing = slope < -0.9
      && (dot([positions[i]!, positions[i + 1]!, positions[i + 2]!], p)
        + dot([positions[i + 3]!, positions[i + 4]!, positions[i + 5]!], p)
        + dot([positions[i + 6]!, positions[i + 7]!, positions[i + 8]!], p)) / 3 < base
    if (!standing && slope < least) low += area
    if (Math.abs(slope) < least) lowTwo += area
  }
  return {
    pull: p,
    onePiece: gaps + under,
    twoPart: gaps,
    lowDraft: low / all,
    lowDraftTwoPart: lowTwo / all,
    volume: spanVolume(s),
  }
}

export interface PullSearch { readonly onePiece: Locked, readonly twoPart: Locked }

/** Cost of a direction: locked share of the volume, with a little for walls that scrape. */
const cost = (l: Locked, two: boolean) =>
  (two ? l.twoPart : l.onePiece) / l.volume + 0.02 * (two ? l.lowDraftTwoPart : l.lowDraft)

/**
 * The best direction to pull, in one piece and in two halves: directions spread over the sphere, then refined around
 * the best in ever smaller rings.
 * A generator, so that a worker can report how far it is and stop between steps; yields the share that is done.
 */
export function* searchPull(positions: Float32Array, cells = 64, tries = 120): Generator<number, PullSearch> {
  const first: Locked[] = [], rough = decimated(positions, 2 * 48), near = decimated(positions, 1.5 * cells)
  const all = directions([0, 0, 1], Math.PI, tries)
  for (const [i, d] of all.entries()) {
    first.push(lockedAlong(rough, d, 48))
    if (i % 5 === 0) yield 0.6 * i / tries
  }
  const best: Locked[] = []
  for (const two of [false, true]) {
    let held = lockedAlong(near, first.reduce((a, b) => cost(b, two) < cost(a, two) ? b : a).pull, cells)
    for (const degrees of [8, 4, 2, 1]) {
      for (const d of directions(held.pull, degrees * Math.PI / 180, 8).slice(1)) {
        const tried = lockedAlong(near, d, cells)
        if (cost(tried, two) < cost(held, two) - 1e-6) held = tried
      }
      yield 0.6 + 0.2 * (Number(two) + (8 - degrees) / 8)
    }
    best.push(near === positions ? held : lockedAlong(positions, held.pull, cells))
  }
  return { onePiece: best[0]!, twoPart: best[1]! }
}

/** Below this share of its volume nothing locks: what is left is the grid's (engineering guess). */
const LOCKS = 0.005
/** A flexible mould gives way over this share of undercut (engineering guess). */
const GIVES_WAY = 0.1
/** With this share of its walls nearly upright they want a good release (engineering guess). */
const UPRIGHT = 0.05

/** What the numbers mean for a mould of this stiffness; `one` and `two` are shares of its volume that lock. */
export interface PullVerdict {
  readonly code: 'lets-go' | 'nearly-upright' | 'gives-way' | 'peel-off' | 'two-halves' | 'still-locks'
  readonly one: number
  readonly two: number
}
export function pullVerdict(l: Locked, flexible: boolean): PullVerdict {
  const one = l.onePiece / l.volume, two = l.twoPart / l.volume
  const verdict = (code: PullVerdict['code']): PullVerdict => ({ code, one, two })
  if (one < LOCKS) return verdict(l.lowDraft > UPRIGHT ? 'nearly-upright' : 'lets-go')
  if (flexible) return verdict(one < GIVES_WAY ? 'gives-way' : 'peel-off')
  return verdict(two < LOCKS ? 'two-halves' : 'still-locks')
}
