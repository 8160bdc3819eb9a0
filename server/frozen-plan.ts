import type { Plan } from '~core/plan/plan'
import { freezing, type FrozenRun } from '~core/plan/run'
import { savedPlan, worldOf } from './store/library'
import type { Scope } from './store/scope'
import { frozenBetweenOthers } from './freezing'
import { found, refuse } from './route'

/** A plan of the workshop as it would be poured now. @throws a refusal when there is none, or it cannot be poured. */
export async function frozenPlan(scope: Scope, id: string): Promise<{ readonly plan: Plan, readonly run: FrozenRun }> {
  const plan = found(await savedPlan(scope, id), 'There is no such plan in this workshop.')
  const frozen = await frozenBetweenOthers(freezing(plan, await worldOf(scope, plan)))
  if (!frozen.ok)
    throw refuse(422, frozen.problems[0]?.sentence ?? 'This plan cannot be poured yet.', frozen.problems[0]?.field)
  return { plan, run: frozen.run }
}
