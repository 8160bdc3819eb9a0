import type { GroundId } from './words'

/** What a figure stands on: told when somebody asks. Sentences: words.ts. */

/** How sure a figure is: worked out from first principles, from a law fitted to few points, or custom. */
export type Sure = 'well' | 'fairly' | 'roughly'

export const GROUNDS: Readonly<Record<GroundId, Sure>> = {
  'steps': 'roughly',
  'pour-by': 'fairly',
  'tap-until': 'roughly',
  'gloss': 'fairly',
  'warmest': 'fairly',
  'open': 'roughly',
  'dry': 'roughly',
  'ratio': 'well',
  'amounts': 'well',
  'late': 'roughly',
  'drinks': 'roughly',
  'cost': 'well',
  'water-left': 'fairly',
  'bag-speed': 'fairly',
  'bulk': 'well',
  'gauged': 'well',
  'told': 'roughly',
  'holds': 'well',
  'weight': 'well',
  'growth': 'roughly',
  'good-share': 'well',
  'chart': 'fairly',
  'wear': 'roughly',
  'overlap': 'roughly',
  'mesh': 'well',
  'pocket': 'well',
  'locked': 'well',
  'job-step': 'roughly',
  'order-out': 'roughly',
  'order-sure': 'roughly',
  'order-soonest': 'well',
}
