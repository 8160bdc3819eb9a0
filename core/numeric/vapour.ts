/**
 * Saturation pressure of water vapour over water, Pa: the one vapour law, for a setting face and for a drying one. Buck
 * 1981 with the constants of 1996 (from memory; checked against an independent library in
 * tests/published/drying.test.ts, 0.1 to 50 degC).
 * @param t temperature of the water, degC
 * @example saturationPressure(20) // 2338
 */
export function saturationPressure(t: number): number {
  return 611.21 * Math.exp((18.678 - t / 234.5) * t / (257.14 + t))
}
