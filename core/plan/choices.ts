import type { Celsius, Seconds } from '../units/quantity'
import { pourableUntil } from '../setting/hydration'
import type { SettingInput } from '../setting/setting-mix'
import { temperatureFactor } from '../setting/kinetics'
import type { PowderClass } from '../gypsum/powders'
import type { SchoolId } from '../gypsum/schools'
import { turnsOf, type Stirring, type StirTool } from '../gypsum/stirring'

/**
 * What to say at a point of choice where practitioners disagree: which custom fits this powder, and why. Common
 * practice, no source, except the numbers of the model. Sentences: words.ts.
 */

export type SoakAdvice = 'bag' | 'by-feel' | 'dumped-investment' | 'dumped' | 'dumped-long' | 'dental' | 'dental-long' | 'short' | 'long' | 'usual'

/** How long to soak. @param minutes chosen. */
export function soakAdvice(school: SchoolId, powder: PowderClass, minutes: number): SoakAdvice {
  if (school === 'bag') return 'bag'
  if (school === 'powder-first') return 'by-feel'
  if (school === 'dumped' && powder.family === 'investment') return minutes > 4 ? 'dumped-long' : 'dumped-investment'
  if (school === 'dumped') return minutes > 1.5 ? 'dumped-long' : 'dumped'
  if (powder.family === 'dental' || powder.ratio.recommended < 0.35) return minutes > 1 ? 'dental-long' : 'dental'
  if (minutes < 1) return 'short'
  return minutes > 5 ? 'long' : 'usual'
}

export interface StirAdvice {
  readonly tool: StirTool
  /** Whether the tool is the one for this amount and powder. */
  readonly fits: boolean
  /** So much stirring that it sets much sooner. */
  readonly much: boolean
  /** Of a drill: how much less time it leaves to pour than a hand does. */
  readonly costs?: Seconds
}

/** Hand or machine. @param kg powder in the largest batch. @param setting as it is planned, for what a drill costs */
export function stirAdvice(stir: Stirring, powder: PowderClass, kg: number, setting?: SettingInput): StirAdvice {
  const fits: Readonly<Record<StirTool, boolean>> = {
    'hand': kg <= 8,
    'spatula': kg <= 3,
    'whisk': false,
    'drill': kg >= 2,
    'vacuum-mixer': powder.family === 'dental' || powder.family === 'investment',
    'kneaded-bag': true,
  }
  const byHand = setting && { ...setting, stir: { ...stir, tool: 'hand' as const } }
  return {
    tool: stir.tool, fits: fits[stir.tool], much: stir.tool !== 'kneaded-bag' && turnsOf(stir) > 250,
    costs: byHand && stir.tool === 'drill' ? pourableUntil(byHand) - pourableUntil(setting) : undefined,
  }
}

export type WaterAdvice
  = | {
    readonly code: 'cold' | 'warm' /** How much slower or faster it starts, to the nearest five. */
    readonly percent: number
  }
  | { readonly code: 'hot' | 'room' }

/** Cold, room or warm water. @param mixed temperature of water and powder together. */
export function waterAdvice(water: Celsius, room: Celsius, mixed: Celsius): WaterAdvice {
  const speed = temperatureFactor(mixed) / temperatureFactor(room)
  const percent = Math.round(Math.abs(speed - 1) * 100 / 5) * 5
  if (water < room - 4) return { code: 'cold', percent }
  if (water > room + 4) return water > 40 ? { code: 'hot' } : { code: 'warm', percent }
  return { code: 'room' }
}
