import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { solveLinear } from '../numeric/linear'
import { drawCharacter, type BagCharacter, type Six, type Three } from '../setting/bag-character'
import { MODEL_VERSION } from '../setting/moments'
import { bagCharacter, taughtFrom, taughtRate } from './bag'

const plain: BagCharacter = { mean: [0, 0, 0], root: [0.3, 0, 0.8, 0, 0, 0.41] }
const inverse = (m: readonly (readonly number[])[]) => solveLinear(m, [0, 0, 0])!.inverse
const add = (a: readonly (readonly number[])[], b: readonly (readonly number[])[]) =>
  a.map((row, i) => row.map((x, j) => x + b[i]![j]!))
const diagonal = (d: readonly number[]) => d.map((x, i) => d.map((_, j) => i === j ? x : 0))
const onto = (a: readonly (readonly number[])[], v: readonly number[]) =>
  a.map(row => row.reduce((s, x, k) => s + x * v[k]!, 0))

describe('what pours teach of their bag', () => {
  it('one that told of all three adds its precision, each pour a little off its bag (by the textbook, with inverses)', () => {
    const precision: Six = [150, 20, 8, -15, 2, 12], mean = [0.2, -0.5, 0.3]
    const P = [[150, 20, -15], [20, 8, 2], [-15, 2, 12]], pull = onto(P, mean) as unknown as Three
    const known = bagCharacter(0.3, [{ mean: 0.2, sd: 0.1, model: MODEL_VERSION, character: { precision, pull } }])
    const between = diagonal([0.07 ** 2, 0.3 ** 2, 0.1 ** 2]), own = inverse(add(inverse(P), between))
    const all = add(diagonal([0.3, 0.8, 0.41].map(s => 1 / s ** 2)), own), wanted = onto(inverse(all), onto(own, mean))
    wanted.forEach((x, i) => expect(known.mean[i]).toBeCloseTo(x, 9))
    const [a, b, c, d, e, f] = known.root, spread = add(inverse(all), between)
    const again = [
      [a * a, a * b, a * d],
      [a * b, b * b + c * c, b * d + c * e],
      [a * d, b * d + c * e, d * d + e * e + f * f],
    ]
    spread.flat().forEach((x, i) => expect(again.flat()[i]).toBeCloseTo(x, 9))
  })

  it('a pour that moved one number teaches that one, and so much that the next plan has it', () => {
    const spread = [[0.2, 0, 0], [0, 1, 0], [0, 0, 1]]
    const told = taughtFrom(plain, [1, 0, 0], spread)!
    expect(told.mean).toBeCloseTo(0.3 / 0.8, 2)
    const next = bagCharacter(0.3, [told])
    expect(next.mean[0]).toBeGreaterThan(0.2)
    expect(next.mean[1]).toBeCloseTo(0, 3)
    expect(next.root[0]).toBeLessThan(0.2)
    expect(next.root[5]).toBeCloseTo(Math.hypot(0.41, 0.1), 2)
    expect(taughtFrom(plain, [0, 0, 0], diagonal([1, 1, 1]))).toBeUndefined()
  })

  it('what only an earlier model read is its speed alone, with twice its spread', () => {
    const old = bagCharacter(0.3, [{ mean: 0.4, sd: 0.1, model: 'layers-2' }])
    expect(old.mean[0]).toBeCloseTo(0.4 * (1 / (0.04 + 0.0049)) / (1 / (0.04 + 0.0049) + 1 / 0.09), 9)
    expect(old.mean.slice(1)).toEqual([0, 0])
  })

  it('no record, however odd, makes a bag of nothing, and none makes it less known than its class', () => {
    const x = fc.double({ min: -1e6, max: 1e6, noNaN: true })
    const record = fc.record({
      mean: fc.double({ min: -5, max: 5, noNaN: true }), sd: fc.double({ min: 0.01, max: 50, noNaN: true }),
      model: fc.constantFrom(MODEL_VERSION, 'layers-2'),
      character: fc.option(
        fc.record({ precision: fc.tuple(x, x, x, x, x, x), pull: fc.tuple(x, x, x) }), { nil: undefined },
      ),
    })
    fc.assert(fc.property(fc.array(record, { maxLength: 6 }), (taught) => {
      const { mean, sd, character } = taughtRate(false, taught)
      for (const n of [mean, sd, ...character!.mean, ...character!.root, ...drawCharacter(character!, [1, -1, 2])])
        expect(Number.isFinite(n)).toBe(true)
      expect(sd).toBeLessThanOrEqual(0.3 + 1e-9)
      expect(character!.root[0]).toBeLessThanOrEqual(Math.hypot(0.3, 0.07) + 1e-9)
    }), { numRuns: 300, seed: 9 })
  })
})
