import type { Core } from './gauge/shells'
import type { MouldMaterial } from '../setting/body'
import { formatVolume } from '../units/format'
import { capital, sentenceOf, within, type Sentences } from '../units/sentences'
import type { UnitPreferences } from '../units/units'
import type { Gauge, Gauged, GaugeHow, GaugeProblem } from './gauge/gauge'
import { MOST_TRIANGLES, type ModelProblem, type ModelRemark } from './mesh/stl'
import type { PullVerdict } from './mesh/undercut'
import type { ScaleProblem } from './photo/photo'
import { releaseRule, type ReadyItem, type Release, type ReleaseRule } from './readiness'

/** What the readying of moulds says. */

const RELEASE_WORDS: Readonly<Record<Release, string>> = {
  'none': 'None',
  'usually-none': 'Usually none',
  'talc': 'Talc as you peel',
  'soap-or-grease': 'Soap or grease, to a shine',
  'thin-film': 'A very thin, even film',
  'seal-and-film': 'Seal, then a thin film',
  'always': 'Release, always',
}

const SUCTION = 'it does not stick, but suction holds it; every streak of jelly prints.'
const WHY: Readonly<Record<MouldMaterial, string>> = {
  'silicone': 'only silicone sticks to silicone; a release agent just leaves marks.',
  'polyurethane': 'plain plaster lets go of it; when in doubt, a breath of spray.',
  'latex': 'latex sticks to itself, not to plaster.',
  'plaster': 'plaster bonds to bare plaster for good.',
  'plastic': SUCTION,
  'glass': SUCTION,
  'metal': SUCTION,
  'wood': 'bare wood drinks water, swells and grips.',
  'clay': 'the clay comes off wet; take it out soon after set, before it dries.',
  'tray-impression': 'it lets go by itself. Rinse it, shake it dry, and pour while it still fits.',
  'thermoplastic': SUCTION,
  'soft-impression': 'it is torn away. Pour the same day, before it dries and shrinks.',
  'ground': 'the print is lifted with its soil.',
}

/** What has to lie between mould and plaster: “A very thin, even film”. */
export const releaseWords = ({ release }: ReleaseRule) => RELEASE_WORDS[release]

const whyWords = ({ release, material }: ReleaseRule) =>
  release === 'always' ? 'polymer in the mix bonds to polyurethane.' : WHY[material]

/** The rule for a material as one sentence. */
export function releaseSentence(material: MouldMaterial): string {
  const rule = releaseRule(material, { additions: [] })
  return `Release: ${within(releaseWords(rule))}; ${whyWords(rule)}`
}

const READY: Sentences<ReadyItem> = {
  'halves': ({ straps }) => {
    if (straps === 0) return 'Halves keyed and taped without stretch; not squeezed.'
    return `Halves keyed; ${straps === 1 ? 'its strap' : `all ${straps} straps`} on, snug and not squeezing.`
  },
  'ground':
    'Photographed from straight above with a ruler. Ring pressed in and sealed; at least 13 mm of plaster above the ground.',
  'tray-impression': 'Rinsed and shaken dry, held level in its tray; nothing pulls on its edges.',
  'soft-impression': 'Crumbs out. Wet, no puddle, poured today.',
  'clean': 'Clean and dry; last cast’s crumbs out of the corners.',
  'release': ({ rule }) => `${releaseWords(rule)}: ${whyWords(rule)}`,
  'cradle': 'Soft mould in its cradle.',
  'pour-hole': 'Pour hole and vents clear.',
  'torn': 'Torn before: look at the tear and its tear-stop.',
  'worn-out': 'Near the end of its expected life: inspect it, and think of the next one.',
  'thin-parts': 'Thin parts: talc or a breath of release in the tips, brush in the first coat.',
  'level': 'Level, and not to be moved again.',
}

/** One thing to look at before a mould is poured. */
export const readyWords = (item: ReadyItem) => sentenceOf(READY, item)

/** Why marks on a photo do not give a scale. */
export const SCALE_PROBLEM_WORDS: Readonly<Record<ScaleProblem, string>> = {
  'ruler-length': 'Say how long the marked piece of the ruler is.',
  'ruler-short': 'The two marks on the ruler lie too near each other. Mark as long a piece of it as you can.',
  'rectangle-size': 'Say how wide and how long the rectangle really is.',
  'corners-crossed': 'Put the four corners in order, once round the rectangle.',
  'no-rectangle': 'These four corners do not make a rectangle seen from any side.',
}

const TOO_MANY = `more than ${MOST_TRIANGLES / 1e6} million triangles. Reduce the model and try again.`
/** Why a file is no model that can be used. */
export const MODEL_PROBLEM_WORDS: Readonly<Record<ModelProblem, string>> = {
  'too-many-triangles': `This file has ${TOO_MANY}`,
  'empty-file': 'This file is empty.',
  'too-short': 'This is no STL model: it is too short to hold a triangle.',
  'no-triangle': 'This is no STL model: no triangle was found in it.',
  'no-numbers': 'None of this file’s triangles has usable numbers.',
}

const MODEL_REMARKS: Sentences<ModelRemark> = {
  'breaks-off': r => `The file breaks off: it announces ${r.claimed} triangles and holds ${r.there}.`,
  'goes-on': r =>
    `The file announces ${r.claimed} triangles and goes on after them, with room for ${r.there}; the rest was left out.`,
  'counts-none': r => `The file announces no triangles and holds ${r.there}; all of them were taken.`,
  'half-triangle': 'The file breaks off in the middle of a triangle.',
  'bad-numbers': ({ count }) =>
    `${count} ${count === 1 ? 'triangle has' : 'triangles have'} impossible numbers and ${
      count === 1 ? 'was' : 'were'
    } left out.`,
  'holes': r => `It has holes: ${r.edges} open edges. Its volume is only rough; close it in the program that made it.`,
  'touching': r =>
    `${r.edges} ${r.edges === 1 ? 'edge is' : 'edges are'} shared by four faces or more: bodies touch along there. The volume is right; printed as one, they may fuse.`,
  'crowded': r => `${r.edges} edges are shared by more than two triangles; parts may touch or overlap.`,
  'overlaps': 'Parts of it run through each other; what they share is counted once.',
  'flipped': r => `${r.edges} edges have neighbours facing opposite ways; some triangles are inside out.`,
  'inside-out': 'It is inside out as a whole; it is read the right way round.',
  'encloses-nothing': 'It encloses nothing.',
}
/** What was odd about a model. */
export const modelRemarkWords = (remark: ModelRemark) => sentenceOf(MODEL_REMARKS, remark)

const LENGTH_NAMES = ['Length', 'Width'], OUTLINE_NAMES = ['The print', 'The ring around it']
/** What a new mark in a photo is called until somebody names it. @param nth how many of its kind there are already */
export function markName(what: 'length' | 'outline', nth: number): string {
  return what === 'length' ? LENGTH_NAMES[nth] ?? `Length ${nth + 1}` : OUTLINE_NAMES[nth] ?? `Outline ${nth + 1}`
}

interface WayWords { readonly name: string, readonly tells: string }
/** Ways of gauging a mould, and how each is done. */
export const GAUGE_WORDS: Readonly<Record<GaugeHow, WayWords>> = {
  'water-weight': {
    name: 'Water on a scale',
    tells:
      'Fill it with water to where the plaster should stand, pour that onto a scale. Then let the mould drain dry.',
  },
  'water-jug': { name: 'Water in a jug', tells: 'Fill it with water and pour that into a jug.' },
  'gravel': {
    name: 'Gravel in a jug',
    tells:
      'Fill it level with fine gravel or rice and pour that into a jug: the jug reading is the volume, since the gaps are the same in both.',
  },
  'shapes': { name: 'By its measures', tells: 'As a box, cup, bowl or turned profile, or several of them stacked.' },
  'water-part': {
    name: 'By eye, with some water',
    tells: 'Pour in a known amount and judge what share of it is full.',
  },
  'model-weight': { name: 'Weigh the model', tells: 'Weight over density of what the mould was made from.' },
  'dam': {
    name: 'Ring or dam over a print',
    tells: 'The ground inside the ring, the print, and the plaster above it.',
  },
  'shell': {
    name: 'Shell or jacket',
    tells: 'What it goes around, grown outwards by its layers; carved relief has more area than its outline.',
  },
  'told': { name: 'I know it', tells: 'Told, or read off the mould.' },
  'mesh': { name: 'From its model', tells: 'The sum over its triangles.' },
  'pours': { name: 'What its pours took', tells: 'What its casts really took.' },
}

/** Why a gauge cannot be worked out, and what to say instead. */
export const GAUGE_PROBLEM_WORDS: Readonly<Record<GaugeProblem, string>> = {
  'no-water-weight': 'Say what the water weighed.',
  'not-liquid': 'Measure with liquid water you can put a hand in.',
  'no-jug': 'Say what the jug read, and how fine its marks are.',
  'no-water-part': 'Say how much water you poured in.',
  'no-share': 'The share that is full lies between a fiftieth and all of it.',
  'no-gravel': 'Say what the jug read, how coarse the gravel is and how narrow the mould gets.',
  'gravel-coarse': 'The gravel is too coarse: it bridges the narrowest part. Take grains of a tenth of it, rice or sand.',
  'no-shape': 'Add a shape.',
  'no-model-weight': 'Say what the model weighs and the range of its density.',
  'no-ring': 'Say how large the ring is and how much plaster stands above the ground.',
  'print-outside': 'The print lies inside the ring.',
  'no-shell': 'Say the area, the thickness and the layers.',
  'no-volume': 'This model has no volume.',
  'no-pours': 'No pours have told anything yet.',
  'not-told': 'Say how much it holds and how sure that is.',
  'few-corners': 'An outline needs three corners at least.',
  'outline-empty': 'This outline encloses nothing; put its corners in order, once round.',
  'outline-crosses': 'This outline crosses itself; put its corners in order, once round.',
  'no-depth': 'Say how deep it is.',
  'few-heights': 'A profile needs two heights at least.',
  'no-diameter': 'Each height needs a diameter.',
  'heights-fall': 'The heights must rise from the bottom up.',
  'profile-empty': 'This profile encloses nothing.',
  'no-measure': 'Every measure has to be more than zero.',
}

const GAUGE_BASIS: { readonly [H in GaugeHow]: string | ((g: Extract<Gauge, { readonly how: H }>) => string) } = {
  'water-weight': 'water by weight over its density; about a hundredth stays behind or overfills',
  'water-jug': 'jug reading, to its marks',
  'water-part': 'an eye judges a share to about an eighth',
  'gravel': 'gaps are alike in mould and jug; coarse grains pack looser along walls',
  'shapes': 'solid geometry, measures carried through',
  'model-weight': 'weight of the model over the range of its density',
  'dam': 'ground inside the ring times the cover, and half of the print’s outline times its depth',
  'shell': g =>
    `area times thickness${
      g.body || g.radius || g.rim ? ', grown outwards layer by layer' : ''
    }; a shell by hand is even to about a seventh`,
  'mesh': g => g.trusted ? 'sum over the triangles of a closed model' : 'a model with holes: only roughly',
  'pours': g => `what ${g.casts} ${g.casts === 1 ? 'cast' : 'casts'} really took, when nothing was left over`,
  'told': 'as told',
}
/** What the volume of a gauge stands on. */
export function gaugeBasisWords(g: Gauge): string {
  const words = GAUGE_BASIS[g.how] as string | ((gauge: Gauge) => string)
  return typeof words === 'string' ? words : words(g)
}
/** What a shell goes around. */
export const SHELL_BODY_WORDS: Readonly<Record<Core['kind'], string>> = {
  area: 'Something flat, or a curve',
  box: 'A box',
  cylinder: 'A cylinder',
  ball: 'A ball',
  dome: 'A dome on a table',
  grown: 'The model it was worked out from',
}

/** What the layers of a shell take, from the inside out. @param told each as it is written */
export function shellWords(told: readonly string[], layers: readonly number[]): string {
  if (layers.length < 2) return `It takes ${told[0] ?? 'nothing'}.`
  const more = Math.round(100 * (layers.at(-1)! / layers[0]! - 1))
  const last = more > 5 ? ` The last takes ${more} % more than the first.` : ''
  return `From the inside out: ${told.join(', ')}.${last}`
}

/** That gauges contradict each other. */
export function disagreeWords({ least, most }: NonNullable<Gauged['disagree']>, prefs: UnitPreferences): string {
  return `These do not agree: ${formatVolume(least, prefs)} against ${
    formatVolume(most, prefs)
  }. Look at the odd one again; until then the range is wide.`
}

const shareWords = (share: number) =>
  share < 0.01 ? 'next to nothing' : `${Math.round(Math.round(1000 * share) / 10)} % of its volume`
const PULL: Sentences<PullVerdict> = {
  'lets-go': 'Nothing locks: it lets go of a rigid mould.',
  'nearly-upright':
    'Nothing locks, but some walls are nearly upright: release them well, and do not wait for a rigid mould to cool tight.',
  'gives-way': ({ one }) => `${capital(shareWords(one))} is undercut this way: a flexible mould gives way.`,
  'peel-off': ({ one }) =>
    `${capital(shareWords(one))} is undercut this way: peel it off like a sleeve, or cut the mould.`,
  'two-halves': ({ one }) =>
    `${capital(shareWords(one))} is undercut this way: in one rigid piece it locks; two opposite halves let go.`,
  'still-locks': ({ one, two }) =>
    `${capital(shareWords(one))} is undercut this way, and two halves still lock ${
      shareWords(two)
    }: use a flexible mould, or more parts.`,
}
/** How a piece lets go of its mould. */
export const pullWords = (verdict: PullVerdict) => sentenceOf(PULL, verdict)
