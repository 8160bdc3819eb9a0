import { readRawBody } from 'h3'
import { PART_BYTES } from '~contract/mesh'
import { putPart } from '../../../../store/meshes'
import { DONE, found, refuse, serve } from '../../../../route'

/** Takes one part of a model, as it is. */
export default serve('PUT meshes/:id/parts/:part', async ({ event, scope, params: { id, part } }) => {
  const data = await readRawBody(event, false)
  if (!data || data.length === 0 || data.length > PART_BYTES)
    throw refuse(400, `A part has between 1 and ${PART_BYTES} bytes.`)
  found(
    await putPart(scope, id, part, Buffer.from(data)),
    'This model is not being received any more; send it from the beginning.',
  )
  return DONE
})
