import type { PlaceId } from './cast'
import type { SteadyCode } from './weighings'

/** Where a cast stands. */
interface PlaceWords {
  readonly name: string
}

export const PLACE_WORDS: Readonly<Record<PlaceId, PlaceWords>> = {
  mould: {
    name: 'Still in its mould, one face free',
  },
  board: {
    name: 'Flat on a board',
  },
  rack: {
    name: 'On a rack, air all round',
  },
  fan: {
    name: 'On a rack before a fan',
  },
  cabinet: {
    name: 'In a drying cabinet',
  },
  sun: {
    name: 'In the sun',
  },
  ground: {
    name: 'On the ground, face up',
  },
  damp: {
    name: 'Kept damp, wrapped',
  },
}

/** Whether its weight is constant, and what that means. */
export const STEADY_WORDS: Readonly<Record<SteadyCode, string>> = {
  'losing': 'It still loses weight.',
  'near-dry': 'Its weight is constant, and near what it comes to without free water.',
  'air-would-take': 'Its weight is constant in air that would take more.',
  'full-of-water':
    'Its weight is constant, but it is still full of water: this air takes none. Bring it somewhere warm and dry.',
}
