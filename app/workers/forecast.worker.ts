import { expose } from 'comlink'
import { pourLate, type Late } from '~core/plan/late'
import { freezeRun, type Frozen } from '~core/plan/run'
import type { Plan, PlanWorld } from '~core/plan/types'
import { forecast, type Forecast, type Moments, type MomentsInput } from '~core/setting/moments'

/** Ranges take tens of milliseconds: worked out beside the page so that typing stays smooth. */
const work = {
  freeze: (plan: Plan, world: PlanWorld): Frozen => freezeRun(plan, world),
  late: (plan: Plan, world: PlanWorld, pourBy: Moments['pourBy']): Late | undefined => pourLate(plan, world, pourBy),
  forecast: (inputs: readonly MomentsInput[]): readonly Forecast[] => inputs.map(i => forecast(i)),
}
export type ForecastWork = typeof work
expose(work)
