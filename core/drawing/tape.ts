import type { Seconds } from '../units/quantity'
import { warmthStep, type WarmthStep } from './warmth'

/**
 * The strip of tape along the edge of the table, with the acts of one bucket on it, from when powder meets water until
 * the moulds are open. Near times have more room than far ones: a place is log(1 + t / 120 s).
 */
export interface TapeInput {
  /** Acts of the hands, in the order of time, each from the end of the one before it. */
  readonly acts: readonly { readonly id: TapeAct, readonly end: Seconds, readonly done: boolean }[]
  /** When the gloss goes and when it is warmest; a coat that is covered has no warmth of its own to show. */
  readonly gloss?: Seconds
  readonly warmest?: Seconds
  /** When its moulds may be opened. */
  readonly open?: { readonly from: Seconds, readonly to: Seconds }
  /** From when it may be too stiff to pour. */
  readonly stiff?: Seconds
}

export type TapeAct = 'sift' | 'water' | 'soak' | 'stir' | 'knead' | 'fill'
export type TapePieceId = TapeAct | 'rest' | 'open'

interface Span { readonly from: Seconds, readonly to: Seconds, readonly x: number, readonly width: number }
export interface TapePiece extends Span { readonly id: TapePieceId, readonly past: boolean }
export interface Tape {
  readonly pieces: readonly TapePiece[]
  /** How warm it is while it is left alone, slice by slice. */
  readonly warmth: readonly (Span & { readonly step: WarmthStep })[]
  /** What would have to be poured after it may be too stiff. */
  readonly trouble?: Span
  /** Where times are written: ends of acts, as far as they keep clear of each other. */
  readonly ticks: readonly { readonly at: Seconds, readonly x: number }[]
  /** Where it is now, if it is wet and the tape reaches so far. */
  readonly now?: number
}

const KNEE: Seconds = 120, SLICES = 24
/** Room that a written time wants, px. */
const TICK_ROOM = 46

/** Places of moments on a tape of some width that reaches to a moment. */
export function tapeScale(until: Seconds, width: number): (t: Seconds) => number {
  const most = Math.log1p(until / KNEE)
  return t => width * Math.min(1, Math.log1p(Math.max(0, t) / KNEE) / most)
}

/**
 * How far a tape reaches: while hands are at work to a little beyond where it may be too stiff, later until the moulds
 * are open. @param now seconds after powder met water; undefined before that, or where all of it is shown
 */
export function tapeReach({ acts, open, stiff }: TapeInput, now: Seconds | undefined): Seconds {
  const poured = acts.at(-1), working = now !== undefined && poured !== undefined && !poured.done
  const atWork = 1.15 * Math.max(poured?.end ?? 0, stiff ?? 0)
  if (working && now < atWork) return atWork
  return Math.max(open?.to ?? 0, atWork, 1.1 * (now ?? 0))
}

function piecesOf({ acts, open }: TapeInput, until: Seconds): readonly Omit<TapePiece, 'x' | 'width'>[] {
  let from = 0
  const done = acts.map(({ id, end, done }) => {
    const piece = { id, from, to: Math.max(from, end), past: done }
    from = piece.to
    return piece
  })
  const rest = { id: 'rest' as const, from, to: open?.from ?? until, past: false }
  return [...done, rest, ...open ? [{ id: 'open' as const, from: Math.max(from, open.from), to: open.to, past: false }] : []]
    .map(p => ({ ...p, to: Math.min(until, p.to) })).filter(p => p.to > p.from)
}

function warmthOf({ gloss, warmest }: TapeInput, rest: Span): Tape['warmth'] {
  if (gloss === undefined || warmest === undefined || rest.width <= 0) return []
  const across = (k: number) => rest.from + (rest.to - rest.from) * k / SLICES
  return Array.from({ length: SLICES }, (_, k) => ({
    from: across(k),
    to: across(k + 1),
    step: warmthStep((across(k) + across(k + 1)) / 2, { gloss, warmest }),
    x: 0,
    width: 0,
  }))
}

/** The last one stands at the edge and is kept; the others as far as they keep clear of each other and of it. */
function ticksOf(moments: readonly Seconds[], until: Seconds, place: (t: Seconds) => number): Tape['ticks'] {
  const end = place(until)
  let free = -Infinity
  return [...moments.map(at => ({ at, x: place(at) })).filter(({ x }) => {
    const clear = x - free >= TICK_ROOM && end - x >= 2 * TICK_ROOM
    if (clear) free = x
    return clear
  }), { at: until, x: end }]
}

/** @param width px; what it gives is in the same. @param now seconds after powder met water */
export function layoutTape(input: TapeInput, width: number, until: Seconds, now?: Seconds): Tape {
  const place = tapeScale(until, width)
  const placed = <T extends { from: Seconds, to: Seconds }>(s: T) =>
    ({ ...s, x: place(s.from), width: place(s.to) - place(s.from) })
  const pieces = piecesOf(input, until).map(placed), rest = pieces.find(p => p.id === 'rest')
  const poured = input.acts.at(-1), { stiff } = input
  // With hands at work all that comes after it is too late; on a plan only what would be.
  const late = stiff !== undefined && poured && !poured.done
    && { from: stiff, to: now === undefined ? Math.min(until, poured.end) : until }
  return {
    pieces, ticks: ticksOf(pieces.map(p => p.from), until, place),
    warmth: rest ? warmthOf(input, rest).map(placed) : [],
    ...late && late.to > late.from && { trouble: placed(late) },
    ...now !== undefined && now <= until && { now: place(now) },
  }
}
