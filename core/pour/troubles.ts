import { TROUBLE_WORDS } from './words'
/** What can go wrong on the bench, as it is told. What to do about each: rescue. */
const TROUBLE_FACTS = [
  { id: 'too-fast' },
  { id: 'will-not-set' },
  { id: 'lumps' },
  { id: 'leak' },
  { id: 'short' },
  { id: 'water-on-top' },
  { id: 'frozen-in' },
  { id: 'on-skin' },
] as const

export const TROUBLES = TROUBLE_FACTS.map(x => ({ ...x, ...TROUBLE_WORDS[x.id] }))
export type TroubleId = typeof TROUBLE_FACTS[number]['id']
export const troubleWords = (id: TroubleId) => TROUBLES.find(t => t.id === id)!.words
