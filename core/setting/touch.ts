import type { Celsius, Seconds } from '../units/quantity'
import type { Sample } from './conduction'

/**
 * What a hand feels of a cast: its outside, which is the open face or, where there is none, the outside of its mould.
 */

/** Skin of a hand, and how far from the air to it something still counts as cool (engineering guess, 0.4 to 0.8). */
const SKIN: Celsius = 33, NO_LONGER_WARM = 0.6
/** Within so much of the air nothing feels warm; by so much above it everything does, K (engineering guess). */
const LEAST = 2, MOST = 10
/** How much warmer than it began, or than the air, a hand notices, K (engineering guess). */
const NOTICED = 6

/**
 * Temperature of the outside below which a hand calls a cast cool again, degC. One that never got far above the air is
 * cool at half of that. By it an open plate of 10 mm is cool after 40 minutes and one of 70 mm after two and a half
 * hours, where custom says half an hour and a couple of hours (common practice, no source).
 * @param warmest its outside at the warmest
 */
export function coolBelow(air: Celsius, warmest: Celsius): Celsius {
  const wanted = Math.max(LEAST, Math.min(MOST, NO_LONGER_WARM * (SKIN - air)))
  return air + Math.max(0, Math.min(wanted, (warmest - air) / 2))
}

/**
 * Seconds until a hand notices that it warms; undefined where it never gets warmer outside than it began. Cold water
 * and a warm room also warm a mix: only what comes with setting counts.
 */
export function warmToTouch(samples: readonly Sample[], air: Celsius): Seconds | undefined {
  const from = Math.max(air, samples[0]?.outside ?? air)
  const top = samples.reduce((most, s) => s.mean > 0.02 ? Math.max(most, s.outside) : most, from)
  if (top <= from) return undefined
  const level = from + Math.min(NOTICED, (top - from) / 2)
  const i = samples.findIndex(s => s.mean > 0.02 && s.outside >= level)
  const [a, b] = [samples[i - 1], samples[i]!]
  if (!a || b.outside <= a.outside) return b.t
  return a.t + (b.t - a.t) * Math.max(0, (level - a.outside) / (b.outside - a.outside))
}

/**
 * Follows a run and finds when it is cool to the touch, seconds; Infinity until then. What never felt warm is cool from
 * the start.
 * @param hardened mean degree of hydration from which cooling is looked for
 */
export function watchCooling(air: Celsius, hardened: number): (now: Sample) => Seconds {
  let warmest = -Infinity, cool = Infinity
  let previous: Sample | undefined
  return (now) => {
    warmest = Math.max(warmest, now.outside)
    if (cool === Infinity && previous && now.mean > hardened && (now.outside < warmest || warmest <= air)) {
      const level = coolBelow(air, warmest), fell = previous.outside - now.outside
      if (now.outside <= level)
        cool = previous.t + (now.t - previous.t) * Math.max(0, Math.min(1, (previous.outside - level) / (fell || 1)))
    }
    previous = now
    return cool
  }
}
