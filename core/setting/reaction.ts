import type { SettingMix } from './setting-mix'
import { fastTemperatureFactor, HEAT_SLOPE, tailTable } from './kinetics'

/** What a step of the reaction works on. */
type Reacting = Pick<SettingMix, 'k' | 'alphaMax' | 'purity' | 'heat' | 'capacity' | 'tail'>

/**
 * The reaction of a mix, for as many places as there are: half a midpoint step each way, without heat flow. The one
 * equation of setting, dα = k f(T) (s + α) g(α/αmax): casts are stepped by it shell by shell, a bucket as one place.
 * @returns a step that moves `alpha` (0 to 1) and `temperature` (degC) of the first `n` places in place, by `h` seconds
 *   with so many seeds
 */
export function reactionOf({ k, alphaMax, purity, heat, capacity, tail: exponent }: Reacting) {
  const tail = tailTable(exponent), speedAt = fastTemperatureFactor // in the innermost loop
  const growth = purity * HEAT_SLOPE, full = alphaMax * (1 - 1e-9), perFull = 1 / alphaMax
  const heatAtZero = purity * (heat - 25 * HEAT_SLOPE)
  return (alpha: Float64Array, temperature: Float64Array, n: number, h: number, seeds: number): void => {
    const whole = h * k, half = whole / 2
    for (let i = 0; i < n; i++) {
      const a = alpha[i]!
      if (a >= full) continue
      const T = temperature[i]!
      const a1 = Math.min(full, a + half * speedAt(T) * (seeds + a) * tail(a * perFull))
      const T1 = T + (heatAtZero + growth * T) / (capacity - growth * a) * (a1 - a)
      const a2 = Math.min(alphaMax, a + whole * speedAt(T1) * (seeds + a1) * tail(a1 * perFull))
      temperature[i] = T + (heatAtZero + growth * T1) * (a2 - a) / (capacity - growth * a1)
      alpha[i] = a2
    }
  }
}
