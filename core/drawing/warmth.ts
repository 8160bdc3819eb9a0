import type { Seconds } from '../units/quantity'

/** How warm a setting cast is drawn: 0 wet, 1 to 4 rising, 4 at its warmest, 5 to 7 cooling, 8 stone, 9 dry. */
export type WarmthStep = 0 | 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8 | 9

/** Moments after powder met water. */
interface WarmthMoments { readonly gloss: Seconds, readonly warmest: Seconds }

/**
 * One ramp for setting, the same on every drawing. From when the gloss goes it rises to the warmest; it cools by its
 * own slower clock: by three times that span it is stone again (an engineering guess for the picture alone; what is
 * foretold in degrees comes from the setting model).
 */
export function warmthStep(at: Seconds, { gloss, warmest }: WarmthMoments): WarmthStep {
  if (at < gloss) return 0
  if (at < warmest) return Math.min(4, 1 + Math.floor(4 * (at - gloss) / Math.max(1, warmest - gloss))) as WarmthStep
  const cooling = (at - warmest) / Math.max(1, warmest - gloss) / 3
  return Math.min(8, 4 + Math.floor(4 * cooling)) as WarmthStep
}

/** How damp a standing piece is drawn at a moment, from the shares of its water that were foretold. */
export function dampAt(curve: readonly (readonly [at: number, share: number])[], at: number): number | undefined {
  const after = curve.findIndex(([t]) => t >= at)
  if (curve.length === 0) return undefined
  if (after === 0) return curve[0]![1]
  if (after < 0) return curve.at(-1)![1]
  const [t0, a] = curve[after - 1]!, [t1, b] = curve[after]!
  return a + (b - a) * (at - t0) / Math.max(1, t1 - t0)
}
