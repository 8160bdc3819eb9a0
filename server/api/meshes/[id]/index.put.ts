import { beginMesh } from '../../../store/meshes'
import { DONE, found, serve } from '../../../route'

/** Begins to receive a model for a mould. */
export default serve('PUT meshes/:id', async ({ scope, params, body }) => {
  found(await beginMesh(scope, params.id, body), 'This mould is not in the library any more.')
  return DONE
})
