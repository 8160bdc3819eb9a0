import { z } from '~contract/zod'
import { meshOfMould } from '../../store/meshes'
import { found, route } from '../../route'

/** The model a mould has. */
export default route(
  'viewer',
  { query: z.object({ mould: z.uuid() }) },
  async ({ scope, query }) => found(await meshOfMould(scope, query.mould), 'This mould has no model yet.'),
)
