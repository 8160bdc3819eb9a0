import { announce } from '../../../store/announce'
import { dropPhoto } from '../../../store/photos'
import { DONE, found, serve } from '../../../route'

export default serve('DELETE photos/:id', async ({ scope, db, params }) => {
  found(await dropPhoto(scope, params.id), 'This photo is not here any more.')
  await announce(db, scope.workshopId, { what: 'library' })
  return DONE
})
