import type { Seconds } from '../units/quantity'

/**
 * Two people, or one foot, that press at the same moment mean one step; so does a hand that taps twice.
 * Common practice, no source: nothing at the bench is done with in a second and a half.
 */
const SHORTEST_STEP_MS = 1500
/** Within a step, as when the scale says that the water is in: no press was on its way for longer. */
const SAME_PRESS_MS = 450

/**
 * How long after a step began, or after what a press does changed within it, the next press cannot be meant.
 * @param began a step began, and not something within it
 * @param expected how long the step takes, where that is known: one that is really shorter is waited for half as long
 * @returns ms of the device's own time, however fast the workshop's clock runs
 */
export function unmeantFor(began: boolean, expected?: Seconds): number {
  if (!began) return SAME_PRESS_MS
  return Math.max(SAME_PRESS_MS, Math.min(SHORTEST_STEP_MS, (expected ?? Infinity) * 500))
}
