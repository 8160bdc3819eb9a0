import { z } from '~contract/zod'
import { savePlanSchema } from '~contract/plan'
import { announce } from '../../../store/announce'
import { savePlan, Stale } from '../../../store/library'
import { refuse, route } from '../../../route'

export default route(
  'member',
  { params: z.object({ id: z.uuid() }), body: savePlanSchema },
  async ({ scope, db, params, body }) => {
    const saved = await savePlan(scope, params.id, body.plan, body.revision).catch((error) => {
      throw error instanceof Stale
        ? refuse(409, 'This plan was changed on another device meanwhile. Open it again to see that version.')
        : error
    })
    await announce(db, scope.workshopId, { what: 'plans' })
    return saved
  },
)
