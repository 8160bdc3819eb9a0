import type { Kilograms, Seconds } from '../units/quantity'
import { castBody, LONGEST_DRYING } from '../drying/expected'
import { shareLeft, WARM_ENOUGH, type Dryness, type Stay } from '../drying/cast'
import { whyNotHere, type NotHere } from '../drying/here'
import { dayOfYear, inTheSun, place, type Standing } from '../drying/places'
import { plannedStanding } from '../plan/standing'
import {
  constantWeight,
  forecastDrying,
  type DryingForecast,
  type DryingRecord,
  type Steady,
} from '../drying/weighings'
import { castSize } from '../plan/batches/coats'
import { BONE_DRY, BREATHES, endUse, TIGHT } from '../gypsum/end-use'
import { solveMix } from '../gypsum/mix'
import type { Instant } from './events'
import { powderOf, type FrozenRun } from '../plan/run'
import type { CastState, PourState } from './fold'

/**
 * What a piece can be used for once it is how dry (engineering guesses). With more than a fifth of its water its edges
 * are soft, and it is carried, not handled.
 */
export const DRY_FOR = [
  { id: 'handle', to: { left: 0.20 } },
  { id: 'paint', to: BREATHES },
  { id: 'clay', to: BREATHES },
  { id: 'seal', to: TIGHT },
  { id: 'heat', to: BONE_DRY },
] as const
export type DryFor = typeof DRY_FOR[number]['id']

/**
 * A cast's drying as a record for the model: from what was really mixed, and everything that was told since it was
 * opened.
 */
export function dryingRecord(run: FrozenRun, state: PourState, cast: CastState): DryingRecord | undefined {
  if (cast.openedAt === undefined) return undefined
  const batch = state.batches[cast.cast.batch]!, { plan } = run
  const mix = solveMix({
    powder: powderOf(run),
    ratio: batch.ratio ?? run.ratio.value,
    waterTemperature: plan.waterTemperature,
    additions: plan.additions,
  }, { what: 'slurry', amount: 1e-3 })
  const after = (at: Instant): Seconds => Math.max(0, (at - cast.openedAt!) / 1000)
  const usual: Stay = { ...plannedStanding(plan, dayOfYear(cast.openedAt), batch.room), from: 0 }
  const told = cast.stays.map(({ at, ...s }): Stay => ({ ...s, day: dayOfYear(at), from: after(at) }))
  return {
    body: castBody(mix, castSize(plan, cast.cast.mould)),
    stays: told[0]?.from === 0 ? told : [usual, ...told],
    weighed: cast.weighed.map(w => ({ at: after(w.at), mass: w.mass })),
    felt: cast.felt.map(f => ({ at: after(f.at), how: f.how })),
  }
}

/**
 * A cast this much lighter than its recipe, as a share, has more missing than moulds and scales scatter (engineering
 * guess: twice the spread of a cast's size).
 */
const LIGHT = 0.10
/**
 * How much lighter its first weighing was than what was poured should be, when that is more than scatter: a void
 * inside, or a part that was not filled.
 */
export function missingWeight(record: DryingRecord): number | undefined {
  const first = record.weighed[0]
  if (!first) return undefined
  const expected = forecastDrying({ ...record, weighed: [], felt: [] }), { high, low } = expected.massRange(first.at)
  const share = 1 - first.mass / ((high + low) / 2)
  return share > LIGHT ? share : undefined
}

interface KnownDrying {
  readonly forecast: DryingForecast
  readonly steady: Steady | undefined
  /** Asked of its use; nothing where it is never dried. */
  readonly notHere: NotHere | undefined
}
const kept = new Map<string, KnownDrying>()
const MOST_KEPT = 400
/** The forecast of a record; equal records, such as those of casts that were opened together, share one. */
export function dryingForecast(record: DryingRecord, dryTo?: Dryness): KnownDrying {
  const key = JSON.stringify([record, dryTo])
  const known = kept.get(key)
  if (known) return known
  const forecast = forecastDrying(record), now = record.stays.at(-1)!, { body } = forecast.centre
  const made = {
    forecast,
    steady: constantWeight(record, forecast),
    notHere: dryTo && whyNotHere(body, now, dryTo, forecast.centre.water(now.from)),
  }
  kept.set(key, made)
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!)
  return made
}

/** What the shelf needs to know of a drying cast, beside its dates. */
export interface DryingSummary {
  readonly standing: Standing
  readonly since: Instant
  readonly weighed: number
  readonly lastMass?: Kilograms
  readonly wettedAt?: Instant
  readonly steady?: Steady
  /** Why it does not dry where it is; there is no date then. */
  readonly notHere?: NotHere
  /** Its water may freeze by night while its pores are nearly full, and crack it. */
  readonly frost?: true
  /** How much of its pore water is foretold to be left, from its opening on: for drawings, straight between them. */
  readonly damp?: readonly (readonly [at: Instant, share: number])[]
}

/** Frost cracks what is fuller of water than this, as a share of what its pores held at first (engineering guess). */
const FROST_CRACKS = 0.8

interface DryingDates {
  readonly readyFrom?: Instant
  readonly readyTo?: Instant
  readonly drying?: DryingSummary
}
/** Where along its drying the damp is told: closer together while it changes fast. */
const DAMP_AT = [0, 0.05, 0.12, 0.22, 0.35, 0.5, 0.7, 1]
/** How far it is told where there is no end. */
const DAMP_SPAN: Seconds = 14 * 86_400
function dampCurve({ forecast }: KnownDrying, openedAt: Instant, dryTo?: Dryness): NonNullable<DryingSummary['damp']> {
  const { body } = forecast.centre, end = dryTo && forecast.dries(dryTo).high
  const span = Math.min(LONGEST_DRYING, end !== undefined && Number.isFinite(end) ? end : DAMP_SPAN)
  return DAMP_AT.map(part => [
    Math.round(openedAt + part * span * 1000),
    Math.round(1000 * shareLeft(body, forecast.centre.water(part * span))) / 1000,
  ] as const)
}
/** Dates of a cast that is open, from everything told; nothing for one that is kept damp or still in its mould. */
export function dryingDates(run: FrozenRun, state: PourState, cast: CastState): DryingDates {
  const record = dryingRecord(run, state, cast)
  if (!record) return {}
  const { dryTo } = endUse(run.plan.endUse), known = dryingForecast(record, dryTo)
  const { forecast, steady, notHere } = known
  const now = record.stays.at(-1)!, { place: where, air, weather } = now
  const coldest = air.celsius - (place(where).outdoors ? weather?.swing ?? 0 : 0)
  const full = shareLeft(forecast.centre.body, forecast.centre.water(now.from)) > FROST_CRACKS
  const drying: DryingSummary = {
    standing: { place: where, air, weather },
    since: cast.openedAt! + now.from * 1000,
    weighed: record.weighed.length,
    lastMass: record.weighed.at(-1)?.mass,
    wettedAt: cast.wettedAt,
    steady,
    notHere,
    ...coldest < 0 && full && { frost: true as const },
    damp: dampCurve(known, cast.openedAt!, dryTo),
  }
  if (dryTo === undefined) return { drying }
  // No date, not even the one that was foretold.
  if (notHere) return { readyFrom: undefined, readyTo: undefined, drying }
  const { low, high } = forecast.dries(dryTo),
    at = (t: Seconds) => Math.round(cast.openedAt! + Math.min(LONGEST_DRYING, t) * 1000)
  return { readyFrom: at(low), readyTo: at(high), drying }
}

/** Turned after a day on one face; wrapped pieces are wetted again after three (common practice, no source). */
const TURN_AFTER = 20 * 3_600_000, WET_AFTER = 3 * 86_400_000

export type DryingAdvice
  = 'wet-again' | 'frost' | 'out-of-sun' | 'too-warm' | 'unwrap' | 'not-drying' | 'steady-not-dry' | 'out-of-mould' | 'turn'

/** The one thing worth doing with a drying cast now, or nothing. */
export function dryingAdvice(drying: DryingSummary, now: Instant, keptDamp: boolean): DryingAdvice | undefined {
  const { place: where, air } = drying.standing
  if (keptDamp) return now - Math.max(drying.wettedAt ?? 0, drying.since) > WET_AFTER ? 'wet-again' : undefined
  if (drying.notHere) return 'not-drying'
  if (drying.frost) return 'frost'
  if (inTheSun(drying.standing)) return 'out-of-sun'
  if (air.celsius > WARM_ENOUGH) return 'too-warm'
  if (where === 'damp') return 'unwrap'
  if (drying.steady?.steady && !drying.steady.dry) return 'steady-not-dry'
  if (where === 'mould') return 'out-of-mould'
  const oneFace = where === 'board' || where === 'sky-board'
  return oneFace && now - drying.since > TURN_AFTER ? 'turn' : undefined
}
