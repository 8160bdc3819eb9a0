import { announce } from '../../../store/announce'
import { finishMesh } from '../../../store/meshes'
import { found, serve } from '../../../route'

/** All parts were sent: the model is checked and becomes its mould's. */
export default serve('POST meshes/:id/done', async ({ scope, db, params, body }) => {
  const kept = found(
    await finishMesh(scope, params.id, body.sha256),
    'This model is not being received any more; send it from the beginning.',
  )
  await announce(db, scope.workshopId, { what: 'library' })
  return kept
})
