import { z } from '~contract/zod'
import { LIBRARY_KINDS } from '~contract/library'
import { announce } from '../../../store/announce'
import { archiveItem } from '../../../store/library'
import { found, route } from '../../../route'

export default route(
  'member',
  { params: z.object({ kind: z.enum(LIBRARY_KINDS), id: z.uuid() }) },
  async ({ scope, db, params }) => {
    found(await archiveItem(scope, params.kind, params.id), 'That is not in the library any more.')
    await announce(db, scope.workshopId, { what: 'library' })
    return { ok: true }
  },
)
