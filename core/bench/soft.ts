import type { Instant } from '../pour/events'
import type { PourState } from '../pour/fold'
import type { FrozenRun } from '../plan/run'

/**
 * While it is soft, and just after it is opened: what hands can still do, from when to when. After each pour, not only
 * of jobs. What is to be done by when is common practice, no source; its moments are the forecast's and the marks'.
 */

/**
 * `level`: strike off, press flat, fetch bubbles from the open face. `back`: a hanger, rod or cloth, a keyed back, day
 * and initials, standing water dragged off. `scrape`: flat along a bar, edges cut clean. `trim`: after opening,
 * overlap, nibs and bubbles, edges rounded, a hole filled, before drying makes it hard.
 */
export type SoftId = 'level' | 'back' | 'scrape' | 'trim'
export interface SoftWindow {
  readonly id: SoftId
  readonly state: 'ahead' | 'now' | 'over'
  readonly from: Instant
  readonly to: Instant
}

const HOUR = 3_600_000
/** What is shorter is no window to work in. */
const SHORTEST = 60_000
/** A piece is cut easily for some hours after it was opened (common practice: hours); a thin one dries before that. */
const TRIMMED_WITHIN = 5 * HOUR, OF_DRYING = 0.1

const stateAt = (now: Instant, from: Instant, to: Instant): SoftWindow['state'] =>
  now < from ? 'ahead' : now < to ? 'now' : 'over'

/**
 * The windows of a batch that is filled, those under a minute left out; they overlap where hands may do either. A mark
 * that was made counts instead of what was foretold, and what is cautious is taken: it may set early.
 * @param run as learnt for this batch
 */
export function softWindows(run: FrozenRun, state: PourState, b: number, now: Instant): readonly SoftWindow[] {
  const batch = state.batches[b], planned = run.batches[b]
  if (batch?.wetAt === undefined || batch.filledAt === undefined || !planned) return []
  const { wetAt, filledAt } = batch
  const each = planned.fills.map(f => run.moments[f.mould.id]!)
  const marked = (sign: string) => batch.marks.find(m => m.sign === sign)?.at
  const soonest = (of: (m: typeof each[number]) => number) => wetAt + Math.min(...each.map(of)) * 1000
  const stands = marked('will-not-pour') ?? soonest(m => m.pourBy.value)
  // It may web, and hold a hanger, before it is too stiff to pour.
  const webs = marked('webbing') ?? marked('will-not-pour') ?? soonest(m => m.pourBy.low)
  const gloss = marked('gloss-gone') ?? soonest(m => m.glossGone.low)
  const warm = Math.min(marked('warmest') ?? Infinity, soonest(m => m.warmest.low))
  const after = (t: Instant) => Math.max(t, filledAt)
  const spans = [
    { id: 'level', from: filledAt, to: after(Math.min(stands, gloss)) },
    { id: 'back', from: after(Math.min(webs, gloss)), to: after(gloss) },
    { id: 'scrape', from: after(gloss), to: after(Math.max(gloss, warm)) },
  ] as const
  return [...spans, ...trimming(run, state, b)].filter(s => s.to - s.from >= SHORTEST)
    .map(s => ({ ...s, state: stateAt(now, s.from, s.to) }))
}

/** From the first opening on, as long as the thinnest of them is damp enough to cut. */
function trimming(run: FrozenRun, state: PourState, b: number) {
  const opened = state.casts.filter(c => c.cast.batch === b).flatMap(c => c.openedAt ?? [])
  if (opened.length === 0) return []
  const dry = Math.min(...run.batches[b]!.fills.map(f => run.drying[f.mould.id]?.low ?? Infinity)) * 1000
  const from = Math.min(...opened)
  return [{ id: 'trim' as const, from, to: from + Math.min(TRIMMED_WITHIN, OF_DRYING * dry) }]
}
