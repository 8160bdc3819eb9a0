import type { Celsius, Kilograms, Metres, Seconds } from '../units/quantity'
import { PLACE_WORDS } from './words'
import { bisect } from '../numeric/root'
import { saturationPressure } from '../numeric/vapour'
import { latentHeat, vapourDensity, type Air } from './air'

/**
 * Drying of a cast in two periods: first its wet face gives water off as fast as the air takes it, then ever more
 * slowly as the face falls dry.
 * Equations and sources: docs/model.md, “Drying”.
 */

/** Where a cast stands. */
const PLACE_FACTS = [
  { id: 'mould', faces: 0.5, speed: 0.1, sun: 0 },
  { id: 'board', faces: 0.55, speed: 0.1, sun: 0 },
  { id: 'rack', faces: 1, speed: 0.1, sun: 0 },
  { id: 'fan', faces: 1, speed: 1, sun: 0 },
  { id: 'cabinet', faces: 1, speed: 0.5, sun: 0 },
  { id: 'sun', faces: 1, speed: 0.3, sun: 500 },
  { id: 'ground', faces: 0.5, speed: 0.1, sun: 0 },
  { id: 'damp', faces: 0, speed: 0, sun: 0 },
] as const

export const PLACES = PLACE_FACTS.map(x => ({ ...x, ...PLACE_WORDS[x.id] }))
export type PlaceId = typeof PLACE_FACTS[number]['id']
export const place = (id: PlaceId) => PLACES.find(p => p.id === id)!

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

/** Where it stands and in what air, from some moment on. */
export interface Standing { readonly place: PlaceId, readonly air: Air }

// Constants of the transfer laws, of air near 20 degC, in W/(m K), m2/s, 1, 1, 1, W/(m2 K4) and K; docs/model.md names
// their sources.
const CONDUCTIVITY = 0.0257,
  VISCOSITY = 1.53e-5,
  PRANDTL = 0.71,
  EMISSIVITY = 0.9,
  ABSORBED = 0.35,
  STEFAN = 5.67e-8,
  KELVIN = 273.15
/** Extra buoyancy of the light, moist air at a wet face, as a difference of temperature (engineering guess). */
const MOIST_BUOYANCY = 1.5
/**
 * Moisture diffusivity of a dry pore and how steeply it rises with water, and the porosity it fills (engineering
 * guesses; the form is Hall and Hoff's).
 */
const DIFFUSIVITY = 1e-6, STEEPNESS = 7, PORE = 0.5

/**
 * Heat transfer of a face, W/(m2 K): forced (Pohlhausen; turbulent above 5e5), natural (Churchill and Chu 1975),
 * blended (Churchill and Usagi).
 */
function heatTransfer(length: Metres, speed: number, difference: number, airTemperature: Celsius): number {
  const reynolds = speed * length / VISCOSITY
  const forced = reynolds > 5e5
    ? (0.037 * reynolds ** 0.8 - 871) * Math.cbrt(PRANDTL)
    : 0.664 * Math.sqrt(reynolds) * Math.cbrt(PRANDTL)
  const rayleigh = 9.81 * Math.abs(difference + MOIST_BUOYANCY) * length ** 3 * PRANDTL
    / ((airTemperature + KELVIN) * VISCOSITY ** 2)
  const natural = 0.68 + 0.67 * rayleigh ** 0.25 / (1 + (0.492 / PRANDTL) ** (9 / 16)) ** (4 / 9)
  return Math.cbrt(forced ** 3 + natural ** 3) * CONDUCTIVITY / length
}

export interface WetFace {
  /** Temperature of the face while it is wet. */ readonly celsius:
  Celsius /** Water it gives off, kg/(m2 s); below nothing where it gathers dew. */
  readonly flux: number
}

/** A wet face: heat from air, walls and sun against the heat that evaporation takes (Chilton and Colburn 1934). */
export function wetFace(area: number, { place: where, air }: Standing): WetFace {
  const { speed, sun } = place(where), length = Math.min(0.5, Math.sqrt(area))
  const rho = vapourDensity(air.celsius, air.humidity * saturationPressure(air.celsius))
  const transfer = (t: Celsius) => {
    const h = heatTransfer(length, speed, air.celsius - t, air.celsius)
    return { h, g: h / (1.2 * 293.15 / (air.celsius + KELVIN) * 1006 * 0.866 ** (2 / 3)) }
  }
  const fluxAt = (t: Celsius, g: number) => g * (vapourDensity(t, saturationPressure(t)) - rho)
  const celsius = bisect(-40, air.celsius + 60, (t) => {
    const { h, g } = transfer(t), mean = (t + air.celsius) / 2 + KELVIN
    return latentHeat(t) * fluxAt(t, g) - h * (air.celsius - t)
      - 4 * EMISSIVITY * STEFAN * mean ** 3 * (air.celsius - t) - ABSORBED * sun
  })
  return { celsius, flux: fluxAt(celsius, transfer(celsius).g) }
}

/**
 * Free water that air leaves in a cast for good, as a share of its dry mass (order of magnitude, engineering guess).
 */
function equilibrium(humidity: number): number {
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
function ratesOf(body: Body, standing: Standing, { speed, dryFace }: DryingScatter, { flux }: WetFace): Rates {
  const { faces } = place(standing.place)
  const first = Math.max(0, speed * flux) * body.area * faces
  // How far water can come to the face: half the thickness from two faces, all of it from one.
  const depth = faces < 0.9 ? 2 * body.half : body.half
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
  const face = wetFace(body.area, stay), rates = ratesOf(body, stay, DRYING_CENTRE, face), { faces } = place(stay.place)
  if (rates.first <= 0 || faces <= 0) return Infinity
  const target = Math.max(share * body.dryMass, rates.least * 1.001),
    straight = Math.max(0, body.freeWater - Math.max(rates.critical, target)) / rates.first
  if (target >= rates.critical) return straight
  const { celsius } = face, depth = faces < 0.9 ? 2 * body.half : body.half
  const lack = vapourDensity(celsius, saturationPressure(celsius))
    - vapourDensity(stay.air.celsius, stay.air.humidity * saturationPressure(stay.air.celsius))
  if (lack <= 0) return Infinity
  const surface = face.flux / lack, held = rates.critical / (body.area * faces * depth)
  const dry = (1 - target / rates.critical) * depth
  return straight + held / lack * (dry / surface + dry * dry / (2 * PORE_DIFFUSION))
}
