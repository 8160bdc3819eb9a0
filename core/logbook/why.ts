import { WARM_ENOUGH } from '../drying/cast'
import { inTheSun, type PlaceId } from '../drying/places'
import { additionKind } from '../gypsum/additions'
import { foldsIn } from '../gypsum/ways-in'
import type { PowderClassId } from '../gypsum/powders'
import { needsRelease, releaseRule, type ReleaseRule } from '../mould/readiness'
import { CAUSES, type CauseId } from '../pour/causes'
import type { DefectId, TroubleId } from '../pour/defects'
import { dryingDates } from '../pour/drying'
import type { BatchState, CastState, PourState } from '../pour/fold'
import { stirringTime } from '../plan/batches/pace'
import { powderOf, type FrozenRun } from '../plan/run'
import type { Sign } from '../plan/stages'
import type { MouldMaterial } from '../setting/body'
import type { Celsius, Seconds, WaterRatio } from '../units/quantity'

/**
 * Why a cast has a defect: the causes that can bring it about, each weighed by what this pour's own record says for and
 * against it. Every weight stands below and can be read; none is fitted. They are engineering guesses, tried on made-up
 * pours (tests). Sentences: words.ts.
 */

/** The ratio that was wanted: as planned or, where nobody knows the plan any more, as the powder is used. */
export type RatioWanted = { readonly planned: WaterRatio } | { readonly low: WaterRatio, readonly high: WaterRatio }

/** One thing the record says. Shares are of what was planned. */
export type Said
  = | {
    readonly code: 'more-water' | 'less-water'
    readonly by: number
    readonly ratio: WaterRatio
    readonly wanted: RatioWanted
  }
  | { readonly code: 'ratio-fine', readonly asUsed: boolean }
  | { readonly code: 'water-stood' | 'lumps-felt' | 'stirred-as-planned' | 'soaked-as-planned' | 'marked-stiff' | 'water-onto-powder' | 'folded-in' }
  | { readonly code: 'stirred-times', readonly times: number }
  | { readonly code: 'stirred-only', readonly share: number }
  | { readonly code: 'soaked-only', readonly soaked: Seconds, readonly planned: Seconds }
  | { readonly code: 'filled-stiff', readonly after: Seconds }
  | { readonly code: 'filled-fluid' | 'opened-strong' | 'warm-enough' | 'water-not-warm' | 'bag-sound' }
  | { readonly code: 'opened-early', readonly after: Seconds, readonly needed: Seconds }
  | { readonly code: 'cold', readonly room: Celsius, readonly water: Celsius }
  | { readonly code: 'warm-water', readonly water: Celsius }
  | { readonly code: 'bag-doubtful', readonly bag: string }
  | { readonly code: 'gloss-late', readonly by: Seconds }
  | { readonly code: 'needs-release', readonly rule: ReleaseRule }
  | { readonly code: 'needs-no-release' | 'greased' | 'poured-bare', readonly material: MouldMaterial }
  | { readonly code: 'tear' | 'no-tear' | 'one-piece' | 'leaked' | 'thin-parts' | 'no-thin-parts' }
  | { readonly code: 'parts', readonly parts: number }
  | { readonly code: 'pour-hole' | 'closed' | 'open-above' }
  | { readonly code: 'little-mix', readonly by: number, readonly planned: boolean }
  | { readonly code: 'mix-enough', readonly planned: boolean }
  | { readonly code: 'said-short' | 'nothing-over' | 'some-over' | 'poured-at-once' | 'coat-in-time' }
  | { readonly code: 'coat-late', readonly after: Seconds }
  | { readonly code: 'stood-hot' | 'stood-cool' | 'one-face' | 'air-all-round' | 'dry-in-time' }
  | { readonly code: 'finished-early', readonly by: number }
  | { readonly code: 'additive-over' | 'additives-fine' | 'nothing-added' | 'not-by-scoops' }
  | { readonly code: 'by-scoops', readonly classId: PowderClassId }

/**
 * One thing the record says about a cause: how strongly for it (above nothing) or against it (below), as the logarithm
 * of odds. Without `said` it is silence that speaks.
 */
interface Weighed { readonly weight: number, readonly said?: Said }
interface Evidence extends Weighed { readonly said: Said }

export interface Likely {
  readonly cause: CauseId
  /** Share of all causes of this defect. */
  readonly share: number
  readonly evidence: readonly Evidence[]
}

/** What a cause is asked about: one cast of one pour, with its batch. */
interface Asked {
  readonly run: FrozenRun
  readonly state: PourState
  readonly cast: CastState
  readonly batch: BatchState
}

// How strongly things speak. Something seen outright; far out of the ordinary; somewhat; as it should be; and what
// would have been said but was not.
/** Where air comes to one side of a cast. */
const ONE_FACE: ReadonlySet<PlaceId> = new Set(['board', 'sky-board', 'wet-ground', 'mould'])
const SEEN = 2.6, FAR = 2.2, SOME = 1.1, NORMAL = -1.4, SILENT = -0.5

/** For a number that is wrong above `some` and very wrong above `far`; well below, it speaks against. */
function above(
  x: number | undefined,
  { some, far }: { readonly some: number, readonly far: number },
  said: (x: number) => Said,
  normal: Said,
): readonly Weighed[] {
  if (x === undefined || !Number.isFinite(x)) return []
  if (x >= far) return [{ weight: FAR + Math.min(0.8, (x - far) / far * 0.6), said: said(x) }]
  if (x >= some) return [{ weight: SOME + (FAR - SOME) * (x - some) / (far - some), said: said(x) }]
  return x > 0.6 * some ? [] : [{ weight: NORMAL, said: normal }]
}

function known(yes: boolean, said: Said, otherwise?: Said): readonly Weighed[] {
  if (yes) return [{ weight: SEEN, said }]
  return [otherwise === undefined ? { weight: SILENT } : { weight: NORMAL, said: otherwise }]
}

/** Length of a stage that was really told, seconds. */
function stageLength(batch: BatchState, from: string, to: readonly string[]): number | undefined {
  const a = batch.stages.find(s => s.stage === from), b = batch.stages.find(s => to.includes(s.stage))
  return a && b && !a.inferred && !b.inferred ? (b.at - a.at) / 1000 : undefined
}
const planned = ({ run, cast }: Asked) => run.batches[cast.cast.batch]!

function ratioSays(a: Asked, sign: 1 | -1): readonly Weighed[] {
  const { run, batch: { ratio } } = a
  if (ratio === undefined) return []
  const { low, high } = powderOf(run).ratio, asUsed = run.daysOnly === true
  const wanted: RatioWanted = asUsed ? { low, high } : { planned: run.ratio.value }
  const nearest = asUsed ? Math.min(high, Math.max(low, ratio)) : run.ratio.value
  const code = sign > 0 ? 'more-water' : 'less-water'
  return above(sign * (ratio / nearest - 1), { some: 0.04, far: 0.08 }, by => ({ code, by, ratio, wanted }), {
    code: 'ratio-fine', asUsed,
  })
}

/** How long it was stirred, as a share of what was planned. */
function stirring(a: Asked): number | undefined {
  const t = stageLength(a.batch, 'stir', ['fill'])
  return t === undefined ? undefined : t / Math.max(20, stirringTime(a.run.plan))
}
/** Minutes by which it was filled after the mix had become too stiff to pour. */
function lateBy({ run, batch, cast }: Asked): number | undefined {
  if (batch.wetAt === undefined || cast.filledAt === undefined) return undefined
  return ((cast.filledAt - batch.wetAt) / 1000 - run.moments[cast.cast.mould.id]!.pourBy.value) / 60
}
// Of a pour of the past what its plan says of temperatures is made up.
const room = ({ run, batch }: Asked) => batch.room ?? (run.daysOnly ? undefined : run.plan.roomTemperature)
const water = ({ run, batch }: Asked) => batch.water ?? (run.daysOnly ? undefined : run.plan.waterTemperature)
const marked = (a: Asked, sign: Sign) => a.batch.marks.some(m => m.sign === sign)
const trouble = (a: Asked, id: TroubleId) => a.batch.troubles.some(t => t === id)
const mould = (a: Asked) => a.cast.cast.mould
const when = (yes: boolean, weight: number, said: Said): readonly Weighed[] => yes ? [{ weight, said }] : []

function stirredLong(a: Asked): readonly Weighed[] {
  const share = stirring(a)
  return above(share === undefined ? undefined : share - 1, { some: 0.35, far: 0.7 }, over => ({
    code: 'stirred-times', times: 1 + over,
  }), { code: 'stirred-as-planned' })
}
function stirredLittle(a: Asked): readonly Weighed[] {
  const share = stirring(a)
  return above(share === undefined ? undefined : 1 - share, { some: 0.3, far: 0.5 }, under => ({
    code: 'stirred-only', share: 1 - under,
  }), { code: 'stirred-as-planned' })
}
function soakShort(a: Asked): readonly Weighed[] {
  if (a.run.plan.school === 'powder-first') return when(true, SOME, { code: 'water-onto-powder' })
  const soaked = stageLength(a.batch, 'soak', ['stir'])
  const wanted = planned(a).steps.soaked.value - planned(a).steps.sifted.value
  if (soaked === undefined || wanted < 20) return []
  return above(1 - soaked / wanted, { some: 0.35, far: 0.6 }, () => ({
    code: 'soaked-only', soaked, planned: wanted,
  }), { code: 'soaked-as-planned' })
}
/** Counted from a minute before it was too stiff. */
function pouredLate(a: Asked): readonly Weighed[] {
  const late = lateBy(a)
  return [
    ...above(late === undefined ? undefined : late + 1, { some: 0.9, far: 2.5 }, x => ({
      code: 'filled-stiff', after: 60 * Math.max(0, x - 1),
    }), { code: 'filled-fluid' }),
    ...when(marked(a, 'will-not-pour') && (late ?? 1) > -1, SOME, { code: 'marked-stiff' }),
  ]
}
/** From a twelfth after its earliest moment it begins to be suspected; an eighth before it, it is far. */
function openedEarly(a: Asked): readonly Weighed[] {
  const { run, batch: { wetAt }, cast: { openedAt } } = a
  if (wetAt === undefined || openedAt === undefined) return []
  const after = (openedAt - wetAt) / 1000, needed = run.moments[mould(a).id]!.openEarliest.value
  return above(1 - after / needed + 0.3, { some: 0.22, far: 0.42 }, () => ({ code: 'opened-early', after, needed }), {
    code: 'opened-strong',
  })
}
function cold(a: Asked): readonly Weighed[] {
  const air = room(a), wet = water(a)
  if (air === undefined || wet === undefined) return []
  return above(15 - Math.min(air, wet), { some: 3, far: 7 }, () => ({ code: 'cold', room: air, water: wet }), {
    code: 'warm-enough',
  })
}
function warmWater(a: Asked): readonly Weighed[] {
  const wet = water(a)
  if (wet === undefined) return []
  return above(wet - 25, { some: 4, far: 10 }, () => ({ code: 'warm-water', water: wet }), { code: 'water-not-warm' })
}
function bagDoubtful({ run }: Asked): Weighed {
  const { bag } = run.world
  if (bag?.uncertain) return { weight: SOME + 0.7, said: { code: 'bag-doubtful', bag: bag.name } }
  return bag ? { weight: NORMAL, said: { code: 'bag-sound' } } : { weight: SILENT }
}
function oldPowder(a: Asked): readonly Weighed[] {
  const gone = a.batch.marks.find(m => m.sign === 'gloss-gone')?.at, { high } = a.run.moments[mould(a).id]!.glossGone
  const late = gone === undefined || a.batch.wetAt === undefined ? 0 : (gone - a.batch.wetAt) / 1000 - high
  return [bagDoubtful(a), ...when(late > 0.1 * high, SOME, { code: 'gloss-late', by: late })]
}
function releaseMissing(a: Asked): readonly Weighed[] {
  const rule = releaseRule(mould(a).material, a.run.plan)
  return known(needsRelease(rule), { code: 'needs-release', rule }, {
    code: 'needs-no-release', material: rule.material,
  })
}
const GREASED: readonly MouldMaterial[] = ['plastic', 'glass', 'metal', 'wood', 'plaster']
/** Of the mix that was to be in this batch, how much was missing, by weight. */
function tooLittle(a: Asked): readonly Weighed[] {
  const { weighed: { water: w, powder: p }, leftover } = a.batch, { mix } = planned(a), byPlan = !a.run.daysOnly
  const missing = w === undefined || p === undefined ? undefined : 1 - (w + p) / (mix.water + mix.powder)
  return [
    ...above(missing, { some: 0.05, far: 0.1 }, by => ({ code: 'little-mix', by, planned: byPlan }), {
      code: 'mix-enough', planned: byPlan,
    }),
    ...when(trouble(a, 'short'), SEEN, { code: 'said-short' }),
    ...when(leftover === 'none', SOME, { code: 'nothing-over' }),
    ...when(leftover !== undefined && leftover !== 'none', NORMAL - 0.8, { code: 'some-over' }),
  ]
}
function coatLate(a: Asked): readonly Weighed[] {
  const b = a.cast.cast.batch, before = a.state.batches[b - 1], fill = a.batch.stages.find(s => s.stage === 'fill')
  if (!a.run.batches[b]!.coat || before?.wetAt === undefined || !fill)
    return [{ weight: NORMAL - 1.5, said: { code: 'poured-at-once' } }]
  const gone = before.marks.find(m => m.sign === 'gloss-gone')?.at
    ?? before.wetAt + a.run.moments[mould(a).id]!.glossGone.value * 1000
  const after = (fill.at - gone) / 1000
  return above(after / 60 + 3, { some: 2, far: 6 }, () => ({ code: 'coat-late', after: Math.max(0, after) }), {
    code: 'coat-in-time',
  })
}
function finishedDamp(a: Asked): readonly Weighed[] {
  const { readyFrom } = dryingDates(a.run, a.state, a.cast), { finishedAt, openedAt } = a.cast
  if (readyFrom === undefined || finishedAt === undefined || openedAt === undefined) return [{ weight: SILENT }]
  return above(1 - (finishedAt - openedAt) / (readyFrom - openedAt), { some: 0.1, far: 0.3 }, by => ({
    code: 'finished-early', by,
  }), { code: 'dry-in-time' })
}
function additive({ run }: Asked): readonly Weighed[] {
  if (run.daysOnly) return []
  const { additions, school } = run.plan
  return [
    ...when(foldsIn(additions, school), SOME, { code: 'folded-in' }),
    ...known(additions.some(x => x.share > additionKind(x.id).harmful), { code: 'additive-over' }, {
      code: additions.length > 0 ? 'additives-fine' : 'nothing-added',
    }),
  ]
}
function byVolume({ run: { daysOnly, plan } }: Asked): readonly Weighed[] {
  if (daysOnly) return []
  return known(plan.school === 'scoops', { code: 'by-scoops', classId: plan.classId }, { code: 'not-by-scoops' })
}

/** What the record says of each cause. */
const SAYS: Readonly<Record<CauseId, (a: Asked) => readonly Weighed[]>> = {
  'too-thin': a => [...ratioSays(a, 1), ...when(trouble(a, 'water-on-top'), SOME, { code: 'water-stood' })],
  'too-thick': a => ratioSays(a, -1),
  'stirred-long': stirredLong,
  'stirred-little': a => [...stirredLittle(a), ...when(marked(a, 'lumps'), SOME, { code: 'lumps-felt' })],
  'soak-short': soakShort,
  'poured-late': pouredLate,
  'opened-early': openedEarly,
  'cold': cold,
  'hot-water': warmWater,
  'old-powder': oldPowder,
  'release-missing': releaseMissing,
  'release-much': a => known(GREASED.includes(mould(a).material), { code: 'greased', material: mould(a).material }, {
    code: 'poured-bare', material: mould(a).material,
  }),
  'worn-mould': a => known(
    mould(a).wear?.some(w => w.tear) ?? false,
    { code: 'tear' },
    mould(a).wear ? { code: 'no-tear' } : undefined,
  ),
  'seam-open': a => [
    ...known((mould(a).halves ?? 1) > 1, { code: 'parts', parts: mould(a).halves ?? 1 }, { code: 'one-piece' }),
    ...when(trouble(a, 'leak'), SEEN, { code: 'leaked' }),
  ],
  'thin-part': a => known(mould(a).fragile, { code: 'thin-parts' }, { code: 'no-thin-parts' }),
  'air-shut-in': a => known(
    mould(a).pourHole !== undefined || (mould(a).halves ?? 1) > 1,
    { code: mould(a).pourHole !== undefined ? 'pour-hole' : 'closed' },
    mould(a).halves === 1 ? { code: 'open-above' } : undefined,
  ),
  'too-little': tooLittle,
  'coat-late': coatLate,
  'dried-hot': ({ cast: { stays } }) => known(
    stays.some(s => inTheSun(s) || s.air.celsius > WARM_ENOUGH),
    { code: 'stood-hot' },
    stays.length > 0 ? { code: 'stood-cool' } : undefined,
  ),
  'dried-one-side': ({ cast: { stays } }) => known(
    stays.some(s => ONE_FACE.has(s.place)),
    { code: 'one-face' },
    stays.length > 0 ? { code: 'air-all-round' } : undefined,
  ),
  'finished-damp': finishedDamp,
  'additive': additive,
  'measured-by-volume': byVolume,
}

/**
 * Confirmed causes of a defect in this workshop, and how much they count against what is common: ten of them as much as
 * practice does.
 */
export type Confirmed = readonly { readonly defect: DefectId, readonly cause: CauseId, readonly times: number }[]
const TRUST = 10

/** What is common, moved towards what this workshop has confirmed. */
function priors(defect: DefectId, confirmed: Confirmed): ReadonlyMap<CauseId, number> {
  const brought = CAUSES.flatMap(c => c.brings[defect] ? [[c.id, c.brings[defect]] as const] : [])
  const sum = brought.reduce((s, [, w]) => s + w, 0),
    own = confirmed.filter(c => c.defect === defect),
    times = own.reduce((s, c) => s + c.times, 0)
  return new Map(
    brought.map(([id, w]) => [id, (TRUST * w / sum + (own.find(c => c.cause === id)?.times ?? 0)) / (TRUST + times)]),
  )
}

/** The cause that is commonest for a defect when nothing is asked of the record. */
export function commonest(defect: DefectId, confirmed: Confirmed = []): CauseId | undefined {
  return [...priors(defect, confirmed)].sort((a, b) => b[1] - a[1])[0]?.[0]
}

/** Of a pour of which only the day is known, no time of day says anything. */
function askedOf(run: FrozenRun, state: PourState, cast: CastState): Asked {
  const batch = state.batches[cast.cast.batch]!
  if (!run.daysOnly) return { run, state, cast, batch }
  return {
    run,
    state,
    cast: { ...cast, filledAt: undefined, openedAt: undefined },
    batch: { ...batch, stages: [], wetAt: undefined, marks: [] },
  }
}

const isSaid = (e: Weighed): e is Evidence => e.said !== undefined

/**
 * Likely causes of a defect of one cast, the likeliest first, each with what the record says.
 * @param confirmed what was found to be behind defects in this workshop before: it moves what is likely beforehand.
 * @example why(run, state, '1.1', 'soft')[0] // { cause: 'opened-early', share: 0.6, evidence: [...] }
 */
export function why(
  run: FrozenRun,
  state: PourState,
  castId: string,
  defect: DefectId,
  confirmed: Confirmed = [],
): readonly Likely[] {
  const cast = state.casts.find(c => c.cast.id === castId)
  if (!cast) return []
  const asked = askedOf(run, state, cast)
  const scored = [...priors(defect, confirmed)].map(([cause, prior]) => {
    const weighed = SAYS[cause](asked)
    const odds = prior * Math.exp(weighed.reduce((s, e) => s + e.weight, 0))
    return { cause, evidence: weighed.filter(isSaid), odds }
  })
  const sum = scored.reduce((s, x) => s + x.odds, 0)
  return scored.map(({ odds, ...x }): Likely => ({ ...x, share: odds / sum })).sort((a, b) => b.share - a.share)
}
