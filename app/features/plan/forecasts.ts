import type { Late } from '~core/plan/late'
import type { Forecast, Moments, MomentsInput } from '~core/setting/moments'
import type { ForecastWork } from '~/workers/forecast.worker'
import type { Frozen } from '~core/plan/run'
import type { Plan, PlanWorld } from '~core/plan/types'
import { oneAtATime } from '~/workers/one-at-a-time'

const make = () => new Worker(new URL('../../workers/forecast.worker.ts', import.meta.url), { type: 'module' })
const forecasts = oneAtATime<ForecastWork>(make)
const others = oneAtATime<ForecastWork>(make)
/** A pour that is being begun is not ended by a newer forecast. */
const freezes = oneAtATime<ForecastWork>(make)

/**
 * Moments and outcome with their ranges. A newer question ends an older one that is still being worked on; that one
 * answers undefined.
 */
export function forecast(inputs: readonly MomentsInput[]): Promise<readonly Forecast[] | undefined> {
  const plain = JSON.parse(JSON.stringify(inputs)) as readonly MomentsInput[]
  return forecasts.ask(work => work.forecast(plain))
}

/** What is to be said of pouring late, and what would help. */
export async function late(plan: Plan, world: PlanWorld, pourBy: Moments['pourBy']): Promise<Late | undefined> {
  const plain = JSON.parse(JSON.stringify({ plan, world })) as { readonly plan: Plan, readonly world: PlanWorld }
  return others.ask(async work => await work.late(plain.plan, plain.world, pourBy))
}

/** Freezes a plan for the bench, as the server would; undefined when it could not be worked out. */
export function freeze(plan: Plan, world: PlanWorld): Promise<Frozen | undefined> {
  const plain = JSON.parse(JSON.stringify({ plan, world })) as { readonly plan: Plan, readonly world: PlanWorld }
  return freezes.ask<Frozen>(work => work.freeze(plain.plan, plain.world) as Promise<Frozen>)
}
