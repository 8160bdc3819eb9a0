import { setResponseHeader } from 'h3'
import { meshPart } from '../../../../store/meshes'
import { found, serve } from '../../../../route'

/** Gives one part of a model back, as bytes and nothing that a browser would show. */
export default serve('GET meshes/:id/parts/:part', async ({ event, scope, params: { id, part } }) => {
  const data = found(await meshPart(scope, id, part), 'This part of the model is not here.')
  setResponseHeader(event, 'content-type', 'application/octet-stream')
  setResponseHeader(event, 'x-content-type-options', 'nosniff')
  return data
})
