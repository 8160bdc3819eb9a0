import { additionKind } from '../gypsum/additions'
import { powderClass, powderInSentence, type Span } from '../gypsum/powders'
import { STIR_TOOLS } from '../gypsum/stirring'
import { CAST_SHAPES, MOULD_MATERIALS, SURROUNDINGS } from '../setting/body'
import { DRIVING } from '../setting/flow'
import { SETTING_PROBLEM_WORDS } from '../setting/words'
import {
  formatConsistency,
  formatDuration,
  formatFine,
  formatLength,
  formatPercent,
  formatTemperature,
  formatTemperatures,
  formatWarming,
} from '../units/format'
import { capital, listed, sentenceOf, within, wordedIn, type Sentences, type Worded } from '../units/sentences'
import { METRIC, type UnitPreferences } from '../units/units'
import type { Effect, LabChange, LeverMoved } from './changes'
import type { LabFact, LabFactId } from './facts'
import type { LabMix } from './mix'
import type { LabRefusal, LabRemark } from './remarks'

const rangeOf = ({ low, high }: Span) => `${formatConsistency(low)} to ${formatConsistency(high)}`
const small = (name: string) => name.toLowerCase()

const REFUSALS: Sentences<LabRefusal> = {
  'cannot-work-out': ({ why }) => SETTING_PROBLEM_WORDS[why],
  'no-liquid-water': 'Plaster needs liquid water.',
  'too-little-water': ({ bound, range }) =>
    `Too little water: this powder binds ${formatConsistency(bound)} per 100, and some of it can never set. Use ${
      rangeOf(range)
    }.`,
  'jams': ({ additions, range }) =>
    `This jams and will not pour. Use ${rangeOf(range)}${additions ? ', or less of what drinks water' : ''}.`,
}
export const labRefusalWords = (refusal: LabRefusal) => sentenceOf(REFUSALS, refusal)

const outside = (what: string) => `Outside what the model was checked for: ${what}.`
const REMARKS: Sentences<LabRemark, [UnitPreferences]> = {
  'outside-ratio': ({ range }) => outside(`this powder is used at ${rangeOf(range)}`),
  'outside-temperatures': (_, p) =>
    outside(`water from ${formatTemperatures(3, 60, p)} and a room from ${formatTemperatures(3, 40, p)}`),
  'outside-stirring': outside('stirring worth 20 to 400 turns of a spatula'),
  'outside-thickness': outside('casts from 4 to 150 mm thick'),
  'outside-dirt': outside('up to 3 % of old plaster in the bucket'),
  'too-much-of': ({ addition }) => {
    const { name, harmful, harm } = additionKind(addition)
    return `${name} above ${formatPercent(harmful)}: ${within(harm)}`
  },
  'direction-only': ({ addition }) =>
    `${additionKind(addition).name}: only the direction of its effect is known; try a cup.`,
  'saying': ({ addition }) => `${additionKind(addition).name}: a saying, weak or untrue; try a cup.`,
  'order-of-magnitude': ({ addition }) =>
    `${additionKind(addition).name}: its effect is known to an order of magnitude; try a cup.`,
}
export const labRemarkWords = (remark: LabRemark, prefs: UnitPreferences = METRIC) =>
  sentenceOf(REMARKS, remark, prefs)

const LEVERS: Sentences<LeverMoved, [UnitPreferences]> = {
  powder: ({ to }) => powderInSentence(powderClass(to.classId)),
  ratio: ({ was, to }) => `${formatConsistency(to.ratio)} of water instead of ${formatConsistency(was)}`,
  water: ({ to }, prefs) => `water at ${formatTemperature(to.waterTemperature, prefs)}`,
  room: ({ to }, prefs) => `a room at ${formatTemperature(to.roomTemperature, prefs)}`,
  soak: ({ to }) => `${formatDuration(to.soak)} before stirring`,
  stir: ({ to }) => `stirred ${formatDuration(to.stir.minutes * 60)} with ${small(STIR_TOOLS[to.stir.tool].name)}`,
  addition: ({ addition, share }) => `${share === 0 ? 'no' : formatPercent(share)} ${small(additionKind(addition).name)}`,
  dirt: ({ to }) => to.dirt === 0 ? 'a clean bucket' : `${formatPercent(to.dirt)} of old plaster in the bucket`,
  section: ({ to }, prefs) => `${formatLength(to.section, prefs)} thick`,
  shape: ({ to }) => small(CAST_SHAPES[to.shape].name),
  mould: ({ to }) => `${small(MOULD_MATERIALS[to.mould].name)} mould`,
  behind: ({ to }) => small(SURROUNDINGS[to.behind].name),
  driving: ({ to }) => small(DRIVING[to.driving].name),
}

/** To the quarter minute, and never nothing. */
const about = (seconds: number) => formatDuration(Math.round(Math.abs(seconds) / 15) * 15 || 15)
const earlierOrLater = (seconds: number) => `${about(seconds)} ${seconds < 0 ? 'sooner' : 'later'}`
const byHowMuch = (ratio: number) =>
  ratio > 2 ? `${ratio.toFixed(1)} times` : formatPercent(Math.round(Math.abs(ratio - 1) * 100) / 100)
const EFFECTS: Sentences<Effect, [UnitPreferences]> = {
  pourBy: ({ seconds }) => `${seconds < 0 ? 'too stiff to pour' : 'still pours'} ${earlierOrLater(seconds)}`,
  glossGone: ({ seconds }) => `sets ${earlierOrLater(seconds)}`,
  open: ({ seconds }) => `opens ${earlierOrLater(seconds)}`,
  core: ({ degrees }, { temperature }) => {
    const shown = Math.round(Math.abs(degrees) * (temperature === 'F' ? 1.8 : 1))
    return `core ${shown} °${temperature} ${degrees > 0 ? 'hotter' : 'cooler'}`
  },
  dryStrength: ({ ratio }) => `${byHowMuch(ratio)} ${ratio > 1 ? 'stronger' : 'weaker'} when dry`,
  expansion: ({ ratio }) => `grows ${byHowMuch(ratio)} ${ratio > 1 ? 'more' : 'less'}`,
  bubble: ({ ratio, bubble }, prefs) =>
    ratio > 1
      ? `bubbles up to ${formatFine(bubble, prefs)} stay in`
      : `bubbles get out down to ${formatFine(bubble, prefs)}`,
  bleed: ({ share }) => `clear water stands on it, ${formatPercent(Math.round(share * 100) / 100)} of the depth`,
}

/** What was moved, one by one. */
const leverWords = (moved: LeverMoved, prefs: UnitPreferences = METRIC) => sentenceOf(LEVERS, moved, prefs)

/** What a change of mix does, in one sentence. */
export function changeWords({ moved, effects }: LabChange, prefs: UnitPreferences = METRIC): string {
  if (moved.length === 0) return 'Nothing is changed yet.'
  const did = effects.map(e => sentenceOf(EFFECTS, e, prefs))
  return `${capital(listed(moved.map(m => leverWords(m, prefs))))}: ${
    did.length > 0 ? listed(did) : 'no difference worth a word'
  }.`
}

interface FactWords {
  readonly name: Worded
  readonly note: string | ((fact: LabFact, prefs: UnitPreferences) => string)
}
const FACTS: Readonly<Record<LabFactId, FactWords>> = {
  pour: { name: 'Too stiff to pour', note: 'Mean yield stress of 25 Pa, or two and a half times the fresh one.' },
  tap: { name: 'Tapping stops helping', note: 'The shaking no longer overcomes the yield stress.' },
  bubble: {
    name: 'Bubbles that get out, over',
    note: 'From the full depth, tapped from the end of stirring; Stokes.',
  },
  viscosity: { name: 'Thickness when fresh', note: 'Plastic viscosity; water is 0.001, honey about 10 Pa s.' },
  bleed: { name: 'Clear water on top', note: 'Share of the depth, from settling; low confidence.' },
  gloss: { name: 'Gloss goes', note: 'To the eye: grains jam or needles span the mix, 20 kPa.' },
  initial: {
    name: 'Initial set, by needle',
    note: 'It resists a light needle: 45 kPa (35 to 53). What a bag prints is mostly this.',
  },
  final: { name: 'Final set, by needle', note: 'A heavy needle leaves no mark: 3.4 MPa at the slowest place (1.7 to 5).' },
  warmest: { name: 'Warmest', note: 'At the hottest place.' },
  core: { name: 'Core at its warmest', note: ({ rise }, p) => `Without any loss it would gain ${formatWarming(rise!, p)}.` },
  skin: { name: p => `Above ${formatTemperature(43, p)} inside`, note: 'Long enough to burn skin that is held to it.' },
  open: {
    name: 'Opens at the earliest',
    note: 'Flexible: a third of its wet strength; rigid: seven tenths, and past its warmest.',
  },
  cool: { name: 'Cool again', note: 'To a hand on the outside; a thick piece stays warm within for hours.' },
  growth: { name: 'Grows on setting', note: 'Linear, in air; under water about twice.' },
  hour: { name: 'Strength after 1 h', note: 'Compressive, at the slowest place.' },
  wet: { name: 'Strength wet', note: 'Compressive, fully set.' },
  damp: { name: 'Strength damp', note: 'With a tenth of the water in its pores left: of a plaster nearly all of the gain is still missing.' },
  dry: { name: 'Strength dry', note: 'Compressive, bone dry.' },
  density: { name: 'Weighs when dry', note: 'From masses and volumes.' },
  pores: { name: 'Pores', note: 'What a pottery mould drinks with.' },
  paint: { name: 'Dry enough to paint, after opening', note: ({ basis }) => capital(`${basis!.note}.`) },
}
export const factName = ({ id }: Pick<LabFact, 'id'>, prefs: UnitPreferences = METRIC) => wordedIn(FACTS[id].name, prefs)
/** What a fact of the table stands on. */
export function factNote(fact: LabFact, prefs: UnitPreferences = METRIC): string {
  const { note } = FACTS[fact.id]
  return typeof note === 'string' ? note : note(fact, prefs)
}

/** The mix as one line. */
export function mixLine(mix: LabMix, prefs: UnitPreferences = METRIC): string {
  return `${powderClass(mix.classId).name} at ${formatConsistency(mix.ratio)}, ${formatLength(mix.section, prefs)} in ${
    small(MOULD_MATERIALS[mix.mould].name)
  }`
}
