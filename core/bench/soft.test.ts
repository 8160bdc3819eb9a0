import { describe, expect, it } from 'vitest'
import { freezeRun } from '../plan/run'
import { foldPour } from '../pour/fold'
import type { PourEvent } from '../pour/events'
import { chance } from '../../demo/random'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { softWindows } from './soft'

const ids = makeIds(chance(3))
const frozen = freezeRun({ ...planOf(ids, WISHES.lanterns), fills: [{ mould: ids.moulds.lantern, count: 2 }] }, {
  moulds: [{ ...MOULDS.lantern, id: ids.moulds.lantern }], bucket: { ...BUCKETS.pail, id: ids.buckets.pail },
})
if (!frozen.ok) throw new Error('the plan is refused')
const { run } = frozen, T0 = 1_800_000_000_000, moments = run.moments[ids.moulds.lantern]!
type Told = readonly [seconds: number, kind: string, data: object]
const fold = (...told: readonly Told[]) => foldPour(run, told.map(([at, kind, data], i) => ({
  id: `${i}`, pour: 'p', kind, data, batch: 0, version: 1, happenedAt: T0 + at * 1000, recordedAt: 0, device: 'd', deviceSeq: i,
  actor: 'a',
} as PourEvent)))
const FILLED: readonly Told[] = [
  [0, 'stage', { stage: 'sift' }], [240, 'stage', { stage: 'fill' }], [400, 'stage', { stage: 'clean-up' }],
]
const at = (seconds: number) => T0 + seconds * 1000
const idsOf = (state: ReturnType<typeof fold>, now = at(400)) => softWindows(run, state, 0, now).map(w => w.id)

describe('while it is soft', () => {
  it('there is nothing to do to a back before all is filled', () => {
    expect(idsOf(fold(...FILLED.slice(0, 2)))).toEqual([])
  })

  it('is level, back, scrape, in this order, until it is warm', () => {
    const windows = softWindows(run, fold(...FILLED), 0, at(401)), before = (i: number) => windows[i - 1]!
    expect(windows.map(w => w.id)).toEqual(['level', 'back', 'scrape'])
    for (const [i, w] of windows.entries()) {
      expect(w.to - w.from).toBeGreaterThanOrEqual(60_000)
      if (i > 0) expect(w.from >= before(i).from && w.to >= before(i).to).toBe(true)
    }
    expect(windows[0]).toMatchObject({ from: at(400), state: 'now' })
    expect(windows[1]).toMatchObject({ from: at(moments.pourBy.low), to: at(moments.glossGone.low) })
    expect(windows[2]!.to).toBe(at(moments.warmest.low))
  })

  it('moves when a sign is marked, and what is over says so', () => {
    const gloss = moments.glossGone.low + 300
    const windows = softWindows(run, fold(...FILLED, [gloss, 'mark', { sign: 'gloss-gone' }]), 0, at(gloss + 1))
    const back = windows.find(w => w.id === 'back')!
    expect(back).toMatchObject({ to: at(gloss), state: 'over' })
    expect(windows.find(w => w.id === 'scrape')).toMatchObject({ from: at(gloss), state: 'now' })
  })

  it('is over at once where filling ended late, and begins again for trimming when it is opened', () => {
    const late = moments.warmest.high + 600
    expect(idsOf(fold(...FILLED.slice(0, 2), [late, 'stage', { stage: 'clean-up' }]))).toEqual([])
    const opened = fold(...FILLED, [4000, 'opened', { cast: '1.1' }])
    const trim = softWindows(run, opened, 0, at(4100)).find(w => w.id === 'trim')!
    expect(trim).toMatchObject({ from: at(4000), state: 'now' })
    expect(trim.to - trim.from).toBeLessThanOrEqual(5 * 3_600_000)
    expect(trim.to - trim.from).toBeGreaterThan(600_000)
  })
})
