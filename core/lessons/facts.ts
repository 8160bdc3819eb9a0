import { solveMix, saturationRatio } from '../gypsum/mix'
import { powderClass, type PowderClassId } from '../gypsum/powders'
import { expectedDrying, usualStanding } from '../drying/expected'
import { BREATHES } from '../gypsum/end-use'
import { narrowest } from '../practice/casts'
import { coarseFor, settingMoments, type SettingMoments } from '../setting/hydration'
import { CENTRE, settingMix, type SettingInput } from '../setting/setting-mix'
import { dryStrength } from '../setting/hardening'
import { freeBubble } from '../setting/flow'
import { temperatureFactor } from '../setting/kinetics'
import type { Celsius, Kilograms, Litres, Metres, Minutes } from './units'

/** The numbers of questions, each worked out by the room that knows it. */

/** Powder and water for so many litres of mix, kg. */
interface Masses { readonly powder: Kilograms, readonly water: Kilograms }
export function forLitres(id: PowderClassId, ratio: number, litres: Litres): Masses {
  const recipe = { powder: powderClass(id), ratio, waterTemperature: 20 }
  const { powder, water } = solveMix(recipe, { what: 'slurry', amount: litres / 1000 })
  return { powder, water }
}
/** How much deeper a mix is than the water it was sifted into until islands stayed. */
export function riseOf(id: PowderClassId): number {
  const powder = powderClass(id), ratio = saturationRatio(powder)
  const { slurry, waterVolume } = solveMix({ powder, ratio, waterTemperature: 20 }, { what: 'water', amount: 1 })
  return slurry / waterVolume
}

function input(part: Partial<SettingInput>): SettingInput {
  return {
    powder: powderClass('plaster-of-paris'), ratio: 0.7, waterTemperature: 20, roomTemperature: 20,
    stir: { tool: 'hand', minutes: 2 }, stirFrom: 120, section: 0.03, mould: 'silicone', ...part,
  }
}
const known = new Map<string, SettingMoments>()
/** Moments of a usual bowl, and of it with one thing otherwise; s. */
export function momentsWith(part: Partial<SettingInput> = {}): SettingMoments {
  const key = JSON.stringify(part), made = input(part)
  const found = known.get(key) ?? settingMoments(made, CENTRE, coarseFor(made.section))
  known.set(key, found)
  return found
}
/** Pot life against a bowl of 20 degC, as a factor. */
export const timeAt = (water: Celsius): number =>
  momentsWith({ waterTemperature: water }).pourBy / momentsWith({ waterTemperature: 20 }).pourBy
export const speedAt = (t: Celsius): number => temperatureFactor(t) / temperatureFactor(20)

/** Dry strength at a ratio, MPa. */
export function dryAt(id: PowderClassId, ratio: number): number {
  const powder = powderClass(id), { solid } = settingMix(input({ powder, ratio }))
  return dryStrength(powder, solid)
}
/** Days on a rack at room air until it can be painted. */
export function daysToDry(thickness: Metres): number {
  const recipe = { powder: powderClass('plaster-of-paris'), ratio: 0.7, waterTemperature: 20 }
  const mix = solveMix(recipe, { what: 'slurry', amount: 1e-3 })
  return expectedDrying(mix, { volume: 1e-3, section: thickness }, BREATHES, usualStanding(20)).value / 86_400
}
/** Smallest bubble that leaves a fresh mix by itself, mm. */
export function leavesByItself(id: PowderClassId, ratio: number): number {
  const { fresh } = settingMix(input({ powder: powderClass(id), ratio }))
  return 1000 * freeBubble(fresh)
}
export const gapFilled = (tau: number, length: Metres, head: Metres): Metres => narrowest(tau, length, head, 1542)
export const stirredFor = (minutes: Minutes): number => momentsWith({ stir: { tool: 'hand', minutes } }).glossGone / 60
