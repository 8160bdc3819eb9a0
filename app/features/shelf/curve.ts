import { BREATHES } from '~core/gypsum/end-use'
import type { DryingRecord, DryingForecast } from '~core/drying/weighings'

/**
 * The drying curve as it is drawn: predicted weight against time, its range, weighings, now, and when it is ready.
 * Pure, so that it can be tried without a screen.
 */
export const CURVE = { width: 560, height: 250, left: 64, right: 14, top: 14, bottom: 34 } as const
const POINTS = 60, DAY = 86_400, MARGIN = 1.15

interface DryingCurve {
  readonly line: string
  readonly band: string
  readonly dots: readonly { readonly x: number, readonly y: number }[]
  readonly now: number
  readonly dryLine: number
  readonly ready?: { readonly from: number, readonly to: number }
  readonly days: readonly { readonly x: number, readonly label: string }[]
  readonly masses: readonly { readonly y: number, readonly mass: number }[]
}

/**
 * @param now seconds since it was opened. @param ready when it is ready for its end use, seconds, its end perhaps
 * beyond the drawing.
 */
export function layoutCurve(
  record: DryingRecord,
  forecast: DryingForecast,
  now: number,
  ready?: { readonly low: number, readonly high: number },
): DryingCurve {
  const wanted = Math.max(
    now,
    ready && Number.isFinite(ready.high) ? ready.high : 0,
    forecast.centre.dries(BREATHES) < 60 * DAY ? forecast.centre.dries(BREATHES) : 0,
    DAY,
  )
  const end = Math.min(wanted, Math.max(60 * DAY, now)) * MARGIN
  const { dryMass, freeWater } = forecast.centre.body
  const start = forecast.massRange(0),
    top = Math.max(start.high, ...record.weighed.map(w => w.mass)),
    low = Math.min(dryMass - 0.04 * freeWater, forecast.massRange(end).low, ...record.weighed.map(w => w.mass))
  const x = (t: number) => CURVE.left + (CURVE.width - CURVE.left - CURVE.right) * Math.min(1, t / end)
  const y = (m: number) => CURVE.top + (CURVE.height - CURVE.top - CURVE.bottom) * (top - m) / Math.max(1e-9, top - low)
  const times = Array.from({ length: POINTS + 1 }, (_, i) => end * i / POINTS)
  const ranges = times.map(t => ({ t, ...forecast.massRange(t) }))
  const p = (t: number, m: number) => `${x(t).toFixed(1)} ${y(m).toFixed(1)}`
  const step = [1, 2, 5, 7, 14, 30, 90].find(d => end / DAY / d <= 8) ?? 365
  return {
    line: `M${times.map(t => p(t, dryMass + forecast.centre.water(t))).join('L')}`,
    band: `M${ranges.map(r => p(r.t, r.high)).join('L')}L${[...ranges].reverse().map(r => p(r.t, r.low)).join('L')}Z`,
    dots: record.weighed.map(w => ({ x: x(w.at), y: y(w.mass) })),
    now: x(now),
    dryLine: y(dryMass),
    ready: ready && Number.isFinite(ready.low) && ready.low < end
      ? { from: x(ready.low), to: x(Math.min(end, ready.high)) }
      : undefined,
    days: Array.from(
      { length: Math.floor(end / DAY / step) + 1 },
      (_, i) => ({ x: x(i * step * DAY), label: i === 0 ? 'opened' : `${i * step} d` }),
    ),
    masses: [top, (top + dryMass) / 2, dryMass].map(mass => ({ y: y(mass), mass })),
  }
}
