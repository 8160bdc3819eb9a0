import type { Celsius, Seconds } from '../units/quantity'

/**
 * A thermometer left in a cast: which of its many readings are worth a record, and when it was warmest. A fold over its
 * readings, so that it can be tried
 * without a thermometer. Times in seconds after wetting.
 */
export interface Probe {
  /** The last reading that was recorded. */
  readonly told?: { readonly at: Seconds, readonly celsius: Celsius }
  /** Where it began, and the warmest since, smoothed. */
  readonly start?: Celsius
  readonly peak?: { readonly at: Seconds, readonly celsius: Celsius }
  readonly smooth?: Celsius
  readonly peaked: boolean
}
export const NO_PROBE: Probe = { peaked: false }

/** Takes up where others left off: what this batch's readings that were recorded, here or elsewhere, already say. */
export function probeFrom(
  read: readonly { readonly at: Seconds, readonly celsius: Celsius }[],
  peaked: boolean,
): Probe {
  const last = read.at(-1)
  if (!last) return { peaked }
  return {
    told: last,
    smooth: last.celsius,
    start: Math.min(...read.map(r => r.celsius)),
    peak: read.reduce((a, b) => b.celsius > a.celsius ? b : a),
    peaked,
  }
}

interface ProbeSays {
  readonly probe: Probe /** Record this reading. */
  readonly record?: Celsius /** It was warmest then, and has begun to cool. */
  readonly warmestAt?: Seconds
}

/**
 * A reading is worth a record when it moved by a kelvin, or after five minutes without one; the forecast gains nothing
 * from more.
 */
const STEP_K = 1, LONGEST: Seconds = 300
/** Warmest is believed once it fell by this from its peak, and the peak was a real one (engineering guesses). */
const FALLEN_K = 0.7, REAL_PEAK_K = 5
/** Smoothing over readings, as a share of each new one. */
const SMOOTH = 0.3

export function probed(before: Probe, at: Seconds, celsius: Celsius): ProbeSays {
  const smooth = before.smooth === undefined ? celsius : before.smooth + SMOOTH * (celsius - before.smooth)
  const start = before.start === undefined ? celsius : Math.min(before.start, smooth)
  const peak = before.peak === undefined || smooth > before.peak.celsius ? { at, celsius: smooth } : before.peak
  const worth = before.told === undefined || Math.abs(smooth - before.told.celsius) >= STEP_K
    || at - before.told.at >= LONGEST
  const peaked = !before.peaked && peak.celsius - smooth >= FALLEN_K && peak.celsius - start >= REAL_PEAK_K
  const rounded = Math.round(smooth * 10) / 10
  return {
    probe: {
      start,
      peak,
      smooth,
      told: worth ? { at, celsius: smooth } : before.told,
      peaked: before.peaked || peaked,
    },
    ...(worth && { record: rounded }),
    ...(peaked && { warmestAt: peak.at }),
  }
}
