import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { layoutTape, tapeReach, tapeScale, type TapeInput } from './tape'
import { tapeTime, tapeWords } from './words'

const input: TapeInput = {
  acts: [
    { id: 'sift', end: 150, done: false },
    { id: 'soak', end: 270, done: false },
    { id: 'stir', end: 390, done: false },
    { id: 'fill', end: 480, done: false },
  ],
  gloss: 960, warmest: 1800, open: { from: 3600, to: 5400 }, stiff: 600,
}

describe('the tape of time', () => {
  it('has each act after the one before it, without a gap, from wetting to its end', () => {
    const minutes = fc.integer({ min: 0, max: 85 })
    const px = fc.integer({ min: 240, max: 1600 })
    fc.assert(fc.property(fc.tuple(minutes, minutes, minutes, minutes), px, (ends, width) => {
      const acts = input.acts.map((a, i) => ({ ...a, end: 60 * ends[i]! }))
      const until = tapeReach({ ...input, acts }, undefined), { pieces } = layoutTape({ ...input, acts }, width, until)
      let to = 0, x = 0
      for (const p of pieces.filter(q => q.id !== 'open')) {
        expect(p.from).toBe(to)
        expect(p.x).toBeCloseTo(x, 6)
        to = p.to
        x = p.x + p.width
      }
      // Poured so slowly that it could be opened meanwhile, opening still comes after.
      for (const p of pieces.filter(q => q.id === 'open')) expect(p.from).toBeGreaterThanOrEqual(60 * Math.max(...ends))
      const last = pieces.at(-1)!
      expect(last.x + last.width).toBeLessThanOrEqual(width + 1e-6)
    }))
  })
  it('gives near times more room than far ones, and never goes back', () => {
    const place = tapeScale(5400, 1000)
    expect([place(0), place(5400), place(9000)]).toEqual([0, 1000, 1000])
    expect(place(120) - place(0)).toBeGreaterThan(place(5400) - place(3600))
  })
  it('while hands are at work looks to where it may be too stiff, later to the opening', () => {
    expect(tapeReach(input, 60)).toBeCloseTo(690)
    expect(tapeReach(input, undefined)).toBe(5400)
    expect(tapeReach(input, 800)).toBe(5400)
    const poured = { ...input, acts: input.acts.map(a => ({ ...a, done: true })) }
    expect(tapeReach(poured, 500)).toBe(5400)
    expect(tapeReach(poured, 90_000)).toBeCloseTo(99_000)
  })
  it('shows what would be poured too late, where it happens, and nothing once it is poured', () => {
    const late = { ...input, acts: [...input.acts.slice(0, 3), { id: 'fill' as const, end: 780, done: false }] }
    expect(layoutTape(late, 1000, 5400).trouble).toMatchObject({ from: 600, to: 780 })
    expect(layoutTape(input, 1000, 5400).trouble).toBeUndefined()
    // With hands at work the rest of the tape is too late.
    expect(layoutTape(input, 1000, 690, 60).trouble).toMatchObject({ from: 600, to: 690 })
    const poured = { ...late, acts: late.acts.map(a => ({ ...a, done: true })) }
    expect(layoutTape(poured, 1000, 5400).trouble).toBeUndefined()
  })
  it('is warmest where it is foretold, and writes times that keep clear of each other', () => {
    const { warmth, ticks } = layoutTape(input, 700, 5400)
    const hottest = warmth.filter(w => w.step === 4)
    expect(hottest[0]!.from).toBeLessThanOrEqual(1800)
    expect(hottest.at(-1)!.to).toBeGreaterThanOrEqual(1800)
    ticks.slice(1).forEach((t, i) => expect(t.x - ticks[i]!.x).toBeGreaterThanOrEqual(46))
  })
  it('reads as one sentence, from the same numbers', () => {
    expect(tapeWords(input, 620)).toBe(
      'The tape of time, after powder meets water: sift until 2 min 30 s, soak until 4 min 30 s, stir until 6 min 30 s, '
      + 'pour until 8 min, maybe too stiff from 10 min, warmest at 30 min and open after 1 h – 1 h 30. It is 10 min now.',
    )
    expect([tapeTime(0, false), tapeTime(150, false), tapeTime(1500, true), tapeTime(5400, true)])
      .toEqual(['0', '2½', '25 min', '1 h 30'])
  })
})
