import { z } from '~shared/zod'
import { announce } from '../../db/announce'
import { dropLink } from '../../db/links'
import { found, route } from '../../route'

export default route('owner', { params: z.object({ id: z.uuid() }) }, async ({ scope, db, params }) => {
  found(await dropLink(scope, params.id), 'This link was taken back already.')
  // Displays that stand open ask again, and find that they may not any more.
  await announce(db, scope.workshopId, { what: 'people' })
  return { ok: true }
})
