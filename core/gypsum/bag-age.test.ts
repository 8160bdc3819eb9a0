import { describe, expect, it } from 'vitest'
import { agedBag, monthsOpen } from './bag-age'

describe('age', () => {
  it('after a year open, the set is less certain', () => {
    const now = Date.UTC(2026, 10, 25)
    expect(monthsOpen('2025-09-20', now)).toBe(14)
    expect(agedBag({ uncertain: false, opened: '2025-09-20' }, now).uncertain).toBe(true)
    expect(agedBag({ uncertain: false, opened: '2026-03-01' }, now).uncertain).toBe(false)
    expect(agedBag({ uncertain: false }, now).uncertain).toBe(false)
    expect(agedBag({ uncertain: false, opened: '2026-03-01', storage: 'open' }, now).uncertain).toBe(true)
    expect(agedBag({ uncertain: false, opened: '2025-09-20', storage: 'sealed' }, now).uncertain).toBe(false)
  })
})
