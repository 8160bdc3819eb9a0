import type { Celsius, CubicMetres, Estimate, Metres, Seconds } from '../units/quantity'
import type { Mix } from '../gypsum/mix'
import type { Body, Dryness, Stay } from './cast'
import { whyNotHere, type NotHere } from './here'
import type { Standing } from './places'
import { forecastDrying } from './weighings'

/**
 * Faces of a solid are at least those of a ball of its volume: the cube root of 36 pi, by the volume to the two thirds.
 */
export const BALL = 4.836
/** Humidity of a room when nobody has said (engineering guess). */
export const USUAL_HUMIDITY = 0.5
/** Longest time that is told; what takes longer does not dry there. */
export const LONGEST_DRYING: Seconds = 400 * 86_400

/** What a cast is to its drying: how much of it there is, how thick, and whether air comes to both its faces. */
export interface CastSize {
  readonly volume: CubicMetres
  readonly section: Metres
  readonly hollow?: boolean
}

/** Share of a hollow cast's inner face that gives water off (1 by a wide mouth, .2 by a narrow; engineering guess). */
const INSIDE = 0.5

/** A cast as a plate of its thickest section, both faces free: what most casts come near to; hollow, of its wall. */
export function castBody(
  mix: Pick<Mix, 'dryMass' | 'freeWater' | 'slurry'>,
  { volume, section, hollow = false }: CastSize,
): Body {
  const share = volume / mix.slurry, faces = 2 * volume / section
  return {
    dryMass: mix.dryMass * share,
    freeWater: mix.freeWater * share,
    area: hollow ? faces * (1 + INSIDE) / 2 : Math.max(faces, BALL * volume ** (2 / 3)),
    half: section / 2,
  }
}

/** Where a cast stands when nothing else was said: on a rack in the room. */
export function usualStanding(room: Celsius): Standing {
  return { place: 'rack', air: { celsius: room, humidity: USUAL_HUMIDITY } }
}

/** When it will be dry where it is meant to stand; where it never is, why, and then no time means anything. */
export interface ExpectedDrying extends Estimate<Seconds> { readonly notHere?: NotHere }

/** Time from opening until it is so dry where it will stand, before anything was weighed. */
export function expectedDrying(
  mix: Pick<Mix, 'dryMass' | 'freeWater' | 'slurry'>,
  size: CastSize,
  dryTo: Dryness,
  standing: Standing,
): ExpectedDrying {
  const body = castBody(mix, size), stays: readonly Stay[] = [{ ...standing, from: 0 }]
  const { value, low, high } = forecastDrying({ body, stays, weighed: [], felt: [] }).dries(dryTo)
  const within = (t: Seconds) => Math.min(LONGEST_DRYING, t)
  return {
    value: within(value),
    low: within(low),
    high: within(high),
    notHere: whyNotHere(body, standing, dryTo, body.freeWater),
    basis: { kind: 'model', note: 'the drying model in the air where it will stand; weigh it and it is fitted' },
  }
}
