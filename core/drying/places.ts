import { PLACE_WORDS } from './words'
import type { Air } from './air'

/** Where a cast can stand while it dries, and what is known of the weather there. */

interface PlaceFacts {
  /** Shares of all its faces that look up to the sky, stand upright in the open, and are free otherwise. */
  readonly up: number
  readonly upright: number
  readonly free: number
  /** Air moves so fast, m/s; outdoors the weather says. */
  readonly speed: number
  readonly outdoors?: true
  /** Its lower face drinks from what it lies on. */
  readonly drinks?: true
}

/** A face on a dry board counts nothing; turned daily, half (engineering guesses, with the speeds). */
const PLACE_FACTS = {
  'mould': { up: 0, upright: 0, free: 0.5, speed: 0.1 },
  'board': { up: 0, upright: 0, free: 0.5, speed: 0.1 },
  'turned': { up: 0, upright: 0, free: 0.75, speed: 0.1 },
  'rack': { up: 0, upright: 0, free: 1, speed: 0.1 },
  'fan': { up: 0, upright: 0, free: 1, speed: 1 },
  'cabinet': { up: 0, upright: 0, free: 1, speed: 0.5 },
  'roof': { up: 0, upright: 0, free: 1, speed: 0.5, outdoors: true },
  'sky': { up: 0.5, upright: 0, free: 0.5, speed: 0.5, outdoors: true },
  'stood': { up: 0, upright: 1, free: 0, speed: 0.5, outdoors: true },
  'sky-board': { up: 0.5, upright: 0, free: 0, speed: 0.5, outdoors: true },
  'wet-ground': { up: 0.5, upright: 0, free: 0, speed: 0.5, outdoors: true, drinks: true },
  'damp': { up: 0, upright: 0, free: 0, speed: 0 },
} as const satisfies Record<string, PlaceFacts>

export type PlaceId = keyof typeof PLACE_FACTS
export interface Place extends PlaceFacts { readonly id: PlaceId, readonly name: string }
export const PLACES: readonly Place[] = (Object.keys(PLACE_FACTS) as PlaceId[]).map(id =>
  ({ id, ...PLACE_FACTS[id], ...PLACE_WORDS[id] }),
)
export const place = (id: PlaceId): Place => PLACES.find(p => p.id === id)!
/** Share of all its faces that give water off. */
export const freeFaces = ({ up, upright, free }: Place): number => up + upright + free

/**
 * What the sky is like over a day: share of it in cloud, of its sun that comes through what stands before it, and of it
 * that is seen (cloud from what the words mean, the others engineering guesses).
 */
const SKY_FACTS = {
  sun: { cloud: 0, sun: 1, seen: 1 },
  half: { cloud: 0.5, sun: 1, seen: 1 },
  cloud: { cloud: 0.9, sun: 1, seen: 1 },
  shade: { cloud: 0, sun: 0.15, seen: 0.5 },
  rain: { cloud: 1, sun: 1, seen: 1 },
} as const
export type SkyId = keyof typeof SKY_FACTS
export const SKIES = Object.keys(SKY_FACTS) as readonly SkyId[]
export const skyFacts = (id: SkyId): typeof SKY_FACTS[SkyId] => SKY_FACTS[id]

/** Wind at a cast, m/s (engineering guesses: far less than over open land). */
const WIND_FACTS = { still: 0.1, light: 0.5, windy: 2 } as const
export type WindId = keyof typeof WIND_FACTS
export const WINDS = Object.keys(WIND_FACTS) as readonly WindId[]
export const windSpeed = (id: WindId): number => WIND_FACTS[id]

/** Weather of a place outdoors, over a day; the mean temperature and the humidity at it are its air's. */
export interface Weather {
  /** How far the warmest hour is above the mean, and the coldest below it, K. */
  readonly swing: number
  readonly wind: WindId
  readonly sky: SkyId
  /** Degrees north; south below nothing. */
  readonly latitude?: number
}
/** Where nobody has said: an ordinary dry day in the middle of Europe (engineering guess). */
export const USUAL_WEATHER: Weather = { swing: 5, wind: 'light', sky: 'half' }
export const USUAL_LATITUDE = 50

/** Where a cast stands and in what air, from some moment on. */
export interface Standing {
  readonly place: PlaceId
  readonly air: Air
  readonly weather?: Weather
  /** Day of the year, 1 to 366: how high the sun stands. */
  readonly day?: number
}

/** Whether the sun shines on a face of it. */
export function inTheSun({ place: where, weather }: Standing): boolean {
  return weather?.sky === 'sun' && place(where).up + place(where).upright > 0
}

/** Day of the year of a moment in ms, 1 to 366, for how high the sun stands: the hour is of no account. */
export function dayOfYear(at: number): number {
  return 1 + Math.floor((at - Date.UTC(new Date(at).getUTCFullYear(), 0, 1)) / 86_400_000)
}

/** What places were called once, and what they are now: in the sun was open to the sky, ground was taken as dry. */
const RETIRED: Readonly<Record<string, Pick<Standing, 'place' | 'weather'>>> = {
  sun: { place: 'sky', weather: { ...USUAL_WEATHER, sky: 'sun' } },
  ground: { place: 'board' },
}
export const RETIRED_PLACES = Object.keys(RETIRED)
/** A standing as it may have been told once, by the places of today. */
export function standingNow<T extends { readonly place: string }>(told: T): T {
  return Object.hasOwn(RETIRED, told.place) ? { ...told, ...RETIRED[told.place] } : told
}
