import { z } from '~contract/zod'
import { meshSchema } from '~contract/mesh'
import { beginMesh } from '../../../store/meshes'
import { found, route } from '../../../route'

/** Begins to receive a model for a mould. */
export default route(
  'member',
  { params: z.object({ id: z.uuid() }), body: meshSchema },
  async ({ scope, params, body }) => {
    found(await beginMesh(scope, params.id, body), 'This mould is not in the library any more.')
    return { ok: true }
  },
)
