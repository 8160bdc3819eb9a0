import type { Celsius, Kilograms, Metres, Seconds } from '../units/quantity'
import { freeFaces, place, type Standing } from './places'
import { wetFace, type WetFace } from './wet-face'

/**
 * Drying of a cast in two periods: first its wet face gives water off as fast as the air takes it, then ever more
 * slowly as the face falls dry.
 * Equations and sources: docs/model.md, “Drying”.
 */

/**
 * Above this a place is said to be too hot, and above the second it is not taken: edges that are dry come to the air's
 * temperature and begin to lose their bound water.
 */
export const WARM_ENOUGH: Celsius = 45, TOO_HOT: Celsius = 50

/** What dries: set gypsum, the water in its pores, all its faces, and half its thickness. */
export interface Body {
  readonly dryMass: Kilograms
  readonly freeWater: Kilograms /** m2, all faces. */
  readonly area: number
  readonly half: Metres
}

/**
 * Moisture diffusivity of a dry pore and how steeply it rises with water, and the porosity it fills (engineering
 * guesses; the form is Hall and Hoff's).
 */
const DIFFUSIVITY = 1e-6, STEEPNESS = 7, PORE = 0.5

/**
 * Free water that air leaves in a cast for good, as a share of its dry mass (order of magnitude, engineering guess).
 */
export function equilibrium(humidity: number): number {
  return 0.001 + 0.004 * humidity ** 6
}

/** What the air of a usual room leaves in a cast for good, as a share of its dry mass. */
const ROOM_LEAVES = equilibrium(0.5)

/** How dry something has to be. */
export interface Dryness {
  /** Share of its pore water that may be left: what was in its pores at first, less what a room leaves for good. */
  readonly left: number
  /** And in any case no more than this, as a share of its dry mass. */
  readonly atMost?: number
}

/**
 * The same as free water over dry mass. A share of dry mass alone means something else for each powder: 5 % is a ninth
 * of the water of plaster of Paris, and nearly all that a die stone ever held. First principles but for what stays.
 * @param body as it was when it was opened
 */
export function moistureAt({ dryMass, freeWater }: Pick<Body, 'dryMass' | 'freeWater'>, dryness: Dryness): number {
  const stays = Math.min(freeWater, dryMass * ROOM_LEAVES)
  return Math.min(dryness.atMost ?? Infinity, (stays + dryness.left * (freeWater - stays)) / dryMass)
}

/** How much of its pore water is left, 0 to 1. @param water free water now, kg */
export function shareLeft({ dryMass, freeWater }: Pick<Body, 'dryMass' | 'freeWater'>, water: Kilograms): number {
  const stays = Math.min(freeWater, dryMass * ROOM_LEAVES)
  return freeWater > stays ? Math.max(0, Math.min(1, (water - stays) / (freeWater - stays))) : 0
}

/** What scatters: speed of evaporation and where the face falls dry, as multipliers. */
interface DryingScatter { readonly speed: number, readonly dryFace: number }
const DRYING_CENTRE: DryingScatter = { speed: 1, dryFace: 1 }

/**
 * Rates of one cast in one place: water a second while the face is wet, free water at which it falls dry, and what it
 * ends with.
 */
interface Rates { readonly first: number, readonly critical: Kilograms, readonly least: Kilograms }
const drinks = ({ place: where }: Standing) => place(where).drinks === true
/** How far water has to come to a face: half the thickness from two faces, all of it from one. */
const depthOf = (body: Body, faces: number) => faces < 0.7 ? 2 * body.half : body.half
function ratesOf(body: Body, standing: Standing, { speed, dryFace }: DryingScatter, { flux }: WetFace): Rates {
  const faces = freeFaces(place(standing.place))
  const first = drinks(standing) ? 0 : Math.max(0, speed * flux) * body.area * faces
  const depth = depthOf(body, faces)
  const share = 0.9
    * (1
      + Math.log(
        Math.max(
          1e-12,
          speed * Math.max(0, flux) / 1000 * depth * STEEPNESS / (2 * DIFFUSIVITY * PORE) + Math.exp(-STEEPNESS),
        ),
      ) / STEEPNESS)
  const least = Math.min(body.freeWater, body.dryMass * equilibrium(standing.air.humidity))
  return {
    first,
    critical: Math.max(least * 1.5, Math.min(0.95, Math.max(0.08, share * dryFace)) * body.freeWater),
    least,
  }
}

/** Free water after some time in one place, from what it holds now. */
function after(water: Kilograms, t: Seconds, { first, critical, least }: Rates): Kilograms {
  if (first <= 0 || water <= least) return water
  if (water > critical) {
    const until = (water - critical) / first
    if (t <= until) return water - first * t
    return after(critical, t - until, { first, critical, least })
  }
  // The rate falls in proportion to what is left (characteristic drying curve: van Meel 1958, Keey).
  return least + (water - least) * Math.exp(-t * first / (critical - least))
}

/** Time in one place until it holds no more than `target`; Infinity where it never comes to that. */
function until(water: Kilograms, target: Kilograms, { first, critical, least }: Rates): Seconds {
  if (water <= target) return 0
  if (first <= 0 || target <= least) return Infinity
  const straight = water > critical ? (water - Math.max(critical, target)) / first : 0
  if (target >= critical) return straight
  return straight + (critical - least) / first * Math.log((Math.min(water, critical) - least) / (target - least))
}

/** A cast's whole way: where it stood from when on, the first from the moment it was opened. Seconds after that. */
export interface Stay extends Standing { readonly from: Seconds }
export interface Drying {
  /** Free water at a moment, kg. */
  water(at: Seconds): Kilograms
  /** When it holds no more than this share of its dry mass. */
  reaches(share: number): Seconds
  /** When it is so dry. */
  dries(to: Dryness): Seconds
  readonly body: Body
}

/** Wet faces of a cast in each of its places: what a whole sample of casts has in common. */
export function wetFaces(body: Pick<Body, 'area'>, stays: readonly Standing[]): readonly WetFace[] {
  return stays.map(s => wetFace(body.area, s))
}

/**
 * @param stays in the order of time; the last goes on. @param wet its wet faces there, where they are known already.
 */
export function dryingOf(
  body: Body,
  stays: readonly Stay[],
  scatter: DryingScatter = DRYING_CENTRE,
  wet: readonly WetFace[] = wetFaces(body, stays),
): Drying {
  let water = body.freeWater
  const legs = stays.map((stay, i) => {
    const rates = ratesOf(body, stay, scatter, wet[i]!),
      end = stays[i + 1]?.from ?? Infinity,
      leg = { from: stay.from, end, water, rates }
    if (end < Infinity) water = after(water, end - stay.from, rates)
    return leg
  })
  const reaches = (share: number) => {
    const target = share * body.dryMass
    for (const leg of legs) {
      const t = leg.from + until(leg.water, target, leg.rates)
      if (t <= leg.end) return t
    }
    return Infinity
  }
  return {
    body,
    reaches,
    dries: to => reaches(moistureAt(body, to)),
    water(at) {
      const leg = legs.filter(l => l.from <= at).at(-1)
      return leg ? after(leg.water, at - leg.from, leg.rates) : body.freeWater
    },
  }
}

const PORE_DIFFUSION = 2.5e-5 * 0.55 / 2.5
/**
 * A slower way for the very last water, as the wet front draws back into a thick piece and vapour comes through the dry
 * shell (receding front, quasi-steady plate; diffusion
 * through pores an engineering guess): time until `share`, from coming to this place. The truth lies between this and
 * the other.
 */
export function frontReaches(body: Body, stay: Standing, share: number): Seconds {
  const face = wetFace(body.area, stay), rates = ratesOf(body, stay, DRYING_CENTRE, face)
  const faces = freeFaces(place(stay.place))
  if (rates.first <= 0 || faces <= 0) return Infinity
  const target = Math.max(share * body.dryMass, rates.least * 1.001),
    straight = Math.max(0, body.freeWater - Math.max(rates.critical, target)) / rates.first
  if (target >= rates.critical) return straight
  const { lack } = face, depth = depthOf(body, faces)
  if (lack <= 0) return Infinity
  const surface = face.flux / lack, held = rates.critical / (body.area * faces * depth)
  const dry = (1 - target / rates.critical) * depth
  return straight + held / lack * (dry / surface + dry * dry / (2 * PORE_DIFFUSION))
}
