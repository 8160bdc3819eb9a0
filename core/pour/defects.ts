import { DEFECT_WORDS, type DefectWords } from './words'
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
