import { createRequire } from 'node:module'
import { openFaceFlux, shellsOf, CONDUCTIVITY } from '../../core/setting/body'
import { bodyOf, settingMix, type SettingInput } from '../../core/setting/setting-mix'
import { HEAT_SLOPE, temperatureFactor } from '../../core/setting/kinetics'
import { pourLimit, shareAtYield } from '../../core/setting/flow'

/** What is used of the general-purpose integrator `odex`, whose own sources do not pass a strict check. */
interface Integrator {
  absoluteTolerance: number
  relativeTolerance: number
  maxSteps: number
  maxStepSize: number
  solve(
    rates: (t: number, y: number[]) => number[],
    from: number,
    start: number[],
    to: number,
    seen: (step: number, before: number, t: number, y: number[]) => boolean,
  ): unknown
}
const { Solver } = createRequire(import.meta.url)('odex') as { Solver: new (dimension: number) => Integrator }

/**
 * The same equations as core/setting/hydration, written as one system of rates and handed to a general-purpose
 * integrator (Gragg-Bulirsch-Stoer with step control).
 */
export interface Traced {
  readonly pourBy: number
  readonly glossGone: number
  readonly steps: number
  readonly evaluations: number
}

/** Temperature of the wet face: where what comes up through half a shell equals what leaves it. */
function faceLoss(body: ReturnType<typeof bodyOf>, inside: number, toFace: number): number {
  let face = inside
  for (let i = 0; i < 4; i++) {
    const { flux, slope } = openFaceFlux(body, face)
    face -= (toFace * (face - inside) + flux) / (toFace + slope)
  }
  return toFace * (inside - face)
}

/** @param until seconds; @returns when the mean passes the pouring limit and the face passes the loss of gloss. */
export function methodOfLines(input: SettingInput, cells: number, until: number, tolerance: number): Traced {
  const mix = settingMix(input), body = bodyOf(input), shells = shellsOf(body, cells, CONDUCTIVITY)
  const { k, alphaMax, purity, heat, capacity, powderPerVolume } = mix
  const total = shells.volume.reduce((a, b) => a + b, 0)
  let evaluations = 0
  const rates = (t: number, y: number[]): number[] => {
    evaluations++
    const seeds = mix.seedsAt(t)
    const out = new Array<number>(2 * cells + 1)
    let into = shells.toFace > 0 ? -faceLoss(body, y[0]!, shells.toFace) : 0
    for (let i = 0; i < cells; i++) {
      const T = y[i]!, a = y[cells + 1 + i]!
      const rate = a >= alphaMax ? 0 : k * temperatureFactor(T) * (seeds + a) * (1 - a / alphaMax)
      const on = (i < cells - 1 ? shells.link[i]! : shells.toWall) * (T - y[i + 1]!)
      const mass = powderPerVolume * shells.volume[i]!
      out[i] = ((into - on) / mass + purity * (heat + HEAT_SLOPE * (T - 25)) * rate)
        / (capacity - purity * HEAT_SLOPE * a)
      out[cells + 1 + i] = rate
      into = on
    }
    out[cells] = (into - shells.wallOut * (y[cells]! - shells.behind)) / shells.wallCapacity
    return out
  }
  const levels = { pourBy: mix.alphaSet * shareAtYield(mix.fresh, pourLimit(mix.fresh)), glossGone: mix.alphaSet }
  const reached = { pourBy: Infinity, glossGone: Infinity }
  let before = { t: 0, mean: 0, face: 0 }, steps = 0
  const solver = new Solver(2 * cells + 1)
  solver.absoluteTolerance = tolerance
  solver.relativeTolerance = tolerance
  solver.maxSteps = 1e6
  solver.maxStepSize = 2
  const start = [...new Array<number>(cells).fill(mix.start), shells.behind, ...new Array<number>(cells).fill(0)]
  solver.solve(rates, 0, start, until, (_, __, t, y) => {
    steps++
    const alpha = y.slice(cells + 1)
    const now = {
      t,
      mean: alpha.reduce((sum, a, i) => sum + a * shells.volume[i]!, 0) / total,
      face: shells.toFace > 0 ? 1.5 * alpha[0]! - 0.5 * alpha[1]! : 1.5 * alpha[cells - 1]! - 0.5 * alpha[cells - 2]!,
    }
    for (const [key, at] of [['pourBy', 'mean'], ['glossGone', 'face']] as const) {
      if (reached[key] === Infinity && now[at] >= levels[key])
        reached[key] = before.t + (t - before.t) * (levels[key] - before[at]) / (now[at] - before[at])
    }
    before = now
    return reached.glossGone === Infinity
  })
  return { ...reached, steps, evaluations }
}
