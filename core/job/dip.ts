import type { Vessel } from '../mould/gauge/vessel'
import { vesselVolume } from '../mould/gauge/vessel'
import type { CubicMetres, Metres } from '../units/quantity'

/**
 * The dip test: water to cover the hand in the container that will be used, a mark with the hand in and one without.
 * What stands below the lower mark is the volume of impression mix, what rose is the plaster's. Common practice, no
 * source.
 */
export interface Dipped { readonly low: CubicMetres, readonly value: CubicMetres, readonly high: CubicMetres }
export type DipProblem = 'not-risen' | 'over-rim'

/** How well a mark on the wall of a container is read, m (guess). */
export const MARK_READ: Metres = 0.003

/**
 * Both volumes with the range that reading the marks leaves.
 * @param without height of the water without the hand, m @param within with it
 * @returns why not, where the water did not rise or a mark is above the rim
 */
export function dipVolumes(
  vessel: Vessel, { without, within }: { readonly without: Metres, readonly within: Metres },
): { readonly impression: Dipped, readonly plaster: Dipped } | DipProblem {
  if (within > vessel.height || without > vessel.height) return 'over-rim'
  if (!(without > 0) || within - without <= MARK_READ) return 'not-risen'
  const at = (h: number) => vesselVolume(vessel, Math.min(Math.max(h, 0), vessel.height))
  const off = (h: number) => (at(h + MARK_READ) - at(h - MARK_READ)) / 2
  const ranged = (value: number, by: number): Dipped => ({ low: Math.max(0, value - by), value, high: value + by })
  return {
    impression: ranged(at(without), off(without)),
    plaster: ranged(at(within) - at(without), Math.hypot(off(without), off(within))),
  }
}
