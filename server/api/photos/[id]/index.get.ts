import { setResponseHeaders } from 'h3'
import { photoData } from '../../../store/photos'
import { found, serve } from '../../../route'

/** One photo. It never changes, so the browser may keep it, for whoever is signed in as they are now. */
export default serve('GET photos/:id', async ({ event, scope, params }) => {
  const photo = found(await photoData(scope, params.id), 'This photo is not here any more.')
  setResponseHeaders(event, {
    'content-type': 'image/jpeg',
    'x-content-type-options': 'nosniff',
    'cache-control': 'private, max-age=31536000, immutable',
    'vary': 'cookie',
    'etag': `"${photo.sha256}"`,
  })
  return photo.data
})
