import { z } from '~contract/zod'
import { meshDoneSchema } from '~contract/mesh'
import { announce } from '../../../store/announce'
import { finishMesh } from '../../../store/meshes'
import { found, route } from '../../../route'

/** All parts were sent: the model is checked and becomes its mould's. */
export default route(
  'member',
  { params: z.object({ id: z.uuid() }), body: meshDoneSchema },
  async ({ scope, db, params, body }) => {
    const kept = found(
      await finishMesh(scope, params.id, body.sha256),
      'This model is not being received any more; send it from the beginning.',
    )
    await announce(db, scope.workshopId, { what: 'library' })
    return kept
  },
)
