import { coarseFor, runSetting } from '../core/setting/hydration'
import type { Scatter, SettingInput } from '../core/setting/setting-mix'

import { taughtRate } from '../core/forecast/bag'
import { learn, priorOf, type Observation, type TellingSign } from '../core/forecast/learning'
import type { Taught } from '../core/plan/types'
import type { MomentsInput } from '../core/setting/moments'
import { powderClass } from '../core/gypsum/powders'
import { MOULD_MATERIALS } from '../core/setting/body'

/** Made-up pours whose truth lies beyond what the forecast assumes, to see how far its ranges can be believed. */

/** Numbers from a fixed sequence (Park and Miller 1988), normal by Box and Muller. */
export function dice(seed: number) {
  let state = seed
  const next = () => (state = state * 48_271 % 2_147_483_647) / 2_147_483_647
  for (let i = 0; i < 5; i++) next()
  return { next, normal: () => Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next()) }
}

export interface World {
  readonly name: string
  /** Logarithm of the true rate against the class: mean and deviation. */
  readonly rate: { readonly mean: number, readonly sd: number }
  readonly tail: (u: number) => number
  /** Relative error of the ratio, degrees of water and room, and how marks scatter. */
  readonly ratioSd: number
  readonly warmthSd: number
  readonly marks: number
  /** Marks all early or all late by this in the logarithm of time, pour by pour. */
  readonly habit?: number
  /** The room is this many degrees warmer or colder than it was read, pour by pour. */
  readonly room?: number
  /** Stirred so many times as long as was told. */
  readonly over?: number
}
const mixed = (u: number) => u < 0.25 ? 0.6 : u < 0.75 ? 1 : 1.6
const RIGHT = { rate: { mean: 0, sd: 0.3 }, tail: mixed, ratioSd: 0.03, warmthSd: 1, marks: 1 }
export const WORLDS: readonly World[] = [
  { name: 'as assumed, ratio off by 3 %, a degree', ...RIGHT },
  { name: 'a tail of 1.5', ...RIGHT, tail: () => 1.5 },
  { name: 'a sharp tail of 0.65', ...RIGHT, tail: () => 0.65 },
  { name: 'a bag 1.5 times faster than its class', ...RIGHT, rate: { mean: Math.log(1.5), sd: 0.05 } },
  { name: 'a bag half as fast again slower', ...RIGHT, rate: { mean: -Math.log(1.5), sd: 0.05 } },
  { name: 'ratio off by 7 %, three degrees', ...RIGHT, ratioSd: 0.07, warmthSd: 3 },
  { name: 'marks half as careless again', ...RIGHT, marks: 1.5 },
  { name: 'marks all 7 % early, or all late', ...RIGHT, habit: 0.07 },
  { name: 'a room that is 4 degrees off what was read', ...RIGHT, room: 4 },
  { name: 'stirred three times as long as was told', ...RIGHT, over: 3 },
]

/** How far a hand or an eye is off, in the logarithm of time. */
const SCATTER: Partial<Record<TellingSign, number>> = { 'webbing': 0.10, 'gloss-gone': 0.07, 'warmest': 0.05 }
export const STAGES = [[], ['webbing'], ['webbing', 'gloss-gone'], [
  'webbing',
  'gloss-gone',
  'warmest',
]] as const satisfies readonly (readonly TellingSign[])[]

export interface Score {
  readonly held: number
  readonly error: number
  readonly width: number
  readonly interval: number
}

export const CASES: readonly { readonly name: string, readonly input: MomentsInput }[] = [
  { name: 'plaster of Paris, 25 mm, flexible', input: inputOf('plaster-of-paris', 0.7, 'silicone', 0.025) },
  { name: 'casting plaster, 40 mm, rigid', input: inputOf('casting-plaster', 0.67, 'plastic', 0.04) },
]
function inputOf(classId: string, ratio: number, mould: 'silicone' | 'plastic', section: number): MomentsInput {
  return {
    powder: powderClass(classId as never),
    ratio: {
      value: ratio,
      low: ratio * Math.exp(-0.02 * 1.2816),
      high: ratio * Math.exp(0.02 * 1.2816),
      basis: { kind: 'model', note: '' },
    },
    waterTemperature: 20,
    roomTemperature: 20,
    stir: { tool: 'hand', minutes: 2 },
    stirFrom: 180,
    section,
    mould,
    wall: 0.006,
    additions: [],
    bagUncertain: false,
    openNotBefore: 0,
    fragile: false,
  }
}

type Dice = ReturnType<typeof dice>
interface Truth { readonly open: number, readonly marks: ReadonlyMap<TellingSign, number> }

/** One pour's truth: when each sign really came, and when it could be opened. */
export function truthOf(world: World, input: MomentsInput, d: Dice): Truth {
  const side = world.habit || world.room ? (d.next() < 0.5 ? -1 : 1) : 0
  const setting: SettingInput = {
    ...input,
    ratio: input.ratio.value * Math.exp(world.ratioSd * d.normal()),
    waterTemperature: input.waterTemperature + world.warmthSd * d.normal(),
    roomTemperature: input.roomTemperature + world.warmthSd * d.normal() + (world.room ?? 0) * side,
    stir: { ...input.stir, minutes: input.stir.minutes * (world.over ?? 1) },
  }
  return marked(setting, {
    rate: Math.exp(world.rate.mean + world.rate.sd * d.normal()),
    seeds: Math.exp(0.8 * d.normal()),
    tail: world.tail(d.next()),
    jamming: Math.exp(0.008 * d.normal()),
    conductivity: Math.exp(0.2 * d.normal()),
  }, d, world.marks, (world.habit ?? 0) * side)
}

/** Runs it, and marks its signs as a hand does. */
function marked(setting: SettingInput, scatter: Scatter, d: Dice, careless: number, late: number): Truth {
  const { moments: m } = runSetting(setting, scatter, coarseFor(setting.section))
  const at: Partial<Record<TellingSign, number>> = {
    'webbing': m.webbing,
    'gloss-gone': m.glossGone,
    'warmest': m.warmest,
  }
  const marks = new Map(
    Object.entries(at).map((
      [sign, t],
    ) => [sign as TellingSign, t * Math.exp(careless * SCATTER[sign as TellingSign]! * d.normal() + late)]),
  )
  return { open: MOULD_MATERIALS[setting.mould].flexible ? m.openFlexible : m.openRigid, marks }
}

/**
 * Pours of one bag: its speed, seeds, tail, jamming and conduction stay, and every pour is stirred a little otherwise,
 * weighed to 2 % and read to a degree.
 */
export function bagOf(input: MomentsInput, d: Dice): () => Truth {
  const rate = 0.3 * d.normal(), seeds = 0.76 * d.normal(), tail = mixed(d.next())
  const jamming = Math.exp(0.008 * d.normal()), conductivity = Math.exp(0.2 * d.normal())
  return () => marked(
    {
      ...input,
      ratio: input.ratio.value * Math.exp(0.02 * d.normal()),
      waterTemperature: input.waterTemperature + d.normal(),
      roomTemperature: input.roomTemperature + d.normal(),
    },
    {
      rate: Math.exp(rate + 0.05 * d.normal()),
      seeds: Math.exp(seeds + 0.25 * d.normal()),
      tail, jamming, conductivity,
    },
    d, 1, 0,
  )
}

/** What of a pour was seen. */
export const seenOf = (truth: Truth, signs: readonly TellingSign[]): Observation[] =>
  signs.map(sign => ({ what: 'mark', sign, at: truth.marks.get(sign)! }))

/** How a bag's opening is foretold after so many of its pours: shares of bags, and widths in minutes. */
export function bagScore(input: MomentsInput, bags: number, pours: number, seed: number) {
  const d = dice(seed), off: number[] = [], widths: number[] = []
  let held = 0
  for (let b = 0; b < bags; b++) {
    const pour = bagOf(input, d), taught: Taught[] = []
    const known = () => taught.length ? { ...input, bagRate: taughtRate(false, taught) } : input
    for (let p = 0; p < pours; p++) {
      const told = learn([priorOf(known())], seenOf(pour(), STAGES[3])).taught
      if (told) taught.unshift(told)
    }
    const { open } = pour(), { openEarliest: e } = learn([priorOf(known())], []).moments[0]!
    if (e.low <= open && open <= e.high) held++
    off.push(Math.abs(e.value / open - 1))
    widths.push((e.high - e.low) / 60)
  }
  const mean = (list: readonly number[]) => list.reduce((a, b) => a + b) / list.length
  return { within: off.filter(x => x <= 0.1).length / bags, held: held / bags, width: mean(widths) }
}

/** Scores of the opening time after each further mark. */
export function score(world: World, input: MomentsInput, pours: number, seed: number): Score[] {
  const prior = priorOf(input), d = dice(seed)
  const truths = Array.from({ length: pours }, () => truthOf(world, input, d))
  return STAGES.map((signs) => {
    const errors: number[] = [], widths: number[] = [], intervals: number[] = []
    let held = 0
    for (const t of truths) {
      const { openEarliest: e } = learn([prior], seenOf(t, signs)).moments[0]!
      if (e.low <= t.open && t.open <= e.high) held++
      errors.push(Math.abs(e.value - t.open) / 60)
      widths.push((e.high - e.low) / 60)
      // Interval score of an 80 % interval (Gneiting and Raftery 2007): width, and ten times what the truth lies
      // outside by.
      intervals.push((e.high - e.low + 10 * Math.max(0, e.low - t.open) + 10 * Math.max(0, t.open - e.high)) / 60)
    }
    const middle = (list: number[]) => list.sort((a, b) => a - b)[Math.floor(list.length / 2)]!
    const mean = (list: number[]) => list.reduce((a, b) => a + b) / list.length
    return { held: held / pours, error: middle(errors), width: mean(widths), interval: mean(intervals) }
  })
}
