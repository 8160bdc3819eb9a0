import type { DoingId, Look } from '~contract/classroom'
import { scenario, type Bowl, type ScenarioId } from '~core/practice/scenarios'
import { SCENARIO_WORDS } from '~core/practice/words'
import type { Practising } from './practising'

/** A scenario as the bench of practice takes it. */
export function givenOf(id: ScenarioId): { bowl: Bowl, name: string, job: string } {
  const { setup, expert } = scenario(id), { name, job } = SCENARIO_WORDS[id]
  return { bowl: { setup, expert }, name, job }
}

/** Where somebody is in their bucket, as a teacher sees it, and why they should come and look. */
export interface Where { readonly at: DoingId, readonly look?: Look }

function stageOf(of: Practising): DoingId {
  if (of.told.value) return 'done'
  if (of.poured.value) return of.opened.value ? 'opened' : 'set'
  if (of.isStirred.value) return 'stir'
  if (of.bucket.value.strewn > 0) return of.bucket.value.strewn >= of.setup.plan.powder ? 'soak' : 'sift'
  return of.bucket.value.water > 0 ? 'weigh' : 'ready'
}
/** A mix that no longer flows while nothing was poured. */
export function whereIn(of: Practising): Where {
  const at = stageOf(of), { flow } = of.felt.value, stiff = at === 'stir' && (flow === 'stiff' || flow === 'matt')
  return { at, ...stiff && { look: 'stiff' } }
}
