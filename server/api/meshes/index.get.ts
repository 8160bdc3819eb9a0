import { meshOfMould } from '../../store/meshes'
import { found, serve } from '../../route'

/** The model a mould has. */
export default serve('GET meshes', async ({ scope, query }) => found(await meshOfMould(scope, query.mould), 'This mould has no model yet.'))
