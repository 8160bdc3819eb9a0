import type { DoingId, Look } from '~contract/classroom'
import type { Practising } from './practising'

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
