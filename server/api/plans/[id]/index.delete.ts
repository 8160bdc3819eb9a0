import { z } from '~contract/zod'
import { announce } from '../../../store/announce'
import { archivePlan } from '../../../store/library'
import { found, route } from '../../../route'

export default route('member', { params: z.object({ id: z.uuid() }) }, async ({ scope, db, params }) => {
  found(await archivePlan(scope, params.id), 'That plan is already gone.')
  await announce(db, scope.workshopId, { what: 'plans' })
  return { ok: true }
})
