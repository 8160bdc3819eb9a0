import { bisect } from '../numeric/root'
import type { KilogramsPerCubicMetre, Metres } from '../units/quantity'

/**
 * A mix let run from a ring onto wet glass: its diameter and its yield stress tell of each other. Roussel and Coussot
 * 2005 (J. Rheol. 49:705), Roussel et al. 2005 (Cem. Concr. Res. 35:817), from memory. Holds for slow lifting and above
 * 70 mm.
 */

/** Inside the ring, and how high it is filled: near to dental consistency rings (ISO 6873, from memory). */
export const RING = { diameter: 0.035, height: 0.05 } as const
const HELD = Math.PI / 4 * RING.diameter ** 2 * RING.height
const GRAVITY = 9.80665
/** What surface tension holds back, N/m. */
const TENSION = 0.005

/** Beyond these a diameter says nothing: stiff, and thinner at the edge than 3 mm. */
export const READABLE = { from: 0.07, to: 0.15, edge: 0.003 } as const

/**
 * Yield stress of a mix that ran so wide, Pa.
 * @param tension N/m; nothing for the check values of the formula alone
 * @example yieldOfSpread(0.100, 1542, 0) // 19.9
 */
export function yieldOfSpread(diameter: Metres, density: KilogramsPerCubicMetre, tension = TENSION): number {
  const radius = diameter / 2
  return 225 * density * GRAVITY * HELD ** 2 / (128 * Math.PI ** 2 * radius ** 5) - tension * radius ** 2 / HELD
}

/** How wide a mix of this yield stress runs, m. */
export function spreadOf(tau: number, density: KilogramsPerCubicMetre, tension = TENSION): Metres {
  return bisect(RING.diameter, 0.5, d => tau - yieldOfSpread(d, density, tension))
}

/** Mean thickness of the patty, m. */
export function pattyThickness(diameter: Metres): Metres {
  return HELD / (Math.PI / 4 * diameter * diameter)
}
