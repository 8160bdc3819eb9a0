import type { DoingId } from '../gypsum/saying/doing'
import { powderClass } from '../gypsum/powders'
import { dumpedSooner } from '../plan/batches/pace'
import { GROUNDS, type Sure } from '../setting/grounds'
import { centreMoments } from '../setting/moments'
import { classRateSd } from '../setting/bag-character'
import { Z80, type Celsius, type Seconds } from '../units/quantity'
import { labInput, type LabCentre, type LabMix } from './mix'

/** Sayings about doing, judged by the model for a mix: true, partly or not, and what it moves. */

export type Truth = 'true' | 'partly' | 'not'
/** A time that is moved, with the range of a bag that nobody has measured. */
export interface Moved { readonly value: Seconds, readonly low: Seconds, readonly high: Seconds }
type Outcome
  = | { readonly code: 'starts-when-stirred', readonly waited: Seconds, readonly later: Moved }
    | { readonly code: 'over-mixed', readonly minutes: number, readonly sooner: Moved, readonly strength: number }
    | { readonly code: 'tap-while-sifting' }
    | { readonly code: 'never-dump', readonly saved: Seconds, readonly together: boolean }
    | { readonly code: 'hot-water', readonly celsius: Celsius, readonly sooner: Moved, readonly pours: Moved }
    | { readonly code: 'machine', readonly sooner: Moved, readonly pours: Moved }
    | { readonly code: 'warm-is-done', readonly warmest: Seconds, readonly after: Moved }
export type DoingVerdict = Outcome & { readonly truth: Truth, readonly sure: Sure }

/** Waited longer before the first stir, s; water that is called hot, degC. */
const WAITED: Seconds = 120, HOT: Celsius = 40
/** Stirred so much longer, at least so many minutes. */
const OVER = 4, OVER_LEAST = 8
/** Powder that a usual bucket gets, kg. */
const USUAL_POWDER = 1

/** All times go with one over a bag's speed. */
function moved(value: Seconds): Moved {
  const by = Math.exp(Z80 * classRateSd(false)), ends = [value / by, value * by]
  return { value, low: Math.min(...ends), high: Math.max(...ends) }
}
const centreOf = (mix: LabMix, change: Partial<LabMix> = {}): LabCentre =>
  centreMoments(labInput({ ...mix, ...change }))

const JUDGES: { readonly [K in DoingId]: (mix: LabMix, now: LabCentre) => DoingVerdict } = {
  'starts-when-stirred': (mix, now) => {
    const later = centreOf(mix, { soak: mix.soak + WAITED }).glossGone - now.glossGone, share = later / WAITED
    const truth = share > 0.8 ? 'true' : share > 0.25 ? 'partly' : 'not'
    return { code: 'starts-when-stirred', truth, sure: GROUNDS.gloss, waited: WAITED, later: moved(later) }
  },
  'over-mixed': (mix, now) => {
    const minutes = Math.max(OVER_LEAST, OVER * mix.stir.minutes)
    const over = centreOf(mix, { stir: { ...mix.stir, minutes } })
    const sooner = moved(now.glossGone - over.glossGone), strength = over.dryStrength / now.dryStrength - 1
    const truth = sooner.value > 0 ? 'not' : 'partly'
    return { code: 'over-mixed', truth, sure: GROUNDS.gloss, minutes, sooner, strength }
  },
  'tap-while-sifting': () => ({ code: 'tap-while-sifting', truth: 'partly', sure: 'roughly' }),
  'never-dump': (mix) => {
    const together = powderClass(mix.classId).family === 'investment'
    const saved = dumpedSooner(USUAL_POWDER)
    return { code: 'never-dump', truth: together ? 'not' : 'partly', sure: 'roughly', saved, together }
  },
  'hot-water': (mix, now) => {
    const hot = centreOf(mix, { waterTemperature: HOT })
    const sooner = now.glossGone - hot.glossGone, pours = moved(now.pourBy - hot.pourBy)
    const share = sooner / now.glossGone, truth = share > 0.15 ? 'true' : share > 0 ? 'partly' : 'not'
    return { code: 'hot-water', truth, sure: GROUNDS.gloss, celsius: HOT, sooner: moved(sooner), pours }
  },
  'machine': (mix, now) => {
    const [drill, hand] = (['drill', 'hand'] as const).map(tool =>
      tool === mix.stir.tool ? now : centreOf(mix, { stir: { ...mix.stir, tool } })) as [LabCentre, LabCentre]
    const sooner = moved(hand.glossGone - drill.glossGone), pours = moved(hand.pourBy - drill.pourBy)
    const truth = sooner.value > 0.1 * hand.glossGone ? 'not' : 'partly'
    return { code: 'machine', truth, sure: GROUNDS.gloss, sooner, pours }
  },
  'warm-is-done': (_, now) => {
    const after = moved(now.open - now.warmest)
    const truth = after.value <= 0 ? 'true' : after.value < now.warmest ? 'partly' : 'not'
    return { code: 'warm-is-done', truth, sure: GROUNDS.open, warmest: now.warmest, after }
  },
}

/**
 * A saying about doing, with a mix in hand.
 * @returns whether it holds, how sure that is, and what following it moves
 */
export function judgeDoing(id: DoingId, mix: LabMix): DoingVerdict {
  return JUDGES[id](mix, centreOf(mix))
}
