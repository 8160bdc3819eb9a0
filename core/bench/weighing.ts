/**
 * Weighing with a scale that streams: what is in the bucket, through noise, a lifted bucket, an overload, and a scale
 * that switches itself off and
 * comes back with another zero. A fold over its readings; grams, because that is what a scale says.
 */

/** One line of a scale (docs/devices.md). `boot` changes whenever it was switched on anew. */
interface ScaleReading {
  readonly at: number
  readonly grams: number
  readonly boot: string
  readonly overload?: boolean
}

export interface Weighing {
  readonly state: 'waiting' | 'weighing' | 'lifted' | 'overload'
  /** What is in the bucket since it was tared, g. */
  readonly net: number
  /** The last one that stood still, g: what is kept when the scale goes. */
  readonly stood: number
  readonly steady: boolean
  readonly boot?: string
  /** The scale's reading that counts as nothing, and what was in the bucket when that was so. */
  readonly zero: number
  readonly carried: number
  readonly recent: readonly { readonly at: number, readonly grams: number }[]
  /** What the scale itself showed last. */
  readonly last?: number
}

/** A reading stands still when it moved by no more than this within this time. */
const STILL_G = 1, STILL_MS = 1200
/** Below its zero by this, the bucket is not on it. */
const LIFTED_G = 15

export const NO_WEIGHING: Weighing = {
  state: 'waiting',
  net: 0,
  stood: 0,
  steady: false,
  zero: 0,
  carried: 0,
  recent: [],
}

/** From now on what is on the scale counts as nothing. */
export function tared(w: Weighing): Weighing {
  // Also with another, lighter bucket on it than the one it was tared with.
  return {
    ...w,
    state: w.state === 'lifted' ? 'weighing' : w.state,
    zero: w.last ?? 0,
    carried: 0,
    net: 0,
    stood: 0,
    recent: w.recent.slice(-1),
  }
}

export function heard(w: Weighing, r: ScaleReading): Weighing {
  if (r.overload) return { ...w, state: 'overload', steady: false, boot: r.boot }
  const anew = w.boot !== undefined && w.boot !== r.boot
  // Switched on with the bucket on it, a scale shows nothing: what was in there at its last word is carried, and it
  // counts from its own nothing.
  const zero = anew ? 0 : w.zero, carried = anew ? (w.state === 'weighing' ? w.net : w.stood) : w.carried
  if (!anew && r.grams - zero < -LIFTED_G)
    return { ...w, state: 'lifted', net: w.stood, steady: false, boot: r.boot, recent: [], last: r.grams }
  const recent = [...(anew ? [] : w.recent.filter(x => r.at - x.at <= STILL_MS)), { at: r.at, grams: r.grams }]
  const spread = Math.max(...recent.map(x => x.grams)) - Math.min(...recent.map(x => x.grams))
  const steady = spread <= STILL_G && r.at - recent[0]!.at >= 0.75 * STILL_MS
  const net = carried + r.grams - zero
  return {
    state: 'weighing',
    net,
    stood: steady ? net : w.stood,
    steady,
    boot: r.boot,
    zero,
    carried,
    recent,
    last: r.grams,
  }
}

/** What to do at the scale, and by how many grams. */
export interface WeighingStep { readonly code: 'go' | 'slow' | 'there' | 'over', readonly grams: number }

/** Within this of the target it is right: a gram, or half a per cent. */
export function tolerance(target: number): number {
  return Math.max(1, 0.005 * target)
}

/** Nearer than this, or than this share of the target, it goes slowly, g. */
const SLOWLY = 15, SLOWLY_SHARE = 0.08
/** What to do now. @param net and target in grams. */
export function weighingStep(net: number, target: number): WeighingStep {
  const left = target - net, step = (code: WeighingStep['code']): WeighingStep => ({ code, grams: Math.abs(left) })
  if (Math.abs(left) <= tolerance(target)) return step('there')
  if (left < 0) return step('over')
  return step(left < Math.max(SLOWLY, SLOWLY_SHARE * target) ? 'slow' : 'go')
}
