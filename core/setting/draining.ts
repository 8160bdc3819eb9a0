import type { Metres, Seconds } from '../units/quantity'

/** What stays of a mix on a face that it was swilled over, and how many such coats make a wall. */

const GRAVITY = 9.80665

/** A face and a mix on it. */
export interface Draining {
  /** Pa, Pa s and kg/m3. */
  readonly yieldStress: number
  readonly viscosity: number
  readonly density: number
  /** Of the face against level, degrees; 90 is upright. */
  readonly angle?: number
  /** How far it runs, and for how long it drains. */
  readonly runOff?: Metres
  readonly seconds?: Seconds
}

/**
 * Thickness of what stays after pouring out, m: what its yield stress holds (first principles) with what its viscosity
 * has not let run off yet (Jeffreys 1930, from memory); their blend is an engineering guess.
 * @example stayingFilm({ yieldStress: 60, viscosity: 1, density: 1542 }) // 0.004
 */
export function stayingFilm(mix: Draining): Metres {
  const { yieldStress, viscosity, density, angle = 90, runOff = 0.1, seconds = 20 } = mix
  const pull = density * GRAVITY * Math.sin(angle * Math.PI / 180)
  return Math.cbrt((yieldStress / pull) ** 3 + Math.sqrt(viscosity * runOff / (pull * seconds)) ** 3)
}

/**
 * Yield stress at which one stops swilling, Pa: it stays, and still rolls (25 to 120; at 80 it webs). Engineering guess
 * on practice.
 */
export const SWILLED_UNTIL = { value: 60, low: 25, high: 120 } as const

/** What one coat leaves on an upright face when it is swilled until it stays, m. */
export function coatThickness(density: number, yieldStress: number = SWILLED_UNTIL.value): Metres {
  return yieldStress / (density * GRAVITY)
}

/** Coats that make a wall. @param each what one coat leaves, m */
export const coatsFor = (wall: Metres, each: Metres): number => Math.max(1, Math.ceil(wall / each - 1e-9))
