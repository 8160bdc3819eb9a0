import { formatConsistency, formatLength, formatVolume, roundTo } from '../units/format'
import { capital, sentenceOf, type Sentences } from '../units/sentences'
import { METRIC, type UnitPreferences } from '../units/units'
import { powderInSentence, type PowderClass, type Span } from './powders'
import type { Understood } from './saying/read-saying'
import type { RatioVerdict, Reading, SayingVerdict, YieldVerdict } from './sayings'
import { READING_WORDS, UNREAD_SAYING_WORDS } from './words'

/** What is said of a saying: whether it holds with a powder, and what comes of it. */

const range = ({ low, high }: Span) => `${formatConsistency(low)} to ${formatConsistency(high)}`

const RATIO: Sentences<RatioVerdict> = {
  within: ({ powder, said }) =>
    `Right for ${powderInSentence(powder)}: ${range(said)} lies within its ${range(powder.ratio)}.`,
  scatters: ({ powder }) =>
    `In the middle right for ${powderInSentence(powder)}, but how it is scooped or judged can carry it out of its ${
      range(powder.ratio)
    }.`,
  thinner: v => `${off(v)} is thinner than its ${range(v.powder.ratio)}; weak, slow to dry, and water may stand on it.`,
  thicker: v => `${off(v)} is thicker than its ${range(v.powder.ratio)}; it may not pour, and traps air.`,
}
function off({ fit, powder, said }: RatioVerdict): string {
  return `${fit === 'near' ? 'On the edge' : 'Wrong'} for ${powderInSentence(powder)}: ${range(said)}`
}

/** How much is made against what is wanted. */
function against(made: number, wanted: number): string {
  const percent = Math.round((made / wanted - 1) * 100)
  return Math.abs(percent) < 2 ? 'which fits' : `${Math.abs(percent)} % ${percent > 0 ? 'over' : 'short'}`
}
const times = ({ yields, powder }: YieldVerdict) =>
  `Water makes ${roundTo(yields.low, 0.01)} to ${roundTo(yields.high, 0.01)} times its volume of mix with ${
    powderInSentence(powder)
  }`
function doubles({ per, doubles }: { readonly per: number, readonly doubles: boolean }): string {
  if (doubles) return 'does double'
  return per < 2 ? 'does not quite double: you run short' : 'more than doubles'
}
const YIELD: Sentences<YieldVerdict, [UnitPreferences]> = {
  'two-thirds-water': (v, prefs) =>
    `${times(v)}: two thirds of this mould in water make ${formatVolume(v.made, prefs)} for ${
      formatVolume(v.wanted, prefs)
    }, ${against(v.made, v.wanted)}.`,
  'third-to-half-water': (v, prefs) =>
    `${times(v)}: a third makes ${formatVolume(v.less, prefs)}, a half ${formatVolume(v.more, prefs)} for ${
      formatVolume(v.wanted, prefs)
    }. ${v.short ? 'Even half underfills it.' : 'Somewhere between them is right.'}`,
  'quart-a-square-foot': (v, prefs) =>
    `${times(v)}: a quart of water makes ${formatVolume(v.made, prefs)} for the ${
      formatVolume(v.wanted, prefs)
    } of the slab, ${against(v.made, v.wanted)}. That is spare, not shortage.`,
  'depth-is-depth': (v, prefs) =>
    `${times(v)}: ${formatLength(v.water, prefs)} of water make ${
      formatLength(v.upright, prefs)
    } of cast between upright walls, and about ${formatLength(v.bowl, prefs)} in a round bowl of ${
      formatLength(v.across, prefs)
    }.`,
  'it-doubles': v => `${times(v)}, so it ${doubles(v)}.`,
  'third-of-bucket': v =>
    `${times(v)}: a third of the bucket ends ${roundTo(v.third * 100, 1)} % full, a half ${
      roundTo(v.half * 100, 1)
    } %. ${v.room ? 'Half still leaves some room to stir.' : 'Half would run over or leave no room to stir.'}`,
}

/** What a verdict on a saying says. */
export function verdictWords(verdict: SayingVerdict, prefs: UnitPreferences = METRIC): string {
  return 'yields' in verdict ? sentenceOf(YIELD, verdict, prefs) : sentenceOf(RATIO, verdict)
}

const REGION_MEASURE = { us: 'with a US measure', imperial: 'with an imperial measure', metric: 'with a metric cup' } as const
/** How one reading of several is called: `by volume`, `with a US measure`. */
const FEEL_WORDS = 'That is mixing by feel. Choose it as your way of measuring, or type a ratio to aim at.'

export const readingName = ({ code, region, alike }: Reading) => {
  if (alike) return 'by volume or by weight alike'
  return region ? REGION_MEASURE[region] : READING_WORDS[code]
}

/**
 * What is said of a ratio that was typed, of all that is no single reading: the question, or what is missing.
 * @param islands what sifting to islands gives with the powder
 */
export function saidRatioWords(found: Understood, powder: PowderClass, islands: number): string {
  switch (found.code) {
    case 'read':
      return found.readings.length > 1
        ? `${capital(found.readings.map(r => `${formatConsistency(r.ratio.value)} ${readingName(r)}`).join(', or '))}?`
        : ''
    case 'school':
      if (found.school === 'powder-first') return FEEL_WORDS
      return `Sifting to islands gives about ${formatConsistency(islands)} with ${powderInSentence(powder)}. `
        + 'Choose it as your way of measuring, or type a ratio.'
    case 'doing': return 'That says how to do it, not how much of what. The Lab judges it.'
    case 'saying': return 'That says how much mix comes of the water, not how much powder goes in. The Lab judges it.'
    default: return UNREAD_SAYING_WORDS[found.code]
  }
}

/** What one reading is of what was typed: nothing where it stood there as it is shown. */
export function understoodWords({ readings, other }: Extract<Understood, { code: 'read' }>): string {
  const [reading] = readings
  const plain = reading!.code === 'by-weight' && !reading!.region && !reading!.alike ? '' : `, ${readingName(reading!)}`
  const beside = other ? `; if the water was in fluid ounces ${formatConsistency(other.ratio.value)}` : ''
  return `${formatConsistency(reading!.ratio.value)} water to 100 powder${plain}${beside}`
}
