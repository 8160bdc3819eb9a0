import { announce } from '../../../store/announce'
import { archivePlan } from '../../../store/library'
import { DONE, found, serve } from '../../../route'

export default serve('DELETE plans/:id', async ({ scope, db, params }) => {
  found(await archivePlan(scope, params.id), 'That plan is already gone.')
  await announce(db, scope.workshopId, { what: 'plans' })
  return DONE
})
