import { growthOf } from '../setting/outcome'
import type { Metres } from '../units/quantity'
import { dryingForecast, dryingRecord, missingWeight } from '../pour/drying'
import type { Measured } from '../pour/events'
import { powderOf, type FrozenRun } from '../plan/run'
import type { CastState, PourState } from '../pour/fold'
import { CHECK_LIST_WORDS, type CheckListId, type CheckListWords, type MeasureId } from './words'

/** A finished piece looked over with a rule and a scale. */

/**
 * How much a cast of this run grows on setting, as a share: by its mix and stirring, with the range its class of powder
 * is met with (core/gypsum/powders.ts).
 */
export function expectedExpansion(
  run: FrozenRun,
  ratio = run.ratio.value,
): { readonly value: number, readonly low: number, readonly high: number } {
  return growthOf(powderOf(run), ratio, run.plan.stir, run.plan.additions)
}

/**
 * What a rule or caliper can be trusted with: half a millimetre, or a thousandth of what is long (common practice, no
 * source).
 */
const RULE: Metres = 0.0005

interface Judged {
  readonly fits: boolean
  /** What it should be, with the expansion in it; a limit that is open is undefined. */
  readonly low?: Metres
  readonly high?: Metres
  /** How far it is outside, signed: below nothing when too small. */
  readonly off: Metres
}

/** A measure against its model, or against its limits. @returns undefined when there is nothing to hold it against. */
export function judgeMeasure(
  m: Measured,
  expansion: { readonly low: number, readonly high: number },
): Judged | undefined {
  const slack = Math.max(RULE, 0.001 * m.value)
  const low = m.nominal === undefined ? m.least : m.nominal * (1 + expansion.low) - slack,
    high = m.nominal === undefined ? m.most : m.nominal * (1 + expansion.high) + slack
  if (low === undefined && high === undefined) return undefined
  const off = low !== undefined && m.value < low
    ? m.value - low
    : high !== undefined && m.value > high
      ? m.value - high
      : 0
  return { fits: off === 0, low, high, off }
}

interface WeightFound {
  /** Of what it should weigh then, 80 % range, kg. */
  readonly low: number
  readonly high: number
  readonly mass: number
  /**
   * Share of it that is missing, when that is more than scatter: a void inside, or a part not filled; and its room, m³.
   */
  readonly missing?: { readonly share: number, readonly volume: number }
}

/** The first weighing of a cast against what was poured into it. @returns undefined before it was weighed. */
export function weightFound(run: FrozenRun, state: PourState, cast: CastState): WeightFound | undefined {
  const record = dryingRecord(run, state, cast), first = record?.weighed[0]
  if (!record || !first) return undefined
  const { low, high } = dryingForecast({ ...record, weighed: [], felt: [] }).forecast.massRange(first.at),
    share = missingWeight(record)
  return {
    low,
    high,
    mass: first.mass,
    missing: share === undefined ? undefined : { share, volume: share * cast.cast.mould.volume.value },
  }
}

interface CheckItem {
  /** What is measured: an id of the lists below, or what someone called it. Its name: `measureName`. */
  readonly what: string
  readonly least?: Metres
  readonly most?: Metres
}
interface CheckList extends CheckListWords {
  readonly id: CheckListId
  readonly items: readonly CheckItem[]
}

const item = (what: MeasureId, limits: Omit<CheckItem, 'what'>): CheckItem => ({ what, ...limits })

const checkList = (id: CheckListId, items: readonly CheckItem[]): CheckList => ({ id, ...CHECK_LIST_WORDS[id], items })

/** Lists that are used again and again; the limits are common practice, no source. */
export const CHECK_LISTS: readonly CheckList[] = [
  checkList('dental', [item('base', { least: 0.015 }), item('thinnest', { least: 0.01 })]),
  checkList('print', [item('over-ground', { least: 0.013 }), item('thinnest', { least: 0.01 })]),
  checkList('relief', [
    item('rim', { least: 0.008 }),
    item('middle', { least: 0.01 }),
    item('out-of-flat', { most: 0.001 }),
  ]),
]

/**
 * A shell brings a list of its own: what its thickness map says, each area within a fifth of it (engineering guess).
 */
export function shellList(run: FrozenRun): CheckList | undefined {
  const areas = run.plan.coats?.areas
  if (!areas?.length) return undefined
  return checkList('shell', areas.map((a) => {
    const thick = a.thickness.reduce((s, t) => s + t, 0)
    return { what: a.name, least: 0.8 * thick, most: 1.2 * thick }
  }))
}
