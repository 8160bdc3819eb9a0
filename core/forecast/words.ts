import { Z80, type Seconds } from '../units/quantity'
import { listed } from '../units/sentences'
import { formatConsistency, formatLength } from '../units/format'
import type { UnitPreferences } from '../units/units'
import type { BagShift } from './observations'
import type { SpreadReading, SpreadSaid } from './spread-test'

/** What is said of a forecast that has learnt. */

/** “about 12 minutes sooner than planned”: to what can be known of it. */
export function shiftWords(by: Seconds): string {
  const minutes = Math.abs(by) / 60, step = minutes < 10 ? 1 : minutes < 60 ? 2 : 10
  const told = Math.round(minutes / step) * step
  const long = told >= 120 ? `${Math.round(told / 30) / 2} hours` : `${told} minutes`
  return `about ${long} ${by < 0 ? 'sooner' : 'later'} than planned`
}

/** A class is met within this of its own flow, in ratio: what a first test may not make much of. */
const ORDINARY = 0.15
/** What a spread test says; the ratio it is like is asked, never set right by itself. */
export function spreadWords(
  { code, expected, like }: SpreadSaid, { ratio }: SpreadReading, prefs: UnitPreferences,
): string {
  const was = `this bag runs to ${formatLength(expected, prefs)} at ${formatConsistency(ratio)}`
  const asked = `like ${formatConsistency(like)}. Weighed right? Bag new or damp?`
  switch (code) {
    case 'stiff': return 'Stiff: it hardly left the ring, and nothing can be read from that.'
    case 'too-thin': return 'Too thin to read: it ran out to a film.'
    case 'first':
      return `It flows ${
        Math.abs(like / ratio - 1) < ORDINARY ? 'as its class does' : `${like > ratio ? 'thinner' : 'thicker'} than its class`
      }. The next test knows this bag.`
    case 'as-it-was': return `As it was: ${was}.`
    case 'wider': return `Wider than it was (${was}): ${asked}`
    case 'narrower': return `Narrower than it was (${was}): ${asked}`
  }
}

/** Less than this is as its class does. */
const ALIKE = 3
/** What the next pour of a bag is planned with; nothing while only its class is known. */
export function nextPourWords(rate: { readonly mean: number, readonly sd: number } | undefined): string | undefined {
  if (!rate) return undefined
  const percent = (x: number) => Math.round(100 * (Math.exp(x) - 1)), wide = percent(Z80 * rate.sd)
  const by = percent(rate.mean)
  return `the next plan takes it ${
    Math.abs(by) < ALIKE ? 'as fast as its class' : `${Math.abs(by)} % ${by > 0 ? 'faster' : 'slower'} than its class`
  }, eight times in ten within ${wide} %`
}

const count = (n: number, one: string, many: string) => n === 0 ? [] : [`${n} ${n === 1 ? one : many}`]
/** “In 3 mixes it set about 18 % sooner than its class.” */
export function bagShiftWords({ later, batches, cups }: BagShift): string {
  const percent = Math.round(100 * later)
  const known = listed([...count(batches, 'mix', 'mixes'), ...count(cups, 'cup', 'cups')])
  return Math.abs(percent) < ALIKE
    ? `In ${known} it set as its class does.`
    : `In ${known} it set about ${Math.abs(percent)} % ${percent < 0 ? 'sooner' : 'later'} than its class.`
}
