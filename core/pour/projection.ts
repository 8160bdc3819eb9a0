import { paceTaken, type PaceTaken } from './pace-taken'
import { stepWords } from '../plan/step-words'
import type { Celsius, CubicMetres, Seconds, WaterRatio } from '../units/quantity'
import type { Vessel } from '../mould/gauge/vessel'
import { solveMix } from '../gypsum/mix'
import { powderClass, type PowderClassId } from '../gypsum/powders'
import type { SchoolId } from '../gypsum/schools'
import { endUse } from '../gypsum/end-use'
import type { Instant, Verdict } from './events'
import type { DefectId } from './defects'
import { costOf, powderUsed } from './cost'
import type { Taught, Batch } from '../plan/types'
import type { CauseId } from './causes'
import { milestonesOf, type MilestoneId, type Tone } from './milestones'
import { dryingDates, type DryingSummary } from './drying'
import { castCounts, powderOf, type CastCount, type FrozenRun } from '../plan/run'
import type { BatchState, CastStatus, PourState, PourStatus } from './fold'

/** What lists need to know of a milestone: enough to draw the glyph. */
export interface MilestoneMark {
  readonly id: MilestoneId
  readonly word: string
  readonly tone: Tone
  readonly low: Seconds
  readonly value: Seconds
  readonly high: Seconds
  readonly actual?: Seconds
}

/** What Today, the Shelf and the Logbook read of a pour, kept beside its events and always equal to their fold. */
export interface PourSummary {
  readonly name: string
  readonly status: PourStatus
  readonly classId: PowderClassId
  /** What its class is called, for lists; what decides is the class itself. */
  readonly powder: string
  readonly school: SchoolId
  readonly bag?: string
  readonly endUse: string
  readonly moulds: readonly CastCount[]
  readonly batches: number
  readonly ratio: {
    readonly planned: WaterRatio
    readonly low: WaterRatio
    readonly high: WaterRatio
    readonly actual?: WaterRatio
  }
  readonly startedAt?: Instant
  readonly wetAt?: Instant
  readonly endedAt?: Instant
  /** When the last thing happened that was told of it. */
  readonly lastAt?: Instant
  /** What is in hand at the bench. */
  readonly step: { readonly stage: string, readonly instruction: string, readonly batch: number }
  /** The bucket in hand, and what goes into it: for drawings. None once the last is poured, and none of a bag. */
  readonly bucket?: {
    readonly vessel: Vessel
    readonly water: CubicMetres
    readonly mix: CubicMetres
    readonly settled: number
  }
  readonly verdicts: Readonly<Record<Verdict, number>>
  readonly defects: readonly DefectId[]
  readonly glyph: readonly MilestoneMark[]
  /** What was found to be behind its defects, a line for each cast. */
  readonly causes?: readonly { readonly defect: DefectId, readonly cause: CauseId }[]
  /** What its marks told of the bag's speed, batch by batch. */
  readonly taught?: readonly Taught[]
  /** How long its steps took, by who did them. */
  readonly pace?: readonly PaceTaken[]
  readonly bagId?: string
  /** Powder that went into its buckets, kg. */
  readonly powderUsed?: number
  /** It comes from a table that tells only days and results: what was planned, and how it was made, was filled in. */
  readonly daysOnly?: true
  /** Water as it was used and air around, °C: as read last, else as planned. */
  readonly temperatures?: { readonly water: Celsius, readonly room: Celsius }
  /**
   * What it cost, and the pieces that can be used; absent where a price is missing, so that costs of several pours can
   * be added up.
   */
  readonly cost?: { readonly total: number, readonly pieces: number }
}

export interface CastSummary {
  readonly id: string
  readonly label: string
  readonly mould: string
  readonly mouldId: string
  readonly material: string
  /** Mix it really took, m3: its share of a weighed batch of which nothing was left. */
  readonly took?: number
  readonly status: CastStatus
  readonly powder: string
  readonly ratio: WaterRatio
  readonly endUse: string
  /** What it will be ready for, in the words of its end use; it may be kept damp and never dry. */
  readonly readyWord: string
  readonly filledAt?: Instant
  readonly openFrom?: Instant
  readonly openTo?: Instant
  readonly openedAt?: Instant
  readonly readyFrom?: Instant
  readonly readyTo?: Instant
  readonly verdict?: Verdict
  readonly defects: readonly DefectId[]
  readonly note: string
  readonly finishedAt?: Instant
  /** Of one that is open: where it stands and what was weighed. */
  readonly drying?: DryingSummary
}

function bucketInHand(run: FrozenRun, state: PourState): PourSummary['bucket'] {
  const { vessel } = run.world.bucket ?? {}, batch = run.batches[state.steps[state.step]!.batch]
  if (!vessel || !batch || state.status === 'setting' || state.endedAt !== undefined) return undefined
  const { waterVolume, slurry } = batch.mix
  return { vessel, water: waterVolume, mix: slurry, settled: powderOf(run).settledFraction }
}

export function summarisePour(run: FrozenRun, state: PourState): PourSummary {
  const verdicts = { good: 0, second: 0, waste: 0 }
  for (const c of state.casts) if (c.verdict) verdicts[c.verdict]++
  const ratios = state.batches.flatMap(b => b.ratio ?? [])
  const step = state.steps[state.step]!, cost = costOf(run, state)
  return {
    name: run.plan.name,
    status: state.status,
    classId: run.plan.classId,
    powder: powderClass(run.plan.classId).name,
    school: run.plan.school,
    bag: run.world.bag?.name,
    endUse: run.plan.endUse,
    moulds: castCounts(run),
    batches: run.batches.length,
    ratio: {
      planned: run.ratio.value,
      low: run.ratio.low,
      high: run.ratio.high,
      actual: ratios.length ? ratios.reduce((a, b) => a + b) / ratios.length : undefined,
    },
    startedAt: state.startedAt,
    wetAt: state.batches[0]?.wetAt,
    endedAt: state.endedAt,
    lastAt: state.lastAt,
    step: { stage: step.stage, instruction: stepWords(step).instruction, batch: step.batch },
    bucket: bucketInHand(run, state),
    verdicts,
    defects: [...new Set(state.casts.flatMap(c => c.defects))],
    causes: state.casts.flatMap(c => c.causes),
    powderUsed: powderUsed(run, state),
    daysOnly: run.daysOnly,
    temperatures: run.daysOnly
      ? undefined
      : {
          water: state.batches[0]?.water ?? run.plan.waterTemperature,
          room: state.batches[0]?.room ?? run.plan.roomTemperature,
        },
    cost: cost?.unknown.length === 0 ? { total: cost.total, pieces: cost.pieces } : undefined,
    bagId: run.world.bag?.id,
    taught: state.batches.flatMap(b => b.foreseen?.taught ?? []),
    pace: paceTaken(run, state),
    glyph: milestonesOf(run, state, 0).map(({ id, word, tone, low, value, high, actual }) => ({
      id,
      word,
      tone,
      low,
      value,
      high,
      actual,
    })),
  }
}

/** What stays on the walls of a bucket that was poured out (engineering guess). */
const LEFT_IN_BUCKET = 0.02

/**
 * Mix that the casts of a batch took, by litre of mould; undefined unless all of it was weighed and nothing was left.
 */
function fillOf(run: FrozenRun, batch: BatchState, planned: Batch): number | undefined {
  const { water, powder } = batch.weighed
  if (!water || !powder || batch.leftover !== 'none' || planned.coat) return undefined
  const mix = solveMix({
    powder: powderOf(run),
    ratio: water / powder,
    waterTemperature: run.plan.waterTemperature,
    additions: run.plan.additions,
  }, { what: 'powder', amount: powder })
  return mix.slurry * (1 - LEFT_IN_BUCKET) / planned.castVolume
}

export function summariseCasts(run: FrozenRun, state: PourState): readonly CastSummary[] {
  const use = endUse(run.plan.endUse)
  const fills = run.batches.map((b, i) => fillOf(run, state.batches[i]!, b))
  const took = (batch: number, volume: number, short: boolean) =>
    fills[batch] === undefined || short ? undefined : fills[batch] * volume
  return state.casts.map((
    {
      cast,
      fillInferred: _inferred,
      causes: _causes,
      stays: _stays,
      weighed: _weighed,
      felt: _felt,
      wettedAt: _wetted,
      faults: _faults,
      measured: _measured,
      ...c
    },
    i,
  ) => ({
    ...c,
    ...(c.finishedAt === undefined && dryingDates(run, state, state.casts[i]!)),
    id: cast.id,
    label: cast.label,
    mould: cast.mould.name,
    mouldId: cast.mould.id,
    material: cast.mould.material,
    took: took(cast.batch, cast.mould.volume.value, c.defects.includes('short')),
    powder: powderClass(run.plan.classId).name,
    ratio: state.batches[cast.batch]?.ratio ?? run.ratio.value,
    endUse: run.plan.endUse,
    readyWord: use.dryWord,
  }))
}

/** What a cast needs next; the shelf is ordered by it. */
export type CastNeed = 'open-now' | 'open-late' | 'setting' | 'judge' | 'ready-now' | 'drying' | 'kept-damp' | 'none'

/** @param now on the workshop's clock. A cast is late an hour past the end of its opening time. */
export function needOf(cast: CastSummary, now: Instant): CastNeed {
  switch (cast.status) {
    case 'waiting':
    case 'finished': return 'none'
    case 'setting':
      if (cast.openFrom === undefined || now < cast.openFrom) return 'setting'
      return now > cast.openTo! + 3_600_000 ? 'open-late' : 'open-now'
    case 'opened': return 'judge'
    case 'judged':
      if (cast.drying?.notHere) return 'drying'
      if (cast.readyFrom === undefined) return 'kept-damp'
      return now >= cast.readyTo! ? 'ready-now' : 'drying'
  }
}
