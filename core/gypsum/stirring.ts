import { STIR_PACE_WORDS, STIR_WORDS } from './words'
import { withWords } from '../units/sentences'
/**
 * Stirring tools: how many spatula turns a minute each is worth (engineering guess, fitted only between 20 and 200
 * turns) and the air it leaves in a mix.
 */
const STIR_FACTS = {
  'spatula': { turnsPerMinute: 110 },
  'hand': { turnsPerMinute: 60 },
  'whisk': { turnsPerMinute: 60 },
  'drill': { turnsPerMinute: 120 },
  'kneaded-bag': { turnsPerMinute: 40 },
  'vacuum-mixer': { turnsPerMinute: 350 },
} as const

export const STIR_TOOLS = withWords(STIR_FACTS, STIR_WORDS)

export type StirTool = keyof typeof STIR_FACTS

/**
 * How fast it is stirred by hand, against the brisk pace that the turns above are of: 10 to 15 turns a minute, half as
 * fast, a turn a second (common practice, no source).
 */
const PACE_FACTS = { gentle: { share: 0.2 }, steady: { share: 0.5 }, brisk: { share: 1 } } as const
export type StirPace = keyof typeof PACE_FACTS
export const STIR_PACES = withWords(PACE_FACTS, STIR_PACE_WORDS)
/** A machine has its own pace. */
export const hasPace = (tool: StirTool): boolean => tool !== 'drill' && tool !== 'vacuum-mixer'

export interface Stirring {
  readonly tool: StirTool
  readonly minutes: number
  /** By hand; brisk unless said. */
  readonly pace?: StirPace
}

/** Equivalent spatula turns of a whole stirring. */
export function turnsOf({ tool, minutes, pace = 'brisk' }: Stirring): number {
  return STIR_TOOLS[tool].turnsPerMinute * minutes * (hasPace(tool) ? STIR_PACES[pace].share : 1)
}

/** What a drill or a whisk folds in, against a hand. */
export const FOLDED_IN = 1.5

/**
 * Air left in the mix, volume share: next to none under vacuum, half as much again with a drill or a whisk, else what
 * the class keeps when stirred by hand (engineering guesses).
 */
export function stirredAir(tool: StirTool, handAir: number): number {
  if (tool === 'vacuum-mixer') return Math.min(0.003, handAir)
  return tool === 'drill' || tool === 'whisk' ? FOLDED_IN * handAir : handAir
}
