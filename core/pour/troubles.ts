/** What can go wrong on the bench, as it is told. What to do about each: rescue. */
export const TROUBLES = [
  { id: 'too-fast', words: 'It sets too fast' },
  { id: 'will-not-set', words: 'It will not set' },
  { id: 'lumps', words: 'Lumps' },
  { id: 'leak', words: 'It leaks' },
  { id: 'short', words: 'Not enough mix' },
  { id: 'water-on-top', words: 'Water stands on it' },
  { id: 'frozen-in', words: 'The print is frozen in' },
  { id: 'on-skin', words: 'It is on skin or in an eye' },
] as const
export type TroubleId = typeof TROUBLES[number]['id']
export const troubleWords = (id: TroubleId) => TROUBLES.find(t => t.id === id)!.words
