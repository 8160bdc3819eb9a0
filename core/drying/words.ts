import { formatTemperature } from '../units/format'
import type { UnitPreferences } from '../units/units'
import type { NotHere, NotHereCode } from './here'
import type { PlaceId, SkyId, Standing, WindId } from './places'
import type { SteadyCode } from './weighings'

/** Where a cast stands. */
interface PlaceWords {
  readonly name: string
}

export const PLACE_WORDS: Readonly<Record<PlaceId, PlaceWords>> = {
  'mould': { name: 'Still in its mould, one face free' },
  'board': { name: 'Flat on a board, bench or shelf' },
  'turned': { name: 'On a board, turned daily' },
  'rack': { name: 'On a rack, air all round' },
  'fan': { name: 'On a rack before a fan' },
  'cabinet': { name: 'In a warm cupboard' },
  'roof': { name: 'Outside, under a roof' },
  'sky': { name: 'Outside on a rack, open to the sky' },
  'stood': { name: 'Outside, stood up in the open' },
  'sky-board': { name: 'Outside on a board, open to the sky' },
  'wet-ground': { name: 'Outside, on damp ground' },
  'damp': { name: 'Kept damp, wrapped' },
}

/** “on a rack, air all round, 20 °C, 50 % humidity” */
export function standingWords({ place, air }: Standing, prefs: UnitPreferences): string {
  const name = PLACE_WORDS[place].name
  return `${name[0]!.toLowerCase()}${name.slice(1)}, ${formatTemperature(air.celsius, prefs)}, ${
    Math.round(100 * air.humidity)} % humidity`
}

/** What the day is like outside. */
export const SKY_WORDS: Readonly<Record<SkyId, string>> = {
  sun: 'Sunny', half: 'Half cloudy', cloud: 'Overcast', shade: 'In the shade', rain: 'Rain',
}
export const WIND_WORDS: Readonly<Record<WindId, string>> = { still: 'Still', light: 'A light wind', windy: 'Windy' }

/** Why no date can be given where it stands. */
export const NOT_HERE_WORDS: Readonly<Record<NotHereCode, string>> = {
  'damp-ground': 'It lies on damp ground and drinks from it. Lift it, face up under a roof, or bring it in',
  'rain': 'Rain falls on it. Put it under a roof, or bring it in',
  'freezes': 'Its water freezes. Bring it in before it cracks',
  'air-too-damp': 'This air never takes the last of its water. Bring it somewhere drier',
  'dew': 'More dew falls on it than dries. Put it under a roof, or bring it in',
  'air-takes-none': 'The air is too damp to take anything. Bring it in',
  'too-slow': 'It is too cold and damp. Bring it somewhere warm and dry',
}

/** The same with what a room would do, in a sentence. */
export const notHereWords = ({ code, room }: NotHere, prefs: UnitPreferences): string => {
  const days = Math.ceil(room / 86_400)
  return `Not here. ${NOT_HERE_WORDS[code]}: about ${days === 1 ? 'a day' : `${days} days`} in a room at ${formatTemperature(20, prefs)}.`
}

/** Whether its weight is constant, and what that means. */
export const STEADY_WORDS: Readonly<Record<SteadyCode, string>> = {
  'losing': 'It still loses weight.',
  'near-dry': 'Its weight is constant, and near what it comes to without free water.',
  'air-would-take': 'Its weight is constant in air that would take more.',
  'full-of-water':
    'Its weight is constant, but it is still full of water: this air takes none. Bring it somewhere warm and dry.',
}
