import { readRawBody } from 'h3'
import { PHOTO_BYTES } from '~contract/photo'
import { announce } from '../../../store/announce'
import { keepPhoto } from '../../../store/photos'
import { encodeAnew } from '../../../photos/anew'
import { found, refuse, serve } from '../../../route'

/** Takes a photo of a mould or a cast: a JPEG, of which only the picture is kept, turned and encoded anew. */
export default serve('PUT photos/:id', async ({ event, scope, db, params, query }) => {
  const body = await readRawBody(event, false)
  if (!body || body.length === 0 || body.length > PHOTO_BYTES) throw refuse(
    400,
    `A photo has between 1 and ${PHOTO_BYTES} bytes here; make it smaller.`,
  )
  const photo = await encodeAnew(body)
  if (!photo) throw refuse(400, 'This is no whole JPEG photo.')
  const kept = await keepPhoto(scope, params.id, query, query.caption, photo)
  found(
    kept,
    'mould' in query ? 'This mould is not in the library any more.' : 'There is no such cast in this workshop.',
  )
  await announce(db, scope.workshopId, { what: 'library' })
  return { id: params.id, width: photo.width, height: photo.height }
})
