import type { Celsius, CubicMetres, Estimate, Metres, Seconds } from '../units/quantity'
import type { Mix } from '../gypsum/mix'
import type { Body, Dryness, Stay } from './cast'
import { forecastDrying } from './weighings'

/**
 * Faces of a solid are at least those of a ball of its volume: the cube root of 36 pi, by the volume to the two thirds.
 */
const BALL = 4.836
/** Humidity of a room when nobody has said (engineering guess). */
export const USUAL_HUMIDITY = 0.5
/** Longest time that is told; what takes longer does not dry there. */
export const LONGEST_DRYING: Seconds = 400 * 86_400

/** A cast as a plate of its thickest section, both faces free: what most casts come near to. */
export function castBody(
  mix: Pick<Mix, 'dryMass' | 'freeWater' | 'slurry'>,
  volume: CubicMetres,
  section: Metres,
): Body {
  const share = volume / mix.slurry
  return {
    dryMass: mix.dryMass * share,
    freeWater: mix.freeWater * share,
    area: Math.max(2 * volume / section, BALL * volume ** (2 / 3)),
    half: section / 2,
  }
}

/** Where a cast stands when nothing else was said: on a rack in the room. */
export function usualStay(room: Celsius): Stay {
  return { place: 'rack', air: { celsius: room, humidity: USUAL_HUMIDITY }, from: 0 }
}

/**
 * Time from opening until it is so dry, on a rack in a usual room, before anything was
 * weighed.
 */
export function expectedDrying(
  mix: Pick<Mix, 'dryMass' | 'freeWater' | 'slurry'>,
  volume: CubicMetres,
  section: Metres,
  dryTo: Dryness,
  room: Celsius,
): Estimate<Seconds> {
  const { value, low, high } = forecastDrying({
    body: castBody(mix, volume, section),
    stays: [usualStay(room)],
    weighed: [],
    felt: [],
  }).dries(dryTo)
  const within = (t: Seconds) => Math.min(LONGEST_DRYING, t)
  return {
    value: within(value),
    low: within(low),
    high: within(high),
    basis: {
      kind: 'model',
      note: 'the drying model on a rack in still air at half humidity, room temperature; weigh it and it is fitted',
    },
  }
}
