import type { Sample } from '../core/setting/conduction'
import { runSetting } from '../core/setting/hydration'
import type { SettingInput } from '../core/setting/setting-mix'

/** The whole course of a cast, twelve hours long. */
export function courseOf(input: SettingInput): readonly Sample[] {
  const samples: Sample[] = []
  runSetting(input, undefined, undefined, 12 * 3600, s => samples.push(s))
  return samples
}

/** Seconds until its hottest place is within 2 K of the room again. */
export function coolThrough(input: SettingInput): number {
  const samples = courseOf(input), below = input.roomTemperature + 2
  const peak = samples.reduce((a, b) => b.hottest > a.hottest ? b : a)
  const i = samples.findIndex(s => s.t > peak.t && s.hottest <= below), [a, b] = [samples[i - 1]!, samples[i]!]
  return a.t + (b.t - a.t) * (a.hottest - below) / (a.hottest - b.hottest)
}
