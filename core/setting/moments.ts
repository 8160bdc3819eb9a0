import type { Basis, Celsius, Estimate, Seconds, WaterRatio } from '../units/quantity'
import { Z80 } from '../units/quantity'
import { latinCube, normalQuantile, sortedQuantile } from '../numeric/sampling'
import { speedDoubt } from '../gypsum/additions'
import { pasteOf } from '../gypsum/paste'
import { MOULD_MATERIALS } from './body'
import { characterOf, drawCharacter, TAIL_MEDIAN, type KnownBag } from './bag-character'
import { BOND, expansionSpan } from './hardening'
import { coarseFor, curveOf, FINE, NEEDLE, runSetting, type SettingCurve, type SettingMoments } from './hydration'
import type { Sample } from './conduction'
import type { Scatter, SettingInput } from './setting-mix'
import type { TailExponent } from './kinetics'
import { outcomeOf, type Outcome } from './outcome'
import type { Driving } from './flow'

/** Version of the setting model; frozen into every run so that an old forecast can be explained later. */
export const MODEL_VERSION = 'layers-4'

/** `bagUncertain`: older than a year, damp, or from an unknown source, so that its speed is less certain. */
export interface MomentsInput extends Omit<SettingInput, 'ratio'>, KnownBag {
  readonly ratio: Estimate<WaterRatio>
  /** Never advise opening before this, seconds after wetting (end use). */
  readonly openNotBefore: Seconds
  /** Thin or fragile: wait until it is past its warmest. */
  readonly fragile: boolean
  readonly driving?: Driving
}

export interface Moments {
  readonly pourBy: Estimate<Seconds>
  readonly webbing: Estimate<Seconds>
  readonly glossGone: Estimate<Seconds>
  /** Needle times; runs frozen by an earlier model have no initial one, and an earlier final one. */
  readonly initialSet?: Estimate<Seconds>
  readonly finalSet: Estimate<Seconds>
  readonly warmest: Estimate<Seconds>
  readonly warmestTemperature: Estimate<Celsius>
  readonly coolAgain: Estimate<Seconds>
  /** Earliest physical time at which this mould may be opened. */
  readonly openEarliest: Estimate<Seconds>
  /** Until when tapping helps; runs frozen by an earlier model do not have it. */
  readonly tapUntil?: Estimate<Seconds>
  /** What to tell a person: from the cautious end of the earliest time, to when it is cool again. */
  readonly open: { readonly from: Seconds, readonly to: Seconds, readonly basis: Basis }
}

/** What a mix becomes, each with its range. */
type OutcomeEstimates = { readonly [K in keyof Outcome]: Estimate }

export interface Forecast { readonly moments: Moments, readonly outcome: OutcomeEstimates }

const SAMPLES = 200
// Standard deviations of what is not known (engineering guesses; the last three are the misfits of their laws, see
// docs/model.md).
export const TEMPERATURE_SD = 1, JAMMING_SD = 0.008, CONDUCTIVITY_SD = 0.20, COOLING_SD = 0.21
const FLOW_SD = 0.35, STRENGTH_SD = 0.11
/** Of the exponent of what grains leave of the strength: ends 0.8 and 2.0 at 10 and 90 %. */
const BOND_SD = Math.log(2.0 / 0.8) / (2 * Z80)
/** A needle's final strength against its centre, each side by its own end (10 and 90 %). */
function needleOf(z: number): number {
  const { final, finalLow, finalHigh } = NEEDLE
  return Math.exp(z / Z80 * (z < 0 ? Math.log(final / finalLow) : Math.log(finalHigh / final)))
}
type Fourteen = [
  number, number, number, number, number, number, number, number, number, number, number, number, number, number,
]
/** The late tail of the curve: a quarter, a half, a quarter. */
const tailAt = (u: number): TailExponent => u < 0.25 ? 0.6 : u < 0.75 ? 1 : 1.6

/** The multipliers that are likeliest for this bag. */
export function centreOf(input: KnownBag): Scatter {
  const [rate, seeds, tail] = characterOf(input).mean
  return { rate: Math.exp(rate), seeds: Math.exp(seeds), tail: Math.exp(tail) }
}
/** Safety on the 90 % quantile: the model's late tail is known to be too short against practice (engineering guess). */
const OPENING_MARGIN = 1.15

/** The integration ends here; a moment that is not reached by then is given as this, twelve hours after wetting. */
export const NOT_WITHIN: Seconds = 12 * 3600

const NOTE = '200 runs of the hydration and heat model over what is not known; fitted to set times of this class, '
const BAG_NOTES = { unknown: 'not yet to your bag', known: 'and to what your bag has told' } as const

type MomentKey
  = | 'pourBy' | 'webbing' | 'glossGone' | 'initialSet' | 'finalSet' | 'warmest' | 'warmestTemperature' | 'coolAgain'

function opening(m: SettingMoments, input: MomentsInput): Seconds {
  const byMould = MOULD_MATERIALS[input.mould].flexible ? m.openFlexible : m.openRigid
  return input.fragile ? Math.max(byMould, m.openThin) : byMould
}

export interface CentreMoments extends SettingMoments {
  readonly open: Seconds
  readonly tapUntil: Seconds /** Seconds that the hottest place is above 43 degC. */
  readonly above43: Seconds
}

/** Until when tapping helps, seconds after wetting. */
export function tappingEnds(setting: SettingInput, input: MomentsInput, run: ReturnType<typeof runSetting>): Seconds {
  return outcomeOf(setting, run, input.driving ?? 'tapped').tapUntil
}

/**
 * When to advise opening: the cautious end of the earliest time and a margin, not before what the end use wants, until
 * it is cool again.
 */
export function advisedOpening(
  openEarliest: Estimate<Seconds>,
  coolAgain: Estimate<Seconds>,
  notBefore: Seconds,
): Moments['open'] {
  const earliest = openEarliest.high * OPENING_MARGIN, from = Math.max(earliest, notBefore)
  return {
    from, to: Math.max(coolAgain.value, from + 1200),
    basis: notBefore >= earliest
      ? { kind: 'common practice', note: 'custom for this end use; the model would allow it sooner' }
      : { kind: 'model', note: 'strong enough for this mould in nine casts of ten, and 15 % longer' },
  }
}

/** One sample's numbers under one roof. */
type Drawn = CentreMoments & Outcome

function draw(
  input: MomentsInput,
  setting: SettingInput,
  run: ReturnType<typeof runSetting>,
  scatter?: Parameters<typeof outcomeOf>[3],
): Drawn {
  return {
    ...run.moments,
    open: opening(run.moments, input),
    ...outcomeOf(setting, run, input.driving ?? 'tapped', scatter),
  }
}

/**
 * Moments and outcome without ranges: fast enough for every keystroke. @throws RangeError with a sentence when the mix
 * cannot be worked out.
 */
export function centreMoments(input: MomentsInput): Drawn {
  const setting = { ...input, ratio: input.ratio.value }
  return draw(input, setting, runSetting(setting, centreOf(input), FINE))
}

/** A drawn course reaches so far at least and at most, s after wetting, and else beyond its opening by so much. */
const COURSE = { least: 5400, most: 6 * 3600, beyond: 1.4, points: 140 } as const
/**
 * The same, with the course that led there, of one run: a bag's own speed moves both. @throws RangeError as
 * `centreMoments`.
 */
export function centreCourse(input: MomentsInput): { readonly centre: Drawn, readonly curve: SettingCurve } {
  const setting = { ...input, ratio: input.ratio.value }, samples: Sample[] = []
  const run = runSetting(setting, centreOf(input), FINE, COURSE.least, s => samples.push(s))
  const centre = draw(input, setting, run)
  const until = Math.max(COURSE.least, Math.min(COURSE.most, COURSE.beyond * centre.open))
  return { centre, curve: curveOf(run.mix, samples, until, COURSE.points) }
}

/**
 * Moments and outcome with their 10 % and 90 % quantiles over what is not known: the bag's speed, how well stirring
 * seeds it, the late tail, the true ratio within its own range, the temperature within a degree, jamming, conduction,
 * the effect of additives, what grains hold, what a needle marks, and the misfit of the laws for flow, strength and
 * expansion. 200 points of a Latin hypercube, with coarser shells.
 * @throws RangeError with a sentence when the mix cannot be worked out.
 */
export function forecast(input: MomentsInput, samples = SAMPLES): Forecast {
  const work = forecasting(input, samples)
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
  }
}

/**
 * The same in steps of one sample, for whoever has other things to do in between.
 * One function: every sample fills one row of the columns that the ranges are then read from.
 */
export function* forecasting(input: MomentsInput, samples = SAMPLES): Generator<undefined, Forecast> {
  const centre = centreMoments(input)
  const bag = characterOf(input), known = input.bagRate?.character !== undefined
  const ratioSd = Math.log(input.ratio.high / input.ratio.low) / (2 * Z80)
  const growth = expansionSpan(pasteOf(input.powder, input.ratio.value, input.additions))
  const expansionSd = Math.log(growth.high / growth.low) / (2 * Z80)
  const doubtful = speedDoubt(input.additions ?? []) > 0
  const resolution = coarseFor(input.section)
  const cube = latinCube(samples, 14)
  const drawn: Record<string, number[]> = {}
  const keys = Object.keys(centre) as (keyof Drawn)[]
  for (const key of keys) drawn[key] = []
  for (let i = 0; i < samples; i++) {
    yield
    const point = cube.map(values => values[i]!)
    const [rate, seeds, ratio, warmth, jamming, conductivity, effect, cooling, flow, strength, grown, , held, marked]
      = point.map(normalQuantile) as Fourteen
    const [ownRate, ownSeeds, ownTail] = drawCharacter(bag, [rate, seeds, normalQuantile(point[11]!)])
    const bond = BOND * Math.exp(BOND_SD * held)
    const setting = {
      ...input,
      ratio: input.ratio.value * Math.exp(ratioSd * ratio),
      waterTemperature: input.waterTemperature + TEMPERATURE_SD * warmth,
      roomTemperature: input.roomTemperature + TEMPERATURE_SD * warmth,
    }
    const run = runSetting(setting, {
      rate: Math.exp(ownRate),
      seeds: Math.exp(ownSeeds),
      tail: known ? TAIL_MEDIAN * Math.exp(ownTail) : tailAt(point[11]!),
      jamming: Math.exp(JAMMING_SD * jamming),
      conductivity: Math.exp(CONDUCTIVITY_SD * conductivity),
      effect: doubtful ? effect : 0,
      bond,
      needle: needleOf(marked),
    }, resolution)
    const one = draw(input, setting, run, {
      flow: Math.exp(FLOW_SD * flow),
      strength: Math.exp((input.powder.doubt?.strength ?? STRENGTH_SD) * strength),
      expansion: Math.exp(expansionSd * grown),
      bond,
    })
    for (const key of keys)
      drawn[key]!.push(
        key === 'coolAgain' ? Math.max(one.finalSet, one.coolAgain * Math.exp(COOLING_SD * cooling)) : one[key],
      )
  }
  const basis: Basis = { kind: 'model', note: NOTE + BAG_NOTES[known ? 'known' : 'unknown'] }
  const estimate = (key: keyof Drawn, most = Infinity): Estimate => {
    const sorted = drawn[key]!.sort((a, b) => a - b)
    const value = centre[key]
    const within = (x: number) => Math.min(most, x)
    return {
      value: within(value),
      low: within(Math.min(value, sortedQuantile(sorted, 0.1))),
      high: within(Math.max(value, sortedQuantile(sorted, 0.9))),
      basis,
    }
  }
  const time = (key: MomentKey | 'open' | 'tapUntil') => estimate(key, NOT_WITHIN)
  const openEarliest = time('open'), coolAgain = time('coolAgain')
  const outcome = (key: keyof Outcome) => estimate(key)
  return {
    moments: {
      pourBy: time('pourBy'),
      webbing: time('webbing'),
      glossGone: time('glossGone'),
      initialSet: time('initialSet'),
      finalSet: time('finalSet'),
      warmest: time('warmest'),
      warmestTemperature: estimate('warmestTemperature'),
      coolAgain,
      openEarliest,
      tapUntil: time('tapUntil'),
      open: advisedOpening(openEarliest, coolAgain, input.openNotBefore),
    },
    outcome: {
      tapUntil: outcome('tapUntil'),
      bubble: outcome('bubble'),
      freeBubble: outcome('freeBubble'),
      viscosity: outcome('viscosity'),
      bleed: outcome('bleed'),
      expansion: outcome('expansion'),
      hourStrength: outcome('hourStrength'),
      wetStrength: outcome('wetStrength'),
      dryStrength: outcome('dryStrength'),
      dampStrength: outcome('dampStrength'),
      dryDensity: outcome('dryDensity'),
      porosity: outcome('porosity'),
      freeWater: outcome('freeWater'),
      above43: outcome('above43'),
    },
  }
}
