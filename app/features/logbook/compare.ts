import { additionKind } from '~core/gypsum/additions'
import { endUse } from '~core/gypsum/end-use'
import { powderClass } from '~core/gypsum/powders'
import { SCHOOLS } from '~core/gypsum/schools'
import { STIR_TOOLS } from '~core/gypsum/stirring'
import { causeWords } from '~core/pour/causes'
import { costOf } from '~core/pour/cost'
import { defectWords, troubleWords } from '~core/pour/defects'
import { milestonesOf, type Milestone, type MilestoneId } from '~core/pour/milestones'
import type { Plan } from '~core/plan/types'
import { rippleRadius } from '~core/pour/ripples'
import { castCounts, type FrozenRun } from '~core/plan/run'
import { foldPour, type PourState } from '~core/pour/fold'
import { formatConsistency, formatDuration, formatMass, formatTemperature } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'
import type { PourAnswer } from '~contract/pour'

/** One pour among several: its letter, what was planned and what came of it. */
interface Compared {
  readonly id: string
  readonly letter: string
  readonly run: FrozenRun
  readonly state: PourState
  readonly milestones: readonly Milestone[]
}

export function compared(pours: readonly PourAnswer[]): readonly Compared[] {
  return pours.map((p, i) => {
    const state = foldPour(p.run, p.events)
    return {
      id: p.id,
      letter: String.fromCharCode(65 + i),
      run: p.run,
      state,
      milestones: p.run.daysOnly ? [] : milestonesOf(p.run, state, 0),
    }
  })
}

export interface Row {
  readonly word: string
  readonly cells: readonly string[] /** They are not all the same, where they are known. */
  readonly differs: boolean
}
export interface Block {
  readonly word: string
  readonly rows: readonly Row[]
}

const UNKNOWN = '—'
const row = (word: string, cells: readonly string[]): Row => ({
  word,
  cells,
  differs: new Set(cells.filter(c => c !== UNKNOWN)).size > 1,
})
const was = (m: Milestone | undefined) =>
  m?.actual === undefined ? UNKNOWN : formatDuration(m.actual, m.actual > 1200 ? 'minute' : 'second')
const words = (list: readonly string[]) => list.length > 0 ? list.join(', ') : UNKNOWN

type Read = (c: Compared) => string | undefined
const names = (list: readonly string[]) => words([...new Set(list)].map(n => n.toLowerCase()))
const batch = (c: Compared) => c.state.batches[0]!
const momentOf = (c: Compared, id: MilestoneId) => c.milestones.find(m => m.id === id)

/** How long a step took, where both its ends were told. */
function between(c: Compared, from: MilestoneId, to: MilestoneId): string | undefined {
  const begun = momentOf(c, from)?.actual, at = momentOf(c, to)?.actual
  return at === undefined || begun === undefined ? undefined : formatDuration(at - begun, 'second')
}
function count(c: Compared, verdict: 'good' | 'second' | 'waste'): string | undefined {
  const judged = c.state.casts.filter(x => x.verdict)
  return judged.length === 0 ? undefined : `${judged.filter(x => x.verdict === verdict).length} of ${judged.length}`
}

type Rows = readonly (readonly [word: string, read: Read])[]
/** What a plan said; of a pour of the past nobody knows. */
const planned = (read: (plan: Plan, c: Compared) => string): Read => c =>
  c.run.daysOnly ? undefined : read(c.run.plan, c)
const plannedRows = (units: UnitPreferences): Rows => [
  ['powder', c => c.run.world.bag?.name ?? powderClass(c.run.plan.classId).name],
  ['water per 100 powder', planned((_, c) => formatConsistency(c.run.ratio.value))],
  ['measured', planned(p => SCHOOLS.find(s => s.id === p.school)!.name.toLowerCase())],
  ['for', planned(p => endUse(p.endUse).name.toLowerCase())],
  ['water', planned(p => formatTemperature(p.waterTemperature, units))],
  ['room', planned(p => formatTemperature(p.roomTemperature, units))],
  ['soak', planned(p => `${p.soakMinutes} min`)],
  ['stir', planned(p => `${p.stir.minutes} min, ${STIR_TOOLS[p.stir.tool].name.toLowerCase()}`)],
  ['added', planned(p => names(p.additions.map(a => additionKind(a.id).name)))],
  ['moulds', c => words(castCounts(c.run).map(m => `${m.count} × ${m.name}`))],
]
const moment = (id: MilestoneId): Read => c => was(momentOf(c, id))
function warmestRead({ temperatures }: Compared['state']['batches'][number], units: UnitPreferences): string | undefined {
  if (temperatures.length === 0) return undefined
  return formatTemperature(Math.max(...temperatures.map(t => t.celsius)), units)
}
const happenedRows = (units: UnitPreferences): Rows => [
  ['water per 100 powder', c => batch(c).ratio === undefined ? undefined : formatConsistency(batch(c).ratio!)],
  ['powder', ({ state: { batches: [b] } }) =>
    b!.weighed.powder === undefined ? undefined : formatMass(b!.weighed.powder, units)],
  ['soaked for', c => between(c, 'sift', 'soak')],
  ['stirred for', c => between(c, 'soak', 'stir')],
  ['all poured after', moment('fill')],
  ['gloss gone after', moment('set')],
  ['warmest after', moment('warm')],
  ['opened after', moment('open')],
  ['finished after', moment('dry')],
  ['warmest read', c => warmestRead(batch(c), units)],
  ['troubles', c => names(c.state.batches.flatMap(b => b.troubles).map(troubleWords))],
]
const MONEY = { minimumFractionDigits: 2, maximumFractionDigits: 2 } as const
const CAME: Rows = [
  ['good', c => count(c, 'good')],
  ['second', c => count(c, 'second')],
  ['waste', c => count(c, 'waste')],
  ['defects', c => names(c.state.casts.flatMap(x => x.defects).map(defectWords))],
  ['causes found', c => names(c.state.casts.flatMap(x => x.causes).map(k => causeWords(k.cause)))],
  ['cost of a usable piece', c => costOf(c.run, c.state)?.each?.toLocaleString('en-GB', MONEY)],
]

/** What was planned, what happened (first batch) and what came of it, side by side. */
export function comparison(all: readonly Compared[], units: UnitPreferences): readonly Block[] {
  const block = (word: string, rows: Rows): Block => ({
    word,
    rows: rows.map(([name, read]) => row(name, all.map(c => read(c) ?? UNKNOWN))),
  })
  return [
    block('Planned', plannedRows(units)),
    block('Happened', happenedRows(units)),
    block('Came of it', CAME),
  ]
}

export interface Lane {
  readonly letter: string
  readonly y: number
  readonly marks: readonly {
    readonly id: MilestoneId
    readonly from: number
    readonly to: number
    readonly at?: number
    readonly word: string
    readonly words: string
  }[]
}
export interface Tick {
  readonly x: number
  readonly word: string
}
const TICKS: readonly (readonly [number, string])[] = [
  [60, '1 min'],
  [300, '5 min'],
  [900, '15 min'],
  [3600, '1 h'],
  [6 * 3600, '6 h'],
  [86_400, '1 day'],
  [7 * 86_400, '1 week'],
]

/** Pours one above the other from the moment powder met water, on the ripple chart's own logarithmic time. */
export function lanes(
  all: readonly Compared[],
  width: number,
  laneHeight: number,
): {
  readonly lanes: readonly Lane[]
  readonly ticks: readonly Tick[] /** Words of the moments, over the first lane that has them. */
  readonly heads: readonly Tick[]
} {
  const until = Math.max(3600, ...all.flatMap(c => c.milestones.map(m => Math.max(m.high, m.actual ?? 0))))
  const x = (t: number) => rippleRadius(Math.max(0, t), until, width)
  const drawn = all.map((c, i): Lane => ({
    letter: c.letter,
    y: (i + 0.5) * laneHeight,
    marks: c.milestones.map(m => ({
      id: m.id,
      from: x(m.low),
      to: x(m.high),
      at: m.actual === undefined ? undefined : x(m.actual),
      word: m.word,
      words: `${m.phrase}: expected ${formatDuration(m.value, 'minute')}${
        m.actual === undefined ? '' : `, was ${formatDuration(m.actual, m.actual > 1200 ? 'minute' : 'second')}`
      }`,
    })),
  }))
  const heads: Tick[] = []
  for (const m of drawn.find(l => l.marks.length > 0)?.marks ?? []) {
    const before = heads.at(-1),
      room = before ? before.x + (before.word.length + m.word.length) / 2 * LETTER + LETTER : 0
    heads.push({ x: Math.max(room, (m.from + m.to) / 2), word: m.word })
  }
  return { ticks: TICKS.filter(([t]) => t <= until).map(([t, word]) => ({ x: x(t), word })), lanes: drawn, heads }
}
/** About as wide as a letter of those words is. */
const LETTER = 7
