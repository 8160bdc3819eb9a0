import { DEFECT_WORDS, TROUBLE_WORDS, type DefectWords } from './words'

/** What can be wrong with a cast, in the trade's words. */
export type DefectId
  = | 'surface-bubbles'
    | 'void'
    | 'soft'
    | 'crack'
    | 'broken-edge'
    | 'torn'
    | 'stuck'
    | 'short'
    | 'lumps'
    | 'layer-line'
    | 'streaks'
    | 'flash'
    | 'warped'
    | 'efflorescence'
    | 'stain'

export interface Defect extends DefectWords { readonly id: DefectId }

/** Common practice, no source. */
const DEFECT_FACTS: readonly Omit<Defect, keyof DefectWords>[] = [
  {
    id: 'surface-bubbles',
  },
  { id: 'void' },
  { id: 'soft' },
  { id: 'crack' },
  { id: 'broken-edge' },
  { id: 'torn' },
  { id: 'stuck' },
  { id: 'short' },
  { id: 'lumps' },
  { id: 'layer-line' },
  { id: 'streaks' },
  { id: 'flash' },
  { id: 'warped' },
  { id: 'efflorescence' },
  { id: 'stain' },
]

export const DEFECTS: readonly Defect[] = DEFECT_FACTS.map(x => ({ ...x, ...DEFECT_WORDS[x.id] }))

const WORDS = new Map<string, string>(DEFECTS.map(d => [d.id, d.words]))
/** A defect in the trade's words; an id that is not known stands for itself. */
export function defectWords(id: string): string {
  return WORDS.get(id) ?? id
}

/** What can go wrong on the bench, as it is told. What to do about each: core/bench/rescue.ts. */
const TROUBLE_FACTS = [
  { id: 'too-fast' },
  { id: 'too-thick' },
  { id: 'too-thin' },
  { id: 'will-not-set' },
  { id: 'lumps' },
  { id: 'leak' },
  { id: 'short' },
  { id: 'too-much' },
  { id: 'water-on-top' },
  { id: 'open-bubbles' },
  { id: 'lost-count' },
  { id: 'bag-torn' },
  { id: 'will-not-come-out' },
  { id: 'ground-gives' },
  { id: 'frozen-in' },
  { id: 'on-skin' },
] as const

export const TROUBLES = TROUBLE_FACTS.map(x => ({ ...x, ...TROUBLE_WORDS[x.id] }))
export type TroubleId = typeof TROUBLE_FACTS[number]['id']
export const troubleWords = (id: TroubleId) => TROUBLES.find(t => t.id === id)!.words
