import { WARM_ENOUGH } from '../air/drying'
import { additionKind } from '../gypsum/additions'
import { powderClass } from '../gypsum/powders'
import { formatConsistency, formatDuration, formatTemperature } from '../units/format'
import { METRIC, type UnitPreferences } from '../units/units'
import { releaseRule } from '../mould/readiness'
import type { DefectId } from './defects'
import { dryingDates } from './drying'
import type { FrozenRun } from './run'
import type { BatchState, CastState, PourState } from './timeline'

/**
 * Why a cast has a defect: causes that can bring it about, each weighed by what this pour's own record says for and against it. Every weight stands below and can
 * be read; none is fitted. Which cause brings which defect is common practice, no source; weights are engineering guesses, tried on made-up pours (tests).
 */

/** One thing the record says about a cause: how strongly for it (above nothing) or against it (below), as the logarithm of odds, and in words. */
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
interface Asked { readonly run: FrozenRun, readonly state: PourState, readonly cast: CastState, readonly batch: BatchState, readonly prefs: UnitPreferences }

interface Cause {
  readonly id: string
  readonly words: string
  readonly nextTime: string
  /** How often it is behind each defect when nothing is known; a defect that is not named it does not bring about. */
  readonly brings: Partial<Record<DefectId, number>>
  readonly says: (a: Asked) => readonly Evidence[]
}

// How strongly things speak. Something seen outright; far out of the ordinary; somewhat; as it should be; and what would have been said but was not.
const SEEN = 2.6, FAR = 2.2, SOME = 1.1, NORMAL = -1.4, SILENT = -0.5
const percent = (x: number) => `${Math.round(100 * Math.abs(x))} %`
/** For a number that is wrong above some and very wrong above more. */
function above(x: number | undefined, some: number, far: number, words: (x: number) => string, normal: string): readonly Evidence[] {
  if (x === undefined || !Number.isFinite(x)) return []
  return x >= far ? [{ weight: FAR + Math.min(0.8, (x - far) / far * 0.6), words: words(x) }] : x >= some ? [{ weight: SOME + (FAR - SOME) * (x - some) / (far - some), words: words(x) }] : x > 0.6 * some ? [] : [{ weight: NORMAL, words: normal }]
}
const known = (yes: boolean, words: string, otherwise?: string): readonly Evidence[] => yes ? [{ weight: SEEN, words }] : otherwise === undefined ? [{ weight: SILENT, words: '' }] : [{ weight: NORMAL, words: otherwise }]

/** Length of a stage that was really told, seconds. */
function stageLength(batch: BatchState, from: string, to: readonly string[]): number | undefined {
  const a = batch.stages.find(s => s.stage === from), b = batch.stages.find(s => to.includes(s.stage))
  return a && b && !a.inferred && !b.inferred ? (b.at - a.at) / 1000 : undefined
}
const planned = ({ run, cast }: Asked) => run.batches[cast.cast.batch]!
const ratioOff = ({ run, batch }: Asked) => batch.ratio === undefined ? undefined : batch.ratio / run.ratio.value - 1
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
const room = ({ run, batch }: Asked) => batch.room ?? run.plan.roomTemperature
const water = ({ run, batch }: Asked) => batch.water ?? run.plan.waterTemperature
const marked = (a: Asked, sign: string) => a.batch.marks.some(m => m.sign === sign)
const trouble = (a: Asked, id: string) => a.batch.troubles.some(t => t === id)
const mould = (a: Asked) => a.cast.cast.mould
/** Of the mix that was to be in this batch, how much was missing, by weight. */
function missing(a: Asked): number | undefined {
  const { water: w, powder: p } = a.batch.weighed, { mix } = planned(a)
  return w === undefined || p === undefined ? undefined : 1 - (w + p) / (mix.water + mix.powder)
}
const min = (t: number) => formatDuration(Math.round(t / 10) * 10)

const CAUSES = [
  { id: 'too-thin', words: 'Mixed too thin', nextTime: 'Weigh both, and read the scale with the bucket level; powder brings a thin mix back only before it is stirred.', brings: { 'soft': 3, 'crack': 0.8, 'efflorescence': 0.6, 'lumps': 0.2, 'broken-edge': 0.8 },
    says: a => [...above(ratioOff(a), 0.04, 0.08, x => `${percent(x)} more water than planned (${formatConsistency(a.batch.ratio!)} for ${formatConsistency(a.run.ratio.value)})`, 'its ratio was as planned'), ...trouble(a, 'water-on-top') ? [{ weight: SOME, words: 'water stood on it' }] : []] },
  { id: 'too-thick', words: 'Mixed too thick', nextTime: 'Take the planned water; what is over in powder asks for more water before it is stirred.', brings: { 'surface-bubbles': 1.6, 'void': 1.4, 'short': 0.7, 'layer-line': 0.6, 'lumps': 0.8 },
    says: a => above(ratioOff(a) === undefined ? undefined : -ratioOff(a)!, 0.04, 0.08, x => `${percent(x)} less water than planned (${formatConsistency(a.batch.ratio!)} for ${formatConsistency(a.run.ratio.value)})`, 'its ratio was as planned') },
  { id: 'stirred-long', words: 'Stirred too long', nextTime: 'Stop as soon as it coats a glove; a longer soak needs less stirring.', brings: { 'surface-bubbles': 1.4, 'layer-line': 1.2, 'short': 0.7, 'soft': 0.5, 'void': 0.5 },
    says: a => above(stirring(a) === undefined ? undefined : stirring(a)! - 1, 0.35, 0.7, x => `stirred ${(1 + x).toFixed(1)} times as long as planned`, 'stirred about as long as planned') },
  { id: 'stirred-little', words: 'Stirred too little', nextTime: 'Feel along the wall and the bottom until no lump is left.', brings: { lumps: 2, streaks: 1, soft: 0.7 },
    says: a => [...above(stirring(a) === undefined ? undefined : 1 - stirring(a)!, 0.3, 0.5, x => `stirred only ${percent(1 - x)} of the planned time`, 'stirred about as long as planned'), ...marked(a, 'lumps') ? [{ weight: SOME, words: 'lumps were felt' }] : []] },
  { id: 'soak-short', words: 'Soaked too short', nextTime: 'Leave it for the whole soak, hands off: it saves stirring and bubbles.', brings: { 'lumps': 1.8, 'surface-bubbles': 1 },
    says: (a) => {
      const t = stageLength(a.batch, 'soak', ['stir']), wanted = planned(a).steps.soaked.value - planned(a).steps.sifted.value
      return t === undefined || wanted < 20 ? [] : above(1 - t / wanted, 0.35, 0.6, () => `soaked ${min(t)} of ${min(wanted)}`, 'soaked as long as planned')
    } },
  { id: 'poured-late', words: 'Poured after it had begun to stiffen', nextTime: 'Fewer moulds to a batch, colder water, or two people; thinnest detail first.', brings: { 'layer-line': 2.2, 'void': 1.3, 'short': 1.2, 'surface-bubbles': 1, 'streaks': 0.6 },
    // Counted from a minute before it was too stiff.
    says: a => above(lateBy(a) === undefined ? undefined : lateBy(a)! + 1, 0.9, 2.5, x => x > 1 ? `filled ${min(60 * (x - 1))} after it was too stiff to pour` : 'filled just as it became too stiff', 'filled while it still flowed').concat(marked(a, 'will-not-pour') && (lateBy(a) ?? 1) > -1 ? [{ weight: SOME, words: 'it was marked as not pouring any more' }] : []) },
  { id: 'opened-early', words: 'Opened too early', nextTime: 'Wait until it is past its warmest; a thin piece until it has cooled.', brings: { 'broken-edge': 2.6, 'torn': 1.8, 'warped': 1.6, 'soft': 1, 'crack': 0.8 },
    // From a twelfth after its earliest moment it begins to be suspected; a twelfth before it, it is far.
    says: a => above(earlyBy(a) === undefined ? undefined : earlyBy(a)! + 0.3, 0.22, 0.42, () => `opened ${formatDuration((a.cast.openedAt! - a.batch.wetAt!) / 1000, 'minute')} after wetting, where about ${formatDuration(a.run.moments[mould(a).id]!.openEarliest.value, 'minute')} are needed`, 'opened when it was strong enough') },
  { id: 'cold', words: 'Too cold to set in its time', nextTime: 'Bring water, powder and mould to 18 to 22 °C, or wait twice as long.', brings: { 'soft': 0.9, 'broken-edge': 0.7, 'torn': 0.4 },
    says: a => above(15 - Math.min(room(a), water(a)), 3, 7, () => `room ${formatTemperature(room(a), a.prefs)}, water ${formatTemperature(water(a), a.prefs)}`, 'it was warm enough') },
  { id: 'hot-water', words: 'Water too warm', nextTime: 'Cold or room water: warm water makes lumps and takes the time to pour.', brings: { 'lumps': 1.4, 'layer-line': 0.8, 'short': 0.4 },
    says: a => above(water(a) - 25, 4, 10, () => `water of ${formatTemperature(water(a), a.prefs)}`, 'the water was not warm') },
  { id: 'old-powder', words: 'Old or damp powder', nextTime: 'A cup test before the next pour; open a fresh bag, and keep it shut and dry.', brings: { soft: 1.6, lumps: 1.4, crack: 0.4 },
    says: (a) => {
      const bag = a.run.world.bag
      const slow = a.batch.marks.find(m => m.sign === 'gloss-gone'), moment = a.run.moments[mould(a).id]!.glossGone
      const slowness = slow && a.batch.wetAt !== undefined ? (slow.at - a.batch.wetAt) / 1000 / moment.high : undefined
      return [...bag?.uncertain ? [{ weight: SOME + 0.7, words: `“${bag.name}” is old, damp or unknown` }] : [{ weight: bag ? NORMAL : SILENT, words: bag ? 'its bag is known and sound' : '' }], ...slowness !== undefined && slowness > 1.1 ? [{ weight: SOME, words: `the gloss went ${formatDuration(slowness * moment.high - moment.high, 'minute')} later than it should at the latest` }] : []]
    } },
  { id: 'release-missing', words: 'Too little release', nextTime: 'Work the release into every corner and buff it; bare plaster bonds to plaster.', brings: { 'stuck': 3, 'torn': 1.4, 'broken-edge': 0.7 },
    says: a => known(!/^None/.test(releaseRule(mould(a).material, a.run.plan).needs), `${mould(a).material} needs release: ${releaseRule(mould(a).material, a.run.plan).needs.toLowerCase()}`, `${mould(a).material.replace('-', ' ')} needs no release`) },
  { id: 'release-much', words: 'Release laid on too thick', nextTime: 'A very thin film, brushed out; wipe the pool out of the corners.', brings: { 'streaks': 2.2, 'surface-bubbles': 0.6, 'stain': 1 },
    says: a => known(['plastic', 'glass', 'metal', 'wood', 'plaster'].includes(mould(a).material), `${mould(a).material} is greased before each pour`, `${mould(a).material.replace('-', ' ')} is poured bare`) },
  { id: 'worn-mould', words: 'Worn or torn mould', nextTime: 'Mend or recast the mould; look at the seam and the tear-stops before each pour.', brings: { torn: 1.4, flash: 1.4, stuck: 0.5, stain: 0.6 },
    says: a => known(mould(a).wear?.some(w => w.tear) ?? false, 'a tear was seen in this mould', mould(a).wear ? 'no tear was noted of it' : undefined) },
  { id: 'seam-open', words: 'Halves not tight', nextTime: 'Tape or strap the halves without stretch, plug the seam with clay, look once more when it is full.', brings: { flash: 2, short: 0.6 },
    says: a => [...known((mould(a).halves ?? 1) > 1, `the mould has ${mould(a).halves} parts`, 'the mould is in one piece'), ...trouble(a, 'leak') ? [{ weight: SEEN, words: 'it leaked' }] : []] },
  { id: 'thin-part', words: 'A thin part without time or talc', nextTime: 'Talc in the tips, a first coat by brush, and open by bending the mould away, not the cast.', brings: { 'broken-edge': 1, 'torn': 0.7, 'void': 0.5 },
    says: a => known(mould(a).fragile, 'the piece has thin parts', 'the piece has no thin parts') },
  { id: 'air-shut-in', words: 'Air could not leave', nextTime: 'A little first, tilt and tap, then the rest; a vent at the highest place that stays hollow.', brings: { 'void': 2.4, 'surface-bubbles': 0.5 },
    says: a => known(mould(a).pourHole !== undefined || (mould(a).halves ?? 1) > 1, mould(a).pourHole !== undefined ? 'it is filled through a pour hole' : 'it is closed all round', mould(a).halves === 1 ? 'the mould is open above' : undefined) },
  { id: 'too-little', words: 'Too little mix', nextTime: 'Gauge the mould again and keep a spare of 6 to 10 %; an overflow mould takes what is left.', brings: { short: 2.6, void: 0.4 },
    says: a => [...above(missing(a), 0.05, 0.1, x => `${percent(x)} less went into the bucket than planned`, 'as much was weighed as planned'), ...trouble(a, 'short') ? [{ weight: SEEN, words: 'it was said to be short' }] : [], ...a.batch.leftover === 'none' ? [{ weight: SOME, words: 'nothing was left over' }] : a.batch.leftover ? [{ weight: NORMAL - 0.8, words: 'some was left over' }] : []] },
  { id: 'coat-late', words: 'The coat before had set', nextTime: 'Next coat before the gloss goes, or score, wet and coat it thinly first.', brings: { 'layer-line': 2.4, 'crack': 0.8 },
    says: (a) => {
      const b = a.cast.cast.batch, before = a.state.batches[b - 1], fill = a.batch.stages.find(s => s.stage === 'fill')
      if (!a.run.batches[b]!.coat || before?.wetAt === undefined || !fill) return [{ weight: NORMAL - 1.5, words: 'it was poured at once' }]
      const gone = before.marks.find(m => m.sign === 'gloss-gone')?.at ?? before.wetAt + a.run.moments[mould(a).id]!.glossGone.value * 1000
      return above((fill.at - gone) / 60_000 + 3, 2, 6, () => `laid ${min(Math.max(0, fill.at - gone) / 1000)} after the coat before lost its gloss`, 'laid while the coat before had its gloss')
    } },
  { id: 'dried-hot', words: 'Dried too warm or in the sun', nextTime: 'Moving air, no sun, never above 45 °C.', brings: { crack: 2, warped: 1.4, soft: 0.8 },
    says: a => known(a.cast.stays.some(s => s.place === 'sun' || s.air.celsius > WARM_ENOUGH), 'it stood in the sun or above 45 °C', a.cast.stays.length > 0 ? 'it stood neither in sun nor heat' : undefined) },
  { id: 'dried-one-side', words: 'Dried from one side', nextTime: 'On a rack, or turned every day; thick and thin parts dry together when it is covered.', brings: { warped: 1.8, crack: 0.9 },
    says: a => known(a.cast.stays.some(s => s.place === 'board' || s.place === 'ground' || s.place === 'mould'), 'it lay on one face', a.cast.stays.length > 0 ? 'air reached it all round' : undefined) },
  { id: 'finished-damp', words: 'Finished while still damp', nextTime: 'Weigh it: paint at 5 % free water, seal at 1 %.', brings: { efflorescence: 2.4, stain: 1.4, streaks: 0.3 },
    says: (a) => {
      const { readyFrom } = dryingDates(a.run, a.state, a.cast), { finishedAt, openedAt } = a.cast
      if (readyFrom === undefined || finishedAt === undefined || openedAt === undefined) return [{ weight: SILENT, words: '' }]
      return above(1 - (finishedAt - openedAt) / (readyFrom - openedAt), 0.1, 0.3, x => `finished ${percent(x)} before it could be dry`, 'it had time to dry')
    } },
  { id: 'additive', words: 'Too much of an additive', nextTime: 'Weigh additives on a fine scale; keep below what its line says.', brings: { efflorescence: 1.6, soft: 0.9, crack: 0.4 },
    says: a => known(a.run.plan.additions.some(x => x.share > additionKind(x.id).harmful), 'an additive above its harmful share', a.run.plan.additions.length > 0 ? 'additives were within bounds' : 'nothing was added') },
  { id: 'measured-by-volume', words: 'Measured by volume', nextTime: 'Weigh the powder once: a scoop holds a quarter more or less by how it is filled.', brings: { 'soft': 0.9, 'short': 0.5, 'surface-bubbles': 0.4 },
    says: a => known(a.run.plan.school === 'scoops', `counted in scoops of ${powderClass(a.run.plan.classId).name.toLowerCase()}`, 'it was not counted in scoops') },
] as const satisfies readonly Cause[]

export type CauseId = typeof CAUSES[number]['id']
export const CAUSE_IDS = CAUSES.map(c => c.id) as unknown as readonly [CauseId, ...CauseId[]]
export const causeWords = (id: CauseId) => CAUSES.find(c => c.id === id)!.words

/** Confirmed causes of a defect in this workshop, and how much they count against what is common: ten of them as much as practice does. */
export type Confirmed = readonly { readonly defect: DefectId, readonly cause: CauseId, readonly times: number }[]
const TRUST = 10

/** What is common, moved towards what this workshop has confirmed. */
function priors(defect: DefectId, confirmed: Confirmed): ReadonlyMap<CauseId, number> {
  const all: readonly Cause[] = CAUSES, brought = all.flatMap(c => c.brings[defect] ? [[c.id as CauseId, c.brings[defect]] as const] : [])
  const sum = brought.reduce((s, [, w]) => s + w, 0), own = confirmed.filter(c => c.defect === defect), times = own.reduce((s, c) => s + c.times, 0)
  return new Map(brought.map(([id, w]) => [id, (TRUST * w / sum + (own.find(c => c.cause === id)?.times ?? 0)) / (TRUST + times)]))
}

/** The cause that is commonest for a defect when nothing is asked of the record. */
export function commonest(defect: DefectId, confirmed: Confirmed = []): CauseId | undefined {
  return [...priors(defect, confirmed)].sort((a, b) => b[1] - a[1])[0]?.[0]
}

/** Likely causes of a defect of one cast, the likeliest first, each with what the record says. */
export function why(run: FrozenRun, state: PourState, castId: string, defect: DefectId, confirmed: Confirmed = [], prefs: UnitPreferences = METRIC): readonly Likely[] {
  const cast = state.casts.find(c => c.cast.id === castId)
  if (!cast) return []
  const told = state.batches[cast.cast.batch]!
  // Of a pour of which only the day is known, no time of day says anything.
  const asked: Asked = run.daysOnly ? { run, state, cast: { ...cast, filledAt: undefined, openedAt: undefined }, batch: { ...told, stages: [], wetAt: undefined, marks: [] }, prefs } : { run, state, cast, batch: told, prefs }
  const scored = [...priors(defect, confirmed)].map(([id, prior]) => {
    const cause: Cause = CAUSES.find(c => c.id === id)!, evidence = cause.says(asked)
    return { cause: id, words: cause.words, nextTime: cause.nextTime, evidence: evidence.filter(e => e.words !== ''), odds: prior * Math.exp(evidence.reduce((s, e) => s + e.weight, 0)) }
  })
  const sum = scored.reduce((s, x) => s + x.odds, 0)
  return scored.map(({ odds, ...x }): Likely => ({ ...x, share: odds / sum })).sort((a, b) => b.share - a.share)
}
