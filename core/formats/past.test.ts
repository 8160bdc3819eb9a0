import { describe, expect, it } from 'vitest'
import { chance } from '~demo/random'
import { makeIds, MOULDS } from '~demo/saltmarsh'
import type { PourRow } from './table-in'
import type { PourEvent } from '../pour/events'
import { pastHappenings, pastPlan } from './past'
import { freezeRun, type FrozenRun } from '../plan/run'
import { summarisePour } from '../pour/projection'
import { foldPour } from '../pour/fold'

const mould = { id: makeIds(chance(1)).moulds.tile, ...MOULDS.tile }
const row = (over: Partial<PourRow> = {}): PourRow => ({
  date: '2024-05-03',
  mould: mould.id,
  pieces: 4,
  classId: 'gypsum-cement',
  defects: [],
  note: '',
  ...over,
})
function told(r: PourRow) {
  const { plan, world } = pastPlan(r, mould, undefined), frozen = freezeRun(plan, world)
  if (!frozen.ok) throw new Error(frozen.problems[0]?.code)
  const run: FrozenRun = { ...frozen.run, daysOnly: true }
  const events = pastHappenings(r, run).map(({ at, batch, what }, i): PourEvent => ({
    ...what,
    id: `e${i}`,
    pour: 'p',
    version: 1,
    batch,
    happenedAt: at,
    recordedAt: at,
    device: 'table',
    deviceSeq: i,
    actor: 'x',
  }))
  return { run, events, state: foldPour(run, events) }
}

describe('a pour of the past', () => {
  it('is over, on its own day, with the weights that were told shared out among its batches', () => {
    const { run, events, state } = told(row({ pieces: 40, water: 12, powder: 30, good: 40 }))
    expect(run.batches.length).toBeGreaterThan(1)
    expect(state.status).toBe('finished')
    expect(events.every(e => new Date(e.happenedAt).toISOString().startsWith('2024-05-03'))).toBe(true)
    expect(state.batches.reduce((s, b) => s + b.weighed.water!, 0)).toBeCloseTo(12, 9)
    for (const b of state.batches) expect(b.ratio).toBeCloseTo(0.4, 9)
    expect(run.ratio.value).toBeCloseTo(0.4, 9)
  })

  it('puts what was wrong on the pieces that did not come out well, else on one; no verdict is invented', () => {
    const casts = (r: PourRow) => told(r).state.casts.map(c => [c.verdict, c.defects.length])
    expect(casts(row({ good: 1, second: 1, waste: 1, defects: ['crack'] }))).toEqual([['waste', 1], ['second', 1], [
      'good',
      0,
    ], [undefined, 0]])
    expect(casts(row({ good: 4, defects: ['stain'] })).map(c => c[1])).toEqual([1, 0, 0, 0])
    expect(casts(row()).every(([v]) => v === undefined)).toBe(true)
  })

  it('keeps the note, with a piece or with the pour', () => {
    expect(told(row({ good: 4, note: 'Old book' })).state.casts[0]!.note).toBe('Old book')
    expect(told(row({ note: 'Old book' })).state.notes.map(n => n.text)).toEqual(['Old book'])
  })

  it('says of no moment when it was, and of no air or water how warm', () => {
    const { run, state } = told(row({ good: 4 })), summary = summarisePour(run, state)
    expect(summary.glyph.every(m => m.actual === undefined)).toBe(true)
    expect(summary.temperatures).toBeUndefined()
    expect(summary.ratio.actual).toBeUndefined()
  })
})
