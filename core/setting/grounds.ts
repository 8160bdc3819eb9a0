import type { GroundId } from './words'

/** What a figure of a plan stands on: told when somebody asks. Sentences: words.ts. */

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
}
