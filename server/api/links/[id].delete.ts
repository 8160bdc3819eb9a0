import { announce } from '../../store/announce'
import { dropLink } from '../../store/links'
import { DONE, found, serve } from '../../route'

export default serve('DELETE links/:id', async ({ scope, db, params }) => {
  found(await dropLink(scope, params.id), 'This link was taken back already.')
  // Displays that stand open ask again, and find that they may not any more.
  await announce(db, scope.workshopId, { what: 'people' })
  return DONE
})
