import type { Mix } from '../../gypsum/mix'
import { Z80, type CubicMetres, type Estimate, type Kilograms, type Seconds } from '../../units/quantity'
import type { Plan, StepTimes } from '../types'

/** How long one person takes for each step, with its range. All of it engineering guesses; what people do is learnt. */

// Pace of one person, engineering guesses.
const SIFT_RATE = 0.6 / 60 // kg/s
const POUR_RATE = 2e-3 / 60 // m3/s
const PER_MOULD: Seconds = 15

const PACE: Estimate['basis'] = { kind: 'engineering guess', note: 'the pace of one person with this amount' }

function sum(a: Estimate<Seconds> | undefined, duration: Seconds, sd: number): Estimate<Seconds> {
  const before = a ? (a.high - a.low) / (2 * Z80) : 0
  const value = (a?.value ?? 0) + duration
  const spread = Z80 * Math.hypot(before, duration * sd)
  return { value, low: Math.max(0, value - spread), high: value + spread, basis: PACE }
}

/**
 * How long pouring takes one person: the volume at two litres a minute and a quarter minute a mould (engineering
 * guess).
 */
export function pouringTime(volume: CubicMetres, moulds: number): Seconds {
  return volume / POUR_RATE + moulds * PER_MOULD
}

/** When stirring begins at the centre of its range: sifting at the pace of one person, then the soak. */
export function stirStart(plan: Plan, powder: Kilograms): Seconds {
  return plan.school === 'bag' ? 0 : siftingTime(plan, powder) + plan.soakMinutes * 60
}

function siftingTime(plan: Plan, powder: Kilograms): Seconds {
  return plan.school === 'bag' ? 0 : plan.school === 'dumped' ? 10 : Math.max(45, powder / SIFT_RATE)
}

/** When each step of a batch ends, seconds after its powder met water. */
export function stepTimes(plan: Plan, mix: Pick<Mix, 'powder' | 'slurry'>, moulds: number): StepTimes {
  const sift = siftingTime(plan, mix.powder)
  const sifted = sum(undefined, sift, 0.3)
  const soaked = sum(sifted, plan.school === 'bag' ? 0 : plan.soakMinutes * 60, 0.2)
  const stirred = sum(soaked, plan.stir.minutes * 60, 0.2)
  const pouring = pouringTime(mix.slurry, moulds)
  return { sifted, soaked, stirred, poured: sum(stirred, pouring, 0.25), pouring }
}
