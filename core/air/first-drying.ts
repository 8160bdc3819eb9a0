import { Z80, type Estimate, type Metres, type Seconds } from '../units/quantity'
import type { Mix } from '../gypsum/mix'

/** Water leaving each free face of a wet cast in still air at 20 degC and 50 % humidity, kg/(m2 s): 60 g/(m2 h) by the wet-surface balance. */
const EVAPORATION = 0.060 / 3600
const SCATTER_SD = 0.45

/**
 * First estimate of the time from opening until free water falls to `dryAt` of the dry mass: free water of a plate over the
 * evaporation from both its faces, on a rack in still room air. Thick pieces take longer at the end than this says.
 * @param dryAt free water over dry mass to be reached.
 * @returns seconds after opening; mass balance is first principles, the evaporation rate a model value, its scatter an engineering guess.
 */
export function firstDryingTime(mix: Mix, section: Metres, dryAt: number): Estimate<Seconds> {
  const toLose = Math.max(0, mix.freeWater - dryAt * mix.dryMass) / mix.slurry // kg per m3 of cast
  const value = toLose * section / 2 / EVAPORATION
  return {
    value, low: value * Math.exp(-Z80 * SCATTER_SD), high: value * Math.exp(Z80 * SCATTER_SD),
    basis: { kind: 'physics', note: 'free water over still-air evaporation at 20 °C, 50 % damp, both faces open; a first estimate' },
  }
}
