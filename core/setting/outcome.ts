import type { Celsius, Metres, Seconds, WaterRatio } from '../units/quantity'
import type { Addition } from '../gypsum/additions'
import { solveMix } from '../gypsum/mix'
import { grainsIn, pasteOf, waterForGrains } from '../gypsum/paste'
import type { PowderClass } from '../gypsum/powders'
import { dampStrength, dryStrength, expansionSpan, growingStrength, settingExpansion } from './hardening'
import type { SettingRun } from './hydration'
import type { SettingInput } from './setting-mix'
import { bleedShare, clearing, freeBubble, plasticViscosity, type Driving } from './flow'
import { turnsOf, type Stirring } from '../gypsum/stirring'

/** What a setting run leads to besides its moments. */
export interface Outcome {
  /** Until when shaking helps, seconds after wetting, and the smallest bubble that gets out by then, m. */
  readonly tapUntil: Seconds
  readonly bubble: Metres
  /** Smallest bubble that rises in the fresh mix with nobody shaking, m; none is larger than the section. */
  readonly freeBubble: Metres
  /** Plastic viscosity of the fresh mix, Pa s. */
  readonly viscosity: number
  /** Clear water that stands on top, share of the depth. */
  readonly bleed: number
  /** Linear growth when fully set, share. */
  readonly expansion: number
  /** Compressive strengths, MPa: one hour after wetting, wet and fully set, dry, and with a tenth of its water left. */
  readonly hourStrength: number
  readonly wetStrength: number
  readonly dryStrength: number
  readonly dampStrength: number
  /** Density when dry, kg/m3, pores as a share, and water to dry out per volume, kg/m3. */
  readonly dryDensity: number
  readonly porosity: number
  readonly freeWater: number
  /** Longest that the hottest place could hurt skin: time above 43 degC, s. */
  readonly above43: Seconds
}

/** Share of its pore water with which damp strength is told: dry enough for paint that breathes. */
const DAMP = 0.10

/** Multipliers of what the laws here are least sure of. */
interface OutcomeScatter {
  readonly flow: number
  readonly strength: number
  readonly expansion: number
  readonly bond?: number
}
const NONE: OutcomeScatter = { flow: 1, strength: 1, expansion: 1 }

/**
 * @param driving how bubbles are driven out, from the end of stirring, over the depth of the section.
 * Laws and sources: flow.ts and hardening.ts.
 */
export function outcomeOf(
  input: SettingInput,
  { mix, course, moments, afterHour, above43 }: SettingRun,
  driving: Driving,
  scatter: OutcomeScatter = NONE,
): Outcome {
  const { amounts, fresh, grains, paste, solid } = mix, { plaster } = paste
  const stirred = (input.stirFrom ?? 0) + input.stir.minutes * 60
  const t: Celsius = mix.start
  const cleared = clearing(fresh, course, driving, input.section, stirred, scatter.flow)
  const wet = mix.strength * scatter.strength,
    dry = Math.max(wet, dryStrength(plaster, solid, scatter.bond) * scatter.strength)
  const standing = Math.max(0, moments.pourBy - stirred)
  const bed = { fineVolume: grains.fineVolume, water: waterForGrains(paste).value }
  return {
    tapUntil: cleared.until,
    bubble: cleared.smallest,
    freeBubble: Math.min(freeBubble(fresh) * scatter.flow, input.section),
    viscosity: plasticViscosity(fresh, 0, t) * scatter.flow,
    bleed: bleedShare(plaster, amounts.effectiveRatio, t, standing, input.section, bed),
    expansion: settingExpansion(paste, turnsOf(input.stir), grains.coarseVolume / amounts.slurry) * scatter.expansion,
    hourStrength: growingStrength(wet, (afterHour - mix.alphaSet) / (mix.alphaMax - mix.alphaSet)),
    wetStrength: wet,
    dryStrength: dry,
    dampStrength: dampStrength(wet, dry, DAMP * amounts.freeWater / amounts.dryMass),
    dryDensity: amounts.dryMass / amounts.slurry,
    porosity: amounts.dryPorosity,
    freeWater: amounts.freeWater / amounts.slurry,
    above43,
  }
}

/**
 * How much a cast grows on setting, as a share, with the range its class of powder is met with.
 * @param additions shares of what is in the bag
 */
export function growthOf(
  powder: PowderClass,
  ratio: WaterRatio,
  stir: Stirring,
  additions: readonly Addition[],
): { readonly value: number, readonly low: number, readonly high: number } {
  const paste = pasteOf(powder, ratio, additions), { plaster } = paste
  const { slurry } = solveMix(
    { powder: plaster, ratio: paste.ratio, waterTemperature: 20, additions: paste.additions },
    { what: 'powder', amount: 1 },
  )
  const of = (usual: number) => settingExpansion(paste, turnsOf(stir), grainsIn(paste).coarseVolume / slurry, usual)
  const { low, high } = expansionSpan(paste)
  return { value: of(plaster.expansion.usual), low: of(low), high: of(high) }
}
