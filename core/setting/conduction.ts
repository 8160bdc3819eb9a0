import type { Celsius, Seconds } from '../units/quantity'
import { openFaceFlux, type Body, type Shells } from './body'
import { HEAT_SLOPE } from './kinetics'
import type { SettingMix } from './setting-mix'

/**
 * Heat that flows one way through a cast and its mould, in shells, and what is seen of it (docs/model.md). Inner loops
 * of every forecast: what moves stands in arrays and in one object's fields, where nothing is allocated for it.
 */

/**
 * One sample of a run: seconds, degrees of hydration (mean, at the face, slowest place) and temperatures (hottest
 * place, face, mean).
 */
export interface Sample {
  readonly t: Seconds
  readonly mean: number
  readonly face: number
  readonly slowest: number
  readonly hottest: Celsius
  readonly faceTemperature: Celsius
  readonly meanTemperature: Celsius
  /** Where a hand touches it: the open face, or the outside of the mould where there is none. */
  readonly outside: Celsius
}

/**
 * Where the heat went, J per square metre of mould face (per radian and metre, per steradian for round bodies):
 * released = stored + lost.
 */
export interface HeatLedger { readonly released: number, readonly stored: number, readonly lost: number }

/** A cast that is worked out, shell by shell from its open face or its middle; the last temperature is the wall's. */
export interface Cast {
  readonly mix: SettingMix
  readonly body: Body
  readonly shells: Shells
  readonly alpha: Float64Array
  readonly temperature: Float64Array
}
/** What has flowed out so far, as the ledger has it: by face and wall, and by the sides; and how warm the face is. */
interface Flow { lost: number, aside: number, surface: Celsius }

/** Solves with what is right of a matrix of three diagonals in its place: Thomas algorithm. */
function solveThree(lower: Float64Array, diagonal: Float64Array, upper: Float64Array, right: Float64Array): void {
  const last = right.length - 1
  for (let i = 1; i <= last; i++) {
    const m = lower[i]! / diagonal[i - 1]!
    diagonal[i]! -= m * upper[i - 1]!
    right[i]! -= m * right[i - 1]!
  }
  right[last]! /= diagonal[last]!
  for (let i = last - 1; i >= 0; i--) right[i] = (right[i]! - upper[i]! * right[i + 1]!) / diagonal[i]!
}

/** What does not change from step to step: half of what each shell passes on, and what goes out of its sides, W/K. */
function passing({ cells: n, volume, link, aside, toWall, wallOut }: Shells) {
  const lower = new Float64Array(n + 1), own = new Float64Array(n + 1), upper = new Float64Array(n + 1)
  const side = volume.map(v => aside * v)
  for (let i = 0; i < n; i++) {
    const before = i > 0 ? link[i - 1]! : 0, after = i < n - 1 ? link[i]! : toWall
    lower[i] = -before / 2
    upper[i] = -after / 2
    own[i] = (before + after + side[i]!) / 2
  }
  lower[n] = -toWall / 2
  own[n] = (toWall + wallOut) / 2
  return { lower, own, upper, side }
}

/**
 * A step of conduction by `dt` seconds, the temperatures in place: Crank and Nicolson 1947, in increments.
 * @returns the step, and what has flowed by it
 */
export function conductionOf({ mix, body, shells, alpha, temperature }: Cast) {
  const { cells: n, toFace, toWall, wallOut, wallCapacity, behind } = shells, { air } = body
  const { capacity, purity, powderPerVolume } = mix, growth = purity * HEAT_SLOPE
  const { lower, own, upper, side } = passing(shells), mass = shells.volume.map(v => powderPerVolume * v)
  const diagonal = new Float64Array(n + 1), right = new Float64Array(n + 1)
  const flow: Flow = { lost: 0, aside: 0, surface: mix.start }
  const conduct = (dt: Seconds): void => {
    let into = 0 // flux into shell i from the one before
    for (let i = 0; i < n; i++) {
      const out = -2 * upper[i]! * (temperature[i]! - temperature[i + 1]!)
      diagonal[i] = (capacity - growth * alpha[i]!) * mass[i]! / dt + own[i]!
      right[i] = into - out - side[i]! * (temperature[i]! - air)
      into = out
    }
    diagonal[n] = wallCapacity / dt + own[n]!
    right[n] = toWall * (temperature[n - 1]! - temperature[n]!) - wallOut * (temperature[n]! - behind)
    let faceGain = 0, faceLoss = 0
    if (toFace > 0) {
      const { flux, slope } = openFaceFlux(body, flow.surface)
      faceGain = toFace * slope / (toFace + slope)
      faceLoss = faceGain * temperature[0]! + toFace * (flux - slope * flow.surface) / (toFace + slope)
      flow.surface = temperature[0]! - faceLoss / toFace
      diagonal[0]! += faceGain / 2
      right[0]! -= faceLoss
    }
    solveThree(lower, diagonal, upper, right)
    let outOfSides = 0
    for (let i = 0; i < n; i++) {
      outOfSides += side[i]! * (temperature[i]! + right[i]! / 2 - air)
      temperature[i]! += right[i]!
    }
    flow.aside += dt * outOfSides
    flow.lost += dt * (wallOut * (temperature[n]! + right[n]! / 2 - behind) + faceLoss + faceGain * right[0]! / 2)
    temperature[n]! += right[n]!
  }
  return { conduct, flow }
}

/** Value at a face, half a shell out from the outermost one. */
const atFace = (values: Float64Array, outer: number, next: number) => 1.5 * values[outer]! - 0.5 * values[next]!

/** The hottest place lies between shells: a parabola through the three around it. */
function hottestOf(temperature: Float64Array, top: number, last: number): Celsius {
  const hottest = temperature[top]!
  if (top === 0 || top === last) return hottest
  const y0 = temperature[top - 1]!, y2 = temperature[top + 1]!, bend = y0 - 2 * hottest + y2
  return bend < 0 ? hottest - (y0 - y2) ** 2 / (8 * bend) : hottest
}

/** What is seen of a cast at a moment, seconds after wetting. */
export function samplingOf({ mix, body, shells, alpha, temperature }: Cast, flow: Flow): (t: Seconds) => Sample {
  const { cells: n, volume, toFace } = shells, { alphaMax } = mix, last = n - 1
  const total = volume.reduce((a, b) => a + b, 0), heatOfAll = mix.capacity * mix.powderPerVolume * total
  return (t) => {
    let mean = 0, slowest = Infinity, top = 0, meanTemperature = 0
    for (let i = 0; i < n; i++) {
      const a = alpha[i]!, v = volume[i]!
      mean += a * v
      meanTemperature += temperature[i]! * v
      if (a < slowest) slowest = a
      if (temperature[i]! > temperature[top]!) top = i
    }
    const outer = Math.min(alphaMax, atFace(alpha, last, last - 1))
    const inner = toFace > 0 ? Math.min(alphaMax, atFace(alpha, 0, 1)) : outer
    const hottest = hottestOf(temperature, top, last)
    return {
      t,
      mean: mean / total,
      face: Math.max(0, inner),
      slowest: Math.max(0, Math.min(slowest, inner, outer)),
      // How much warmer the middle is than the mean over the width: never more than the sides have taken by then.
      hottest: hottest + Math.max(0, Math.min(shells.middle * (hottest - body.air), flow.aside / heatOfAll)),
      faceTemperature: toFace > 0 ? flow.surface : atFace(temperature, last, last - 1),
      meanTemperature: meanTemperature / total,
      outside: toFace > 0 ? flow.surface : shells.behind + shells.touched * (temperature[n]! - shells.behind),
    }
  }
}

/** Where the heat went by the end of a run. */
export function ledgerOf({ mix, shells, alpha, temperature }: Cast, { lost, aside }: Flow): HeatLedger {
  const { purity, heat, capacity, powderPerVolume, start } = mix, growth = purity * HEAT_SLOPE
  let released = 0, stored = shells.wallCapacity * (temperature[shells.cells]! - shells.behind)
  for (let i = 0; i < shells.cells; i++) {
    const mass = powderPerVolume * shells.volume[i]!
    released += mass * purity * heat * alpha[i]!
    stored += mass * ((capacity - growth * alpha[i]!) * (temperature[i]! - 25) - capacity * (start - 25))
  }
  return { released, stored, lost: lost + aside }
}
