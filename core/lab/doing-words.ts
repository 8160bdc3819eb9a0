import { formatDuration, formatDurationRange, formatMass, formatPercent, formatTemperature } from '../units/format'
import { sentenceOf, type Sentences } from '../units/sentences'
import { METRIC, type UnitPreferences } from '../units/units'
import type { DoingVerdict, Moved, Truth } from './doing'

/** What is said of sayings about doing. */

/** Whether a saying about doing holds, in two words. */
export const TRUTH_WORDS: Readonly<Record<Truth, string>> = { true: 'True', partly: 'Partly', not: 'Not so' }
const movedBy = ({ value, low, high }: Moved) => Math.abs(value) < 20
  ? 'hardly at all'
  : `by about ${formatDuration(10 * Math.round(Math.abs(value) / 10), Math.abs(value) < 115 ? 'second' : 'minute')} (${
    formatDurationRange(Math.min(Math.abs(low), Math.abs(high)), Math.max(Math.abs(low), Math.abs(high)))})`
const DOING: Sentences<DoingVerdict, [UnitPreferences]> = {
  'starts-when-stirred': ({ waited, later }) =>
    `It starts when powder meets water; stirring speeds it up. Left ${formatDuration(waited)} longer before the first stir, `
    + `its gloss goes later ${movedBy(later)}: both clocks count.`,
  'over-mixed': ({ minutes, sooner, strength }) =>
    `Stirred for ${formatDuration(minutes * 60)} it sets sooner, ${movedBy(sooner)}${Math.abs(strength) < 0.02
      ? '. Stirred on past webbing it is weaker, by a tenth to a half (a guess)'
      : `, and dries ${formatPercent(Math.abs(strength))} ${strength < 0 ? 'weaker' : 'stronger'}`
    }. Plaster that never set was old, damp, too cold or full of something.`,
  'tap-while-sifting':
    'Custom differs, and nobody has measured it. Tapping packs the powder under water, so that islands come later and the '
    + 'mix is thicker; with weighed powder it moves no time.',
  'never-dump': ({ powder, saved, together }, prefs) => together
    ? 'Plaster and silica are dumped at once by custom, so that all of it meets water together. Let it soak.'
    : `Dumped, ${formatMass(powder, prefs)} of powder is in ${formatDuration(saved)} sooner. Its lumps stay dry inside unless it soaks: where the face `
      + 'matters, sift.',
  'hot-water': ({ celsius, sooner, pours }, prefs) =>
    `With water at ${formatTemperature(celsius, prefs)} its gloss goes sooner ${movedBy(sooner)}, and there is less time to `
    + `pour ${movedBy(pours)}. Above that it makes lumps and weakens.`,
  'machine': ({ sooner, pours }) =>
    `Stirred as long with a drill as by hand, its gloss goes sooner ${movedBy(sooner)} and it must be poured sooner `
    + `${movedBy(pours)}: stir shorter. It folds in half as much air again.`,
  'warm-is-done': ({ warmest, after }) => after.value <= 0
    ? `It is warmest ${formatDuration(warmest, 'minute')} after powder met water. By then a piece like this is strong `
    + 'enough to open.'
    : `Warm says that it sets, not that it is strong. It is warmest ${formatDuration(warmest, 'minute')} after powder met `
      + `water; open it later ${movedBy(after)}.`,
}
export const doingWords = (verdict: DoingVerdict, prefs: UnitPreferences = METRIC) => sentenceOf(DOING, verdict, prefs)
