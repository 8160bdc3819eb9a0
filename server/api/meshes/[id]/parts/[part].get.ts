import { setResponseHeader } from 'h3'
import { z } from '~contract/zod'
import { MOST_PARTS } from '~contract/mesh'
import { meshPart } from '../../../../store/meshes'
import { found, route } from '../../../../route'

const params = z.object({ id: z.uuid(), part: z.coerce.number().int().min(0).max(MOST_PARTS - 1) })

/** Gives one part of a model back, as bytes and nothing that a browser would show. */
export default route('viewer', { params }, async ({ event, scope, params: { id, part } }) => {
  const data = found(await meshPart(scope, id, part), 'This part of the model is not here.')
  setResponseHeader(event, 'content-type', 'application/octet-stream')
  setResponseHeader(event, 'x-content-type-options', 'nosniff')
  return data
})
