import jstat from 'jstat'
import { describe, expect, it } from 'vitest'
import { controlChart, shareOf } from './control-chart'
import { incompleteBeta, logGamma, studentCdf, studentQuantile } from '../numeric/distributions'
import { judgeTwo, sampleOf, wanted, welch } from './verdict'

/** A general-purpose statistics library as oracle. */
const { jStat } = jstat

describe('distributions agree with a general-purpose library', () => {
  it('gamma and beta', () => {
    for (const x of [0.1, 0.5, 1, 2.5, 10, 171.3]) expect(logGamma(x)).toBeCloseTo(jStat.gammaln(x), 9)
    for (const [x, a, b] of [[0.1, 0.5, 0.5], [0.5, 2, 3], [0.9, 20, 0.5], [0.999, 3, 40], [0.02, 1, 9]] as const)
      expect(incompleteBeta(x, a, b)).toBeCloseTo(jStat.ibeta(x, a, b), 7)
  })

  it('Student’s t and back, also with degrees of freedom that are not whole', () => {
    for (const df of [1, 2, 3.7, 12, 250]) {
      for (const t of [-6, -1.2, -0.01, 0, 0.4, 2.2, 9])
        expect(studentCdf(t, df)).toBeCloseTo(jStat.studentt.cdf(t, df), 7)
      for (const p of [0.025, 0.3, 0.5, 0.8, 0.975]) expect(studentCdf(studentQuantile(p, df), df)).toBeCloseTo(p, 9)
    }
    // One degree of freedom is the Cauchy distribution, which has a closed form.
    for (const t of [-3, -0.01, 0.7]) expect(studentCdf(t, 1)).toBeCloseTo(0.5 + Math.atan(t) / Math.PI, 12)
    // Table values (any handbook).
    expect(studentQuantile(0.975, 10)).toBeCloseTo(2.228, 3)
    expect(studentQuantile(0.975, 1)).toBeCloseTo(12.706, 3)
  })
})

describe('whether two ways differ', () => {
  const a = [27.5, 21.0, 19.0, 23.6, 17.0, 17.9, 16.9, 20.1, 21.9, 22.6, 23.1, 19.6, 19.0, 21.7, 21.4],
    b = [27.1, 22.0, 20.8, 23.4, 23.4, 23.5, 25.8, 22.0, 24.8, 20.2, 21.9, 22.1, 22.9, 30.5, 27.4]

  it('Welch’s test as the library and a hand reckoning have it', () => {
    const d = welch(sampleOf(a), sampleOf(b))!
    expect(sampleOf(a).mean).toBeCloseTo(jStat.mean(a), 12)
    expect(sampleOf(a).variance).toBeCloseTo(jStat.variance(a, true), 12)
    const va = jStat.variance(a, true) / 15,
      vb = jStat.variance(b, true) / 15,
      t = (jStat.mean(b) - jStat.mean(a)) / Math.sqrt(va + vb),
      df = (va + vb) ** 2 / (va ** 2 / 14 + vb ** 2 / 14)
    expect(d.p).toBeCloseTo(2 * (1 - jStat.studentt.cdf(t, df)), 8)
    expect(d.low).toBeCloseTo(d.value - jStat.studentt.inv(0.975, df) * Math.sqrt(va + vb), 5)
    expect(judgeTwo(a, b, 1).says).toBe('differs')
  })

  it('wants 63 on a side for half a spread, as the sample-size tables do for the normal approximation', () => {
    expect(wanted(1, 0.5)).toBe(63)
    expect(wanted(1, 1)).toBe(16)
  })

  it('says so when it cannot tell, and how many more it needs', () => {
    expect(judgeTwo([1, 0.8], [0.5, 0.6, 0.7], 0.1)).toEqual({ says: 'too-few', more: 1 })
    const open = judgeTwo([1, 0.5, 0.8, 0.9], [0.6, 1, 0.7, 0.75], 0.1)
    expect(open.says).toBe('open')
    expect(open).toMatchObject({ more: expect.any(Number) })
    // All alike so far is not proof.
    expect(judgeTwo([1, 1, 1], [1, 1, 1], 0.1)).toMatchObject({ says: 'open', more: 3 })
    expect(judgeTwo([1, 1, 1], [0, 0, 0], 0.1).says).toBe('open')
    // A question too fine to be settled has no number.
    expect(judgeTwo([0, 1, 0, 1], [1, 0, 1, 0], 0.001)).toMatchObject({ says: 'open', more: undefined })
  })

  it('says that there is no difference worth having only when the interval shows it', () => {
    const alike = Array.from({ length: 60 }, (_, i) => 0.9 + 0.01 * (i % 3))
    expect(judgeTwo(alike, [...alike].reverse(), 0.05).says).toBe('same')
  })

  it('keeps its promise: calls a difference that is none in about one of twenty, finds one of the size asked for in about four of five', () => {
    let seed = 1
    const uniform = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
    const called = (shift: number) => {
      let n = 0
      for (let i = 0; i < 2000; i++)
        if (
          judgeTwo(Array.from({ length: 17 }, normal), Array.from({ length: 17 }, () => normal() + shift), 0.01).says
          === 'differs'
        ) n++
      return n / 2000
    }
    const wrongly = called(0), rightly = called(1)
    expect(wrongly).toBeGreaterThan(0.035)
    expect(wrongly).toBeLessThan(0.065)
    expect(rightly).toBeGreaterThan(0.76)
    expect(rightly).toBeLessThan(0.86)
  })
})

describe('control chart', () => {
  it('has the limits of the handbook’s worked example (NIST/SEMATECH §6.3.2.2: mean 50.81, moving range 1.8778, limits 45.82 and 55.80)', () => {
    const chart = controlChart([49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1])!
    expect(chart.centre).toBeCloseTo(50.81, 2)
    expect(chart.high).toBeCloseTo(55.8041, 2)
    expect(chart.low).toBeCloseTo(45.8159, 2)
    expect(chart.outside).toEqual([])
  })

  it('marks what is outside and what has drifted, and draws no limits of a handful', () => {
    expect(controlChart([1, 2, 3])).toBeUndefined()
    expect(controlChart([10, 11, 10, 11, 10, 11, 10, 11, 30])!.outside).toEqual([8])
    expect(
      controlChart([
        ...Array.from({ length: 9 }, (_, i) => 10 + 0.1 * (i % 2)),
        ...Array.from({ length: 9 }, (_, i) => 12 + 0.1 * (i % 2)),
      ])!.drifting,
    ).toContain(17)
  })

  it('one value far out is no drift of all the others', () => {
    const chart = controlChart([1, 1.02, 0.98, 1.01, 0.99, 1, 1.02, 0.98, 1.01, 0.99, 1.02, 1.9])!
    expect([chart.outside, chart.drifting]).toEqual([[11], []])
  })

  it('a share has Wilson’s interval (published example: 1 of 10 gives 1.8 % to 40.4 %)', () => {
    expect(shareOf(1, 10)!.low).toBeCloseTo(0.0179, 3)
    expect(shareOf(1, 10)!.high).toBeCloseTo(0.4042, 3)
    expect(shareOf(0, 0)).toBeUndefined()
    expect(shareOf(5, 5)!.high).toBe(1)
  })
})
