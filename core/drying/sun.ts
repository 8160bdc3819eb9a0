import type { Celsius } from '../units/quantity'
import { saturationPressure } from '../numeric/vapour'
import { skyFacts, USUAL_LATITUDE, type SkyId, type Weather } from './places'

/** Sun and sky over a day: formulas of docs/model.md, “Drying outdoors”. Hours are solar: the sun is highest at 12. */

/** Spring and autumn, where the day was not told. */
const USUAL_DAY = 80
const KELVIN = 273.15, RADIANS = Math.PI / 180

/** Cosine of the sun's angle from the zenith; below nothing at night. Declination by Cooper 1969, from memory. */
export function sunHeight(latitude: number, day: number, hour: number): number {
  const declination = 23.45 * RADIANS * Math.sin(2 * Math.PI * (284 + day) / 365), north = latitude * RADIANS
  return Math.sin(north) * Math.sin(declination)
    + Math.cos(north) * Math.cos(declination) * Math.cos(15 * RADIANS * (hour - 12))
}

/** Share of the sun that a sky so clouded (0 to 1) lets through: Kasten and Czeplak 1980, from memory. */
const throughCloud = (cloud: number) => 1 - 0.75 * cloud ** 3.4

/** Sun on level ground, W/m2: clear sky by Haurwitz 1945, from memory. @param height cosine of the zenith angle */
export function sunOnGround(height: number, sky: SkyId): number {
  const { cloud, sun } = skyFacts(sky)
  return height <= 0 ? 0 : 1098 * height * Math.exp(-0.057 / height) * throughCloud(cloud) * sun
}

/** Sun on level ground while people work, W/m2: a noon in spring in the middle of Europe stands for it. */
export const sunAtWork = (sky: SkyId): number => sunOnGround(sunHeight(USUAL_LATITUDE, USUAL_DAY, 12), sky)

/** Fourth power of the sky's temperature, K4: Swinbank 1963, from memory; cloud is as warm as the air. */
export function skyPower(air: Celsius, sky: SkyId): number {
  const t = air + KELVIN, clear = (0.0552 * t ** 1.5) ** 4, covered = 0.84 * skyFacts(sky).cloud
  return (1 - covered) * clear + covered * t ** 4
}

/** Air and sun of one moment of a day outdoors. */
export interface Hour {
  readonly celsius: Celsius
  /** Pa. */
  readonly vapour: number
  /** On level ground, W/m2. */
  readonly sun: number
  /** K4. */
  readonly sky: number
}

/**
 * A day in half hours: warmest at three, the vapour in the air that of the mean, less what falls as dew.
 * @param air mean temperature, and humidity at it, 0 to 1
 */
export function hoursOf(
  { celsius, humidity }: { readonly celsius: Celsius, readonly humidity: number },
  { swing, sky, latitude = USUAL_LATITUDE }: Weather,
  day = USUAL_DAY,
): readonly Hour[] {
  const vapour = humidity * saturationPressure(celsius)
  return Array.from({ length: 48 }, (_, i) => {
    const hour = i / 2 + 0.25, t = celsius + swing * Math.cos(2 * Math.PI * (hour - 15) / 24)
    return {
      celsius: t,
      vapour: Math.min(vapour, saturationPressure(t)),
      sun: sunOnGround(sunHeight(latitude, day, hour), sky),
      sky: skyPower(t, sky),
    }
  })
}
