import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { METRIC } from '../units/units'
import { heard, NO_WEIGHING, tared, weighingStep, type Weighing } from './weighing'
import { weighingWords } from './words'

/** A scale that is poured onto: noise, slow drift, and what it shows depends on its own zero. */
class Scale {
  private at = 0
  private boot = 1
  private seed = 11
  private zero = 0
  constructor(private load: number) {}
  private noise(): number {
    this.seed = this.seed * 16_807 % 2_147_483_647
    return 0.6 * (this.seed / 2_147_483_647 - 0.5) // as kitchen scales flicker by half a gram
  }

  /** Puts grams on within these seconds, five readings a second. */
  run(w: Weighing, grams: number, seconds: number): Weighing {
    for (let i = 0; i < seconds * 5; i++) {
      this.load += grams / (seconds * 5)
      this.at += 200
      w = heard(w, {
        at: this.at,
        grams: this.load - this.zero + this.noise() + 0.002 * this.at / 1000,
        boot: `b${this.boot}`,
      })
    }
    return w
  }

  /** Switches itself off and is switched on again with whatever is on it. */
  again(): void {
    this.boot++
    this.zero = this.load
    this.at += 90_000
  }

  overload(w: Weighing): Weighing {
    return heard(w, { at: this.at += 200, grams: 5000, boot: `b${this.boot}`, overload: true })
  }
}

describe('a scale that streams', () => {
  it('tare, pour, stand still: what is in the bucket to a gram', () => {
    const scale = new Scale(640)
    let w = tared(scale.run(NO_WEIGHING, 0, 3))
    w = scale.run(w, 323, 8)
    expect(w.steady).toBe(false)
    w = scale.run(w, 0, 2)
    expect(w).toMatchObject({ state: 'weighing', steady: true })
    expect(Math.abs(w.stood - 323)).toBeLessThan(1)
  })

  it('the second bucket may be lighter than the first: tared with it on, it counts from there', () => {
    const scale = new Scale(640)
    let w = tared(scale.run(NO_WEIGHING, 0, 3))
    w = scale.run(w, -340, 0.2)
    expect(w.state).toBe('lifted')
    w = scale.run(tared(scale.run(w, 0, 2)), 482, 8)
    w = scale.run(w, 0, 2)
    expect(w.state).toBe('weighing')
    expect(Math.abs(w.stood - 482)).toBeLessThan(1)
  })

  it('a scale that switches itself off in the middle loses its zero, and the total goes on', () => {
    const scale = new Scale(640)
    let w = tared(scale.run(NO_WEIGHING, 0, 3))
    w = scale.run(scale.run(w, 300, 6), 0, 2)
    scale.again()
    w = scale.run(scale.run(w, 182, 5), 0, 2)
    expect(Math.abs(w.stood - 482)).toBeLessThan(2)
    scale.again()
    w = scale.run(scale.run(w, 20, 2), 0, 2)
    expect(Math.abs(w.stood - 502)).toBeLessThan(3)
  })

  it('a lifted bucket and an overload keep what was there', () => {
    const scale = new Scale(640)
    let w = scale.run(scale.run(tared(scale.run(NO_WEIGHING, 0, 3)), 200, 4), 0, 2)
    w = scale.run(w, -840, 1)
    expect(w.state).toBe('lifted')
    expect(Math.abs(w.net - 200)).toBeLessThan(1)
    w = scale.run(scale.run(w, 840, 1), 0, 2)
    expect(Math.abs(w.stood - 200)).toBeLessThan(1)
    w = scale.overload(w)
    expect([w.state, Math.abs(w.stood - 200) < 1]).toEqual(['overload', true])
  })

  it('however it is poured and whenever it goes off, the total is what went in, to a gram and a half each time', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ grams: fc.integer({ min: 0, max: 400 }), off: fc.boolean() }), {
          minLength: 1,
          maxLength: 6,
        }),
        (pours) => {
          const scale = new Scale(500)
          let w = tared(scale.run(NO_WEIGHING, 0, 3)), total = 0
          for (const { grams, off } of pours) {
            w = scale.run(scale.run(w, grams, 3), 0, 2)
            total += grams
            if (off) scale.again()
          }
          w = scale.run(w, 0, 2)
          expect(Math.abs(w.stood - total)).toBeLessThan(1.5 * (pours.length + 1))
        },
      ),
    )
  })

  it('says how much more, when to go slowly, when it is enough and by how much it is over', () => {
    const say = (net: number) => {
      const step = weighingStep(net, 482)
      return { kind: step.code, words: weighingWords(step, METRIC) }
    }
    expect(say(100)).toEqual({ kind: 'go', words: '382 g more' })
    expect(say(460)).toEqual({ kind: 'slow', words: 'Slowly: 22 g more' })
    expect(say(480)).toEqual({ kind: 'there', words: 'That is it' })
    expect(say(522)).toEqual({ kind: 'over', words: 'Over by 40 g' })
  })
})
