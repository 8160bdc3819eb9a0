import { describe, expect, it } from 'vitest'
import type { Milestone } from './milestones'
import { tapeOf } from './tape'

const at = (id: Milestone['id'], value: number, actual?: number) =>
  ({ id, word: id, phrase: id, tone: 'mix', low: value - 60, value, high: value + 60, basis: { kind: 'model' }, actual }) as unknown as Milestone
const all = [at('sift', 150, 130), at('stir', 400), at('fill', 500), at('set', 900), at('warm', 1800), at('open', 3600)]

describe('the tape of a bucket', () => {
  it('takes what has happened for what was expected', () => {
    const { acts, open, gloss, stiff } = tapeOf(all, 'weighed', 600)
    expect(acts.map(a => [a.id, a.end, a.done])).toEqual([['sift', 130, true], ['stir', 400, false], ['fill', 500, false]])
    expect([gloss, stiff, open]).toEqual([900, 600, { from: 3540, to: 3660 }])
  })
  it('names acts as each school does them', () => {
    expect(tapeOf(all, 'powder-first').acts[0]!.id).toBe('water')
    expect(tapeOf(all, 'bag').acts[1]!.id).toBe('knead')
  })
  it('a covered coat shows neither warmth nor opening', () => {
    expect(tapeOf(all.slice(0, 4), 'weighed')).toMatchObject({ warmest: undefined, open: undefined })
  })
})
