import type { Kilograms, WaterRatio } from '../units/quantity'

/** What to add when something else was weighed than was planned. */

/** Water for the powder that was really put in, or the reverse: what to add so that the ratio is right again. */
export function ratioRestored(
  target: WaterRatio,
  water: Kilograms,
  powder: Kilograms,
): { readonly add: 'water' | 'powder' | 'nothing', readonly mass: Kilograms } {
  const actual = water / powder
  if (!(powder > 0) || Math.abs(actual / target - 1) < 0.005) return { add: 'nothing', mass: 0 }
  return actual < target
    ? { add: 'water', mass: target * powder - water }
    : { add: 'powder', mass: water / target - powder }
}
