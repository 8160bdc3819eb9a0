import { describe, expect, it } from 'vitest'
import { powderClass } from '../../core/gypsum/powders'
import { settingMoments } from '../../core/setting/hydration'
import { settingMix, type SettingInput } from '../../core/setting/setting-mix'
import { HEAT_SLOPE, temperatureFactor } from '../../core/setting/kinetics'
import { CONDUCTIVITY } from '../../core/setting/body'
import { coolThrough } from '../course'

/**
 * Corners: a block cools through all its sides. The oracle is a plain finite-difference cube, an eighth of it by
 * symmetry, explicit in time, with the kinetics of the product and nothing else of it. Figures of slab and cube of
 * plaster of Paris at .70, 21 degC, worked out once by another program: 51.2 and 47.1 degC at 25 mm, 53.6 and 52.0 at
 * 50, 54.9 and 54.7 at 100.
 */
const block = (section: number, across?: readonly [number, number]): SettingInput => ({
  powder: powderClass('plaster-of-paris'), ratio: 0.7, waterTemperature: 21, roomTemperature: 21, additions: [],
  stir: { tool: 'hand', minutes: 100 / 60 }, section, across, mould: 'metal', wall: 1e-4, shape: 'closed-slab',
})
const FILM = 8, CELLS = 7

interface Cooled { readonly peak: number, readonly at: number, readonly cool: number, readonly corner: number }
/** @param side m @returns the middle's peak and when, when it is within 2 K of the air, s, and the corner's peak */
function coolCube(side: number): Cooled {
  const input = block(side), mix = settingMix(input), n = CELLS, dx = side / 2 / n
  const { k, alphaMax, purity, heat, capacity, powderPerVolume } = mix
  let T = new Float64Array(n ** 3).fill(mix.start), next = new Float64Array(n ** 3)
  const alpha = new Float64Array(n ** 3), air = input.roomTemperature
  const at = (x: number, y: number, z: number) => x + n * (y + n * z)
  const dt = Math.min(5, 0.8 * capacity * powderPerVolume * dx * dx / (6 * CONDUCTIVITY))
  const outward = dx * dx / (dx / 2 + CONDUCTIVITY / FILM) // of a face to the air, against one between cells
  let peak = 0, when = 0, corner = 0
  for (let t = 0; t < 80_000; t += dt) {
    const seeds = mix.seedsAt(t)
    for (let z = 0; z < n; z++) for (let y = 0; y < n; y++) for (let x = 0; x < n; x++) {
      const i = at(x, y, z), here = T[i]!, a = alpha[i]!
      const rate = a >= alphaMax ? 0 : k * temperatureFactor(here) * (seeds + a) * (1 - a / alphaMax)
      const from = (inside: boolean, j: number) => inside ? T[j]! - here : (air - here) * outward / dx
      const flow = from(x < n - 1, i + 1) + from(y < n - 1, i + n) + from(z < n - 1, i + n * n)
        + (x > 0 ? T[i - 1]! - here : 0) + (y > 0 ? T[i - n]! - here : 0) + (z > 0 ? T[i - n * n]! - here : 0)
      const left = capacity - purity * HEAT_SLOPE * a
      next[i] = here + dt * (
        CONDUCTIVITY * flow / (dx * dx * powderPerVolume * left)
        + purity * (heat + HEAT_SLOPE * (here - 25)) * rate / left
      )
      alpha[i] = Math.min(alphaMax, a + dt * rate)
    }
    [T, next] = [next, T]
    const middle = T[0]!
    corner = Math.max(corner, T[n ** 3 - 1]!)
    if (middle > peak) [peak, when] = [middle, t]
    else if (middle <= air + 2) return { peak, at: when, cool: t, corner }
  }
  return { peak, at: when, cool: Infinity, corner }
}

describe('a cube against a plain finite-difference one', () => {
  it.each([[0.025, 47.1], [0.05, 52.0], [0.1, 54.7]])('%f m: its peak within 1.2 K, when within 1.5 min, cool within 15 %%', (side, other) => {
    const oracle = coolCube(side), m = settingMoments(block(side, [side, side]))
    expect(Math.abs(oracle.peak - other), `oracle ${oracle.peak}`).toBeLessThan(0.6)
    expect(Math.abs(m.warmestTemperature - oracle.peak), `${m.warmestTemperature} against ${oracle.peak}`).toBeLessThan(1.2)
    expect(Math.abs(m.warmest - oracle.at), `${m.warmest} against ${oracle.at}`).toBeLessThan(90)
    const cool = coolThrough(block(side, [side, side]))
    expect(Math.abs(cool / oracle.cool - 1), `${cool} against ${oracle.cool}`).toBeLessThan(0.15)
    expect(oracle.corner).toBeLessThan(oracle.peak)
  }, 120_000)
})

describe('a slab that ends', () => {
  it('is never warmer than one without end, and the wider the nearer to it', () => {
    const of = (width?: number) => settingMoments(block(0.03, width === undefined ? undefined : [width, width]))
    const widths = [0.03, 0.05, 0.1, 0.3, 1].map(of), endless = of()
    widths.slice(1).forEach((m, i) => {
      expect(m.warmestTemperature).toBeGreaterThan(widths[i]!.warmestTemperature)
      expect(m.coolAgain).toBeGreaterThan(widths[i]!.coolAgain)
    })
    expect(endless.warmestTemperature - widths.at(-1)!.warmestTemperature).toBeLessThan(0.4)
  })
  it('loses its gloss at the same minute, for that is before it is warm', () => {
    const [cube, slab] = [settingMoments(block(0.05, [0.05, 0.05])), settingMoments(block(0.05))]
    expect(Math.abs(cube.glossGone / slab.glossGone - 1)).toBeLessThan(0.02)
  })
})
