import { readRawBody } from 'h3'
import { z } from '~contract/zod'
import { MOST_PARTS, PART_BYTES } from '~contract/mesh'
import { putPart } from '../../../../store/meshes'
import { found, refuse, route } from '../../../../route'

const params = z.object({ id: z.uuid(), part: z.coerce.number().int().min(0).max(MOST_PARTS - 1) })

/** Takes one part of a model, as it is. */
export default route('member', { params }, async ({ event, scope, params: { id, part } }) => {
  const data = await readRawBody(event, false)
  if (!data || data.length === 0 || data.length > PART_BYTES)
    throw refuse(400, `A part has between 1 and ${PART_BYTES} bytes.`)
  found(
    await putPart(scope, id, part, Buffer.from(data)),
    'This model is not being received any more; send it from the beginning.',
  )
  return { ok: true }
})
