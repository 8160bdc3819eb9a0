import type { Celsius, Metres, Seconds } from '../units/quantity'
import { dampStrength, dryStrength, growingStrength, settingExpansion } from './hardening'
import type { SettingInput, SettingRun } from './hydration'
import { bleedShare, clearing, freeBubble, plasticViscosity, type Driving } from './flow'
import { turnsOf } from '../gypsum/stirring'

/** What a setting run leads to besides its moments. */
export interface Outcome {
  /** Until when shaking helps, seconds after wetting, and the smallest bubble that gets out by then, m. */
  readonly tapUntil: Seconds
  readonly bubble: Metres
  /** Smallest bubble that rises in the fresh mix with nobody shaking, m. */
  readonly freeBubble: Metres
  /** Plastic viscosity of the fresh mix, Pa s. */
  readonly viscosity: number
  /** Clear water that stands on top, share of the depth. */
  readonly bleed: number
  /** Linear growth when fully set, share. */
  readonly expansion: number
  /** Compressive strengths, MPa: one hour after wetting, wet and fully set, dry, and with 5 % of water still in it. */
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

/** Moisture at which a piece is called dry enough for paint that breathes. */
export const PAINT_MOISTURE = 0.05

/** Multipliers of what the laws here are least sure of. */
interface OutcomeScatter { readonly flow: number, readonly strength: number, readonly expansion: number }
const NONE: OutcomeScatter = { flow: 1, strength: 1, expansion: 1 }

/**
 * @param driving how bubbles are driven out, from the end of stirring, over the depth of the section.
 * Laws and sources: rheology.ts and hardening.ts.
 */
export function outcomeOf(
  input: SettingInput,
  { mix, course, moments, afterHour, above43 }: SettingRun,
  driving: Driving,
  scatter: OutcomeScatter = NONE,
): Outcome {
  const { powder } = input
  const { amounts, fresh } = mix
  const stirred = (input.stirFrom ?? 0) + input.stir.minutes * 60
  const t: Celsius = mix.start
  const cleared = clearing(fresh, course, driving, input.section, stirred)
  const wet = mix.strength * scatter.strength,
    dry = Math.max(wet, dryStrength(powder, amounts.dryPorosity) * scatter.strength)
  return {
    tapUntil: cleared.until,
    bubble: cleared.smallest * Math.sqrt(scatter.flow),
    freeBubble: freeBubble(fresh) * scatter.flow,
    viscosity: plasticViscosity(fresh, 0, t) * scatter.flow,
    bleed: bleedShare(powder, amounts.effectiveRatio, t, Math.max(0, moments.pourBy - stirred), input.section),
    expansion: settingExpansion(powder, input.ratio, turnsOf(input.stir), input.additions) * scatter.expansion,
    hourStrength: growingStrength(wet, (afterHour - mix.alphaSet) / (mix.alphaMax - mix.alphaSet)),
    wetStrength: wet,
    dryStrength: dry,
    dampStrength: dampStrength(wet, dry, PAINT_MOISTURE),
    dryDensity: amounts.dryMass / amounts.slurry,
    porosity: amounts.dryPorosity,
    freeWater: amounts.freeWater / amounts.slurry,
    above43,
  }
}
