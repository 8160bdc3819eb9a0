import type { Estimate, Seconds, WaterRatio } from '../units/quantity'
import { endUse } from '../gypsum/end-use'
import { factsOf, powderClass, type PowderClass, type PowderFacts } from '../gypsum/powders'
import { expectedDrying } from '../drying/expected'
import { forecasting, MODEL_VERSION, type Moments } from '../setting/moments'
import { largestOf, momentsInput } from './moments-input'
import { workOutPlan } from './plan'
import type { Problem } from './problems'
import type { Batch, MouldFacts, Plan, PlanWorld } from './types'
import { castSize, finishesCasts } from './batches/coats'
import { plannedStanding } from './standing'
import { batchSteps, type Step } from './stages'

/**
 * A plan as it was when it was taken to the bench, with everything that was worked out from it; never changed
 * afterwards.
 */
export interface FrozenRun {
  readonly schema: 2
  readonly modelVersion: string
  /** Of its class of powder, as they were known then. */
  readonly powder: PowderFacts
  readonly plan: Plan
  readonly world: PlanWorld
  readonly ratio: Estimate<WaterRatio>
  readonly batches: readonly Batch[]
  /** By mould id. */
  readonly moments: Readonly<Record<string, Moments>>
  /**
   * Drying after opening until the piece is ready for its end use, by mould id; absent when it is never dried, or not
   * where it is meant to stand.
   */
  readonly drying: Readonly<Record<string, Estimate<Seconds>>>
  /** It comes from somebody's table, in which only the day is told: no time of day in it is one. */
  readonly daysOnly?: true
}

/** The powder of a run as it was known when it was frozen, by the name that its class has now. */
export function powderOf({ plan, powder }: Pick<FrozenRun, 'plan' | 'powder'>): PowderClass {
  return { ...powderClass(plan.classId), ...powder }
}

export interface RunCast {
  /** Stable within the run: `batch.position`, both from 1. */
  readonly id: string
  readonly batch: number
  readonly mould: MouldFacts
  readonly label: string
}

export interface RunStep extends Step { readonly batch: number }

export type Frozen = { readonly ok: true, readonly run: FrozenRun } | {
  readonly ok: false
  readonly problems: readonly Problem[]
}

/** Freezes a plan for the bench. @returns the run, or the problems that stand in the way. */
export function freezeRun(plan: Plan, world: PlanWorld): Frozen {
  const work = freezing(plan, world)
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
  }
}

/** The same in steps of about a millisecond, for a server that has other people to answer in between. */
export function* freezing(plan: Plan, world: PlanWorld): Generator<undefined, Frozen> {
  const result = workOutPlan(plan, world)
  const refused = result.problems.filter(p => p.severity === 'refuse')
  if (refused.length > 0 || result.batches.length === 0) return { ok: false, problems: refused }
  const used = new Map(result.batches.flatMap(b => b.fills.map(f => [f.mould.id, f.mould])))
  const moments: Record<string, Moments> = {}
  const drying: Record<string, Estimate<Seconds>> = {}
  const { dryTo } = endUse(plan.endUse), standing = plannedStanding(plan, world.day)
  const stirFrom = Math.max(...result.batches.map(b => b.steps.soaked.value))
  // Moulds that are alike to the heat share one forecast.
  const known = new Map<string, Moments>()
  for (const [id, mould] of used) {
    const input = momentsInput(plan, result.ratio, mould, stirFrom, world, largestOf(result.batches))
    const key = [mould.material, mould.wall, mould.section, mould.fragile, mould.volume.value].join()
    moments[id] = known.get(key) ?? (yield* forecasting(input)).moments
    known.set(key, moments[id])
    if (dryTo !== undefined) {
      const { mix } = result.batches[0]!
      const { notHere, ...expected } = expectedDrying(mix, castSize(plan, mould), dryTo, standing)
      if (!notHere) drying[id] = expected
    }
  }
  return {
    ok: true,
    run: {
      schema: 2,
      modelVersion: MODEL_VERSION,
      powder: factsOf(result.powder),
      plan,
      world: { ...world, moulds: [...used.values()] },
      ratio: result.ratio,
      batches: result.batches,
      moments,
      drying,
    },
  }
}

/** Every cast of a run, in the order of filling. */
export function castsOf(run: FrozenRun): readonly RunCast[] {
  const counts = new Map<string, number>()
  for (const f of run.batches.filter(finishesCasts).flatMap(b => b.fills))
    counts.set(f.mould.id, (counts.get(f.mould.id) ?? 0) + f.copies)
  return run.batches.flatMap((batch, b) => {
    let position = 0
    if (!finishesCasts(batch)) return []
    return batch.fills.flatMap(fill => Array.from({ length: fill.copies }, (_, i): RunCast => ({
      id: `${b + 1}.${++position}`, batch: b, mould: fill.mould,
      label: counts.get(fill.mould.id) === 1 ? fill.mould.name : `${fill.mould.name} ${fill.first + i}`,
    })))
  })
}

/** How many casts each batch gives: what every name of a cast stands on. */
export function castsPerBatch(run: FrozenRun): readonly number[] {
  const casts = castsOf(run)
  return run.batches.map((_, b) => casts.filter(c => c.batch === b).length)
}

/** A mould by what it is called, and how many casts of it. */
export interface CastCount { readonly id?: string, readonly name: string, readonly count: number }
/** How many casts of each mould. Moulds of one name stand together, as the first of them. */
export function castCounts(run: FrozenRun): readonly CastCount[] {
  const counts = new Map<string, CastCount>()
  for (const { mould: { id, name }, copies } of run.batches.filter(finishesCasts).flatMap(b => b.fills)) {
    const before = counts.get(name)
    counts.set(name, { id: before?.id ?? id, name, count: (before?.count ?? 0) + copies })
  }
  return [...counts.values()]
}

/** The steps of the whole run: readying once, each batch in turn, setting at the end. */
export function stepsOf(run: FrozenRun): readonly RunStep[] {
  const last = run.batches.length - 1
  return run.batches.flatMap(({ coat }, batch) =>
    batchSteps(run.plan.school, batch === 0)
      .filter(step => step.stage !== 'set' || batch === last)
      .map((step): RunStep => ({
        ...step,
        batch,
        ...coat && run.plan.coats && { coat: { ...coat, way: run.plan.coats.way } },
        ...step.stage === 'fill' && run.plan.bubbles && { bubbles: run.plan.bubbles },
        ...step.stage === 'clean-up' && batch < last && { next: batch + 2 },
      })),
  )
}
