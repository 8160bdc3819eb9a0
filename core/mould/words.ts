import type { MouldMaterial } from '../setting/body'
import { sentenceOf, within, type Sentences } from '../units/sentences'
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
