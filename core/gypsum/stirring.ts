import { STIR_WORDS } from './words'
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

export interface Stirring {
  readonly tool: StirTool
  readonly minutes: number
}

/** Equivalent spatula turns of a whole stirring. */
export function turnsOf({ tool, minutes }: Stirring): number {
  return STIR_TOOLS[tool].turnsPerMinute * minutes
}

/**
 * Air left in the mix, volume share: next to none under vacuum, else what the class keeps when stirred by hand
 * (engineering guess).
 */
export function stirredAir(tool: StirTool, handAir: number): number {
  return tool === 'vacuum-mixer' ? Math.min(0.003, handAir) : handAir
}
