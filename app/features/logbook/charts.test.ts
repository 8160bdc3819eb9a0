import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { NO_COUNTS, type Counts } from '~core/logbook/tallies'
import type { KeyTally, SetTime } from '~contract/logbook'
import { costChart, defectsChart, everyMonth, monthWords, percent, resultsChart, setChart } from './charts'

/** Colours come from the page, which is not here; everything else is figures. */
beforeAll(() => {
  vi.stubGlobal('document', { documentElement: {} })
  vi.stubGlobal('getComputedStyle', () => ({ getPropertyValue: (name: string) => name }))
})
afterAll(() => {
  vi.unstubAllGlobals()
})
const month = (name: string, counts: Partial<Counts>) => ({ month: name, counts: { ...NO_COUNTS, ...counts } })
const data = (drawn: ReturnType<typeof resultsChart>, i = 0) => drawn.config.data.datasets[i]!.data

describe('months', () => {
  it('are all there from the first to the last, over the new year too, also those without a pour', () => {
    expect(everyMonth([month('2025-11', {}), month('2026-02', {})]).map(m => m.month)).toEqual([
      '2025-11',
      '2025-12',
      '2026-01',
      '2026-02',
    ])
    expect(everyMonth([])).toEqual([])
    expect(monthWords('2026-02')).toBe('Feb 26')
  })
})

describe('charts', () => {
  const months = [
    month('2026-01', { judged: 10, good: 7, second: 1, waste: 2, pieces: 8, costHundredths: 1200 }),
    month('2026-03', { judged: 4, good: 4 }),
  ]

  it('of results show shares of what was looked over, with the range that luck leaves, and a gap where nothing was', () => {
    const drawn = resultsChart(months)
    expect(data(drawn)).toEqual([0.7, null, 1])
    expect(data(drawn, 2)).toEqual([0.2, null, 0])
    // Wilson's interval of 7 of 10.
    expect(drawn.rows[0]).toEqual(['Jan 26', 10, '70 %', '40 % to 89 %', '10 %', '20 %'])
    expect(drawn.rows[1]).toEqual(['Feb 26', 0, '—', '—', '—', '—'])
  })

  it('of costs divide by the pieces that can be used, and stay empty where no price is known', () => {
    const drawn = costChart(months)
    expect(data(drawn)).toEqual([1.5, null, null])
    expect(drawn.rows[0]).toEqual(['Jan 26', 8, '1.50'])
  })

  it('of defects have the commonest first, ten at most', () => {
    const defects = Array.from(
      { length: 12 },
      (_, i): KeyTally => ({ key: `d${i}`, name: `D${i}`, counts: { ...NO_COUNTS, casts: i, pours: 1 } }),
    )
    const drawn = defectsChart(defects)
    expect(drawn.rows).toHaveLength(10)
    expect(drawn.rows[0]).toEqual(['D11', 11, 1])
    expect(defects[0]!.name).toBe('D0')
  })
})

describe('the control chart of a bag', () => {
  const time = (share: number, i: number): SetTime => ({
    pour: `p${i}`,
    name: `Pour ${i}`,
    at: i,
    expected: 1200,
    low: 1000,
    high: 1500,
    actual: 1200 * share,
  })
  const says = (shares: readonly number[]) => setChart(shares.map(time), String).says
  const steady = Array.from({ length: 12 }, (_, i) => 1 + 0.03 * (i % 3 - 1))

  it('says what it sees in words: nothing yet, too few, steady, one outside, drifting', () => {
    expect(says([])).toMatch(/^No bucket has “gloss gone” marked yet/)
    expect(says([1, 1.1, 0.9])).toMatch(/^3 marked so far; from 8 on/)
    expect(says(steady)).toBe('Steady: every bucket within what is usual for it.')
    expect(says([...steady, 1.6])).toMatch(/^1 outside what is usual\. Look at those pours/)
    expect(says([...steady, ...steady.map(s => s + 0.3)])).toMatch(/It has drifted: eight and more in a row slower/)
  })

  it('is about the forecast of each pour, so that a cold day is no old bag', () => {
    const drawn = setChart([time(1, 0), { ...time(1, 1), expected: 2400, actual: 2400 }], String)
    expect(drawn.rows.map(r => r[4])).toEqual([percent(1), percent(1)])
    expect(drawn.config.data.datasets).toHaveLength(1)
    expect(setChart(steady.map(time), String).config.data.datasets.map(d => d.label)).toEqual([
      'gloss gone',
      'centre',
      'low',
      'high',
    ])
  })
})
