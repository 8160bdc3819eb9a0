import { describe, expect, it } from 'vitest'
import type { PourSummary } from '~core/pour/projection'
import type { PourRow } from '~contract/pour'
import type { CastGroup } from '~/features/shelf/groups'
import { bucketLook, nextThing, pourWarmth } from './picture'

const mark = (id: string, value: number) => ({ id, word: id, tone: 'mix', low: value, value, high: value })
const summary = (stage: string, status = 'pouring', wetAt?: number) => ({
  name: stage, status, wetAt, step: { stage, instruction: stage, batch: 0 },
  glyph: [mark('sift', 100), mark('set', 900), mark('warm', 1800), mark('open', 2700)],
}) as unknown as PourSummary
const row = (id: string, s: PourSummary) => ({ id, seq: 1, summary: s }) as PourRow
const group = (need: string, openTo = 0) => ({ need, key: need + openTo, first: { openTo } }) as unknown as CastGroup

describe('what Today draws', () => {
  it('a bucket before powder, half sifted, soaked and stirred', () => {
    expect(bucketLook(summary('weigh'), 0)).toEqual({ sifted: 0, mixed: false })
    expect(bucketLook(summary('sift', 'pouring', 0), 50_000)).toEqual({ sifted: 0.5, mixed: false })
    expect(bucketLook(summary('sift', 'pouring', 0), 900_000).sifted).toBe(1)
    expect(bucketLook(summary('soak', 'pouring', 0), 120_000)).toEqual({ sifted: 1, mixed: false })
    expect(bucketLook(summary('fill', 'pouring', 0), 200_000)).toEqual({ sifted: 1, mixed: true })
  })
  it('casts warm up and cool by what is foretold of them', () => {
    const at = (minutes: number) => pourWarmth(summary('set', 'setting', 0), minutes * 60_000)
    expect([5, 16, 30, 300].map(at)).toEqual([0, 1, 4, 8])
  })
  it('next is what is wet, else what is late, else what closes first', () => {
    const wet = row('a', summary('stir', 'pouring', 5)), setting = row('b', summary('set', 'setting', 0))
    expect(nextThing([setting, wet], [group('open-late')])).toEqual({ what: 'pour', pour: wet })
    expect(nextThing([setting], [group('open-now', 9), group('open-late')])).toMatchObject({ group: { need: 'open-late' } })
    expect(nextThing([setting], [group('judge'), group('open-now', 9), group('open-now', 4)]))
      .toMatchObject({ group: { key: 'open-now4' } })
    expect(nextThing([setting], [])).toEqual({ what: 'nothing' })
  })
})
