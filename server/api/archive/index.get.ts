import { finished } from 'node:stream'
import { setResponseHeaders } from 'h3'
import { wordsOf } from '~core/logbook/tallies'
import { archiveOf } from '../../archive/write'
import { serve } from '../../route'

/** The whole workshop as one file. Owners only: it holds everything that anybody wrote. */
export default serve('GET archive', async ({ event, db, person }) => {
  const name = wordsOf(person.workshopName).join('-') || 'workshop'
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'content-disposition': `attachment; filename="${encodeURIComponent(name)}-${
      new Date().toISOString().slice(0, 10)
    }.zip"`,
    'cache-control': 'no-store',
    'vary': 'cookie',
  })
  const archive = archiveOf(db, person.workshopId)
  // A download that is broken off must let go of its snapshot; it may be gone before it began.
  finished(event.node.res, () => archive.destroy())
  return archive
})
