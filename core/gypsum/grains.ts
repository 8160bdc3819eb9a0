import type { KilogramsPerCubicMetre } from '../units/quantity'

/** Particle densities in kg/m3 (handbook values from memory). */
export const DENSITY = { alpha: 2757, beta: 2630, gypsum: 2317 } as const

interface PowderGrains {
  readonly crystal: 'alpha' | 'beta'
  /** Mass share of hemihydrate; the rest is inert. */
  readonly purity: number
  readonly inertDensity: KilogramsPerCubicMetre
}

/** Volume of one kilogram of powder grains without the gaps, m3/kg. */
export function powderSpecificVolume(powder: PowderGrains): number {
  return powder.purity / DENSITY[powder.crystal] + (1 - powder.purity) / powder.inertDensity
}
