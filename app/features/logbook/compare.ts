import { additionKind } from '~core/gypsum/additions'
import { endUse } from '~core/gypsum/end-use'
import { powderClass } from '~core/gypsum/powders'
import { SCHOOLS } from '~core/gypsum/schools'
import { STIR_TOOLS } from '~core/gypsum/stirring'
import { causeWords } from '~core/pour/causes'
import { costOf } from '~core/pour/cost'
import { defectWords } from '~core/pour/defects'
import { milestonesOf, type Milestone, type MilestoneId } from '~core/pour/milestones'
import type { Plan } from '~core/plan/types'
import { rippleRadius } from '~core/pour/ripples'
import { castCounts, type FrozenRun } from '~core/plan/run'
import { foldPour, type PourState } from '~core/pour/fold'
import { troubleWords } from '~core/pour/troubles'
import { formatConsistency, formatDuration, formatMass, formatTemperature } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'
import type { PourAnswer } from '~contract/pour'

/** One pour among several: its letter, what was planned and what came of it. */
export interface Compared {
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
const list = (words: readonly string[]) => words.length > 0 ? words.join(', ') : UNKNOWN

/** What was planned, what happened (first batch) and what came of it, side by side. */
export function comparison(all: readonly Compared[], units: UnitPreferences): readonly Block[] {
  const of = (word: string, read: (c: Compared) => string | undefined) => row(word, all.map(c => read(c) ?? UNKNOWN))
  /** What a plan said; of a pour of the past nobody knows. */
  const planned = (word: string, read: (plan: Plan, c: Compared) => string) =>
    of(word, c => c.run.daysOnly ? undefined : read(c.run.plan, c))
  const moment = (id: MilestoneId, word: string) => of(word, c => was(c.milestones.find(m => m.id === id)))
  const batch = (c: Compared) => c.state.batches[0]!
  const between = (c: Compared, from: 'soak' | 'stir' | 'sift', to: MilestoneId) => {
    const at = c.milestones.find(m => m.id === to)?.actual,
      begun = from === 'sift' ? 0 : c.milestones.find(m => m.id === (from === 'soak' ? 'sift' : 'soak'))?.actual
    return at === undefined || begun === undefined ? undefined : formatDuration(at - begun, 'second')
  }
  const count = (c: Compared, v: 'good' | 'second' | 'waste') => {
    const judged = c.state.casts.filter(x => x.verdict), n = judged.filter(x => x.verdict === v).length
    return judged.length === 0 ? undefined : `${n} of ${judged.length}`
  }
  return [
    {
      word: 'Planned',
      rows: [
        of('powder', c => c.run.world.bag?.name ?? powderClass(c.run.plan.classId).name),
        planned('water per 100 powder', (_, c) => formatConsistency(c.run.ratio.value)),
        planned('measured', p => SCHOOLS.find(s => s.id === p.school)!.name.toLowerCase()),
        planned('for', p => endUse(p.endUse).name.toLowerCase()),
        planned('water', p => formatTemperature(p.waterTemperature, units)),
        planned('room', p => formatTemperature(p.roomTemperature, units)),
        planned('soak', p => `${p.soakMinutes} min`),
        planned('stir', p => `${p.stir.minutes} min, ${STIR_TOOLS[p.stir.tool].name.toLowerCase()}`),
        planned('added', p => list(p.additions.map(a => additionKind(a.id).name.toLowerCase()))),
        of('moulds', c => list(castCounts(c.run).map(m => `${m.count} × ${m.name}`))),
      ],
    },
    {
      word: 'Happened',
      rows: [
        of('water per 100 powder', c => batch(c).ratio === undefined ? undefined : formatConsistency(batch(c).ratio!)),
        of(
          'powder',
          c => batch(c).weighed.powder === undefined ? undefined : formatMass(batch(c).weighed.powder!, units),
        ),
        of('soaked for', c => between(c, 'soak', 'soak')),
        of('stirred for', c => between(c, 'stir', 'stir')),
        moment('fill', 'all poured after'),
        moment('set', 'gloss gone after'),
        moment('warm', 'warmest after'),
        moment('open', 'opened after'),
        moment('dry', 'finished after'),
        of('warmest read', c =>
          batch(c).temperatures.length === 0
            ? undefined
            : formatTemperature(Math.max(...batch(c).temperatures.map(t => t.celsius)), units)),
        of('troubles', c =>
          list([
            ...new Set(c.state.batches.flatMap(b => b.troubles)),
          ].map(t => troubleWords(t).toLowerCase()))),
      ],
    },
    {
      word: 'Came of it',
      rows: [
        of('good', c => count(c, 'good')),
        of('second', c => count(c, 'second')),
        of('waste', c => count(c, 'waste')),
        of(
          'defects',
          c => list([...new Set(c.state.casts.flatMap(x => x.defects))].map(d => defectWords(d).toLowerCase())),
        ),
        of(
          'causes found',
          c => list([...new Set(c.state.casts.flatMap(x => x.causes.map(k => causeWords(k.cause).toLowerCase())))]),
        ),
        of('cost of a usable piece', c =>
          costOf(c.run, c.state)?.each?.toLocaleString('en-GB', {
            minimumFractionDigits: 2,
            maximumFractionDigits: 2,
          })),
      ],
    },
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
