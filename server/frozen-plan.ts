import type { Plan } from '~core/plan/types'
import type { Problem } from '~core/plan/problems'
import { freezing, type FrozenRun } from '~core/plan/run'
import { problemWords } from '~core/plan/words'
import { savedPlan, worldOf } from './store/library'
import type { Scope } from './store/scope'
import { frozenBetweenOthers } from './freezing'
import { found, refuse } from './route'

/** What keeps a plan from being poured, as an answer: the first problem, at its field. */
export function notYet([first]: readonly Problem[]): Error {
  return refuse(422, first ? problemWords(first) : 'This plan cannot be poured yet.', first?.field)
}

/** A plan of the workshop as it would be poured now. @throws a refusal when there is none, or it cannot be poured. */
export async function frozenPlan(
  scope: Scope,
  id: string,
  now: number,
): Promise<{ readonly plan: Plan, readonly run: FrozenRun }> {
  const plan = found(await savedPlan(scope, id), 'There is no such plan in this workshop.')
  const frozen = await frozenBetweenOthers(freezing(plan, await worldOf(scope, plan, now)))
  if (!frozen.ok) throw notYet(frozen.problems)
  return { plan, run: frozen.run }
}
