import type { Celsius, Metres } from '../units/quantity'
import { bisect } from '../numeric/root'
import { saturationPressure } from '../numeric/vapour'
import { latentHeat, vapourDensity, type Air } from './air'
import { freeFaces, place, skyFacts, USUAL_WEATHER, windSpeed, type Standing, type Weather } from './places'
import { hoursOf, type Hour } from './sun'

/**
 * What a wet face gives off: heat from air, walls, sky and sun against the heat that evaporation takes.
 * Equations and sources: docs/model.md, “Drying”.
 */

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
  /** Temperature of the face while it is wet. */
  readonly celsius: Celsius
  /** Water it gives off, kg/(m2 s); below nothing where it gathers dew. */
  readonly flux: number
  /** Vapour that the air lacks at the face, kg/m3. */
  readonly lack: number
}

/** How a face looks: share of the sky that it sees, and share of the sun on level ground that falls on it. */
interface Look { readonly sky: number, readonly sun: number }
/** Up; standing, mean of four sides with light from the ground (.25 to .5, engineering guess); away from the sky. */
const LOOKS = { up: { sky: 1, sun: 1 }, upright: { sky: 0.5, sun: 0.35 }, free: { sky: 0, sun: 0 } } as const

/** Balance of one face in one air (Chilton and Colburn 1934; radiation to air-warm walls and to the sky). */
function balance(length: Metres, speed: number, hour: Hour, look: Look): WetFace {
  const { celsius: air, vapour, sun, sky } = hour, rho = vapourDensity(air, vapour), t4 = (air + KELVIN) ** 4
  const transfer = (t: Celsius) => {
    const h = heatTransfer(length, speed, air - t, air)
    return { h, g: h / (1.2 * 293.15 / (air + KELVIN) * 1006 * 0.866 ** (2 / 3)) }
  }
  const lackAt = (t: Celsius) => vapourDensity(t, saturationPressure(t)) - rho
  const around = EMISSIVITY * STEFAN * ((1 - look.sky) * t4 + look.sky * sky) + ABSORBED * look.sun * sun
  const celsius = bisect(-60, air + 60, (t) => {
    const { h, g } = transfer(t)
    return latentHeat(t) * g * lackAt(t) - h * (air - t) - around + EMISSIVITY * STEFAN * (t + KELVIN) ** 4
  })
  return { celsius, flux: transfer(celsius).g * lackAt(celsius), lack: lackAt(celsius) }
}

/** Mean of a day of a face that looks so. @param length m, how far air runs along it */
export function dayFace(length: Metres, air: Air, weather: Weather, day: number | undefined, look: keyof typeof LOOKS) {
  const { seen, sun } = look === 'free' ? { seen: 0, sun: 0 } : { seen: skyFacts(weather.sky).seen, sun: 1 }
  const seenSo = { sky: LOOKS[look].sky * seen, sun: LOOKS[look].sun * sun }
  const faces = hoursOf(air, weather, day).map(h => balance(length, windSpeed(weather.wind), h, seenSo))
  const mean = (of: (f: WetFace) => number) => faces.reduce((s, f) => s + of(f), 0) / faces.length
  return {
    celsius: mean(f => f.celsius),
    flux: mean(f => f.flux),
    lack: mean(f => f.lack),
    /** What it gathers of dew, kg/(m2 s); counted in the flux. */
    dew: mean(f => Math.min(0, f.flux)),
  }
}

const kept = new Map<string, WetFace>(), MOST_KEPT = 500
/**
 * Mean of the wet faces that are free where it stands: of one air indoors, over a whole day outdoors.
 * @param area m2, of all its faces
 */
export function wetFace(area: number, standing: Standing): WetFace {
  const key = JSON.stringify([area, standing.place, standing.air, standing.weather, standing.day])
  const known = kept.get(key)
  if (known) return known
  const made = workOut(Math.min(0.5, Math.sqrt(area)), standing)
  kept.set(key, made)
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  return made
}

function workOut(length: Metres, { place: where, air, weather = USUAL_WEATHER, day }: Standing): WetFace {
  const facts = place(where), { celsius, humidity } = air, all = freeFaces(facts)
  if (!facts.outdoors) {
    const still: Hour = { celsius, vapour: humidity * saturationPressure(celsius), sun: 0, sky: 0 }
    return balance(length, facts.speed, still, LOOKS.free)
  }
  const parts = (['up', 'upright', 'free'] as const).filter(look => facts[look] > 0)
    .map(look => ({ share: facts[look] / all, face: dayFace(length, air, weather, day, look) }))
  const mean = (of: (f: WetFace) => number) => parts.reduce((s, p) => s + p.share * of(p.face), 0)
  return { celsius: mean(f => f.celsius), flux: mean(f => f.flux), lack: mean(f => f.lack) }
}
