import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  guessedGauge,
  outlinedGauge,
  printSize,
  startingPoints,
  startingScale,
  withCorner,
  type PhotoMark,
} from './marks'
import { ground, type Pixel } from './photo'

const pixel = fc.record({ x: fc.integer({ min: 0, max: 4000 }), y: fc.integer({ min: 0, max: 4000 }) })
const length = { name: 'a', what: 'length', points: [] } as PhotoMark,
  outline = { ...length, what: 'outline' } as PhotoMark
const measured = (value: number) => ({ value, low: value, high: value, note: '' })

describe('marks in the photo of a print', () => {
  it('begin where a scale stands, whatever the picture', () => {
    fc.assert(fc.property(fc.integer({ min: 300, max: 6000 }), fc.integer({ min: 300, max: 6000 }), (width, height) => {
      for (const how of ['ruler', 'rectangle'] as const)
        expect(ground(startingScale(how, { width, height })).ok).toBe(true)
      for (const p of [0, 1, 2, 3].flatMap(n => [...startingPoints('length', n, { width, height }),
        ...startingPoints('outline', n, { width, height })]))
        expect([p.x >= 0, p.x <= width, p.y >= 0, p.y <= height]).toEqual([true, true, true, true])
    }), { numRuns: 50 })
  })

  it('a corner more leaves the others as they are, in their order, and lies on the side that it was put on', () => {
    fc.assert(
      fc.property(
        fc.array(pixel, { minLength: 3, maxLength: 9 }),
        fc.nat(),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (points, nth, share) => {
          const j = nth % points.length, a = points[j]!, b = points[(j + 1) % points.length]!
          const place: Pixel = { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) }
          const more = withCorner(points, place), at = more.indexOf(place)
          expect(more.filter(p => p !== place)).toEqual(points)
          const [from, to] = [points[at - 1]!, points[at % points.length]!]
          const cross = (to.x - from.x) * (place.y - from.y) - (to.y - from.y) * (place.x - from.x)
          expect(Math.abs(cross) / (1 + Math.hypot(to.x - from.x, to.y - from.y))).toBeLessThan(1e-6)
          expect(withCorner(points)).toHaveLength(points.length + 1)
        },
      ),
    )
  })

  it('measure the print by its outline, by its length alone, or not at all, by hand', () => {
    const long = printSize([length], [measured(0.3)])
    expect(long).toEqual({ long: 0.3, width: 0.12, area: undefined, ring: undefined })
    expect(outlinedGauge(long, 0.02, 0.025)).toBeUndefined()
    // 300 by 120 mm and 40 mm all around: 380 by 200 mm.
    expect(guessedGauge(long, 0.02, 0.025)).toMatchObject({
      area: expect.closeTo(0.076, 9),
      printArea: expect.closeTo(0.036, 9),
    })
    const both = printSize([length, outline, outline], [measured(0.3), measured(0.02), measured(0.09)])
    expect(both).toEqual({ long: 0.3, width: expect.closeTo(0.0667, 4), area: 0.02, ring: 0.09 })
    expect(outlinedGauge(both, 0.02, 0.025)).toMatchObject({ area: 0.09, printArea: 0.02 })
    expect(printSize([length], [undefined]).long).toBe(0.01)
  })
})
