import { bisect } from '../numeric/root'
import { saturationPressure } from '../numeric/vapour'
import type { Celsius } from '../units/quantity'

/** Moist air at sea level. Pressures in Pa, humidity as a share of 1, vapour density in kg/m3. */
export interface Air { readonly celsius: Celsius, readonly humidity: number }

const PRESSURE = 101_325
const KELVIN = 273.15

export function vapourDensity(t: Celsius, pressure: number): number {
  return pressure / (461.5 * (t + KELVIN))
}

/** Heat that evaporating water takes, J/kg. */
export function latentHeat(t: Celsius): number {
  return 2.501e6 - 2361 * t
}

/** Where air of this humidity begins to wet a cold wall. Inverted by bisection. */
export function dewPoint({ celsius, humidity }: Air): Celsius {
  const e = humidity * saturationPressure(celsius)
  return bisect(-60, celsius, t => saturationPressure(t) - e)
}

const ratio = (e: number) => 0.622 * e / (PRESSURE - e)

/**
 * Temperature of a wet thermometer in a strong draught (psychrometric equation of the ASHRAE Handbook of Fundamentals,
 * from memory), by bisection; above freezing.
 */
export function wetBulb({ celsius: t, humidity }: Air): Celsius {
  const w = ratio(humidity * saturationPressure(t))
  return bisect(-60, t, (wet) => {
    const saturated = ratio(saturationPressure(wet))
    return ((2501 - 2.326 * wet) * saturated - 1.006 * (t - wet)) / (2501 + 1.86 * t - 4.186 * wet) - w
  })
}
