import type { Metres, Seconds } from '../units/quantity'

/**
 * Plaster that drinks: moulds for slip and clay, and drying bats. Forms and check values: docs/model.md, “Drinking
 * moulds”; sureness is low throughout.
 */

export interface Spread { readonly low: number, readonly value: number, readonly high: number }
const scaled = ({ low, value, high }: Spread, by: number): Spread =>
  ({ low: low * by, value: value * by, high: high * by })

const MINUTE: Seconds = 60
/** Suction of plaster with 0.55 of pores, m/min^½ (2 to 6 mm; from memory), and how it goes with the pores. */
const SUCTION: Spread = { low: 2e-3, value: 3.5e-3, high: 6e-3 }, REFERENCE = 0.55, STEEP = 2.5
/** Share of the pores that water fills (the rest keeps its air), and share after which it drinks too slowly. */
const FILLED = 0.85, USEFUL: Spread = { low: 0.25, value: 0.35, high: 0.5 }
/** Slip wall in a dry mould, m/min^½ (custom: 6 mm in 15 to 35 min); solids of slip and of its cake, by volume. */
const CAKE: Spread = { low: 0.9e-3, value: 1.3e-3, high: 1.7e-3 }, SLIP = 0.45, LAID = 0.61

/**
 * Suction of dry plaster, m/min^½: how deep water has come into it after a minute. Form: Hall and Hoff, from memory.
 * @param porosity when dry, 0 to 1 @example suction(0.5485).value // 3.48e-3, at a ratio of .70
 */
export function suction(porosity: number): Spread {
  return scaled(SUCTION, (porosity / REFERENCE) ** STEEP)
}

/** When water from one side has wetted it through, s. */
export function wetThrough(thickness: Metres, porosity: number): Spread {
  const { low, value, high } = suction(porosity)
  const at = (s: number) => MINUTE * (FILLED * porosity * thickness / s) ** 2
  return { low: at(high), value: at(value), high: at(low) }
}

/** Water that a body of plaster holds, and what of it is of use before it drinks too slowly, kg. */
export function waterHeld(volume: number, porosity: number): { readonly all: number, readonly useful: Spread } {
  const pores = 1000 * porosity * volume
  return { all: FILLED * pores, useful: scaled(USEFUL, pores) }
}

/** Water that a slip wall gives to its mould, as a depth of water, m. */
export function drunkBy(wall: Metres): Metres {
  return wall * (LAID / SLIP - 1)
}

/**
 * How long a slip wall takes, s. Cake and mould in series (form: Aksay and Schilling 1984, from memory).
 * @param filled share of its pores that the mould has drunk already: at .35 half as fast
 */
export function wallTakes(wall: Metres, filled = 0): Spread {
  const slowed = Math.sqrt(Math.max(0.05, 1 - 2 * filled))
  const at = (b: number) => MINUTE * (wall / (b * slowed)) ** 2
  return { low: at(CAKE.high), value: at(CAKE.value), high: at(CAKE.low) }
}

/** Casts in a row before a mould so thick has to dry. */
export function castsInARow(thickness: Metres, porosity: number, wall: Metres): Spread {
  return scaled(USEFUL, thickness * porosity / drunkBy(wall))
}

/** How long what one cast gave takes to leave a mould again, s. @param flux kg/(m2 s) @param faces that are free */
export function driesAgain(wall: Metres, flux: number, faces: 1 | 2): Seconds {
  return flux > 0 ? 1000 * drunkBy(wall) / (flux * faces) : Infinity
}
