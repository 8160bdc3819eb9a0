import type { Instant } from '../pour/events'
import { workOutWindows, type Bound } from '../schedule/windows'
import type { Expected, JobStep, Link, PourTimes } from './types'
import type { HelpId } from './words'

/**
 * When each step of a job may begin: exact windows (core/schedule/windows.ts) of what is still to do, after what was
 * done and what each pour's forecast says. A window that closed is told and left out, so that the rest still has times.
 */

/** How a step stands. */
export type StepState = 'done' | 'running' | 'waiting' | 'now' | 'ahead' | 'missed'
export interface StepTimes {
  readonly id: string
  readonly state: StepState
  /** When it may begin, or began. */
  readonly from: Instant
  /** The last moment for it to begin; none where nothing presses. */
  readonly to?: Instant | undefined
  /** The last moment for it if all before it goes as early as it may; none where nothing presses. */
  readonly within?: Instant | undefined
  /** When it ended, or is expected to if it begins as early as it may. */
  readonly ends: Instant
  /** It began after its window had closed, or can no longer be in it: by how long, ms, and what helps. */
  readonly late?: { readonly by: number, readonly help: HelpId | undefined } | undefined
}
/** Steps that lead back to themselves, or bounds that no order of time can keep, whenever it is begun. */
export interface JobProblem {
  readonly code: 'loop' | 'no-room'
  readonly steps: readonly string[]
  /** By how many minutes it is too tight at least. */
  readonly by: number
}
export interface JobTimes {
  readonly steps: readonly StepTimes[]
  /** What is to be done next: what runs, else what closes first, else what opens first. */
  readonly next?: string | undefined
  readonly problem?: JobProblem | undefined
}

const S = 1000
interface Fact extends Bound {
  /** Whose window it is, and by which link. */
  readonly of?: { readonly step: number, readonly link: Link } | undefined
}

const seconds = (minutes: number) => Math.round(60 * minutes)
/** A least lag counts from when it should be, a greatest from when it may be at the earliest: both are safe. */
const early = (e: Expected) => Math.floor(e.actual ?? e.low)
const likely = (e: Expected) => Math.ceil(e.actual ?? e.value)

/** What a link says, in seconds from when its step began or ended. */
function boundOf(
  link: Link, from: { start: number, end: number }, to: number, times: PourTimes | undefined,
): Bound | undefined {
  const { at, least, most } = link
  if (at === 'start' || at === 'end') {
    return {
      from: from[at], to,
      ...least !== undefined && { min: seconds(least) }, ...most !== undefined && { max: seconds(most) },
    }
  }
  const sign = times?.signs[at]
  if (!sign) return undefined
  return {
    from: from.start, to,
    ...least !== undefined && { min: likely(sign) + seconds(least) },
    ...most !== undefined && { max: early(sign) + seconds(most) },
  }
}

interface Told { readonly steps: readonly JobStep[], readonly pours: ReadonlyMap<string, PourTimes> }
const begunAt = ({ pours }: Told, s: JobStep): Instant | undefined => pours.get(s.id)?.wetAt ?? s.began
function endedAt({ pours }: Told, s: JobStep): Instant | undefined {
  const times = pours.get(s.id)
  if (times?.wetAt !== undefined && times.filled.actual !== undefined) return times.wetAt + times.filled.actual * S
  return s.kind === 'pour' ? undefined : s.ended
}
/** How long a step takes, s. */
const lengthOf = ({ pours }: Told, s: JobStep): number =>
  Math.max(0, likely(pours.get(s.id)?.filled ?? { low: 0, value: 60 * s.minutes, high: 0 }))

const nodes = (n: number) => ({ start: 1 + 2 * n, end: 2 + 2 * n })

const lasting = (n: number, s: number): Fact => ({ from: nodes(n).start, to: nodes(n).end, min: s, max: s })

/** The steps' own lengths and the links between them; those of what has begun are facts already. */
function ownBounds(told: Told): Fact[] {
  const place = new Map(told.steps.map((s, n) => [s.id, n]))
  return told.steps.flatMap((s, n): Fact[] => [
    ...begunAt(told, s) === undefined ? [lasting(n, lengthOf(told, s))] : [],
    ...s.after.flatMap((link): Fact[] => {
      const from = place.get(link.step)
      if (from === undefined || begunAt(told, s) !== undefined) return []
      const bound = boundOf(link, nodes(from), nodes(n).start, told.pours.get(link.step))
      return bound ? [{ ...bound, of: { step: n, link } }] : []
    }),
  ])
}

/** What happened, and that nothing more can begin or end before now. All in s after `zero`. */
function factBounds(told: Told, zero: Instant, now: Instant): Fact[] {
  const at = (t: Instant) => Math.round((t - zero) / S)
  const pin = (node: number, t: number): Fact => ({ from: 0, to: node, min: t, max: t })
  return told.steps.flatMap((s, n): Fact[] => {
    const { start, end } = nodes(n), began = begunAt(told, s), ended = endedAt(told, s)
    // What comes by itself does not wait for anybody: it begins when what it follows has ended.
    if (began === undefined) return s.kind === 'until' ? [] : [{ from: 0, to: start, min: at(now) }]
    // What takes longer than it should is expected to end any moment.
    const over = ended === undefined ? Math.max(at(now), at(began) + lengthOf(told, s)) : at(ended)
    return [pin(start, at(began)), pin(end, Math.max(over, at(began)))]
  })
}

/** Whatever is begun when: do the steps contradict each other by themselves? */
function problemOf(told: Told): JobProblem | undefined {
  const fresh: Told = {
    steps: told.steps.map(s => ({ ...s, began: undefined, ended: undefined })),
    pours: new Map([...told.pours].map(([id, t]) => [id, { ...t, wetAt: undefined }])),
  }
  const bounds = ownBounds(fresh), worked = workOutWindows({ nodes: 1 + 2 * fresh.steps.length, bounds })
  if (worked.ok) return undefined
  const inIt = worked.conflict.bounds.flatMap(b => bounds[b]!.of ?? [])
  const steps = [...new Set(inIt.flatMap(({ step, link }) => [fresh.steps[step]!.id, link.step]))]
  const code = inIt.some(({ link }) => link.most !== undefined) ? 'no-room' : 'loop'
  return { code, steps, by: Math.ceil(worked.conflict.excess / 60) }
}

type Lates = Map<number, { by: number, help: HelpId | undefined }>

/** Windows of all, with each greatest lag that can no longer be kept told and left out, the tightest first. */
function keepWhatCan(
  bounds: readonly Fact[], count: number,
): { readonly earliest: readonly number[], readonly latest: readonly number[], readonly lates: Lates } {
  const lates: Lates = new Map()
  let kept = bounds
  for (;;) {
    const worked = workOutWindows({ nodes: count, bounds: kept })
    if (worked.ok) return { ...worked.windows, lates }
    const relief = worked.conflict.reliefs.filter(r => kept[r.bound]!.of?.link.most !== undefined)
      .sort((a, b) => a.by - b.by)[0]
    // Least lags alone never clash once a problem of their own is ruled out.
    if (!relief) return { earliest: [], latest: [], lates }
    const { step, link } = kept[relief.bound]!.of!
    lates.set(step, { by: relief.by * S, help: link.missed })
    kept = kept.map((b, i) => i === relief.bound ? { from: b.from, to: b.to, min: b.min ?? 0 } : b)
  }
}

/** How long a step may wait where everything before it goes as early as it may. */
function roomOf(
  bounds: readonly Fact[], earliest: readonly number[], node: number, zero: Instant,
): { readonly within?: Instant } {
  const ends = bounds.flatMap(b => b.of && b.to === node && b.max !== undefined ? [earliest[b.from]! + b.max] : [])
  return ends.length > 0 ? { within: zero + Math.min(...ends) * S } : {}
}

/** From when a greatest lag was counted; nothing where that has not happened. */
function countedFrom(told: Told, { step, at }: Link): Instant | undefined {
  const before = told.steps.find(b => b.id === step)
  if (!before) return undefined
  if (at === 'end') return endedAt(told, before)
  const began = begunAt(told, before)
  if (began === undefined || at === 'start') return began
  const sign = told.pours.get(step)?.signs[at]
  return sign && began + early(sign) * S
}

/** How long after its window something began; nothing where it was in time. */
function lateness(told: Told, s: JobStep): StepTimes['late'] {
  const began = begunAt(told, s)
  if (began === undefined) return undefined
  const lates = s.after.flatMap((link) => {
    const from = countedFrom(told, link)
    if (from === undefined || link.most === undefined) return []
    const by = began - from - 60 * S * link.most
    return by > 0 ? [{ by, help: link.missed }] : []
  })
  return lates.sort((a, b) => b.by - a.by)[0]
}

/**
 * When each step may begin, what is next, and what no longer fits.
 * @param pours what is told of each step's pour, by the step's id
 * @example workOutJob(job.steps, new Map(), Date.now()).next
 */
export function workOutJob(
  steps: readonly JobStep[], pours: ReadonlyMap<string, PourTimes>, now: Instant,
): JobTimes {
  const told: Told = { steps, pours }, problem = problemOf(told)
  if (problem) return { steps: [], problem }
  const zero = Math.min(now, ...steps.flatMap(s => begunAt(told, s) ?? []))
  const bounds = [...ownBounds(told), ...factBounds(told, zero, now)]
  const { earliest, latest, lates } = keepWhatCan(bounds, 1 + 2 * steps.length)
  const times = steps.map((s, n): StepTimes => {
    const { start, end } = nodes(n), began = begunAt(told, s), ended = endedAt(told, s)
    const from = began ?? zero + (earliest[start] ?? 0) * S, to = began === undefined ? latest[start] : undefined
    const late = began === undefined ? lates.get(n) : lateness(told, s)
    const ends = ended ?? zero + (earliest[end] ?? 0) * S
    const of = { began, ended, from, ends, late: late !== undefined, now }
    return {
      id: s.id, from, ends,
      ...to !== undefined && to < Infinity && { to: zero + to * S },
      ...began === undefined && roomOf(bounds, earliest, start, zero),
      ...late && { late }, state: s.kind === 'until' ? waitOf(of) : stateOf(of),
    }
  })
  return { steps: times, next: nextOf(steps, times) }
}

interface Standing {
  readonly began: Instant | undefined
  readonly ended: Instant | undefined
  readonly from: Instant
  readonly ends: Instant
  readonly late: boolean
  readonly now: Instant
}
function stateOf({ began, ended, from, late, now }: Standing): StepState {
  if (ended !== undefined) return 'done'
  if (began !== undefined) return 'running'
  if (late) return 'missed'
  // Within a second: windows are whole seconds.
  return from > now + S ? 'ahead' : 'now'
}
function waitOf({ from, ends, now }: Standing): StepState {
  if (ends <= now) return 'done'
  return from > now + S ? 'ahead' : 'waiting'
}

/** What runs under the hands, else what closes first of what may begin, else what opens first. */
function nextOf(steps: readonly JobStep[], times: readonly StepTimes[]): string | undefined {
  const acts = times.filter((_, n) => steps[n]!.kind !== 'until'), close = (t: StepTimes) => t.to ?? Infinity
  const open = acts.filter(t => t.state === 'now' || t.state === 'missed').sort((a, b) => close(a) - close(b))[0]
  return (acts.find(t => t.state === 'running') ?? open
    ?? acts.filter(t => t.state === 'ahead').sort((a, b) => a.from - b.from)[0])?.id
}
