import { notHereWords } from '../drying/words'
import { additionKind } from '../gypsum/additions'
import type { StirTool } from '../gypsum/stirring'
import { ADDITION_WORDS, END_USE_WORDS, POWDER_WORDS, SCHOOL_ADVICE_WORDS } from '../gypsum/words'
import { SETTING_PROBLEM_WORDS } from '../setting/words'
import {
  formatConsistency, formatDuration, formatDurationRange, formatFine, formatLength, formatMass, formatPercent,
  formatTemperature, formatTemperatures, formatVolume,
} from '../units/format'
import { listed, sentenceOf, within, type Sentences } from '../units/sentences'
import { METRIC, type UnitPreferences } from '../units/units'
import type { Caution } from './cautions'
import type { SoakAdvice, StirAdvice, WaterAdvice } from './choices'
import type { Spread } from '../drying/drinking'
import type { CubicMetres, Metres, Seconds } from '../units/quantity'
import type { NoOverlapReason } from './batches/overlap'
import type { Late, Remedy } from './late'
import type { PlanProblem } from './problems'
import type { PlanResult, Printed } from './types'

/** What the planning of a pour says. Nothing reads these sentences. */

/** A hollow cast in words: its coats, and what is mixed for each and comes back. */
export function swilledWords(
  { coats, wall, mixed, back }: {
    readonly coats: number
    readonly wall: Metres
    /** For one coat of all the casts. */
    readonly mixed: CubicMetres
    readonly back: CubicMetres
  },
  prefs: UnitPreferences,
): string {
  return `${coats} coats of about ${formatFine(wall / coats, prefs)} make ${formatLength(wall, prefs)}. `
    + `Mix ${formatVolume(mixed, prefs)} each time; some ${formatVolume(back, prefs)} comes back. `
    + 'Corners, and what lay lowest, come out half as thick again or twice.'
}

/** Casts in whole ones: “2 to 4”. */
function inARow({ low, high }: Spread): string {
  const [a, b] = [Math.max(1, Math.round(low)), Math.max(1, Math.round(high))] as const
  return a === b ? `${a}` : `${a} to ${b}`
}
/** What a mould drinks: how long a wall takes, how many in a row, and how it dries again. */
export function drinkingWords(
  { wall, takes, casts, again, through, useful }: {
    readonly wall: Metres
    readonly takes: Spread
    readonly casts: Spread
    /** After one cast. */
    readonly again: Seconds
    readonly through: Spread
    readonly useful: Spread
  },
  prefs: UnitPreferences,
): readonly string[] {
  const hours = (t: Seconds) => Math.round(t / 3600) * 3600
  return [
    `A wall of ${formatLength(wall, prefs)} takes ${formatDurationRange(takes.low, takes.high)} in a dry one.`,
    `${inARow(casts)} in a row, then it has to dry: ${
      Number.isFinite(again) ? `about ${formatDuration(hours(again), 'minute')} for each` : 'not where it is to stand'
    }.`,
    `Water comes through it after ${formatDurationRange(through.low, through.high)}; as a bat it takes about ${
      formatMass(useful.value, prefs)
    } before it drinks slowly.`,
  ]
}

/** A chance as it is said: one in so many. */
function chanceOf(p: number): string {
  if (p > 0.9) return 'almost certain'
  if (p > 0.6) return 'more likely than not'
  if (p > 0.42) return 'an even chance'
  if (p < 0.02) return 'hardly any chance'
  return `one chance in ${Math.round(1 / p)}`
}

/** What a plan says of pouring late: how likely, and what it costs. */
export function lateWords({ chance, custom, inTime, quick }: Late, prefs: UnitPreferences): string {
  if (custom)
    return 'The model would call this late, but by custom such a cool, gently stirred mix is poured after a quarter of an '
      + 'hour. Go by how it looks.'
  return `${chanceOf(chance).replace(/^./, x => x.toUpperCase())} that it is too stiff by the last mould. `
    + `Poured in time it fills gaps down to ${formatFine(inTime, prefs)}; if the mix is quick, gaps under `
    + `${formatFine(quick, prefs)} in the last mould stay empty, and more bubbles stay in.`
}

const REMEDIES: Sentences<Remedy, [UnitPreferences]> = {
  'second-person': 'Two of you sift',
  'stir-less': r => `Stir only ${formatDuration(r.change.stir!.minutes * 60)}`,
  'soak-less': r => `Soak only ${formatDuration(r.change.soakMinutes! * 60)}`,
  'smaller-batches': r => `Mix ${r.batches} buckets`,
  'colder-water': (r, prefs) => `Water at ${formatTemperature(r.celsius, prefs)}`,
  'slower-powder': r => POWDER_WORDS[r.classId].name,
}
/** A remedy, and the chance that is left with it. */
export const remedyWords = (remedy: Remedy, prefs: UnitPreferences) =>
  `${sentenceOf(REMEDIES, remedy, prefs)}: ${chanceOf(remedy.chance)}`

const ratioSpan = ({ low, high }: { readonly low: number, readonly high: number }) =>
  `${formatConsistency(low)} to ${formatConsistency(high)}`
const OUTSIDE = 'Outside what the model was checked for'
const holderOf = (bucket: string | undefined) => bucket ?? 'one bag'

/** What stands in the way of a plan, or is worth a second thought. */
const PROBLEMS: Sentences<PlanProblem, [prefs: UnitPreferences]> = {
  'cannot-set': p =>
    `${POWDER_WORDS[p.classId].name} binds ${(p.need * 100).toFixed(1)} parts of water to 100 of powder; at `
    + `${formatConsistency(p.ratio)} some of it can never set. Use ${ratioSpan(p.use)}.`,
  'jams': p =>
    `At ${formatConsistency(p.ratio)} this powder jams and will not pour. Use ${ratioSpan(p.use)}`
    + `${p.withAdditions ? ', or add less of what drinks water' : ''}.`,
  'thick': p => `Thicker than usual for this powder (${ratioSpan(p.use)}): it traps air and leaves little time.`,
  'thin': p =>
    `Thinner than usual for this powder (${ratioSpan(p.use)}): weak, slow to dry, and water will stand on top.`,
  'school-against': p => SCHOOL_ADVICE_WORDS[p.advice],
  'other-powder': p =>
    `For this, most casters use ${p.better.map(id => within(POWDER_WORDS[id].name)).join(' or ')}.`,
  'not-liquid': (p, prefs) =>
    `Water at ${
      formatTemperature(p.celsius, prefs)
    } will not do: plaster needs liquid water and does not set near boiling. `
    + `Use ${formatTemperatures(5, 40, prefs)}.`,
  'hot-water': (_, prefs) =>
    `Water this hot makes lumps, and above about ${formatTemperature(40, prefs)} plaster sets slower again, not faster.`,
  'addition-share': 'An addition is given as a share of the powder, between nothing and twice its weight.',
  'harmful-addition': p =>
    `${ADDITION_WORDS[p.addition].name} above ${formatPercent(additionKind(p.addition).harmful)}: `
    + within(ADDITION_WORDS[p.addition].harm),
  'stirred-very-long': 'Stirring longer than a quarter of an hour: it will set in the bucket.',
  'nearly-frozen': `${OUTSIDE}: nearly frozen. It sets very late or, frozen, not at all; a frozen cast is spoilt.`,
  'hot-room': (_, prefs) => `${OUTSIDE}: a room above ${formatTemperature(40, prefs)}.`,
  'stirred-much': `${OUTSIDE}: stirred this much it sets sooner than shown here, perhaps in the bucket.`,
  'hardly-stirred': `${OUTSIDE}: hardly stirred, it may stay lumpy and set late and unevenly.`,
  'too-many-casts': p =>
    `A plan holds up to ${p.most} casts; this one asks for ${p.asked}. Split it into several plans.`,
  'no-mould': 'Choose at least one mould to fill.',
  'no-bucket': 'Choose the bucket you will mix in.',
  'no-powder-said': 'Say how much powder is left.',
  'no-water-said': 'Say how much water is already in the bucket.',
  'too-many-coats': p => `A piece is built in up to ${p.most} coats here.`,
  'too-little': (p, prefs) =>
    `That makes ${formatVolume(p.makes, prefs)} of mix; even “${p.mould}” takes ${formatVolume(p.takes, prefs)}.`,
  'coat-over-bucket': (p, prefs) =>
    `The largest coat of ${p.casts === 1 ? 'this cast' : `these ${p.casts} casts`} takes ${
      formatVolume(p.takes, prefs)
    } `
    + `with spare; ${holderOf(p.bucket)} holds ${formatVolume(p.holds, prefs)} with room to stir. `
    + 'Choose a larger bucket, more coats, or fewer casts in one plan.',
  'cast-over-bucket': (p, prefs) =>
    `“${p.mould}” takes ${formatVolume(p.takes, prefs)} with spare; ${holderOf(p.bucket)} holds `
    + `${formatVolume(p.holds, prefs)} with room to stir. `
    + (p.bucket === undefined ? 'Mix it in a bucket.' : 'Choose a larger bucket.'),
  'cannot-work-out': p => SETTING_PROBLEM_WORDS[p.why],
  'never-sets': 'This mix would not set within twelve hours at these temperatures. Work warmer.',
  'too-slow': p =>
    `It thickens after about ${
      formatDuration(p.pourBy, 'minute')
    }, sooner than one person can sift, soak, stir and pour `
    + 'this. Work in two, use colder water, or stir less.',
  'hot-core': (p, prefs) =>
    `The core will pass ${formatTemperature(60, prefs)} (up to about ${
      formatTemperature(Math.round(p.hottest / 5) * 5, prefs)
    } in a very thick piece). Keep skin away from it and let it cool before you open.`,
  'very-thin-cast': `${OUTSIDE}: a cast thinner than 4 mm dries before it has set; keep it covered.`,
  'very-thick-cast': `${OUTSIDE}: a cast thicker than 150 mm keeps its heat for most of a day.`,
  'opens-early': p =>
    `Too early for this mould: it is hardly strong enough to open before ${formatDurationRange(p.from, p.to)}.`,
  'coat-too-late': p =>
    `Too late to bond by itself: the gloss goes after about ${formatDuration(p.glossGone, 'minute')}. `
    + 'Pour it before that, or roughen, wet and coat the face thinly first.',
  'coarse-scale': (p, prefs) =>
    `A scale that reads to ${formatMass(p.step, prefs)} is out by up to ${formatPercent(p.out)} here. It is good to 2 % `
    + `from ${formatMass(p.least, prefs)} of powder up: mix more, or use a finer scale.`,
  'off-pack': ({ printed, ratio, strength, pourBy, sets }) => {
    const share = (x: number, more: string, less: string) => `${formatPercent(Math.abs(x))} ${x > 0 ? more : less}`
    const time = Math.abs(pourBy) < 15 ? [] : [`${formatDuration(Math.abs(pourBy))} ${pourBy > 0 ? 'more' : 'less'} to pour`]
    const told = [share(strength, 'stronger when dry', 'weaker when dry'), share(sets, 'later to set', 'sooner to set')]
    return `The bag says ${formatConsistency(printed)}. At ${formatConsistency(ratio)} it is ${listed(told)}${
      time.length > 0 ? `, with ${time.join('')}` : ''}.`
  },
  'pack-knows': 'Only the pack tells about this powder. Enter what is printed on it under Powders, and try a cup first.',
  'may-end-thin': ({ ratio, weaker, glossGone }) =>
    `By feel it may end at ${formatConsistency(ratio)}: ${formatPercent(weaker)} weaker when dry, `
    + `${formatDuration(glossGone)} later to set. What is left in the jug tells.`,
  'coarse-scoop': p => `This scoop is too big for so little: you would be ${formatPercent(p.over)} over. A smaller one fits better.`,
  'not-mixed': ({ what, mass }, prefs) => what === 'powder'
    ? `${formatMass(mass, prefs)} of the powder stays in the bag: the bucket takes no more with these moulds.`
    : `${formatMass(mass, prefs)} of the water stays out: the bucket takes no more with these moulds.`,
  'coarse-jug': p => `A jug is out by up to ${formatPercent(p.out)} here: weigh the water too.`,
  'frost-before-set': 'Below freezing it does not set, and what freezes before it resists a nail is spoilt. Bring it in.',
  'set-in-rain': 'Rain pits a face that has not set. Cover it.',
  'not-dry-here': (p, prefs) => notHereWords(p.why, prefs),
  'cloth-at-face': 'Cloth goes into a coat behind the face: its weave would print through.',
  'bare-cloth': 'Say how much of the surface the cloth covers.',
  'one-coat': 'Work in coats needs at least two.',
  'area-without-coat': 'Every area needs a thickness for every coat; 0 where it has none.',
  'bare-area': p => `“${p.area}” gets nothing in any coat. Give it a thickness or take it out.`,
  'uneven': (p, prefs) =>
    `Uneven: “${p.thickest.area}” ends ${formatFine(p.thickest.thickness, prefs)} thick, “${p.thinnest.area}” `
    + `${formatFine(p.thinnest.thickness, prefs)}. Even thickness dries without cracking.`,
  'thin-coat': (p, prefs) =>
    `A coat under ${formatFine(p.least, prefs)} on “${p.area}” dries before it sets. Lay it thicker, or all in one.`,
  'thick-coat': (p, prefs) => `A coat over ${formatFine(p.most, prefs)} sags on a slope. Split it in two.`,
  'fills-up': (p, prefs) =>
    `“${p.area}” curves with a radius of ${formatFine(p.radius, prefs)}: coats that thick fill it. Check the radius.`,
  'no-wall': 'Say how thick its wall is to be.',
  'runs-off': (p, prefs) =>
    `A coat of ${formatFine(p.each, prefs)} runs off an upright face: not more than ${formatFine(p.most, prefs)} a coat.`,
  'over-hollow': 'That is more than the mould holds: a hollow cast takes a part of it.',
  'empty-coat': 'Every coat takes something: give each a share.',
}

/** A problem in one sentence or two: what is wrong, and what to do. */
export function problemWords(problem: PlanProblem, prefs: UnitPreferences = METRIC): string {
  return sentenceOf(PROBLEMS, problem, prefs)
}

/** Why the next batch has to wait. */
export const NO_OVERLAP_WORDS: Readonly<Record<NoOverlapReason, string>> = {
  'last-batch': 'There is no bucket after it.',
  'coats': 'A coat waits for the one before it.',
  'no-soak': 'It is worked from the first water on: one bucket after the other, or two of you.',
  'soak-too-short':
    'Sifting the next bucket takes longer than this one soaks: one after the other, or two of you.',
  'thickens': 'The next bucket would thicken while this one is poured.',
  'thickens-even-so': 'Even mixed by someone else it would thicken before it can be poured.',
}

const SILICA = 'Silica dust harms the lungs for good: fitted respirator, extraction, wet clean-up, never sweep it dry.'

const CAUTIONS: Sentences<Caution, [UnitPreferences]> = {
  'skin': (c, prefs) =>
    'Never set plaster around a hand or any skin: it heats as it hardens, burns deeply and cannot be pulled off.'
    + (c.hotFor === undefined
      ? ''
      : ` Inside, this one stays above ${formatTemperature(43, prefs)} for about ${
        formatDuration(Math.round(c.hotFor / 300) * 300 || 60, 'minute')
      }.`),
  'dust': 'Mask on from opening the bag until the powder is wet.',
  'drain': 'Nothing down a drain: it sets under water.',
  'silica': SILICA,
  'glass': 'A glass mould can break in opening: gloves and eye protection.',
  'drill': 'Plug the drill into a dry, earthed supply; start and stop the paddle under the surface.',
  'sheet': 'The data sheet of your powder comes before anything said here.',
  'addition': c => ADDITION_WORDS[c.addition].caution ?? '',
  'end-use': c => END_USE_WORDS[c.endUse].caution ?? '',
}

/** A caution in one sentence. */
export const cautionWords = (caution: Caution, prefs: UnitPreferences = METRIC) => sentenceOf(CAUTIONS, caution, prefs)

export const SOAK_ADVICE_WORDS: Readonly<Record<SoakAdvice, string>> = {
  'by-feel': 'Stirred as soon as most of the water is in: there is no soak.',
  'bag': 'A bag is kneaded as soon as it is wet: soaking and stirring are one.',
  'dumped-investment': 'Dumped investment soaks for about three minutes and is stirred for two, as is custom.',
  'dumped': 'Half a minute to a minute wets dumped powder through.',
  'dumped-long': 'Dumped powder only needs half a minute to a minute; longer, and the middle of the heap sets first.',
  'dental': 'Short, as stones and dental mixes like it.',
  'dental-long': 'Stones and dental mixes are soaked for half a minute at most: they have little time to give away.',
  'short': 'Some stir at once; a minute or more of soak leaves fewer lumps and needs less stirring.',
  'long': 'Beyond about five minutes nothing more is gained; it starts to set at the bottom.',
  'usual':
    'Anything from one to three minutes is taught. Longer gives fewer lumps, less stirring and fewer bubbles, for a little of the time you have.',
}

/** Of each tool: when it fits amount and powder, and when it does not. */
const STIRRED_WITH: Readonly<Record<StirTool, { readonly fits: string, readonly not: string }>> = {
  'hand': {
    fits: 'The hand feels lumps, stirs in least air and leaves the most time.',
    not: 'By hand this much takes long and the lumps win; a drill paddle, kept under, suits it.',
  },
  'spatula': {
    fits: 'Right for a bowl, and for the tables this model is fitted to.',
    not: 'A spatula is for a bowl; take a hand or a paddle for this much.',
  },
  'whisk': { fits: '', not: 'A whisk leaves lumps in the corners and folds in air; a hand or spatula does better.' },
  'drill': {
    fits: 'For large buckets: even and quick, but sooner set. Keep the paddle under, and slow.',
    not: 'A drill is too much for so little: it sets soon and foams.',
  },
  'vacuum-mixer': {
    fits: 'The custom for dental and investment mixes: next to no air.',
    not: 'Next to no air, and the shortest time to pour.',
  },
  'kneaded-bag': {
    fits: 'Knead until no white is left, corners too. Clean hands, but lumps hide in the folds.',
    not: '',
  },
}

export function stirAdviceWords({ tool, fits, much, costs }: StirAdvice): string {
  const paid = costs === undefined
    ? ''
    : ` It costs ${formatDuration(Math.max(0, Math.round(costs / 30) * 30), costs > 300 ? 'minute' : undefined)} of the time to pour, and half as much air `
      + 'again is folded in; many never use one.'
  const words = STIRRED_WITH[tool][fits ? 'fits' : 'not'] + paid
  return much ? `${words} This much stirring sets it much sooner and makes it grow more.` : words
}

const few = (percent: number) => percent < 5 ? 'a few percent' : `${percent} %`
const WATER_ADVICE: Sentences<WaterAdvice, [UnitPreferences]> = {
  cold: a =>
    `Cold water buys time: the mix starts about ${
      few(a.percent)
    } slower than with room water. Good for large or detailed pours.`,
  warm: a =>
    `Warm water starts it about ${
      few(a.percent)
    } faster; in a cold shed that helps, at a bench it takes away time to pour.`,
  hot: (_, prefs) => `Hot water makes lumps and, past ${formatTemperature(40, prefs)}, does not even set faster.`,
  room: 'Most of the times here were measured with room-temperature water.',
}
export const waterAdviceWords = (advice: WaterAdvice, prefs: UnitPreferences = METRIC) =>
  sentenceOf(WATER_ADVICE, advice, prefs)

/** The times that are printed on a bag; nothing where none are. */
export function packWords({ working, sets }: Printed): string {
  const told = [
    ...working ? [`can be poured for ${formatDuration(working, 'minute')}`] : [],
    ...sets ? [`sets in ${formatDuration(sets, 'minute')}`] : [],
  ]
  return told.length > 0 ? `On the bag stands: ${listed(told)}. The forecast takes that in until its own pours say more.` : ''
}

/** What a known amount does to the moulds asked for: which stay empty, where there are several kinds to tell apart. */
export function emptyWords({ unfilled, empty, batches }: Pick<PlanResult, 'unfilled' | 'empty' | 'batches'>): string {
  if (unfilled === 0) return 'It fills every mould.'
  const kinds = new Set([...empty.map(e => e.name), ...batches.flatMap(b => b.fills.map(f => f.mould.name))]).size
  const which = kinds > 1 ? `: ${listed(empty.map(e => `${e.count} ${e.name}`))}` : ''
  return unfilled === 1 ? `One of the moulds stays empty${which}.` : `${unfilled} of the moulds stay empty${which}.`
}
