import type { TermId } from './words'

/** How each word stands in sentences; longer ways of saying it come first. Words of everyday sense are left alone. */
const FORMS: readonly (readonly [TermId, string])[] = [
  ['bag-school', 'bag and knead'],
  ['bleed', 'bleed water|bleeds?'], ['bulk', 'bulk density'], ['clay-wall', 'clay walls?'], ['cup-test', 'cup test'],
  ['dry-weight', 'bone dry'], ['expansion', 'setting expansion'], ['mask', 'dust mask'], ['needle', 'needle test'],
  ['overmix', 'over-?stirr(?:ed|ing)'], ['parting', 'parting line'], ['print', 'print in the ground'],
  ['spread', 'spread test'], ['stiff', 'too stiff'], ['waste', 'waste moulds?'], ['dead', 'dead powder'],
  ['accelerator', 'accelerators?'], ['alginate', 'alginate'], ['autoclaved', 'alpha hemihydrate'], ['beta', 'beta hemihydrate'],
  ['bloom', 'efflorescence'], ['calcined', 'calcined'], ['draft', 'draft'], ['filler', 'fillers?'], ['flash', 'flash'],
  ['gloss', 'gloss'], ['hemihydrate', 'hemihydrate'], ['islands', 'islands?'], ['jacket', 'jackets?'],
  ['pigment', 'pigments?'], ['plasticiser', 'plasticisers?'], ['retarder', 'retarders?'],
  ['slake', 'soak(?:s|ed|ing)?'], ['suction', 'suction'], ['talc', 'talc'], ['undercut', 'undercuts?'],
  ['vent', 'vents?'], ['webbing', 'web(?:s|bing)'], ['lump', 'lumps?'], ['mould-release', 'release'],
]
const ANY = new RegExp(`\\b(?:${FORMS.map(([, form]) => `(${form})`).join('|')})\\b`, 'giu')

/** A stretch of a sentence; with what it is a word for, if it is one. */
export interface Stretch { readonly text: string, readonly term?: TermId }

/**
 * A sentence, cut where words of the trade stand in it: each the first time only.
 * @example splitByTerms('Islands of dry powder').at(0) // { text: 'Islands', term: 'islands' }
 */
export function splitByTerms(sentence: string): readonly Stretch[] {
  const parts: Stretch[] = [], seen = new Set<TermId>()
  let from = 0
  for (const found of sentence.matchAll(ANY)) {
    const term = FORMS[found.slice(1).findIndex(group => group !== undefined)]![0]
    if (seen.has(term)) continue
    seen.add(term)
    if (found.index > from) parts.push({ text: sentence.slice(from, found.index) })
    parts.push({ text: found[0], term })
    from = found.index + found[0].length
  }
  if (from < sentence.length) parts.push({ text: sentence.slice(from) })
  return parts
}
