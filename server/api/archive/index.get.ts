import { finished } from 'node:stream'
import { setResponseHeaders } from 'h3'
import { wordsOf } from '~core/logbook/tallies'
import { packedArchive } from '../../archive/packed'
import { serve } from '../../route'

/** The whole workshop as one file. Owners only: it holds everything that anybody wrote. */
export default serve('GET archive', async ({ event, db, person }) => {
  const gone = new AbortController()
  finished(event.node.res, () => gone.abort())
  const packed = await packedArchive(db, person.workshopId, gone.signal, person)
  if (!packed) return undefined
  const name = wordsOf(person.workshopName).join('-') || 'workshop'
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'content-length': packed.bytes,
    'content-disposition': `attachment; filename="${encodeURIComponent(name)}-${
      new Date().toISOString().slice(0, 10)
    }.zip"`,
    'cache-control': 'no-store',
    'vary': 'cookie',
  })
  // Broken off, its file goes too.
  finished(event.node.res, () => packed.contents.destroy())
  return packed.contents
})
