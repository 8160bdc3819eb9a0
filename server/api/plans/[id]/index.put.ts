import { announce } from '../../../store/announce'
import { savePlan } from '../../../store/library'
import { serve } from '../../../route'

export default serve('PUT plans/:id', async ({ scope, db, params, body }) => {
  const saved = await savePlan(scope, params.id, body.plan, body.revision)
  await announce(db, scope.workshopId, { what: 'plans' })
  return saved
})
