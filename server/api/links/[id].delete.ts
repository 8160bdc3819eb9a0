import { z } from '~contract/zod'
import { announce } from '../../store/announce'
import { dropLink } from '../../store/links'
import { found, route } from '../../route'

export default route('owner', { params: z.object({ id: z.uuid() }) }, async ({ scope, db, params }) => {
  found(await dropLink(scope, params.id), 'This link was taken back already.')
  // Displays that stand open ask again, and find that they may not any more.
  await announce(db, scope.workshopId, { what: 'people' })
  return { ok: true }
})
