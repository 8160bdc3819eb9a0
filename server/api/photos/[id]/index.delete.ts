import { z } from '~contract/zod'
import { announce } from '../../../store/announce'
import { dropPhoto } from '../../../store/photos'
import { found, route } from '../../../route'

export default route('member', { params: z.object({ id: z.uuid() }) }, async ({ scope, db, params }) => {
  found(await dropPhoto(scope, params.id), 'This photo is not here any more.')
  await announce(db, scope.workshopId, { what: 'library' })
  return { ok: true }
})
