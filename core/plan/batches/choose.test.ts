import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { chooseFullest } from './choose'

const total = (sizes: readonly number[], chosen: readonly number[]) => chosen.reduce((sum, i) => sum + sizes[i]!, 0)
/** The oracle: every subset there is. */
function fullest(sizes: readonly number[], most: number): number {
  let best = 0
  for (let set = 0; set < 2 ** sizes.length; set++) {
    const sum = sizes.reduce((s, size, i) => set & (1 << i) ? s + size : s, 0)
    if (sum <= most * (1 + 1e-12) && sum > best) best = sum
  }
  return best
}

describe('which moulds what is left fills', () => {
  it('leaves out the one that the list began with where two others use more', () => {
    expect(chooseFullest([400, 300, 300], 600)).toEqual([1, 2])
    expect(chooseFullest([400, 300, 300], 399)).toEqual([1])
    expect(chooseFullest([400], 399)).toEqual([])
    // Of equal ones the first are filled.
    expect(chooseFullest([410, 410, 410], 900)).toEqual([0, 1])
  })

  it('is as good as trying all subsets', () => {
    const upTo = (max: number) => fc.double({ min: 1e-5, max, noNaN: true })
    const size = fc.oneof(fc.integer({ min: 1, max: 40 }).map(n => n * 1e-5), upTo(2e-3))
    fc.assert(fc.property(fc.array(size, { maxLength: 12 }), upTo(1e-2), (sizes, most) => {
      const chosen = chooseFullest(sizes, most), sum = total(sizes, chosen)
      expect(new Set(chosen).size).toBe(chosen.length)
      expect(sum).toBeLessThanOrEqual(most * (1 + 1e-9))
      expect(sum).toBeGreaterThanOrEqual(fullest(sizes, most) - 1.01e-4 * most)
    }), { numRuns: 1000 })
  })

  it('two hundred moulds, alike or each another, are chosen from in a moment', () => {
    const each = Array.from({ length: 200 }, (_, i) => 1e-4 * (1 + ((i * 7919) % 200) / 37))
    expect(total(each, chooseFullest(each, 0.02))).toBeGreaterThan(0.02 * (1 - 1e-4))
    // All on one grid, and what is wanted between two of its lines: every remainder is met once.
    const even = Array.from({ length: 200 }, (_, i) => 2e-5 * (5 + i % 40))
    expect(total(even, chooseFullest(even, 0.01003))).toBeCloseTo(0.01002, 9)
  })
})
