import type { Kilograms, Seconds } from '../units/quantity'
import { dryingOf, equilibrium, moistureAt, type Body, type Dryness } from './cast'
import { place, USUAL_WEATHER, type Standing } from './places'
import { wetFace } from './wet-face'

/** Whether a cast dries where it stands at all: a date half a year off helps nobody. */

export type NotHereCode
  = 'damp-ground' | 'rain' | 'freezes' | 'air-too-damp' | 'dew' | 'air-takes-none' | 'too-slow'
export interface NotHere {
  readonly code: NotHereCode
  /** How long it would take from now in a room at 20 degC and half humidity, on a rack. */
  readonly room: Seconds
}

/** In a room as it should be for drying. */
const GOOD_ROOM: Standing = { place: 'rack', air: { celsius: 20, humidity: 0.5 } }
/**
 * Air is known to three points; what takes longer than 45 days and three times as long as in a room does not dry there
 * (engineering guesses).
 */
const POINTS = 0.03, LONG: Seconds = 45 * 86_400, TIMES = 3

/**
 * Why it does not dry where it stands; nothing where it does, or where it is wrapped so as not to.
 * @param holds free water now, kg
 */
export function whyNotHere(body: Body, standing: Standing, to: Dryness, holds: Kilograms): NotHere | undefined {
  const target = moistureAt(body, to)
  if (standing.place === 'damp' || holds <= target * body.dryMass) return undefined
  const now = { ...body, freeWater: holds }
  const within = (where: Standing) => dryingOf(now, [{ ...where, from: 0 }]).reaches(target)
  const room = within(GOOD_ROOM), code = codeOf(body, standing, target, () => within(standing), room)
  return code && { code, room }
}

function codeOf(
  { area }: Body, standing: Standing, target: number, takes: () => Seconds, room: Seconds,
): NotHereCode | undefined {
  const facts = place(standing.place), { air, weather = USUAL_WEATHER } = standing
  if (facts.drinks) return 'damp-ground'
  if (facts.outdoors && facts.up + facts.upright > 0 && weather.sky === 'rain') return 'rain'
  if (air.celsius <= 0) return 'freezes'
  if (target <= equilibrium(air.humidity)) return 'air-too-damp'
  const damper = { ...standing, air: { ...air, humidity: air.humidity + POINTS } }
  if (wetFace(area, damper).flux <= 0) return facts.outdoors && facts.free < 1 ? 'dew' : 'air-takes-none'
  const long = takes()
  return long > LONG && long > TIMES * room ? 'too-slow' : undefined
}
