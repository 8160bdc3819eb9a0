import { describe, expect, it } from 'vitest'
import { CHAINS } from './chains'
import { momentsOfJob } from './moments'
import type { JobStep, Link, PourTimes } from './types'

const MIN = 60_000, T = 1_800_000_000_000
const act = (id: string, minutes: number, ...after: Link[]): JobStep => ({ id, kind: 'hand', minutes, after, name: id })
const after = (step: string, least: number, most?: number): Link => ({ step, at: 'end', least, most })
const mark = (s: JobStep, began: number, ended?: number): JobStep => ({ ...s, began, ended })
const none = new Map<string, PourTimes>()

describe('moments of a job', () => {
  const a = act('a', 5), b = act('b', 5, after('a', 30, 60)), c = act('c', 5, after('b', 10))
  it('nothing before it begins, nor of what waits for something that is not done', () => {
    expect(momentsOfJob([a, b, c], none)).toEqual([])
    expect(momentsOfJob([mark(a, T), b, c], none)).toEqual([])
  })
  it('after a wait its window opens, and is told again ten minutes before it closes', () => {
    const done = mark(a, T, T + 5 * MIN), to = T + 65 * MIN
    expect(momentsOfJob([done, b, c], none)).toEqual([
      { step: 'b', kind: 'opens', at: T + 35 * MIN, to }, { step: 'b', kind: 'closing', at: T + 55 * MIN, to },
    ])
    // Marked, it is told no more, and the next waits its own time.
    expect(momentsOfJob([done, mark(b, T + 40 * MIN, T + 45 * MIN), c], none))
      .toEqual([{ step: 'c', kind: 'opens', at: T + 55 * MIN, to: undefined }])
  })
  it('what may be begun at once is not told; a short window is told in its last third', () => {
    const now = act('b', 1, after('a', 0, 9))
    expect(momentsOfJob([mark(a, T, T), now], none))
      .toEqual([{ step: 'b', kind: 'closing', at: T + 6 * MIN, to: T + 9 * MIN }])
  })
  it('a wait that comes by itself is no act, and what follows it opens when it is over', () => {
    const wait: JobStep = { id: 'w', kind: 'until', minutes: 40, after: [after('a', 0)] }
    expect(momentsOfJob([mark(a, T, T), wait, act('d', 1, after('w', 0))], none))
      .toEqual([{ step: 'd', kind: 'opens', at: T + 40 * MIN, to: undefined }])
  })
  it('a pour that is mixed but not poured frees what counts from its water, not what follows its end', () => {
    const expected = (minutes: number) => ({ low: 60 * minutes, value: 60 * minutes, high: 60 * minutes })
    const pour: JobStep = { id: 'p', kind: 'pour', minutes: 10, after: [] }
    const coat = act('coat', 5, { step: 'p', at: 'gloss', least: -5, most: 5 }), clean = act('clean', 5, after('p', 10))
    const times: PourTimes = { wetAt: T, filled: expected(8), signs: { gloss: expected(20) } }
    expect(momentsOfJob([pour, coat, clean], new Map([['p', times]])).map(m => [m.step, m.kind, (m.at - T) / MIN]))
      .toEqual([['coat', 'opens', 15], ['coat', 'closing', 15 + 10 * 2 / 3]])
    const poured = { ...times, filled: { ...expected(8), actual: 480 } }
    expect(momentsOfJob([pour, coat, clean], new Map([['p', poured]])).map(m => m.step)).toContain('clean')
  })
  it('the hold of an impression says when it is over', () => {
    const impression = CHAINS.find(chain => chain.id === 'impression')!.steps
    const hold = impression.find(s => s.task === 'hold')!
    const told = impression.map(s => impression.indexOf(s) < impression.indexOf(hold)
      ? mark(s, T - MIN, T)
      : s === hold ? mark(s, T) : s)
    expect(momentsOfJob(told, none)).toEqual([{ step: hold.id, kind: 'over', at: T + hold.minutes * MIN }])
  })
})
