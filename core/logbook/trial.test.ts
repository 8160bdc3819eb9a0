import { describe, expect, it } from 'vitest'
import type { PourSummary } from '../pour/projection'
import { askTrials, middleOf, sides, trialOf, type Trial } from './trial'

const mark = (id: string, value: number, actual?: number) =>
  ({ id, word: id, tone: 'mix', low: value, value, high: value, actual }) as PourSummary['glyph'][number]
const pour = (over: Partial<PourSummary> = {}): PourSummary => ({
  name: 'x',
  status: 'finished',
  classId: 'pottery-plaster',
  powder: 'Pottery plaster',
  school: 'weighed',
  endUse: 'display',
  moulds: [],
  batches: 1,
  ratio: { planned: 0.8, low: 0.79, high: 0.81, actual: 0.84 },
  startedAt: 5,
  step: { stage: 'set', instruction: '', batch: 0 },
  verdicts: { good: 3, second: 0, waste: 1 },
  defects: [],
  glyph: [mark('sift', 60, 60), mark('soak', 180, 200), mark('stir', 300, 380), mark('set', 900, 1080)],
  temperatures: { water: 18, room: 21 },
  bagId: 'b',
  cost: { total: 6, pieces: 3 },
  ...over,
})

describe('a pour as one value among others', () => {
  it('holds what was done and what came of it, and leaves out what nobody measured', () => {
    const { did, was, came } = trialOf(pour())!
    expect(did).toEqual({ ratio: expect.closeTo(5, 9), soak: 140, stir: 180, water: 18, room: 21 })
    expect(was).toEqual({ bag: 'b', school: 'weighed', powder: 'pottery-plaster' })
    expect(came).toEqual({ good: 0.75, set: 1.2, cost: 2 })
  })

  it('takes nothing for done that a table did not tell', () => {
    const { did, was } = trialOf(pour({ daysOnly: true, temperatures: undefined, glyph: [] }))!
    expect(did).toEqual({})
    expect(was).toEqual({ bag: 'b', powder: 'pottery-plaster' })
  })

  it('is none when it was given up or nothing came of it', () => {
    expect(trialOf(pour({ status: 'abandoned' }))).toBeUndefined()
    expect(trialOf(pour({ verdicts: { good: 0, second: 0, waste: 0 }, glyph: [] }))).toBeUndefined()
  })
})

const made = (n: number, stir: number, good: (i: number) => number): Trial[] =>
  Array.from(
    { length: n },
    (_, i) => ({ at: i, did: { stir }, was: { bag: stir > 100 ? 'x' : 'y' }, came: { good: good(i) } }),
  )

describe('what differs', () => {
  const trials = [...made(12, 60, i => 0.9 + 0.02 * (i % 3)), ...made(12, 200, i => 0.6 + 0.03 * (i % 3)), {
    at: 0,
    did: {},
    was: {},
    came: { good: 0 },
  }, { at: 0, did: { stir: 60 }, was: {}, came: { set: 1 } }]

  it('splits by a measure or by two choices; who has neither is on no side', () => {
    expect(sides(trials, { by: 'stir', at: 100 }, 'good').map(s => s.length)).toEqual([12, 12])
    expect(sides(trials, { by: 'bag', a: 'y', b: 'x' }, 'good').map(s => s.length)).toEqual([12, 12])
    expect(middleOf(trials, 'stir')).toBe(60)
    expect(middleOf(trials, 'soak')).toBeUndefined()
  })

  it('finds a difference that is there and says how large', () => {
    const { verdict, means } = askTrials(trials, { by: 'stir', at: 100 }, 'good', 0.1)
    expect(verdict.says).toBe('differs')
    expect(verdict.says === 'differs' && verdict.difference.high).toBeLessThan(-0.2)
    expect(means[0]).toBeGreaterThan(means[1])
  })

  it('asks for more where there are too few', () => {
    expect(askTrials(trials.slice(0, 13), { by: 'stir', at: 100 }, 'good', 0.1).verdict).toEqual({
      says: 'too-few',
      more: 2,
    })
  })
})
