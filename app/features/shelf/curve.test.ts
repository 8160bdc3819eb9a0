import { describe, expect, it } from 'vitest'
import { forecastDrying, type DryingRecord } from '~core/drying/weighings'
import { CURVE, layoutCurve } from './curve'

const DAY = 86_400
const record: DryingRecord = {
  body: { dryMass: 1.177, freeWater: 0.523, area: 0.06, half: 0.02 },
  stays: [{ place: 'rack', air: { celsius: 20, humidity: 0.5 }, from: 0 }],
  weighed: [{ at: DAY, mass: 1.6 }, { at: 2 * DAY, mass: 1.51 }],
  felt: [],
}
const forecast = forecastDrying(record)
const numbers = (path: string) =>
  [...path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => ({ x: Number(x), y: Number(y) }))

describe('the drying curve', () => {
  const curve = layoutCurve(record, forecast, 2.5 * DAY, forecast.reaches(0.05))

  it('keeps line, band, weighings and marks inside the drawing', () => {
    for (const p of [...numbers(curve.line), ...numbers(curve.band), ...curve.dots]) {
      expect(p.x).toBeGreaterThanOrEqual(CURVE.left - 0.1)
      expect(p.x).toBeLessThanOrEqual(CURVE.width - CURVE.right + 0.1)
      expect(p.y).toBeGreaterThanOrEqual(CURVE.top - 0.1)
      expect(p.y).toBeLessThanOrEqual(CURVE.height - CURVE.bottom + 0.1)
    }
    expect(curve.ready!.from).toBeGreaterThan(curve.now)
  })

  it('falls, comes to the dry line, and passes near what was weighed', () => {
    const line = numbers(curve.line)
    expect(line.every((p, i) => i === 0 || p.y >= line[i - 1]!.y - 0.1)).toBe(true)
    expect(Math.abs(line.at(-1)!.y - curve.dryLine)).toBeLessThan(12)
    const near = line.reduce((a, b) => Math.abs(b.x - curve.dots[1]!.x) < Math.abs(a.x - curve.dots[1]!.x) ? b : a)
    expect(Math.abs(near.y - curve.dots[1]!.y)).toBeLessThan(8)
  })

  it('where it never dries it still draws some weeks, and no ready time', () => {
    const damp = {
      ...record,
      weighed: [],
      stays: [{ place: 'damp' as const, air: { celsius: 20, humidity: 0.5 }, from: 0 }],
    }
    const never = layoutCurve(damp, forecastDrying(damp), DAY, { low: Infinity, high: Infinity })
    expect(never.ready).toBeUndefined()
    expect(never.days.length).toBeGreaterThan(1)
  })
})
