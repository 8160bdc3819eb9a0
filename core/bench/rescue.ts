import { solveMix } from '../gypsum/mix'
import { powderClass } from '../gypsum/powders'
import type { CastState, BatchState, PourState } from '../pour/fold'
import type { Instant } from '../pour/events'
import { TROUBLES, type TroubleId } from '../pour/defects'
import { momentsInput } from '../plan/moments-input'
import { powderOf, type FrozenRun } from '../plan/run'
import type { Stage } from '../plan/stages'
import type { Batch, MouldFacts } from '../plan/types'
import { centreMoments, type Moments } from '../setting/moments'
import { MOULD_MATERIALS } from '../setting/body'
import type { Celsius, CubicMetres, Kilograms, Metres, Seconds, WaterRatio } from '../units/quantity'

/**
 * When it goes wrong: the best thing to do now, from the state of this pour. Common practice, no source, but where
 * numbers are worked out. Sentences: words.ts.
 */

export interface Amounts {
  readonly water: Kilograms
  readonly powder: Kilograms
}

/** One thing to do. Times are seconds, after wetting where they are a moment. */
export type Act
  = | {
    readonly code:
      | 'leave-it'
      | 'stop-thick'
      | 'bin-the-rest'
      | 'stop-stirring'
      | 'pour-what-flows'
      | 'keep-still'
      | 'warm-it'
  }
  | { readonly code: 'open-by-touch', readonly from: Seconds }
  | { readonly code: 'fill-in-order', readonly casts: readonly string[] }
  | { readonly code: 'time-left', readonly low: Seconds, readonly high: Seconds }
  | { readonly code: 'colder-water', readonly gains: Seconds }
  | { readonly code: 'wait-for-gloss', readonly latest: Seconds, readonly left: Seconds }
  | { readonly code: 'look-again' | 'once-longer', readonly lost: Seconds }
  | { readonly code: 'sieve' | 'press-lumps-back' | 'soak-longer' | 'crush-lumps' | 'lift-dry-out' }
  | { readonly code: 'hold-leak' | 'press-leak' | 'leak-uppermost' | 'top-up' | 'note-leak' | 'say-missing' }
  | { readonly code: 'mix-now', readonly mix: Amounts, readonly volume: CubicMetres }
  | { readonly code: 'pour-within', readonly time: Seconds }
  | { readonly code: 'roughen-face' }
  | { readonly code: 'mix-later', readonly mix: Amounts }
  | { readonly code: 'pour-off' | 'expect-soft' | 'draw-off' | 'close-surface' | 'thicker-next' }
  | { readonly code: 'keep-to-ratio', readonly planned: WaterRatio, readonly ratio: WaterRatio }
  | {
    readonly code:
      | 'work-it-in' | 'keep-moving' | 'next-thinner' | 'let-it-thicken' | 'stir-it-up'
      | 'tap-open-face' | 'mist-open-face' | 'blow-open-face' | 'prick-open-face' | 'leave-open-face'
      | 'spare-moulds' | 'note-left-over' | 'set-in-bucket'
      | 'tare-again' | 'weigh-the-bucket' | 'go-by-islands' | 'note-unsure'
      | 'mask-and-still' | 'second-bag' | 'weigh-again' | 'damp-wipe'
      | 'wait-longer' | 'break-seal' | 'flex-off' | 'air-in' | 'tap-out' | 'cut-it-free' | 'wet-clay-off' | 'split-mould'
      | 'clear-ring' | 'undercut' | 'warm-indoors'
      | 'pack-outside' | 'board-the-ring' | 'pour-low' | 'stop-and-set'
  }
  | { readonly code: 'weigh-mix', readonly mix: Amounts }
  | { readonly code: 'by-the-line', readonly water: Metres, readonly full: Metres }
  | {
    readonly code: 'lift-with-soil' | 'leave-in-mould' | 'thaw' | 'dry-slowly' | 'rinse-eye' | 'free-skin' | 'cool-burn'
  }

export type RescueReason
  = | {
    readonly code: 'set-is-set' | 'stirring-seeds' | 'within-range' | 'usual-dead' | 'stirring-costs' | 'wet-through'
  }
  | { readonly code: 'likely', readonly because: readonly NotSetting[] }
  | {
    readonly code:
      | 'blocks-itself'
      | 'still-thin'
      | 'mix-depends'
      | 'knits'
      | 'only-rough'
      | 'powder-settles'
      | 'ice-holds'
      | 'thick-already'
      | 'thin-is-weak'
      | 'skin-of-air'
      | 'sets-anyway'
      | 'islands-know'
      | 'dust-harms'
      | 'seal-holds'
      | 'undercut-holds'
      | 'only-once'
      | 'soil-flows'
  }
  | { readonly code: 'more-water-than-held', readonly ratio: WaterRatio }
  | { readonly code: 'burns', readonly warmest: Celsius, readonly at: Seconds }

/** What keeps a mix from setting, as far as its record tells. */
export type NotSetting
  = | { readonly code: 'thin', readonly ratio: WaterRatio, readonly planned: WaterRatio }
    | { readonly code: 'cold' | 'retarder' | 'doubtful-bag' }

export type Never
  = | 'no-water'
    | 'no-sprinkling'
    | 'no-whisk'
    | 'no-squeezing'
    | 'no-thinning'
    | 'no-dry-powder'
    | 'no-boiling'
    | 'no-waiting'
    | 'no-levering'
    | 'no-leaning'
    | 'no-drain'
    | 'no-guessing'
    | 'no-sweeping'
    | 'no-deep-pricking'

export interface Advice {
  /** What to do, in order; the first is for now. */
  readonly steps: readonly Act[]
  readonly why: RescueReason
  /** What makes it worse. */
  readonly never?: Never
  /** Water and powder of a further mix, when one helps. */
  readonly mix?: Amounts
}

/** A tenth more than is missing. */
const SPARE = 1.1
/** A small mix is all in, wetted and stirred in about this (engineering guess). */
const QUICK_MIX: Seconds = 180

interface Told {
  readonly now: Instant
  readonly batch: number
  /** How much is missing, m3; what the unfilled moulds still take unless it is said. */
  readonly missing?: CubicMetres
}

/** What advice is given from. */
interface Case {
  readonly run: FrozenRun
  readonly batch: BatchState
  readonly planned: Batch
  /** Moments of the mould that takes longest. */
  readonly moments: Moments
  readonly unfilled: readonly CastState[]
  readonly ratio: WaterRatio
  readonly stage?: Stage
  /** Seconds since powder met water. */
  readonly wetFor?: Seconds
  readonly missing?: CubicMetres
}

function slowestMould(run: FrozenRun, { fills }: Batch): MouldFacts {
  return fills.map(f => f.mould).reduce((a, m) => run.moments[m.id]!.open.from > run.moments[a.id]!.open.from ? m : a)
}

function caseOf(run: FrozenRun, state: PourState, { now, batch: b, missing }: Told): Case {
  const batch = state.batches[b]!, planned = run.batches[b]!
  return {
    run,
    batch,
    planned,
    missing,
    moments: run.moments[slowestMould(run, planned).id]!,
    unfilled: state.casts.filter(c => c.cast.batch === b && c.filledAt === undefined),
    ratio: batch.ratio ?? run.ratio.value,
    stage: state.steps[batch.step ?? state.step]?.stage,
    wetFor: batch.wetAt === undefined ? undefined : (now - batch.wetAt) / 1000,
  }
}

const inBucket = ({ stage }: Case) => stage === 'sift' || stage === 'soak' || stage === 'stir' || stage === 'fill'
const pastMoment = ({ wetFor }: Case, at: Seconds) => wetFor !== undefined && wetFor > at
/** To the nearest five seconds, and nothing below nothing. */
const leftUntil = ({ wetFor = 0 }: Case, at: Seconds) => Math.max(0, Math.round((at - wetFor) / 5) * 5)

/** How much longer cold water would leave it, when that is worth saying. */
function colderWater(run: FrozenRun): readonly Act[] {
  const powder = powderOf(run), mould = run.world.moulds[0]
  if (!mould || run.plan.waterTemperature < 13) return []
  const pourBy = (waterTemperature: Celsius) =>
    centreMoments({
      ...momentsInput({ ...run.plan, waterTemperature }, run.ratio, mould, QUICK_MIX, run.world),
      powder,
    }).pourBy
  const gains = pourBy(10) - pourBy(run.plan.waterTemperature)
  return gains > 20 ? [{ code: 'colder-water', gains }] : []
}

function tooFast(c: Case): Advice {
  const next = colderWater(c.run)
  if (!inBucket(c))
    return {
      steps: [{ code: 'leave-it' }, { code: 'open-by-touch', from: c.moments.openEarliest.low }, ...next],
      why: { code: 'set-is-set' },
    }
  const { pourBy } = c.moments
  const fill: Act = c.unfilled.length > 0
    ? { code: 'fill-in-order', casts: c.unfilled.slice(0, 3).map(x => x.cast.label) }
    : { code: 'pour-what-flows' }
  const left: readonly Act[] = c.wetFor === undefined
    ? []
    : [{ code: 'time-left', low: leftUntil(c, pourBy.low), high: leftUntil(c, pourBy.high) }]
  return {
    steps: pastMoment(c, pourBy.value)
      ? [{ code: 'stop-thick' }, { code: 'bin-the-rest' }, ...next]
      : [{ code: 'stop-stirring' }, fill, ...left, ...next],
    why: { code: 'stirring-seeds' },
    never: 'no-water',
  }
}

function reasonsNotToSet({ run, ratio }: Case): readonly NotSetting[] {
  const { plan } = run, retards = plan.additions.some(a => (a.id === 'citrate' || a.id === 'borax') && a.share > 0)
  return [
    ...ratio > run.ratio.value * 1.05 ? [{ code: 'thin', ratio, planned: run.ratio.value } as const] : [],
    ...plan.roomTemperature < 12 || plan.waterTemperature < 10 ? [{ code: 'cold' } as const] : [],
    ...retards ? [{ code: 'retarder' } as const] : [],
    ...run.world.bag?.uncertain ? [{ code: 'doubtful-bag' } as const] : [],
  ]
}

function willNotSet(c: Case): Advice {
  const latest = c.moments.glossGone.high
  if (c.wetFor !== undefined && !pastMoment(c, latest))
    return {
      steps: [{ code: 'wait-for-gloss', latest, left: leftUntil(c, latest) }, { code: 'keep-still' }],
      why: { code: 'within-range' },
    }
  const because = reasonsNotToSet(c)
  return {
    steps: onceOnly(c)
      ? [{ code: 'warm-it' }, { code: 'leave-in-mould' }, { code: 'once-longer', lost: Math.max(2 * latest, 3600) }]
      : [{ code: 'warm-it' }, { code: 'look-again', lost: Math.max(2 * latest, 3600) }],
    why: because.length > 0 ? { code: 'likely', because } : { code: 'usual-dead' },
    never: 'no-sprinkling',
  }
}

function lumps(c: Case): Advice {
  if (!inBucket(c) || c.stage === 'fill')
    return { steps: [{ code: 'sieve' }, { code: 'press-lumps-back' }], why: { code: 'stirring-costs' } }
  return {
    steps: [{ code: c.stage === 'soak' ? 'soak-longer' : 'crush-lumps' }, { code: 'lift-dry-out' }],
    why: { code: 'wet-through' },
    never: 'no-whisk',
  }
}

function leak(c: Case): Advice {
  const stiff = pastMoment(c, c.moments.webbing.value)
  return {
    steps: [
      { code: stiff ? 'hold-leak' : 'press-leak' },
      { code: 'leak-uppermost' },
      { code: 'top-up' },
      { code: 'note-leak' },
    ],
    why: { code: stiff ? 'blocks-itself' : 'still-thin' },
    never: 'no-squeezing',
  }
}

function short(c: Case): Advice {
  const { run, moments } = c
  const volume = c.missing ?? c.unfilled.reduce((v, x) => v + x.cast.mould.volume.value, 0)
  if (!(volume > 0)) return { steps: [{ code: 'say-missing' }], why: { code: 'mix-depends' } }
  const { plan } = run
  const { water, powder } = solveMix({
    powder: powderClass(plan.classId),
    ratio: run.ratio.value,
    waterTemperature: plan.waterTemperature,
    additions: plan.additions,
  }, { what: 'slurry', amount: volume * SPARE })
  const mix = { water, powder }
  // A second pour knits to the first until that loses its gloss (common practice).
  const until = c.wetFor === undefined ? 0 : moments.glossGone.low - c.wetFor - QUICK_MIX
  return until > 0
    ? {
        steps: [{ code: 'mix-now', mix, volume }, { code: 'pour-within', time: until + QUICK_MIX }],
        why: { code: 'knits' },
        never: 'no-thinning',
        mix,
      }
    : {
        steps: [{ code: 'roughen-face' }, { code: 'mix-later', mix }],
        why: { code: 'only-rough' },
        never: 'no-thinning',
        mix,
      }
}

function waterOnTop(c: Case): Advice {
  const { ratio, run } = c
  if (pastMoment(c, c.moments.glossGone.value))
    return { steps: [{ code: 'pour-off' }, { code: 'expect-soft' }], why: { code: 'more-water-than-held', ratio } }
  const next: Act = ratio > run.ratio.value * 1.03
    ? { code: 'keep-to-ratio', planned: run.ratio.value, ratio }
    : { code: 'thicker-next' }
  return {
    steps: [{ code: 'draw-off' }, { code: 'close-surface' }, next],
    why: { code: 'powder-settles' },
    never: 'no-dry-powder',
  }
}

function frozenIn({ planned }: Case): Advice {
  const ground = planned.fills.some(f => f.mould.material === 'ground')
  return {
    steps: [{ code: ground ? 'lift-with-soil' : 'leave-in-mould' }, { code: 'thaw' }, { code: 'dry-slowly' }],
    why: { code: 'ice-holds' },
    never: 'no-boiling',
  }
}

const codes = (...all: readonly Extract<Act, { readonly code: string }>['code'][]): readonly Act[] =>
  all.map(code => ({ code }) as Act)

function tooThick(c: Case): Advice {
  // What has begun to set only gets thicker; what is thick from the start still lets itself be worked in.
  if (!inBucket(c) || pastMoment(c, c.moments.pourBy.value))
    return { steps: codes('stop-thick', 'bin-the-rest', 'next-thinner'), why: { code: 'set-is-set' }, never: 'no-water' }
  const order: readonly Act[] = c.unfilled.length > 0
    ? [{ code: 'fill-in-order', casts: c.unfilled.slice(0, 3).map(x => x.cast.label) }]
    : []
  return {
    steps: [...codes('keep-moving', 'work-it-in'), ...order, ...codes('next-thinner')],
    why: { code: 'thick-already' }, never: 'no-water',
  }
}

function tooThin(c: Case): Advice {
  const { ratio, run } = c
  const keep: readonly Act[] = ratio > run.ratio.value * 1.03
    ? [{ code: 'keep-to-ratio', planned: run.ratio.value, ratio }]
    : codes('thicker-next')
  // Powder still goes in while nothing has been stirred; later it would only make lumps.
  if (c.stage === 'sift' || c.stage === 'soak')
    return { steps: [...codes('go-by-islands'), ...keep], why: { code: 'islands-know' }, never: 'no-guessing' }
  return {
    steps: [...codes('let-it-thicken', 'stir-it-up'), ...keep], why: { code: 'thin-is-weak' }, never: 'no-dry-powder',
  }
}

function openBubbles(c: Case): Advice {
  const webbed = pastMoment(c, c.moments.webbing.value), set = pastMoment(c, c.moments.glossGone.value)
  if (set) return { steps: codes('leave-open-face'), why: { code: 'set-is-set' }, never: 'no-deep-pricking' }
  return {
    steps: webbed
      ? codes('prick-open-face', 'mist-open-face', 'leave-open-face')
      : codes('tap-open-face', 'mist-open-face', 'blow-open-face', 'prick-open-face'),
    why: { code: 'skin-of-air' }, never: 'no-deep-pricking',
  }
}

function lostCount(c: Case): Advice {
  const { mix, levels } = c.planned
  const line: readonly Act[] = levels?.water === undefined
    ? []
    : [{ code: 'by-the-line', water: levels.water, full: levels.final }]
  if (c.wetFor === undefined) return {
    steps: [...codes('tare-again'), { code: 'weigh-mix', mix: { water: mix.water, powder: mix.powder } }, ...line],
    why: { code: 'islands-know' }, never: 'no-guessing',
  }
  return {
    steps: [...codes('weigh-the-bucket'), ...line, ...codes('go-by-islands', 'note-unsure')],
    why: { code: 'islands-know' }, never: 'no-guessing',
  }
}

/** Made by pouring once: there is no second one of it. */
const ONCE: ReadonlySet<string> = new Set(['ground', 'soft-impression', 'tray-impression'])
const onceOnly = ({ planned }: Case) =>
  planned.fills.some(f => ONCE.has(f.mould.material))

/** By what holds it: a rigid wall, a skin that grips, clay, or the ground itself. */
function willNotComeOut(c: Case): Advice {
  const mould = slowestMould(c.run, c.planned), { material } = mould
  if (material === 'ground')
    return { steps: codes('clear-ring', 'undercut', 'lift-with-soil', 'warm-indoors'), why: { code: 'only-once' }, never: 'no-levering' }
  const early = c.wetFor !== undefined && c.wetFor < c.moments.open.from
  const wait = early ? codes('wait-longer') : []
  if (material === 'clay') return { steps: [...wait, ...codes('wet-clay-off')], why: { code: 'undercut-holds' }, never: 'no-levering' }
  if (material === 'soft-impression')
    return { steps: [...wait, ...codes('cut-it-free')], why: { code: 'only-once' }, never: 'no-levering' }
  return {
    steps: MOULD_MATERIALS[material].flexible
      ? [...wait, ...codes('break-seal', 'flex-off', 'air-in')]
      : [...wait, ...codes('break-seal', 'tap-out', (mould.halves ?? 1) > 1 ? 'split-mould' : 'air-in')],
    why: { code: 'seal-holds' }, never: 'no-levering',
  }
}

const tooMuch = ({ wetFor }: Case): Advice => ({
  steps: wetFor === undefined ? codes('note-left-over') : codes('spare-moulds', 'note-left-over', 'set-in-bucket'),
  why: { code: 'sets-anyway' }, never: 'no-drain',
})
const bagTorn = (): Advice => ({
  steps: codes('mask-and-still', 'second-bag', 'damp-wipe', 'weigh-again'), why: { code: 'dust-harms' }, never: 'no-sweeping',
})
const groundGives = (c: Case): Advice => ({
  steps: c.wetFor === undefined || inBucket(c)
    ? codes('pack-outside', 'board-the-ring', 'pour-low')
    : codes('pack-outside', 'stop-and-set', 'lift-with-soil'),
  why: { code: 'soil-flows' }, never: 'no-leaning',
})

function onSkin({ moments }: Case): Advice {
  return {
    steps: [{ code: 'rinse-eye' }, { code: 'free-skin' }, { code: 'cool-burn' }],
    why: { code: 'burns', warmest: moments.warmestTemperature.high, at: moments.warmest.value },
    never: 'no-waiting',
  }
}

const RESCUES: Readonly<Record<TroubleId, (c: Case) => Advice>> = {
  'too-fast': tooFast,
  'will-not-set': willNotSet,
  'too-thick': tooThick,
  'too-thin': tooThin,
  'too-much': tooMuch,
  'open-bubbles': openBubbles,
  'lost-count': lostCount,
  'bag-torn': bagTorn,
  'will-not-come-out': willNotComeOut,
  'ground-gives': groundGives,
  'lumps': lumps,
  'leak': leak,
  'short': short,
  'water-on-top': waterOnTop,
  'frozen-in': frozenIn,
  'on-skin': onSkin,
}

/** Troubles of the ground alone. */
const GROUND: ReadonlySet<TroubleId> = new Set<TroubleId>(['frozen-in', 'ground-gives'])
/** What can go wrong with this pour: prints freeze in, lanterns do not. What hurts somebody is first. */
export const troublesOf = (run: FrozenRun): readonly TroubleId[] => {
  const ground = run.world.moulds.some(m => m.material === 'ground')
  const rest = TROUBLES.map(t => t.id).filter(id => id !== 'on-skin' && (ground || !GROUND.has(id)))
  return ['on-skin', ...rest]
}

/**
 * What to do now.
 * @param run its moments should be those that were learnt.
 * @example rescue('leak', run, state, { now, batch: 0 }).steps[0] // { code: 'press-leak' }
 */
export function rescue(trouble: TroubleId, run: FrozenRun, state: PourState, told: Told): Advice {
  return RESCUES[trouble](caseOf(run, state, told))
}
