import { z } from '~shared/zod'
import { announce } from '../../../db/announce'
import { archivePlan } from '../../../db/library'
import { found, route } from '../../../route'

export default route('member', { params: z.object({ id: z.uuid() }) }, async ({ scope, db, params }) => {
  found(await archivePlan(scope, params.id), 'That plan is already gone.')
  await announce(db, scope.workshopId, { what: 'plans' })
  return { ok: true }
})
