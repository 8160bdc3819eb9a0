import type { Driving } from '../setting/flow'
import { withWords } from '../units/sentences'
import { BUBBLE_WAY_WORDS } from './step-words'

/** How bubbles are driven out of a plan's casts: tapped unless said. A brush wets the face and leaves all else. */
const BUBBLE_WAY_FACTS = {
  tap: { driving: 'tapped' },
  brush: { driving: 'none' },
  table: { driving: 'vibrated' },
} as const satisfies Record<string, { readonly driving: Driving }>

export type BubbleWay = keyof typeof BUBBLE_WAY_FACTS
export const BUBBLE_WAYS = withWords(BUBBLE_WAY_FACTS, BUBBLE_WAY_WORDS)
