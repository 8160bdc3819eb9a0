import { z } from '~shared/zod'
import { photosOfMould } from '../../db/photos'
import { route } from '../../route'

/** The photos of a mould, without their pictures. */
export default route('viewer', { query: z.object({ mould: z.uuid() }) }, async ({ scope, query }) => photosOfMould(scope, query.mould))
