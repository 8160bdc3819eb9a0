import type { MouldMaterial } from '../setting/body'
import { sentenceOf, within, type Sentences } from '../units/sentences'
import { MOST_TRIANGLES, type ModelProblem, type ModelRemark } from './mesh/stl'
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
  'silicone': 'nothing sticks to silicone but silicone; a release only prints.',
  'polyurethane': 'plain plaster lets go of it; when in doubt, a breath of spray.',
  'latex': 'latex sticks to itself, not to plaster.',
  'plaster': 'plaster bonds to bare plaster for good.',
  'plastic': SUCTION,
  'glass': SUCTION,
  'metal': SUCTION,
  'wood': 'bare wood drinks water, swells and grips.',
  'clay': 'the clay comes off wet; take it out soon after set, before it dries.',
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
  'soft-impression': 'Crumbs out. Wet, no puddle, poured today.',
  'clean': 'Clean and dry; last cast’s crumbs out of the corners.',
  'release': ({ rule }) => `${releaseWords(rule)}: ${whyWords(rule)}`,
  'cradle': 'Soft mould in its cradle.',
  'pour-hole': 'Pour hole and vents clear.',
  'torn': 'Torn before: look at the tear and its tear-stop.',
  'worn-out': 'Near the end of its expected life: look it over, and think of the next.',
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
  'goes-on': 'The file goes on after its last triangle; the rest was left out.',
  'half-triangle': 'The file breaks off in the middle of a triangle.',
  'bad-numbers': ({ count }) =>
    `${count} ${count === 1 ? 'triangle has' : 'triangles have'} impossible numbers and ${
      count === 1 ? 'was' : 'were'
    } left out.`,
  'holes': r => `It has holes: ${r.edges} open edges. Its volume is only rough; close it in the program that made it.`,
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
