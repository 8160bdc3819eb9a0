import type { Addition } from '../gypsum/additions'
import type { PowderClass } from '../gypsum/powders'
import { MOST_TURNS } from './kinetics'
import type { WaterRatio } from '../units/quantity'

/**
 * What a cast becomes: how much it grows, and how strong it is wet, dry and damp. Porosity laws fitted to handbook
 * tables, see docs/model.md.
 */

/**
 * Compressive strength of a fully hydrated wet cast, MPa (Ryshkewitch 1953 form). @param porosity pores and air over
 * volume, dry.
 */
export function wetStrength(powder: Pick<PowderClass, 'strengthFactor'>, porosity: number): number {
  return powder.strengthFactor * 71.8 * Math.exp(-4.445 * porosity)
}

/**
 * Compressive strength when dry, MPa (Balshin 1949 form); dental stones are not counted on for more than twice their
 * wet strength.
 */
export function dryStrength(powder: Pick<PowderClass, 'strengthFactor' | 'family'>, porosity: number): number {
  const dry = powder.strengthFactor * 217 * (1 - porosity) ** 3.33
  return powder.family === 'dental' ? Math.min(dry, 2 * wetStrength(powder, porosity)) : dry
}

/**
 * Strength that is left while some water is still in it, MPa. @param moisture free water over dry mass. A few
 * hundredths take nearly all of the gain away.
 */
export function dampStrength(wet: number, dry: number, moisture: number): number {
  return wet + (dry - wet) * Math.exp(-100 * moisture / 1.2)
}

/**
 * Strength while it hydrates: with the square of the way from lost gloss to full hydration. @param x that way, 0 to 1.
 */
export function growingStrength(wet: number, x: number): number {
  return wet * Math.max(0, Math.min(1, x)) ** 2
}

/**
 * Linear expansion on setting, as a share, when it is fully hydrated: less in thin mixes, more after long stirring,
 * less with potassium sulfate.
 * Exponents: shaped on dental handbook statements, low confidence.
 */
export function settingExpansion(
  powder: PowderClass,
  ratio: WaterRatio,
  turns: number,
  additions: readonly Addition[] = [],
  usual = powder.expansion.usual,
): number {
  const sulfate = 100 * (additions.find(a => a.id === 'potassium-sulfate')?.share ?? 0)
  const stirred = (Math.max(20, Math.min(turns, MOST_TURNS)) / 100) ** 0.3
  return usual / 100 * (ratio / powder.ratio.recommended) ** -1.2 * stirred * (1 - 0.35 * Math.min(1, sulfate))
}
