import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { AGREE_MS, elapsedBetween, settleAll, settleTold, type Reading } from './device-time'

const HOUR = 3_600_000, START = 1_800_000_000_000
/** A device: true time goes on; its wall clock is off by what it was set by, its other clock stands while it sleeps. */
function device() {
  let now = 0, off = 0, slept = 0, page = 'a', pageBegan = 0
  return {
    wait: (ms: number) => void (now += ms),
    sleep: (ms: number) => {
      now += ms
      slept += ms
    },
    set: (by: number) => void (off += by),
    reload: (name: string) => {
      page = name
      pageBegan = now - slept
    },
    read: (): Reading => ({ page, wall: START + now + off, mono: now - slept - pageBegan }),
    truth: () => START + now,
    contact: () => ({ page, wall: START + now + off, mono: now - slept - pageBegan, workshop: START + now }),
  }
}

describe('time between two readings', () => {
  it('is what both clocks say where they agree', () => {
    const d = device(), from = d.read()
    d.wait(5 * HOUR)
    expect(elapsedBetween(from, d.read())).toEqual({ elapsed: 5 * HOUR, doubt: 0 })
  })

  it('is not made shorter by a clock set back, nor by sleep; and it is said that they part', () => {
    const back = device(), from = back.read()
    back.wait(600_000)
    back.set(-HOUR)
    expect(elapsedBetween(from, back.read())).toEqual({ elapsed: 600_000, doubt: HOUR })
    const asleep = device(), before = asleep.read()
    asleep.sleep(600_000)
    expect(elapsedBetween(before, asleep.read())).toEqual({ elapsed: 600_000, doubt: 600_000 })
  })
})

describe('what was told out of reach', () => {
  it('is put right when the clock had been wrong all along, as far as its own page goes', () => {
    const d = device()
    d.set(-HOUR)
    d.wait(60_000)
    // Nothing was heard yet: its moment was taken from the wall.
    const told = { at: d.read(), recordedAt: d.read().wall }, truth = d.truth()
    d.wait(20 * 60_000)
    const { shift, doubt } = settleTold(told, d.contact())
    expect(told.recordedAt + shift).toBe(truth)
    expect(doubt).toBe(0)
  })

  it('keeps its moment and a doubt where the clock was set and the page loaded anew since', () => {
    const d = device(), told = { at: d.read(), recordedAt: d.truth() }
    d.wait(600_000)
    d.set(-HOUR)
    d.reload('b')
    d.wait(600_000)
    expect(settleTold(told, d.contact())).toEqual({ shift: 0, doubt: HOUR })
  })

  it('daylight saving and a page loaded anew alone change nothing', () => {
    const d = device(), told = { at: d.read(), recordedAt: d.truth() }
    d.wait(2 * HOUR)
    d.reload('b')
    expect(settleTold(told, d.contact())).toEqual({ shift: 0, doubt: 0 })
  })

  /** Whatever happens to the device: the truth is within the doubt, and nothing changes places. */
  it('is right within its doubt for drawn histories, and stays in order', () => {
    const step = fc.oneof(
      fc.record({ what: fc.constant('wait' as const), ms: fc.integer({ min: 0, max: HOUR }) }),
      fc.record({ what: fc.constant('sleep' as const), ms: fc.integer({ min: 0, max: HOUR }) }),
      fc.record({ what: fc.constant('set' as const), ms: fc.integer({ min: -2 * HOUR, max: 2 * HOUR }) }),
      fc.record({ what: fc.constant('tell' as const), ms: fc.constant(0) }),
    )
    fc.assert(fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
      const d = device(), anchor = d.contact(), told: { at: Reading, recordedAt: number, truth: number }[] = []
      for (const { what, ms } of steps) {
        if (what !== 'tell') d[what](ms)
        else told.push({
          at: d.read(), truth: d.truth(), recordedAt: anchor.workshop + elapsedBetween(anchor, d.read()).elapsed,
        })
      }
      const contact = d.contact(), settled = settleAll(told, contact)
      settled.forEach(({ shift, doubt }, i) => {
        const at = told[i]!.recordedAt + shift
        if (i > 0) expect(at).toBeGreaterThanOrEqual(told[i - 1]!.recordedAt + settled[i - 1]!.shift)
        // One that was pushed behind another shares that one's doubt.
        const most = Math.max(...settled.slice(0, i + 1).map(s => s.doubt), doubt)
        // A wall set forward over a sleep, and back again, can hide in both clocks: only what they show is claimed.
        if (steps.every(s => s.what !== 'set') || steps.every(s => s.what !== 'sleep'))
          expect(Math.abs(at - told[i]!.truth)).toBeLessThanOrEqual(most + AGREE_MS + 0.001 * 40 * HOUR)
      })
    }), { seed: 20_261_129, numRuns: 400 })
  })
})
