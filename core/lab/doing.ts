import type { DoingId } from '../gypsum/saying/doing'
import { dumpedSooner } from '../plan/batches/pace'
import { GROUNDS, type Sure } from '../setting/grounds'
import { centreMoments, type MomentsInput } from '../setting/moments'
import { characterOf } from '../setting/bag-character'
import { Z80, type Celsius, type Kilograms, type Seconds } from '../units/quantity'
import type { LabCentre } from './mix'

/** Sayings about doing, judged by the model for a mix or a plan: true, partly or not, and what it moves. */

/** What a saying is judged for. */
export interface InHand {
  readonly input: MomentsInput
  /** Powder of one batch, of its largest; a usual bucket's where none is planned. */
  readonly powder?: Kilograms
}

export type Truth = 'true' | 'partly' | 'not'
/** A time that is moved, with the range of what is known of its bag's speed. */
export interface Moved { readonly value: Seconds, readonly low: Seconds, readonly high: Seconds }
type Outcome
  = | { readonly code: 'starts-when-stirred', readonly waited: Seconds, readonly later: Moved }
    | { readonly code: 'over-mixed', readonly minutes: number, readonly sooner: Moved, readonly strength: number }
    | { readonly code: 'tap-while-sifting' }
    | { readonly code: 'never-dump', readonly powder: Kilograms, readonly saved: Seconds, readonly together: boolean }
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

type Judged = InHand & {
  readonly now: LabCentre
  readonly changed: (change: Partial<MomentsInput>) => LabCentre
  readonly moved: (value: Seconds) => Moved
}
function judgedOf(inHand: InHand): Judged {
  const { input } = inHand, by = Math.exp(Z80 * characterOf(input).root[0])
  // All times go with one over a bag's speed.
  const moved = (value: Seconds): Moved => {
    const ends = [value / by, value * by]
    return { value, low: Math.min(...ends), high: Math.max(...ends) }
  }
  return { ...inHand, now: centreMoments(input), changed: change => centreMoments({ ...input, ...change }), moved }
}

const JUDGES: { readonly [K in DoingId]: (judged: Judged) => DoingVerdict } = {
  'starts-when-stirred': ({ input: { stirFrom = 0 }, now, changed, moved }) => {
    const later = changed({ stirFrom: stirFrom + WAITED }).glossGone - now.glossGone, share = later / WAITED
    const truth = share > 0.8 ? 'true' : share > 0.25 ? 'partly' : 'not'
    return { code: 'starts-when-stirred', truth, sure: GROUNDS.gloss, waited: WAITED, later: moved(later) }
  },
  'over-mixed': ({ input: { stir }, now, changed, moved }) => {
    const minutes = Math.max(OVER_LEAST, OVER * stir.minutes), over = changed({ stir: { ...stir, minutes } })
    const sooner = moved(now.glossGone - over.glossGone), strength = over.dryStrength / now.dryStrength - 1
    const truth = sooner.value > 0 ? 'not' : 'partly'
    return { code: 'over-mixed', truth, sure: GROUNDS.gloss, minutes, sooner, strength }
  },
  'tap-while-sifting': () => ({ code: 'tap-while-sifting', truth: 'partly', sure: 'roughly' }),
  'never-dump': ({ input, powder = USUAL_POWDER }) => {
    const together = input.powder.family === 'investment'
    return {
      code: 'never-dump', truth: together ? 'not' : 'partly', sure: 'roughly', powder, saved: dumpedSooner(powder), together,
    }
  },
  'hot-water': ({ now, changed, moved }) => {
    const hot = changed({ waterTemperature: HOT })
    const sooner = now.glossGone - hot.glossGone, pours = moved(now.pourBy - hot.pourBy)
    const share = sooner / now.glossGone, truth = share > 0.15 ? 'true' : share > 0 ? 'partly' : 'not'
    return { code: 'hot-water', truth, sure: GROUNDS.gloss, celsius: HOT, sooner: moved(sooner), pours }
  },
  'machine': ({ input: { stir }, now, changed, moved }) => {
    const [drill, hand] = (['drill', 'hand'] as const).map(tool =>
      tool === stir.tool ? now : changed({ stir: { ...stir, tool } })) as [LabCentre, LabCentre]
    const sooner = moved(hand.glossGone - drill.glossGone), pours = moved(hand.pourBy - drill.pourBy)
    const truth = sooner.value > 0.1 * hand.glossGone ? 'not' : 'partly'
    return { code: 'machine', truth, sure: GROUNDS.gloss, sooner, pours }
  },
  'warm-is-done': ({ now, moved }) => {
    const after = moved(now.open - now.warmest)
    const truth = after.value <= 0 ? 'true' : after.value < now.warmest ? 'partly' : 'not'
    return { code: 'warm-is-done', truth, sure: GROUNDS.open, warmest: now.warmest, after }
  },
}

/**
 * A saying about doing, with a mix or a plan in hand.
 * @returns whether it holds, how sure that is, and what following it moves
 */
export function judgeDoing(id: DoingId, inHand: InHand): DoingVerdict {
  return JUDGES[id](judgedOf(inHand))
}
