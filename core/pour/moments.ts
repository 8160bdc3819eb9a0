import type { Basis, Celsius, Estimate, Seconds, WaterRatio } from '../units/quantity'
import { settingMoments, MOULD_MATERIALS, type SettingInput, type SettingMoments } from '../gypsum/hydration'
import { halton, normalQuantile, sortedQuantile } from '../units/sampling'

/** Version of the setting model; frozen into every run so that an old forecast can be explained later. */
export const MODEL_VERSION = 'one-body-1'

export interface MomentsInput extends Omit<SettingInput, 'ratio'> {
  readonly ratio: Estimate<WaterRatio>
  /** Older than a year, damp, or from an unknown source: its speed is less certain. */
  readonly bagUncertain: boolean
  /** Never advise opening before this, seconds after wetting (end use). */
  readonly openNotBefore: Seconds
  /** Thin or fragile: wait until it is past its warmest. */
  readonly fragile: boolean
}

export interface Moments {
  readonly pourBy: Estimate<Seconds>
  readonly webbing: Estimate<Seconds>
  readonly glossGone: Estimate<Seconds>
  readonly finalSet: Estimate<Seconds>
  readonly warmest: Estimate<Seconds>
  readonly warmestTemperature: Estimate<Celsius>
  readonly coolAgain: Estimate<Seconds>
  /** Earliest physical time at which this mould may be opened. */
  readonly openEarliest: Estimate<Seconds>
  /** What to tell a person: from the cautious end of the earliest time, to when it is cool again. */
  readonly open: { readonly from: Seconds, readonly to: Seconds, readonly basis: Basis }
}

const SAMPLES = 48
const RATE_SD = 0.30, UNCERTAIN_RATE_SD = 0.45, SEEDS_SD = 0.80, TEMPERATURE_SD = 1
/** Safety on the 90 % quantile: the model's late tail is known to be too short against practice (engineering guess). */
const OPENING_MARGIN = 1.15

/** The integration ends here; a moment that is not reached by then is given as this, twelve hours after wetting. */
export const NOT_WITHIN: Seconds = 12 * 3600

const BASIS: Basis = { kind: 'model', note: 'hydration and heat model fitted to set times of this class; not yet to your bag' }

type Key = 'pourBy' | 'webbing' | 'glossGone' | 'finalSet' | 'warmest' | 'warmestTemperature' | 'coolAgain'
const KEYS: readonly Key[] = ['pourBy', 'webbing', 'glossGone', 'finalSet', 'warmest', 'warmestTemperature', 'coolAgain']

function opening(m: SettingMoments, input: MomentsInput): Seconds {
  const byMould = MOULD_MATERIALS[input.mould].flexible ? m.openFlexible : m.openRigid
  return input.fragile ? Math.max(byMould, m.openThin) : byMould
}

/** Setting moments without ranges: fast enough for every keystroke. */
export function centreMoments(input: MomentsInput): SettingMoments & { readonly open: Seconds } {
  const m = settingMoments({ ...input, ratio: input.ratio.value })
  return { ...m, open: opening(m, input) }
}

/**
 * Moments with their 10 % and 90 % quantiles over what is not known: the bag's speed, how well stirring seeds it, the true ratio
 * within its own range, the temperature within a degree. 48 low-discrepancy samples; standard deviations are engineering guesses.
 */
export function forecastMoments(input: MomentsInput): Moments {
  const centre = centreMoments(input)
  const rateSd = input.bagUncertain ? UNCERTAIN_RATE_SD : RATE_SD
  const ratioSd = Math.log(input.ratio.high / input.ratio.low) / 2.5631
  const samples: Record<Key | 'open', number[]> = { pourBy: [], webbing: [], glossGone: [], finalSet: [], warmest: [], warmestTemperature: [], coolAgain: [], open: [] }
  for (let i = 1; i <= SAMPLES; i++) {
    const [rate, seeds, ratio, warmth] = [0, 1, 2, 3].map(d => normalQuantile(halton(i, d))) as [number, number, number, number]
    const m = settingMoments({
      ...input,
      ratio: input.ratio.value * Math.exp(ratioSd * ratio),
      waterTemperature: input.waterTemperature + TEMPERATURE_SD * warmth,
      roomTemperature: input.roomTemperature + TEMPERATURE_SD * warmth,
    }, { rate: Math.exp(rateSd * rate), seeds: Math.exp(SEEDS_SD * seeds) })
    for (const key of KEYS) samples[key].push(m[key])
    samples.open.push(opening(m, input))
  }
  const estimate = (key: Key | 'open', value: number): Estimate => {
    const sorted = samples[key].sort((a, b) => a - b)
    const within = (x: number) => Math.min(NOT_WITHIN, x)
    return { value: within(value), low: within(Math.min(value, sortedQuantile(sorted, 0.1))), high: within(Math.max(value, sortedQuantile(sorted, 0.9))), basis: BASIS }
  }
  const openEarliest = estimate('open', centre.open)
  const coolAgain = estimate('coolAgain', centre.coolAgain)
  const from = Math.max(openEarliest.high * OPENING_MARGIN, input.openNotBefore)
  const floored = input.openNotBefore >= openEarliest.high * OPENING_MARGIN
  return {
    pourBy: estimate('pourBy', centre.pourBy), webbing: estimate('webbing', centre.webbing),
    glossGone: estimate('glossGone', centre.glossGone), finalSet: estimate('finalSet', centre.finalSet),
    warmest: estimate('warmest', centre.warmest), warmestTemperature: estimate('warmestTemperature', centre.warmestTemperature),
    coolAgain, openEarliest,
    open: {
      from, to: Math.max(coolAgain.value, from + 1200),
      basis: floored
        ? { kind: 'common practice', note: 'custom for this end use; the model would allow it sooner' }
        : { kind: 'model', note: 'strong enough for this mould in nine casts of ten, and 15 % longer' },
    },
  }
}
