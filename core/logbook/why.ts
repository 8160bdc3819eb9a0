import { WARM_ENOUGH } from '../drying/cast'
import { additionKind } from '../gypsum/additions'
import { powderClass } from '../gypsum/powders'
import { formatConsistency, formatDuration, formatTemperature } from '../units/format'
import { METRIC, type UnitPreferences } from '../units/units'
import { releaseRule } from '../mould/readiness'
import { CAUSES, causeOf, type CauseId } from '../pour/causes'
import type { DefectId } from '../pour/defects'
import { dryingDates } from '../pour/drying'
import type { FrozenRun } from '../plan/run'
import type { BatchState, CastState, PourState } from '../pour/fold'

/**
 * Why a cast has a defect: the causes that can bring it about, each weighed by what this pour's own record says for and
 * against it. Every weight stands below and
 * can be read; none is fitted. They are engineering guesses, tried on made-up pours (tests).
 */

/**
 * One thing the record says about a cause: how strongly for it (above nothing) or against it (below), as the logarithm
 * of odds, and in words.
 */
export interface Evidence { readonly weight: number, readonly words: string }
export interface Likely {
  readonly cause: CauseId
  readonly words: string
  /** Share of all causes of this defect. */
  readonly share: number
  readonly evidence: readonly Evidence[]
  readonly nextTime: string
}

/** What a cause is asked about: one cast of one pour, with its batch. */
interface Asked {
  readonly run: FrozenRun
  readonly state: PourState
  readonly cast: CastState
  readonly batch: BatchState
  readonly prefs: UnitPreferences
}

// How strongly things speak. Something seen outright; far out of the ordinary; somewhat; as it should be; and what
// would have been said but was not.
const SEEN = 2.6, FAR = 2.2, SOME = 1.1, NORMAL = -1.4, SILENT = -0.5
const percent = (x: number) => `${Math.round(100 * Math.abs(x))} %`
/** For a number that is wrong above some and very wrong above more. */
function above(
  x: number | undefined,
  some: number,
  far: number,
  words: (x: number) => string,
  normal: string,
): readonly Evidence[] {
  if (x === undefined || !Number.isFinite(x)) return []
  return x >= far
    ? [{ weight: FAR + Math.min(0.8, (x - far) / far * 0.6), words: words(x) }]
    : x >= some
      ? [{ weight: SOME + (FAR - SOME) * (x - some) / (far - some), words: words(x) }]
      : x > 0.6 * some
        ? []
        : [{ weight: NORMAL, words: normal }]
}
const known = (yes: boolean, words: string, otherwise?: string): readonly Evidence[] =>
  yes
    ? [{ weight: SEEN, words }]
    : otherwise === undefined
      ? [{ weight: SILENT, words: '' }]
      : [{ weight: NORMAL, words: otherwise }]

/** Length of a stage that was really told, seconds. */
function stageLength(batch: BatchState, from: string, to: readonly string[]): number | undefined {
  const a = batch.stages.find(s => s.stage === from), b = batch.stages.find(s => to.includes(s.stage))
  return a && b && !a.inferred && !b.inferred ? (b.at - a.at) / 1000 : undefined
}
const planned = ({ run, cast }: Asked) => run.batches[cast.cast.batch]!
/**
 * By what share the ratio was off: from the planned one or, of a pour whose plan nobody knows any more, from what its
 * powder is used at.
 */
function ratioOff({ run, batch: { ratio } }: Asked): number | undefined {
  if (ratio === undefined) return undefined
  const { low, high } = run.daysOnly
    ? powderClass(run.plan.classId).ratio
    : { low: run.ratio.value, high: run.ratio.value }
  return ratio / Math.min(high, Math.max(low, ratio)) - 1
}
function ratioSays(a: Asked, sign: 1 | -1): readonly Evidence[] {
  const off = ratioOff(a), { run } = a, { low, high } = powderClass(run.plan.classId).ratio
  const wanted = run.daysOnly
    ? `its powder is used at (${formatConsistency(a.batch.ratio ?? 0)} for ${formatConsistency(low)} to ${
      formatConsistency(high)
    })`
    : `planned (${formatConsistency(a.batch.ratio ?? 0)} for ${formatConsistency(run.ratio.value)})`
  return above(
    off === undefined ? undefined : sign * off,
    0.04,
    0.08,
    x => `${percent(x)} ${sign > 0 ? 'more' : 'less'} water than ${wanted}`,
    run.daysOnly ? 'its ratio was one its powder is used at' : 'its ratio was as planned',
  )
}
function stirring(a: Asked): number | undefined {
  const t = stageLength(a.batch, 'stir', ['fill'])
  return t === undefined ? undefined : t / Math.max(20, a.run.plan.stir.minutes * 60)
}
/** Minutes by which it was filled after the mix had become too stiff to pour. */
function lateBy({ run, batch, cast }: Asked): number | undefined {
  if (batch.wetAt === undefined || cast.filledAt === undefined) return undefined
  return ((cast.filledAt - batch.wetAt) / 1000 - run.moments[cast.cast.mould.id]!.pourBy.value) / 60
}
/** Share of the earliest safe time that was still missing when it was opened. */
function earlyBy({ run, batch, cast }: Asked): number | undefined {
  if (batch.wetAt === undefined || cast.openedAt === undefined) return undefined
  const { openEarliest } = run.moments[cast.cast.mould.id]!
  return 1 - (cast.openedAt - batch.wetAt) / 1000 / openEarliest.value
}
// Of a pour of the past what its plan says of temperatures is made up.
const room = ({ run, batch }: Asked) => batch.room ?? (run.daysOnly ? undefined : run.plan.roomTemperature)
const water = ({ run, batch }: Asked) => batch.water ?? (run.daysOnly ? undefined : run.plan.waterTemperature)
const marked = (a: Asked, sign: string) => a.batch.marks.some(m => m.sign === sign)
const trouble = (a: Asked, id: string) => a.batch.troubles.some(t => t === id)
const mould = (a: Asked) => a.cast.cast.mould
/** Of the mix that was to be in this batch, how much was missing, by weight. */
function missing(a: Asked): number | undefined {
  const { water: w, powder: p } = a.batch.weighed, { mix } = planned(a)
  return w === undefined || p === undefined ? undefined : 1 - (w + p) / (mix.water + mix.powder)
}
const min = (t: number) => formatDuration(Math.round(t / 10) * 10)

/** What the record says of each cause. */
const SAYS: Readonly<Record<CauseId, (a: Asked) => readonly Evidence[]>> = {
  'too-thin':
    a => [...ratioSays(a, 1), ...trouble(a, 'water-on-top') ? [{ weight: SOME, words: 'water stood on it' }] : []],
  'too-thick': a => ratioSays(a, -1),
  'stirred-long': a =>
    above(
      stirring(a) === undefined ? undefined : stirring(a)! - 1,
      0.35,
      0.7,
      x => `stirred ${(1 + x).toFixed(1)} times as long as planned`,
      'stirred about as long as planned',
    ),
  'stirred-little':
    a => [
      ...above(stirring(a) === undefined ? undefined : 1 - stirring(a)!, 0.3, 0.5, x =>
        `stirred only ${percent(1 - x)} of the planned time`, 'stirred about as long as planned'),
      ...marked(a, 'lumps') ? [{ weight: SOME, words: 'lumps were felt' }] : [],
    ],
  'soak-short': (a) => {
    const t = stageLength(a.batch, 'soak', ['stir']),
      wanted = planned(a).steps.soaked.value - planned(a).steps.sifted.value
    return t === undefined || wanted < 20
      ? []
      : above(1 - t / wanted, 0.35, 0.6, () => `soaked ${min(t)} of ${min(wanted)}`, 'soaked as long as planned')
  },
  // Counted from a minute before it was too stiff.
  'poured-late': a =>
    above(
      lateBy(a) === undefined ? undefined : lateBy(a)! + 1,
      0.9,
      2.5,
      x => x > 1 ? `filled ${min(60 * (x - 1))} after it was too stiff to pour` : 'filled just as it became too stiff',
      'filled while it still flowed',
    ).concat(
      marked(a, 'will-not-pour') && (lateBy(a) ?? 1) > -1
        ? [{ weight: SOME, words: 'it was marked as not pouring any more' }]
        : [],
    ),
  // From a twelfth after its earliest moment it begins to be suspected; an eighth before it, it is far.
  'opened-early': a =>
    above(
      earlyBy(a) === undefined ? undefined : earlyBy(a)! + 0.3,
      0.22,
      0.42,
      () =>
        `opened ${formatDuration((a.cast.openedAt! - a.batch.wetAt!) / 1000, 'minute')} after wetting, where about ${
          formatDuration(a.run.moments[mould(a).id]!.openEarliest.value, 'minute')
        } are needed`,
      'opened when it was strong enough',
    ),
  'cold': (a) => {
    const air = room(a), wet = water(a)
    return air === undefined || wet === undefined
      ? []
      : above(15 - Math.min(air, wet), 3, 7, () =>
          `room ${formatTemperature(air, a.prefs)}, water ${formatTemperature(wet, a.prefs)}`, 'it was warm enough')
  },
  'hot-water': (a) => {
    const wet = water(a)
    return wet === undefined
      ? []
      : above(wet - 25, 4, 10, () => `water of ${formatTemperature(wet, a.prefs)}`, 'the water was not warm')
  },
  'old-powder': (a) => {
    const bag = a.run.world.bag
    const slow = a.batch.marks.find(m => m.sign === 'gloss-gone'), moment = a.run.moments[mould(a).id]!.glossGone
    const slowness = slow && a.batch.wetAt !== undefined ? (slow.at - a.batch.wetAt) / 1000 / moment.high : undefined
    return [
      ...bag?.uncertain
        ? [{ weight: SOME + 0.7, words: `“${bag.name}” is old, damp or unknown` }]
        : [{ weight: bag ? NORMAL : SILENT, words: bag ? 'its bag is known and sound' : '' }],
      ...slowness !== undefined && slowness > 1.1
        ? [{
            weight: SOME,
            words: `the gloss went ${
              formatDuration(slowness * moment.high - moment.high, 'minute')
            } later than it should at the latest`,
          }]
        : [],
    ]
  },
  'release-missing': a =>
    known(
      !/^None/.test(releaseRule(mould(a).material, a.run.plan).needs),
      `${mould(a).material} needs release: ${releaseRule(mould(a).material, a.run.plan).needs.toLowerCase()}`,
      `${mould(a).material.replace('-', ' ')} needs no release`,
    ),
  'release-much': a =>
    known(
      ['plastic', 'glass', 'metal', 'wood', 'plaster'].includes(mould(a).material),
      `${mould(a).material} is greased before each pour`,
      `${mould(a).material.replace('-', ' ')} is poured bare`,
    ),
  'worn-mould': a =>
    known(
      mould(a).wear?.some(w => w.tear) ?? false,
      'a tear was seen in this mould',
      mould(a).wear ? 'no tear was noted of it' : undefined,
    ),
  'seam-open':
    a => [
      ...known((mould(a).halves ?? 1) > 1, `the mould has ${mould(a).halves} parts`, 'the mould is in one piece'),
      ...trouble(a, 'leak') ? [{ weight: SEEN, words: 'it leaked' }] : [],
    ],
  'thin-part': a => known(mould(a).fragile, 'the piece has thin parts', 'the piece has no thin parts'),
  'air-shut-in': a =>
    known(
      mould(a).pourHole !== undefined || (mould(a).halves ?? 1) > 1,
      mould(a).pourHole !== undefined ? 'it is filled through a pour hole' : 'it is closed all round',
      mould(a).halves === 1 ? 'the mould is open above' : undefined,
    ),
  'too-little':
    a => [
      ...above(
        missing(a),
        0.05,
        0.1,
        x => `${percent(x)} less went into the bucket than ${a.run.daysOnly ? 'its moulds take' : 'planned'}`,
        `as much was weighed as ${a.run.daysOnly ? 'its moulds take' : 'planned'}`,
      ),
      ...trouble(a, 'short') ? [{ weight: SEEN, words: 'it was said to be short' }] : [],
      ...a.batch.leftover === 'none'
        ? [{ weight: SOME, words: 'nothing was left over' }]
        : a.batch.leftover
          ? [{ weight: NORMAL - 0.8, words: 'some was left over' }]
          : [],
    ],
  'coat-late': (a) => {
    const b = a.cast.cast.batch, before = a.state.batches[b - 1], fill = a.batch.stages.find(s => s.stage === 'fill')
    if (!a.run.batches[b]!.coat || before?.wetAt === undefined || !fill)
      return [{ weight: NORMAL - 1.5, words: 'it was poured at once' }]
    const gone = before.marks.find(m => m.sign === 'gloss-gone')?.at
      ?? before.wetAt + a.run.moments[mould(a).id]!.glossGone.value * 1000
    return above(
      (fill.at - gone) / 60_000 + 3,
      2,
      6,
      () => `laid ${min(Math.max(0, fill.at - gone) / 1000)} after the coat before lost its gloss`,
      'laid while the coat before had its gloss',
    )
  },
  'dried-hot': a =>
    known(
      a.cast.stays.some(s => s.place === 'sun' || s.air.celsius > WARM_ENOUGH),
      'it stood in the sun or above 45 °C',
      a.cast.stays.length > 0 ? 'it stood neither in sun nor heat' : undefined,
    ),
  'dried-one-side': a =>
    known(
      a.cast.stays.some(s => s.place === 'board' || s.place === 'ground' || s.place === 'mould'),
      'it lay on one face',
      a.cast.stays.length > 0 ? 'air reached it all round' : undefined,
    ),
  'finished-damp': (a) => {
    const { readyFrom } = dryingDates(a.run, a.state, a.cast), { finishedAt, openedAt } = a.cast
    if (readyFrom === undefined || finishedAt === undefined || openedAt === undefined)
      return [{ weight: SILENT, words: '' }]
    return above(
      1 - (finishedAt - openedAt) / (readyFrom - openedAt),
      0.1,
      0.3,
      x => `finished ${percent(x)} before it could be dry`,
      'it had time to dry',
    )
  },
  'additive': a =>
    a.run.daysOnly
      ? []
      : known(
          a.run.plan.additions.some(x => x.share > additionKind(x.id).harmful),
          'an additive above its harmful share',
          a.run.plan.additions.length > 0 ? 'additives were within bounds' : 'nothing was added',
        ),
  'measured-by-volume': a =>
    a.run.daysOnly
      ? []
      : known(
          a.run.plan.school === 'scoops',
          `counted in scoops of ${powderClass(a.run.plan.classId).name.toLowerCase()}`,
          'it was not counted in scoops',
        ),
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

/** Likely causes of a defect of one cast, the likeliest first, each with what the record says. */
export function why(
  run: FrozenRun,
  state: PourState,
  castId: string,
  defect: DefectId,
  confirmed: Confirmed = [],
  prefs: UnitPreferences = METRIC,
): readonly Likely[] {
  const cast = state.casts.find(c => c.cast.id === castId)
  if (!cast) return []
  const told = state.batches[cast.cast.batch]!
  // Of a pour of which only the day is known, no time of day says anything.
  const asked: Asked = run.daysOnly
    ? {
        run,
        state,
        cast: { ...cast, filledAt: undefined, openedAt: undefined },
        batch: { ...told, stages: [], wetAt: undefined, marks: [] },
        prefs,
      }
    : { run, state, cast, batch: told, prefs }
  const scored = [...priors(defect, confirmed)].map(([id, prior]) => {
    const { words, nextTime } = causeOf(id), evidence = SAYS[id](asked)
    return {
      cause: id,
      words,
      nextTime,
      evidence: evidence.filter(e => e.words !== ''),
      odds: prior * Math.exp(evidence.reduce((s, e) => s + e.weight, 0)),
    }
  })
  const sum = scored.reduce((s, x) => s + x.odds, 0)
  return scored.map(({ odds, ...x }): Likely => ({ ...x, share: odds / sum })).sort((a, b) => b.share - a.share)
}
