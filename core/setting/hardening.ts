import { grainsIn, waterForGrains, type Paste } from '../gypsum/paste'
import type { PowderClass } from '../gypsum/powders'
import { MOST_TURNS } from './kinetics'

/**
 * What a cast becomes: how much it grows, and how strong it is wet, dry and damp. Porosity laws fitted to handbook
 * tables, see docs/model.md.
 */

/** What a set mix is made of, by volume. */
export interface SetSolid {
  /** Pores and air over the volume of the paste alone, dry. */
  readonly porosity: number
  /** Share of the whole that grains take which only lie in it. */
  readonly grains: number
}

type Strong = Pick<PowderClass, 'family' | 'strengthFactor'>

/**
 * How little the grains hold: a share (1 - V_f)^n of the paste's strength is left. n = 1 is dilution, no bond at all at
 * the grains 1 - 1.21 V_f^(2/3) (Nicolais and Narkis 1971, from memory); 1.3 (0.8 to 2.0) is an engineering guess.
 */
export const BOND = 1.3
const leftBy = (grains: number, bond: number) => (1 - grains) ** bond

/** Compressive strength of a fully hydrated wet cast, MPa (Ryshkewitch 1953 form). @param bond exponent of `leftBy`. */
export function wetStrength(powder: Strong, { porosity, grains }: SetSolid, bond = BOND): number {
  return (powder.strengthFactor ?? 1) * 71.8 * Math.exp(-4.445 * porosity) * leftBy(grains, bond)
}

/**
 * Compressive strength when dry, MPa (Balshin 1949 form); dental stones are not counted on for more than twice their
 * wet strength.
 */
export function dryStrength(powder: Strong, { porosity, grains }: SetSolid, bond = BOND): number {
  const dry = (powder.strengthFactor ?? 1) * 217 * (1 - porosity) ** 3.33 * leftBy(grains, bond)
  return powder.family === 'dental' ? Math.min(dry, 2 * wetStrength(powder, { porosity, grains }, bond)) : dry
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

/** How much less coarse grains let a cast grow: (1 - V_f)^1.5 (1.2 to 1.7; form of Pickett 1956, from memory). */
const RESTRAINT = 1.5

/**
 * Linear expansion on setting, as a share, when it is fully hydrated: less in thin mixes, more after long stirring,
 * less with potassium sulfate and with sand. Thin is measured against what flows as usual with its grains.
 * Exponents: shaped on dental handbook statements, low confidence.
 * @param coarse share of the whole volume that coarse grains take
 */
export function settingExpansion(
  paste: Paste,
  turns: number,
  coarse = 0,
  usual = paste.plaster.expansion.usual,
): number {
  const { plaster, ratio, additions } = paste
  const sulfate = 100 * (additions.find(a => a.id === 'potassium-sulfate')?.share ?? 0)
  const stirred = (Math.max(20, Math.min(turns, MOST_TURNS)) / 100) ** 0.3
  const thinness = ratio / (plaster.ratio.recommended + waterForGrains(paste).value)
  return usual / 100 * thinness ** -1.2 * stirred * (1 - 0.35 * Math.min(1, sulfate)) * (1 - coarse) ** RESTRAINT
}

/** Fine silica: handbooks say that it raises growth, and by how much they differ (from memory), percent. */
const WITH_SILICA = { low: 0.10, high: 0.40 }

/** The range of a class's growth with what is mixed into it, percent. */
export function expansionSpan(paste: Paste): { readonly low: number, readonly high: number } {
  const { low, high } = paste.plaster.expansion, part = Math.min(1, grainsIn(paste).fine)
  return {
    low: low + part * (Math.min(low, WITH_SILICA.low) - low),
    high: high + part * (Math.max(high, WITH_SILICA.high) - high),
  }
}

/**
 * Strength that a cast of this wet strength, MPa, needs to come out: of a flexible mould, of a rigid one, and its thin
 * parts (engineering guesses, see docs/model.md).
 */
export const openingStrengths = (strength: number) => ({
  flexible: Math.max(1.5, 0.35 * strength), rigid: Math.max(2.5, 0.70 * strength), thin: 0.90 * strength,
})
