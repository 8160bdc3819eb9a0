import { z } from '~contract/zod'
import { meshDoneSchema } from '~contract/mesh'
import { announce } from '../../../store/announce'
import { finishMesh, NotWhole } from '../../../store/meshes'
import { found, refuse, route } from '../../../route'

/** All parts were sent: the model is checked and becomes its mould's. */
export default route(
  'member',
  { params: z.object({ id: z.uuid() }), body: meshDoneSchema },
  async ({ scope, db, params, body }) => {
    const kept = found(
      await finishMesh(scope, params.id, body.sha256).catch((error) => {
        throw error instanceof NotWhole ? refuse(409, 'The model did not arrive whole. Send it again.') : error
      }),
      'This model is not being received any more; send it from the beginning.',
    )
    await announce(db, scope.workshopId, { what: 'library' })
    return kept
  },
)
