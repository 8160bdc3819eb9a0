import { z } from '~contract/zod'
import { savePlanSchema } from '~contract/plan'
import { announce } from '../../../store/announce'
import { savePlan } from '../../../store/library'
import { route } from '../../../route'

export default route(
  'member',
  { params: z.object({ id: z.uuid() }), body: savePlanSchema },
  async ({ scope, db, params, body }) => {
    const saved = await savePlan(scope, params.id, body.plan, body.revision)
    await announce(db, scope.workshopId, { what: 'plans' })
    return saved
  },
)
