import { describe, expect, it } from 'vitest'
import type { ImportJob } from '~contract/import'
import { IMPORT_STATES, NO_IMPORT_COUNTS } from '~contract/import-state'
import { broughtWords, importWords } from './words'

const job = (change: Partial<ImportJob>): ImportJob => ({
  id: 'j', kind: 'archive', name: 'w.zip', by: 'p', state: 'done', share: 1, counts: NO_IMPORT_COUNTS, things: 0, madeAt: 0,
  ...change,
})

describe('a file on its way in, in words', () => {
  it('says what it brought in one breath', () => {
    expect(broughtWords(NO_IMPORT_COUNTS)).toBe('')
    expect(broughtWords({ ...NO_IMPORT_COUNTS, pours: 1, entries: 3 })).toBe('1 pour with 3 entries')
    expect(broughtWords({ ...NO_IMPORT_COUNTS, pours: 2, entries: 1, moulds: 1, photos: 4 }))
      .toBe('2 pours with 1 entry, 1 mould and 4 photos')
  })

  it('says of each end what is in', () => {
    const counts = { ...NO_IMPORT_COUNTS, moulds: 2 }
    expect(importWords(job({ state: 'given-up' }))).toBe('Given up. Nothing of it was taken in.')
    expect(importWords(job({ state: 'given-up', counts }))).toBe('Given up. In by now: 2 moulds.')
    expect(importWords(job({ state: 'broken', counts, fault: { sentence: 'The disk is full.' } })))
      .toBe('It broke off before it was whole. The disk is full. In by now: 2 moulds.')
    expect(importWords(job({ state: 'broken', counts }))).toBe('It broke off before it was whole. In by now: 2 moulds.')
    expect(importWords(job({ state: 'taken-out', counts: { ...counts, stayed: 1 } })))
      .toBe('Taken out again, but for 1 thing used or changed since.')
    expect(importWords(job({ state: 'half-out', things: 3 }))).toBe('Taken out in part: 3 things of it are still in.')
    for (const state of IMPORT_STATES) expect(importWords(job({ state }))).toMatch(/\w/)
  })
})
