import { endUse } from '~core/gypsum/end-use'
import { costOf } from '~core/pour/cost'
import { defectWords } from '~core/pour/defects'
import { milestonesOf, type Milestone, type MilestoneId } from '~core/pour/milestones'
import { rippleRadius } from '~core/pour/ripples'
import type { FrozenRun } from '~core/pour/run'
import { foldPour, type PourState } from '~core/pour/timeline'
import { causeWords } from '~core/pour/causes'
import { formatConsistency, formatDuration, formatMass, formatTemperature } from '~core/units/format'
import type { UnitPreferences } from '~core/units/units'
import type { PourAnswer } from '~shared/pour'

/** One pour among several: its letter, what was planned and what came of it. */
export interface Compared { readonly id: string, readonly letter: string, readonly run: FrozenRun, readonly state: PourState, readonly milestones: readonly Milestone[] }

export function compared(pours: readonly PourAnswer[]): readonly Compared[] {
  return pours.map((p, i) => {
    const state = foldPour(p.run, p.events)
    return { id: p.id, letter: String.fromCharCode(65 + i), run: p.run, state, milestones: milestonesOf(p.run, state, 0) }
  })
}

export interface Row { readonly word: string, readonly cells: readonly string[], /** They are not all the same, where they are known. */ readonly differs: boolean }
export interface Block { readonly word: string, readonly rows: readonly Row[] }

const UNKNOWN = '—'
const row = (word: string, cells: readonly string[]): Row => ({ word, cells, differs: new Set(cells.filter(c => c !== UNKNOWN)).size > 1 })
const was = (m: Milestone | undefined) => m?.actual === undefined ? UNKNOWN : formatDuration(m.actual, m.actual > 1200 ? 'minute' : 'second')
const list = (words: readonly string[]) => words.length > 0 ? words.join(', ') : UNKNOWN

/** What was planned, what happened (first batch) and what came of it, side by side. */
export function comparison(all: readonly Compared[], units: UnitPreferences): readonly Block[] {
  const of = (word: string, read: (c: Compared) => string | undefined) => row(word, all.map(c => read(c) ?? UNKNOWN))
  const moment = (id: MilestoneId, word: string) => of(word, c => was(c.milestones.find(m => m.id === id)))
  const batch = (c: Compared) => c.state.batches[0]!
  const between = (c: Compared, from: 'soak' | 'stir' | 'sift', to: MilestoneId) => {
    const at = c.milestones.find(m => m.id === to)?.actual, begun = from === 'sift' ? 0 : c.milestones.find(m => m.id === (from === 'soak' ? 'sift' : 'soak'))?.actual
    return at === undefined || begun === undefined ? undefined : formatDuration(at - begun, 'second')
  }
  const count = (c: Compared, v: 'good' | 'second' | 'waste') => {
    const judged = c.state.casts.filter(x => x.verdict), n = judged.filter(x => x.verdict === v).length
    return judged.length === 0 ? undefined : `${n} of ${judged.length}`
  }
  return [
    { word: 'Planned', rows: [
      of('powder', c => c.run.world.bag?.name ?? c.run.plan.classId), of('water per 100 powder', c => formatConsistency(c.run.ratio.value)), of('measured', c => c.run.plan.school), of('for', c => endUse(c.run.plan.endUse).name.toLowerCase()),
      of('water', c => formatTemperature(c.run.plan.waterTemperature, units)), of('room', c => formatTemperature(c.run.plan.roomTemperature, units)), of('soak', c => `${c.run.plan.soakMinutes} min`), of('stir', c => `${c.run.plan.stir.minutes} min, ${c.run.plan.stir.tool}`),
      of('added', c => list(c.run.plan.additions.map(a => a.id))), of('moulds', c => list(c.run.batches.flatMap(b => b.fills.map(f => `${f.copies} × ${f.mould.name}`)))),
    ] },
    { word: 'Happened', rows: [
      of('water per 100 powder', c => batch(c).ratio === undefined ? undefined : formatConsistency(batch(c).ratio!)), of('powder', c => batch(c).weighed.powder === undefined ? undefined : formatMass(batch(c).weighed.powder!, units)),
      of('soaked for', c => between(c, 'soak', 'soak')), of('stirred for', c => between(c, 'stir', 'stir')), moment('fill', 'all poured after'), moment('set', 'gloss gone after'), moment('warm', 'warmest after'), moment('open', 'opened after'), moment('dry', 'finished after'),
      of('warmest read', c => batch(c).temperatures.length === 0 ? undefined : formatTemperature(Math.max(...batch(c).temperatures.map(t => t.celsius)), units)),
      of('troubles', c => list(c.state.batches.flatMap(b => b.troubles))),
    ] },
    { word: 'Came of it', rows: [
      of('good', c => count(c, 'good')), of('second', c => count(c, 'second')), of('waste', c => count(c, 'waste')), of('defects', c => list([...new Set(c.state.casts.flatMap(x => x.defects))].map(d => defectWords(d).toLowerCase()))),
      of('causes found', c => list([...new Set(c.state.casts.flatMap(x => x.causes.map(k => causeWords(k.cause).toLowerCase())))])),
      of('cost of a usable piece', c => costOf(c.run, c.state)?.each?.toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })),
    ] },
  ]
}

export interface Lane { readonly letter: string, readonly y: number, readonly marks: readonly { readonly id: MilestoneId, readonly from: number, readonly to: number, readonly at?: number, readonly word: string, readonly words: string }[] }
export interface Tick { readonly x: number, readonly word: string }
const TICKS: readonly (readonly [number, string])[] = [[60, '1 min'], [300, '5 min'], [900, '15 min'], [3600, '1 h'], [6 * 3600, '6 h'], [86_400, '1 day'], [7 * 86_400, '1 week']]

/** Pours one above the other from the moment powder met water, on the ripple chart's own logarithmic time. */
export function lanes(all: readonly Compared[], width: number, laneHeight: number): { readonly lanes: readonly Lane[], readonly ticks: readonly Tick[] } {
  const until = Math.max(3600, ...all.flatMap(c => c.milestones.map(m => Math.max(m.high, m.actual ?? 0))))
  const x = (t: number) => rippleRadius(Math.max(0, t), until, width)
  return {
    ticks: TICKS.filter(([t]) => t <= until).map(([t, word]) => ({ x: x(t), word })),
    lanes: all.map((c, i) => ({
      letter: c.letter, y: (i + 0.5) * laneHeight,
      marks: c.milestones.map(m => ({ id: m.id, from: x(m.low), to: x(m.high), at: m.actual === undefined ? undefined : x(m.actual), word: m.word, words: `${m.phrase}: expected ${formatDuration(m.value, 'minute')}${m.actual === undefined ? '' : `, was ${formatDuration(m.actual, m.actual > 1200 ? 'minute' : 'second')}`}` })),
    })),
  }
}
