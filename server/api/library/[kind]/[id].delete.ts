import { announce } from '../../../store/announce'
import { archiveItem } from '../../../store/library'
import { DONE, found, serve } from '../../../route'

export default serve('DELETE library/:kind/:id', async ({ scope, db, params }) => {
  found(await archiveItem(scope, params.kind, params.id), 'That is not in the library any more.')
  await announce(db, scope.workshopId, { what: 'library' })
  return DONE
})
