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

export interface Defect { readonly id: DefectId, readonly words: string, readonly looks: string }

/** Common practice, no source. */
export const DEFECTS: readonly Defect[] = [
  {
    id: 'surface-bubbles',
    words: 'Bubbles on the face',
    looks: 'Pinholes or round pits on the face that lay against the mould.',
  },
  { id: 'void', words: 'Trapped air', looks: 'A missing corner or hollow where air could not leave.' },
  { id: 'soft', words: 'Soft or chalky', looks: 'Rubs off, scratches with a nail long after set.' },
  { id: 'crack', words: 'Crack', looks: 'A line right through or across.' },
  { id: 'broken-edge', words: 'Broken in opening', looks: 'A thin part or an edge snapped off.' },
  { id: 'torn', words: 'Torn detail', looks: 'Detail stayed behind in the mould.' },
  { id: 'stuck', words: 'Stuck to the mould', looks: 'Had to be forced; skin or release came with it.' },
  { id: 'short', words: 'Not filled', looks: 'The mix ran out or stiffened before the mould was full.' },
  { id: 'lumps', words: 'Lumps', looks: 'Dry specks or lumps in the body.' },
  { id: 'layer-line', words: 'Layer line', looks: 'Two coats did not knit; a line or a shell comes away.' },
  { id: 'streaks', words: 'Streaks', looks: 'Prints of brush marks, release or uneven colour.' },
  { id: 'flash', words: 'Flash or leak', looks: 'A fin along a seam; mix that crept out.' },
  { id: 'warped', words: 'Warped', looks: 'Not flat or not true any more.' },
  { id: 'efflorescence', words: 'White bloom', looks: 'Salts as a powdery bloom after drying.' },
  { id: 'stain', words: 'Stain', looks: 'Colour from mould, release, rust or mildew.' },
]

const WORDS = new Map<string, string>(DEFECTS.map(d => [d.id, d.words]))
/** A defect in the trade's words; an id that is not known stands for itself. */
export function defectWords(id: string): string {
  return WORDS.get(id) ?? id
}
