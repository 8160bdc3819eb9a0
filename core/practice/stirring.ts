import { STIR_TOOLS, stirredAir, type StirTool } from '../gypsum/stirring'
import { contentsOf, TICK, type Bucket, type Place } from './bucket'
import type { SettingMix } from '../setting/setting-mix'
import type { Vigour } from './types'

/**
 * What a hand does in the mix: lumps go, seeds are made, air is drawn in, and a mix that is stirred on while it
 * stiffens is spoilt. Engineering guesses; their directions are common practice, no source.
 */

/** How well a tool breaks lumps, what share of them it does not reach, the air it draws in, and litres it reaches. */
const TOOLS: Readonly<Record<StirTool, { lumps: number, missed: number, air: number, reach: number }>> = {
  'hand': { lumps: 1.3, missed: 0, air: 1, reach: 4 },
  'spatula': { lumps: 1.3, missed: 0.001, air: 1, reach: 2 },
  'whisk': { lumps: 1, missed: 0.06, air: 2.6, reach: 2 },
  'drill': { lumps: 1.6, missed: 0.002, air: 1.3, reach: 8 },
  'kneaded-bag': { lumps: 1.5, missed: 0.001, air: 1, reach: 1.5 },
  'vacuum-mixer': { lumps: 2, missed: 0.0005, air: 1, reach: 2 },
}
const VIGOUR: Readonly<Record<Vigour, { turns: number, lumps: number, air: number }>> = {
  1: { turns: 1, lumps: 1, air: 1 }, 2: { turns: 1.7, lumps: 1.3, air: 1.5 }, 3: { turns: 2.5, lumps: 1.5, air: 2.4 },
}
/** Above the surface; the most air there is, and how soon it comes to that, s. */
const ABOVE = 2.2, MOST_AIR = 0.2, AIR_COMES = 40
/** Lumps of each size take so long under a hand, s (times or over 1.6). */
const BREAKS = [15, 30, 60] as const
/** Stirred beyond so much of the way to lost gloss it is spoilt: strength by so many seconds, at most half. */
const SPOILT_FROM = 0.75, SPOILT_BY = 400, SPOILT_MOST = 0.5
/** Streaks are gone after so many turns. */
const EVEN_TURNS = 25
/** Tapping the bucket brings the air towards this share of a hand's, while it flows. */
const TAPPED_AIR = 0.7, TAPPED_TAU = 20

export interface Stroke { readonly tool: StirTool, readonly vigour: Vigour, readonly above?: boolean | undefined }

/** Half a second of stirring. The first stroke has mixed the bed already (`stirUnder`). */
export function stir(place: Place, b: Bucket, { tool, vigour, above }: Stroke, mix: SettingMix): void {
  const facts = TOOLS[tool], how = VIGOUR[vigour], litres = Math.max(0.05, 1000 * contentsOf(place, b))
  b.tool = tool
  b.stirred += TICK
  b.turns += STIR_TOOLS[tool].turnsPerMinute / 60 * how.turns * TICK
  const reached = Math.sqrt(Math.min(1, facts.reach / litres))
  for (const [i, tau] of BREAKS.entries()) {
    const missed = Math.max(b.missed[i]!, facts.missed * b.lumps[i]! * TICK / AIR_COMES)
    b.missed[i] = Math.min(b.lumps[i]!, missed)
    const soft = b.lumps[i]! - b.missed[i]!
    const gone = soft * -Math.expm1(-TICK * facts.lumps * how.lumps * reached / tau)
    b.lumps[i]! -= gone
    b.mixed += gone
  }
  const { handAir } = place.powder
  const hand = tool === 'vacuum-mixer' ? stirredAir(tool, handAir) : handAir * facts.air
  const to = Math.min(MOST_AIR, hand * how.air * (above ? ABOVE : 1))
  b.air += (to - b.air) * -Math.expm1(-TICK / AIR_COMES)
  const way = b.alpha[0]! / mix.alphaSet
  if (way > SPOILT_FROM) b.overworked += TICK * how.turns
}

/** Half a second of tapping the bucket. @param flows share of the mix that flows, over its viscosity */
export function tapBucket(place: Place, b: Bucket, flows: number): void {
  const to = TAPPED_AIR * place.powder.handAir
  if (b.air > to) b.air += (to - b.air) * -Math.expm1(-TICK * Math.min(1, flows) / TAPPED_TAU)
}

export const spoiltBy = ({ overworked }: Pick<Bucket, 'overworked'>): number =>
  Math.max(SPOILT_MOST, Math.exp(-overworked / SPOILT_BY))
/** How evenly it is mixed: under nine tenths it has streaks. */
export const STREAKY = 0.9
export const evenness = ({ turns }: Pick<Bucket, 'turns'>): number => -Math.expm1(-turns / EVEN_TURNS)
