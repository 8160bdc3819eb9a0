import type { PlaceId } from './cast'

/** Where a cast stands. */
export interface PlaceWords {
  readonly name: string
}

export const PLACE_WORDS: Readonly<Record<PlaceId, PlaceWords>> = {
  'mould': {
    name: 'Still in its mould, one face free',
  },
  'board': {
    name: 'Flat on a board',
  },
  'rack': {
    name: 'On a rack, air all round',
  },
  'fan': {
    name: 'On a rack before a fan',
  },
  'cabinet': {
    name: 'In a drying cabinet',
  },
  'sun': {
    name: 'In the sun',
  },
  'ground': {
    name: 'On the ground, face up',
  },
  'damp': {
    name: 'Kept damp, wrapped',
  },
}
